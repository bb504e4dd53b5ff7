import { describe, expect, it } from '@jest/globals';
import type { AssetFacts, PictureFacts } from '../show/asset-facts';
import { assetId, layerId, showId, slideId, type AssetId } from '../show/ids';
import type { PictureLayer } from '../show/layer';
import { emptyShow, type Show } from '../show/show';
import { slideSpans } from '../timing/slide-span';
import { planMoves } from './plan-moves';
import { sharpUpTo, softnessOfSlide, softPlaces } from './softness';

const picture = (widthPx: number, heightPx: number): PictureFacts => ({
  kind: 'picture',
  widthPx,
  heightPx,
  hasTransparency: false,
  takenAt: null,
  camera: null,
  brightness: 0.5,
});
const [large, small] = [assetId('a'.repeat(64)), assetId('b'.repeat(64))];
const facts = new Map<AssetId, AssetFacts>([
  [large, picture(6000, 4000)],
  [small, picture(500, 333)],
]);
const framing = (width: number) => ({
  x: 0.5,
  y: 0.5,
  width,
  height: (width * 1080 * 6000) / (1920 * 4000),
  turnDegrees: 0,
});

function showOf(...layers: Partial<PictureLayer>[]): Show {
  return {
    ...emptyShow(showId('s'), 'Regatta'),
    slides: layers.map((layer, index) => ({
      id: slideId(`s${index}`),
      lengthMs: 5000,
      transition: { kind: 'cut' },
      backing: { kind: 'automatic' },
      sounds: [],
      layers: [{ kind: 'picture', id: layerId(`p${index}`), assetId: large, move: { kind: 'automatic' }, ...layer }],
    })),
  };
}

function places(...layers: Partial<PictureLayer>[]) {
  const show = showOf(...layers);
  const spans = slideSpans(show.slides);
  return softPlaces(show, facts, planMoves(show, facts, spans), spans);
}

describe('softPlaces', () => {
  it('finds nothing where moves are chosen by themselves, however small the picture', () =>
    expect(places({}, { assetId: small }).size).toBe(0));
  it('finds the tightest framing a person set, first or last', () => {
    expect(places({ move: { kind: 'set', first: framing(0.9), last: framing(0.16) } }).get(large)).toEqual({
      layerId: 'p0',
      slideIndex: 0,
      enlargement: expect.closeTo(2, 3),
    });
    expect(
      places({ move: { kind: 'set', first: framing(0.16), last: framing(0.9) } }).get(large)?.enlargement,
    ).toBeCloseTo(2, 3);
  });
  it('takes the worst of several places', () => {
    expect(
      places(
        { move: { kind: 'set', first: framing(0.16), last: framing(0.16) } },
        { move: { kind: 'set', first: framing(0.08), last: framing(0.16) } },
      ).get(large),
    ).toMatchObject({ slideIndex: 1, enlargement: expect.closeTo(4, 3) });
  });
  it('counts the window a picture must fill, not the frame', () => {
    expect(places({ assetId: small, channels: { width: 1, height: 0.3 } }).get(small)!.enlargement).toBeGreaterThan(3);
    expect(places({ assetId: small, channels: { width: 0.2, height: 0.2 } }).size).toBe(0);
  });
});

it('sharpUpTo is the share of the frame that is filled pixel by pixel, by the side that ends first', () => {
  const { frame } = emptyShow(showId('s'), 'Regatta');
  expect([
    sharpUpTo(picture(3840, 2160), frame),
    sharpUpTo(picture(1920, 540), frame),
    sharpUpTo(picture(480, 1080), frame),
  ]).toEqual([2, 0.5, 0.25]);
});

describe('softnessOfSlide', () => {
  const softness = (...layers: Partial<PictureLayer>[]) => {
    const show = showOf(...layers);
    const spans = slideSpans(show.slides);
    return show.slides.map((slide, index) =>
      softnessOfSlide(slide, show.frame, facts, planMoves(show, facts, spans).get(slide.id)!, spans[index]!),
    );
  };
  it('tells of each slide by itself, also when a picture is softer on another', () => {
    const set = (width: number) => ({ move: { kind: 'set' as const, first: framing(width), last: framing(width) } });
    expect(softness(set(0.16), set(0.08), set(0.9), { assetId: small })).toEqual([
      expect.closeTo(2, 3),
      expect.closeTo(4, 3),
      null,
      null,
    ]);
  });
});
