import { describe, expect, it } from '@jest/globals';
import { windowId } from '../show/window-id';
import { layerId } from '../show/ids';
import { blankSlide } from '../show/new-slide';
import type { Slide } from '../show/show';
import { dealtOut, fitFor, suitsOf } from './deal-out';
import type { MountFit, Suits } from './mount';

const FRAME = { widthPx: 1920, heightPx: 1080 };

/** A fit whose windows stand beside each other, of such shapes (width over height). */
function fit(name: string, shapes: readonly number[], suits: Suits = 'any'): MountFit {
  const slide: Slide = {
    ...blankSlide(5000, '#000000', () => `${name}-slide`),
    layers: shapes.map((shape, at) => ({
      ...{ kind: 'picture', id: layerId(`w${at}`), assetId: windowId(at + 1), move: { kind: 'automatic' } },
      channels: { width: 0.2, height: (0.2 * (1920 / 1080)) / shape },
    })),
  };
  return {
    ...{ name, suits, slides: [slide], words: [] },
    windows: shapes.map((_shape, at) => ({ name: `window ${at + 1}`, takes: 'picture' })),
  };
}
const fits = [fit('one', [1.5]), fit('two', [1.5, 1.5]), fit('four', [1.5, 1.5, 0.67, 1.5])];
const deal = (count: number, more: Partial<Parameters<typeof dealtOut>[0]> = {}) =>
  dealtOut({
    ...{ fits, frame: FRAME, aspects: Array<number>(count).fill(1.5), fit: null, tooFew: 'repeat', tooMany: 'again' },
    ...more,
  });
const dealt = ({ runs }: ReturnType<typeof dealtOut>) =>
  runs.flatMap(({ filled }) => filled).filter((picture) => picture !== null);

describe('pictures dealt out to a mount', () => {
  it('all get a window, each once and in their order, however many there are', () => {
    for (let count = 1; count < 40; count += 1) {
      const { runs, left } = deal(count);
      expect(left).toEqual([]);
      const all = runs.flatMap(({ fit: { windows }, filled }) => {
        expect(filled).toHaveLength(windows.length);
        return filled;
      });
      // Of three pictures there is no fit: one comes in two and one, and none comes twice.
      expect(all).toEqual(Array.from({ length: count }, (_, at) => at));
    }
  });
  it('are as many in one run as in the next, as far as there are fits for it', () => {
    expect(deal(8).runs.map(({ fit: { name } }) => name)).toEqual(['four', 'four']);
    expect(deal(6).runs.map(({ fit: { name } }) => name)).toEqual(['two', 'four']);
    expect(
      deal(5)
        .runs.map(({ filled }) => filled.length)
        .sort(),
    ).toEqual([1, 2, 2]);
  });
  it('are shown again, or leave windows empty, where there are too few', () => {
    const wanted = { fit: 'four' } as const;
    expect(deal(3, wanted).runs.map(({ filled }) => [...filled].sort())).toEqual([[0, 0, 1, 2]]);
    const { runs } = deal(3, { ...wanted, tooFew: 'empty' });
    expect(runs[0]!.filled.filter((picture) => picture === null)).toHaveLength(1);
    expect(dealt({ runs, left: [] }).sort()).toEqual([0, 1, 2]);
  });
  it('stay slides of their own where the mount is to be laid once and holds no more', () => {
    const { runs, left } = deal(7, { tooMany: 'leave' });
    expect([runs.length, left]).toEqual([1, [4, 5, 6]]);
  });
  it('change places where each suits the other’s window much better', () => {
    // Third is the upright window, first the upright picture.
    const { runs } = deal(4, { aspects: [0.67, 1.5, 1.5, 1.5] });
    expect(runs[0]!.filled).toEqual([2, 1, 0, 3]);
    // A little is no reason to leave the order.
    expect(deal(4, { aspects: [1.3, 1.5, 1.3, 1.5] }).runs[0]!.filled).toEqual([0, 1, 2, 3]);
  });
  it('are none for a mount that takes none: it is laid once, and they stay what they are', () => {
    const words = { ...fit('words', []), windows: [] };
    const { runs, left } = deal(3, { fits: [words] });
    expect([runs, left]).toEqual([[{ fit: words, filled: [] }], [0, 1, 2]]);
  });
});

describe('the fit that suits', () => {
  const shaped = [
    fit('upright pair', [0.67, 0.67], 'upright'),
    fit('wide pair', [1.5, 1.5], 'wide'),
    fit('pair', [1, 1]),
  ];
  it.each([
    [[0.6, 0.7], 'upright pair'],
    [[1.8, 1.5], 'wide pair'],
    [[0.6, 1.8], 'pair'],
    [[1, 1], 'pair'],
  ])('pictures of shapes %p is the %s', (aspects, name) => {
    expect(fitFor(shaped, aspects).name).toBe(name);
  });
  it('holds them all where one does, and is the largest where none does', () => {
    expect(fitFor(fits, [1.5, 1.5, 1.5]).name).toBe('four');
    expect(fitFor(fits, Array<number>(9).fill(1.5)).name).toBe('four');
  });
  it.each([
    [[1.5, 1.5, 0.7], 'wide'],
    [[0.7, 0.7, 1.5], 'upright'],
    [[1, 1.1, 0.7], 'square'],
    [[1.5, 0.7], 'any'],
    [[], 'any'],
  ] as const)('says of shapes %p that most are %s', (aspects, suits) => {
    expect(suitsOf(aspects)).toBe(suits);
  });
});
