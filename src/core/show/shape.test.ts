import { describe, expect, it } from '@jest/globals';
import { applyEdit } from './edit';
import { assetId, layerId, showId, slideId } from './ids';
import type { Layer } from './layer';
import { blankSlide } from './new-slide';
import { frameOfShape, inShape, isShapeName, shapeName } from './shape';
import { emptyShow, type Show } from './show';

const framing = { x: 0.4, y: 0.5, width: 0.3, height: 0.9, turnDegrees: 0 };
const layers: readonly Layer[] = [
  { kind: 'picture', id: layerId('p'), assetId: assetId('a'.repeat(64)), move: { kind: 'automatic' } },
  {
    kind: 'group',
    id: layerId('g'),
    layers: [{ kind: 'words', id: layerId('w'), title: 'Dusk', subtitle: '', place: 'left' }],
  },
];
const show: Show = {
  ...emptyShow(showId('s'), ''),
  slides: [{ ...blankSlide(3000, '#000000', () => 'one'), layers }, { ...blankSlide(3000, '#000000', () => 'two') }],
};
const on = (id: string) => ({ slideId: slideId('one'), layerId: layerId(id) });
const corrected = () => {
  const result = applyEdit(show, {
    kind: 'set-shape',
    corrections: [
      { ...on('p'), shape: '9:16', correction: { crop: framing, move: { kind: 'still' } } },
      { ...on('p'), shape: '1:1', correction: { move: { kind: 'still' } } },
      { ...on('w'), shape: '9:16', correction: { place: 'bottom' } },
    ],
  });
  if (!result.ok) throw new Error(result.sentence);
  return result;
};

describe('a show in another shape', () => {
  it('has what was corrected for it, in groups too, and is as it was in its own', () => {
    const after = corrected().show;
    const upright = inShape(after, '9:16');
    expect(upright.frame).toMatchObject({ widthPx: 1080, heightPx: 1920 });
    expect(upright.slides[0]!.layers).toMatchObject([
      { crop: framing, move: { kind: 'still' } },
      { layers: [{ place: 'bottom' }] },
    ]);
    expect(upright.slides[1]).toBe(after.slides[1]);
    expect(inShape(after, '1:1').slides[0]!.layers).toMatchObject([
      { move: { kind: 'still' } },
      { layers: [{ place: 'left' }] },
    ]);
    expect(inShape(after, '1:1').slides[0]!.layers[0]).not.toHaveProperty('crop');
    expect(inShape(after, '4:3').slides).toEqual(after.slides);
    expect(inShape(after, '32:18')).toBe(after);
  });
  it('is corrected, undone and taken back layer by layer', () => {
    const { show: after, inverse } = corrected();
    const back = applyEdit(after, inverse);
    expect(back.ok && back.show).toEqual(show);
    const less = applyEdit(after, { kind: 'set-shape', corrections: [{ ...on('p'), shape: '1:1', correction: null }] });
    expect(less.ok && Object.keys(less.show.slides[0]!.layers[0]!.shapes!)).toEqual(['9:16']);
  });
  it.each([
    ['p', { place: 'top' as const }, /only words/],
    ['w', { crop: framing }, /only pictures and clips/],
  ])('is not corrected by what %s cannot have', (id, correction, sentence) => {
    const result = applyEdit(show, { kind: 'set-shape', corrections: [{ ...on(id), shape: '9:16', correction }] });
    expect(result).toMatchObject({ ok: false, sentence: expect.stringMatching(sentence) });
  });
});

describe('names of shapes', () => {
  it.each([
    [1920, 1080, '16:9'],
    [1080, 1920, '9:16'],
    [2048, 1536, '4:3'],
    [1000, 1000, '1:1'],
  ])('%d × %d is %s', (widthPx, heightPx, name) => {
    expect(shapeName({ widthPx, heightPx })).toBe(name);
  });
  it.each([
    ['9:16', 1080, 1920],
    ['16:9', 1920, 1080],
    ['1:1', 1080, 1080],
    ['21:9', 2520, 1080],
    ['4:5', 1080, 1350],
  ])('%s is as short as the show is, and even', (name, widthPx, heightPx) => {
    expect(frameOfShape(name, show.frame)).toEqual({ ...show.frame, widthPx, heightPx });
  });
  it.each(['9:16', '1:1', '4:1'])('%s is one', (name) => expect(isShapeName(name)).toBe(true));
  it.each(['', '9', '0:1', '1:0', '9:16:2', '-9:16', '5:1', 'a:b', '9.5:16'])('%j is none', (name) =>
    expect(isShapeName(name)).toBe(false),
  );
});
