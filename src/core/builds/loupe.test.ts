import { describe, expect, it } from '@jest/globals';
import { inSpace, type Matrix4 } from '../frame/matrix';
import { layerPoses, pictureToBox } from '../frame/layer-poses';
import { factsInUse } from '../motion/crop';
import { prepareShow, surroundingsOf } from '../frame/plan-frame';
import type { SlideSurroundings } from '../frame/slide-moment';
import type { FactsById, PictureFacts } from '../show/asset-facts';
import { assetId, layerId, showId, slideId } from '../show/ids';
import type { GroupLayer, Layer, PictureLayer } from '../show/layer';
import { layerIn } from '../show/pile';
import { emptyShow, type Show } from '../show/show';
import { faultOfLayers } from '../show/layer-faults';
import { faultOfLoupe, loupe, loupeNeedsMs, loupePlanOf, USUAL_LOUPE, type LoupePlan } from './loupe';

const ASSET = assetId('a'.repeat(64));
const PICTURE: PictureFacts = {
  kind: 'picture',
  widthPx: 6000,
  heightPx: 4000,
  hasTransparency: false,
  takenAt: null,
  camera: null,
  brightness: 0.5,
};
const FACTS: FactsById = new Map([[ASSET, PICTURE]]);
const FRAME = { widthPx: 1920, heightPx: 1080 };
const MOVING: PictureLayer['move'] = {
  kind: 'set',
  first: { x: 0.45, y: 0.5, width: 0.8, height: 0.675, turnDegrees: 0 },
  last: { x: 0.6, y: 0.42, width: 0.5, height: 0.421875, turnDegrees: 4 },
};
/** In a box of the picture's own shape framings have that shape too. */
const MOVING_PRINT: PictureLayer['move'] = {
  kind: 'set',
  first: { x: 0.5, y: 0.5, width: 0.9, height: 0.9, turnDegrees: 0 },
  last: { x: 0.56, y: 0.46, width: 0.6, height: 0.6, turnDegrees: -5 },
};
const PLACES = [
  [0.2, 0.3],
  [0.35, 0.6],
  [0.5, 0.4],
  [0.62, 0.55],
  [0.7, 0.35],
  [0.8, 0.6],
].map(([x, y]) => ({ x: x!, y: y! }));
const PLAN: LoupePlan = { ...USUAL_LOUPE, places: PLACES };

function on(
  picture: Partial<PictureLayer>,
  more: (around: SlideSurroundings, base: PictureLayer) => Layer[] = () => [],
) {
  const base: PictureLayer = { kind: 'picture', id: layerId('crowd'), assetId: ASSET, move: MOVING, ...picture };
  const make = (layers: readonly Layer[]): SlideSurroundings => {
    const show: Show = {
      ...emptyShow(showId('s'), 'Regatta'),
      slides: [
        {
          id: slideId('1'),
          lengthMs: loupeNeedsMs(PLAN) + 400,
          transition: { kind: 'cut' },
          backing: { kind: 'automatic' },
          sounds: [],
          layers,
        },
      ],
    };
    return surroundingsOf(prepareShow(show, FACTS), 0, FRAME);
  };
  const bare = make([base]);
  return { base, bare, around: make([base, ...more(bare, base)]) };
}

/** Where a point of a layer's picture is seen, by where its box and its framing are. */
function seen(around: SlideSurroundings, id: string, point: { x: number; y: number }, ms: number) {
  const layer = layerIn(around.slide.layers, layerId(id)) as PictureLayer;
  const poses = layerPoses(around, ms);
  const { widthPx, heightPx } = factsInUse(layer, PICTURE) as PictureFacts;
  const [x, y] = inSpace(pictureToBox(poses.framing(layer)!, heightPx / widthPx), point.x, point.y);
  const flipped = { x: layer.flip?.across ? 1 - x : x, y: layer.flip?.down ? 1 - y : y };
  const [px, py] = inSpace(poses.box(layer), flipped.x, flipped.y);
  return { x: px, y: py };
}

const middleOf = (around: SlideSurroundings, id: string, ms: number) => {
  const box: Matrix4 = layerPoses(around, ms).box(layerIn(around.slide.layers, layerId(id))!);
  const [x, y] = inSpace(box, 0.5, 0.5);
  return { x, y };
};

/** The point of the picture below that is seen at a place of the frame, found by halving steps. */
function under(around: SlideSurroundings, at: { x: number; y: number }, ms: number) {
  let point = { x: 0.5, y: 0.5 };
  for (let step = 0; step < 40; step += 1) {
    const here = seen(around, 'crowd', point, ms);
    const right = seen(around, 'crowd', { x: point.x + 1e-4, y: point.y }, ms);
    const down = seen(around, 'crowd', { x: point.x, y: point.y + 1e-4 }, ms);
    const [a, b, c, d] = [right.x - here.x, down.x - here.x, right.y - here.y, down.y - here.y].map(
      (v) => v / 1e-4,
    ) as [number, number, number, number];
    const [ex, ey] = [at.x - here.x, at.y - here.y];
    const det = a * d - b * c;
    point = { x: point.x + (d * ex - b * ey) / det, y: point.y + (a * ey - c * ex) / det };
  }
  return point;
}

