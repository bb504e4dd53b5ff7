import { describe, expect, it } from '@jest/globals';
import { lookGiven, lookOf, partsOf, type LookPart } from './copied-look';
import { applyEdit } from './edit';
import { assetId, layerId, showId, slideId } from './ids';
import type { Layer } from './layer';
import { emptyShow, type Show, type Slide } from './show';

const asset = (letter: string) => assetId(letter.repeat(64));
const picture = (id: string, more: object = {}): Layer =>
  ({ kind: 'picture', id: layerId(id), assetId: asset('a'), move: { kind: 'automatic' }, ...more }) as Layer;
const words = (id: string, more: object = {}): Layer =>
  ({ kind: 'words', id: layerId(id), title: `says ${id}`, subtitle: '', place: 'top', ...more }) as Layer;
const slide = (id: string, layers: readonly Layer[]): Slide => ({
  id: slideId(id),
  lengthMs: 5000,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  sounds: [],
  layers,
});
const move = {
  kind: 'set',
  first: { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 },
  last: { x: 0.6, y: 0.5, width: 0.7, height: 0.7, turnDegrees: 0 },
} as const;
const eyes = [{ x: 0.4, y: 0.4, radius: 0.02 }];
const show: Show = {
  ...emptyShow(showId('looks'), 'Looks'),
  slides: [
    slide('from', [
      picture('p1', {
        light: { sepia: 1, redEyes: eyes },
        edge: { feather: 0.1 },
        crop: { x: 0.5, y: 0.5, width: 0.8, height: 0.8, turnDegrees: 0 },
        move,
      }),
      words('w1', { place: 'bottom', style: { font: 'cinzel', size: 0.1 } }),
    ]),
    slide('to', [picture('p2', { light: { redEyes: eyes } }), picture('p3'), words('w2')]),
    slide('blank', []),
  ],
};
const facts = new Map([
  [
    asset('a'),
    {
      kind: 'picture' as const,
      widthPx: 6000,
      heightPx: 4000,
      hasTransparency: false,
      takenAt: null,
      camera: null,
      brightness: 0.5,
    },
  ],
]);
const given = (...parts: LookPart[]) => {
  const edit = lookGiven(show.slides.slice(1), lookOf(show.slides[0]!), new Set(parts), facts)!;
  const result = applyEdit(show, edit);
  if (!result.ok) throw new Error(result.sentence);
  expect(applyEdit(result.show, result.inverse)).toMatchObject({ ok: true, show });
  return result.show.slides[1]!.layers;
};

describe('the look of a slide', () => {
  it('is given part by part to every picture, and undone as one step', () => {
    expect(given('light', 'edge')).toMatchObject([
      { light: { sepia: 1 }, edge: { feather: 0.1 } },
      { light: { sepia: 1 } },
      {},
    ]);
    expect(given('edge')[1]).not.toHaveProperty('light');
    expect(given('crop', 'move')).toMatchObject([{ crop: { width: 0.8 }, move }, { crop: { width: 0.8 }, move }, {}]);
  });
  it('leaves what is said and what belongs to one picture where it is', () => {
    const [first, second, said] = given('light', 'words');
    expect(first).toMatchObject({ light: { sepia: 1, redEyes: eyes } });
    expect((second as { light: object }).light).toEqual({ sepia: 1 });
    expect(said).toMatchObject({ title: 'says w2', place: 'bottom', style: { font: 'cinzel', size: 0.1 } });
  });
  it('of a slide as it came puts others back as they came', () => {
    const plain = lookOf(show.slides[1]!);
    expect(plain).toMatchObject({ light: null, edge: null, crop: null, move: { kind: 'automatic' } });
    const edit = lookGiven([show.slides[0]!], plain, new Set(['light', 'edge', 'crop']), facts)!;
    const result = applyEdit(show, edit);
    const [layer] = result.ok ? result.show.slides[0]!.layers : [];
    expect(layer).not.toHaveProperty('edge');
    expect(layer).not.toHaveProperty('crop');
    expect(layer).toMatchObject({ light: { redEyes: eyes } });
  });
  it('has only the parts the slide has, and nothing to give to a blank one', () => {
    expect(partsOf(lookOf(show.slides[2]!))).toEqual([]);
    expect(lookGiven([show.slides[2]!], lookOf(show.slides[0]!), new Set(['light', 'words']), facts)).toBeNull();
  });
});
