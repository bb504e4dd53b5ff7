import { describe, expect, it } from '@jest/globals';
import { blankSlide } from '../../core/show/new-slide';
import { slideSpans } from '../../core/timing/slide-span';
import { slideId } from '../../core/show/ids';
import { BESIDE_FROM_PX, carriedWith, dropAt, placeOfDrop, rowAt, type OrderDrop } from './order-drop';
import { EVEN_ROW_PX, ORDER_PAD_PX, rowPlaces } from './row-heights';

let counted = 0;
const slides = [2000, 10_000, 4000].map((lengthMs) => blankSlide(lengthMs, '#102030', () => `s${(counted += 1)}`));
const order = slides.map((slide) => slide.id);
const even = rowPlaces(slideSpans(slides), 'even');
const row = (index: number, share: number) => ORDER_PAD_PX + (index + share) * EVEN_ROW_PX;

describe('dropAt', () => {
  it.each<[string, number, number, string, number]>([
    ['in the upper half of a row: before it', 100, row(1, 0.3), 'before', 1],
    ['in the lower half: after it', 100, row(1, 0.7), 'after', 1],
    ['above everything: before the first', 100, -50, 'before', 0],
    ['below everything: after the last', 600, row(9, 0), 'after', 2],
    ['over the words: beside the picture', BESIDE_FROM_PX + 1, row(2, 0.5), 'beside', 2],
  ])('%s', (_name, x, y, side, index) => expect(dropAt(order, even, x, y, false)).toEqual({ id: order[index], side }));
  it('a print in the middle of a picture goes beside it, near its edges between slides; a slide always between', () => {
    const sides = (isPrint: boolean) =>
      [0.1, 0.4, 0.6, 0.9].map((share) => dropAt(order, even, 260, row(1, share), isPrint)?.side);
    expect([sides(true), sides(false)]).toEqual([
      ['before', 'beside', 'beside', 'after'],
      ['before', 'before', 'after', 'after'],
    ]);
  });
  it('goes nowhere in an empty order', () => expect(dropAt([], rowPlaces([], 'even'), 0, 0, true)).toBeNull());
});

it('rowAt finds the row in the true scale, where rows differ', () => {
  const places = rowPlaces(slideSpans(slides), 'true');
  places.tops.forEach((top, index) =>
    expect([rowAt(places, top), rowAt(places, top + places.heights[index]! - 1)]).toEqual([index, index]),
  );
});

describe('where it comes to stand', () => {
  const slides = ['a', 'b', 'c', 'd'].map(slideId);
  it.each<[OrderDrop['side'], string, string, string | null]>([
    ['before', 'a', '', null],
    ['after', 'b', '', 'b'],
    ['before', 'c', '', 'b'],
    ['after', 'c', 'c', 'b'],
    ['before', 'd', 'bc', 'a'],
    ['after', 'b', 'ab', null],
    ['after', 'd', 'a', 'd'],
  ])('let go %s %s with “%s” on its way: after %s', (side, id, leaving, after) => {
    expect(placeOfDrop(slides, { id: slideId(id), side }, [...leaving])).toBe(after);
  });
  it('goes with all that is chosen when it is among that, else alone', () => {
    expect(carriedWith('b', ['a', 'b'])).toEqual(['a', 'b']);
    expect(carriedWith('c', ['a', 'b'])).toEqual(['c']);
  });
});