describe('a loupe', () => {
  it.each([
    ['over a picture that moves, grows and turns', {}],
    [
      'over one that stands smaller and turned on the frame',
      { channels: { x: 0.4, y: 0.55, width: 0.7, turnDegrees: -12 }, move: MOVING_PRINT },
    ],
    [
      'over one that is mirrored and cropped',
      { flip: { across: true, down: true }, crop: { x: 0.5, y: 0.5, width: 0.9, height: 0.9, turnDegrees: 3 } },
    ],
  ] satisfies [string, Partial<PictureLayer>][])(
    'shows at its middle what lies under its middle, at thirty moments, %s',
    (_name, picture) => {
      const { around } = on(picture, (bare, base) => [loupe(bare, base, PLAN, layerId('l'))]);
      for (let index = 0; index < 30; index += 1) {
        const ms = PLAN.beginMs + ((index + 0.5) / 30) * (loupeNeedsMs(PLAN) - PLAN.beginMs);
        const [rim, cut] = [middleOf(around, 'l-rim', ms), middleOf(around, 'l-cut', ms)];
        expect(Math.hypot(rim.x - cut.x, rim.y - cut.y)).toBeLessThan(1e-6);
        const there = seen(around, 'l-picture', under(around, rim, ms), ms);
        expect(Math.hypot(there.x - rim.x, there.y - rim.y)).toBeLessThan(0.01);
      }
    },
  );
  it('stays centred while it enlarges more and more', () => {
    const { around } = on({}, (bare, base) => {
      const made = loupe(bare, base, PLAN, layerId('l'));
      const zoom = {
        keys: [
          { at: { tied: 'start' as const, ms: 0 }, value: 1.2 },
          { at: { tied: 'end' as const, ms: 0 }, value: 6 },
        ],
      };
      const layers = made.layers.map((layer) =>
        layer.kind === 'group' ? { ...layer, channels: { ...layer.channels, width: zoom, height: zoom } } : layer,
      );
      return [{ ...made, layers }];
    });
    for (let ms = 1300; ms < 12_000; ms += 700) {
      const rim = middleOf(around, 'l-rim', ms);
      const there = seen(around, 'l-picture', under(around, rim, ms), ms);
      expect(Math.hypot(there.x - rim.x, there.y - rim.y)).toBeLessThan(0.01);
    }
  });
  it('visits its places in order and rests at each', () => {
    const { around } = on({}, (bare, base) => [loupe(bare, base, PLAN, layerId('l'))]);
    PLACES.forEach((place, index) => {
      const arrives = PLAN.beginMs + 500 + index * (PLAN.restMs + PLAN.glideMs);
      for (const ms of [arrives + 1, arrives + PLAN.restMs - 1]) {
        const rim = middleOf(around, 'l-rim', ms);
        const there = seen(around, 'crowd', place, ms);
        expect(Math.hypot(there.x - rim.x, there.y - rim.y)).toBeLessThan(1);
      }
    });
  });
  it('is sound as layers, and known again as the plan it was made by until its parts are changed', () => {
    const { around } = on({}, (bare, base) => [loupe(bare, base, PLAN, layerId('l'))]);
    expect(faultOfLayers(around.slide.layers)).toBeNull();
    const made = layerIn(around.slide.layers, layerId('l')) as GroupLayer;
    const found = loupePlanOf(around, made)!;
    expect(found).toMatchObject({ restMs: PLAN.restMs, glideMs: PLAN.glideMs, beginMs: PLAN.beginMs, enlarges: 2 });
    found.places.forEach((place, index) => {
      expect(place.x).toBeCloseTo(PLACES[index]!.x, 9);
      expect(place.y).toBeCloseTo(PLACES[index]!.y, 9);
    });
    const [rim, ...rest] = made.layers;
    const moved = { ...made, layers: [{ ...rim!, channels: { ...rim!.channels, y: 0.2 } }, ...rest] };
    expect(loupePlanOf(around, moved as GroupLayer)).toBeNull();
    expect(
      loupePlanOf(around, {
        ...made,
        name: 'Aunt Wilma’s glass',
        layers: [{ ...rim!, edge: {} }, ...rest],
      } as GroupLayer),
    ).not.toBeNull();
  });
  it('lies on pictures only, and not on those that lean or lie in a group', () => {
    const { bare, base } = on({});
    expect(faultOfLoupe(bare, base)).toBeNull();
    expect(faultOfLoupe(bare, { kind: 'solid', id: layerId('s'), colour: '#000000' })).toMatch(/picture or a clip/);
    expect(faultOfLoupe(bare, { ...base, channels: { tiltXDegrees: 20 } })).toMatch(/leans/);
    expect(() => loupe(bare, { kind: 'solid', id: layerId('s'), colour: '#000000' }, PLAN, layerId('l'))).toThrow(
      RangeError,
    );
  });
});
