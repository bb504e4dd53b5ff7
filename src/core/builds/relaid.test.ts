import { describe, expect, it } from '@jest/globals';
import { sightOf } from '../frame/layer-sight';
import type { ShowEdit } from '../show/edit';
import { layerId, slideId } from '../show/ids';
import type { GroupLayer, PictureLayer } from '../show/layer';
import { layerIn } from '../show/pile';
import { inShape } from '../show/shape';
import type { Show } from '../show/show';
import { aroundOf, edited, FACTS, picture, prepared, showOf } from '../layers/slides.testing';
import { loupeArrivals, loupePlanOf, placeUnder, USUAL_LOUPE, type LoupePlan } from './loupe';
import { makeLoupe } from './make-builds';
import { seenInShape } from './in-shape';
import { withItsLoupes } from './relaid';

const PLACES = [
  { x: 0.35, y: 0.45 },
  { x: 0.6, y: 0.55 },
];
const UPRIGHT = { x: 0.55, y: 0.5, width: 0.3, height: 0.8, turnDegrees: 0 };
const made = (): Show => {
  const show = showOf([picture('p')]);
  const built = makeLoupe(
    prepared(show),
    show.slides[0]!,
    layerId('p'),
    { ...USUAL_LOUPE, places: PLACES },
    layerId('l'),
  );
  if (!built.ok) throw new Error(built.sentence);
  return edited(show, built.edit).show;
};
const planOf = (show: Show) => loupePlanOf(aroundOf(show), layerIn(show.slides[0]!.layers, layerId('l'))!);
const framed: ShowEdit = {
  kind: 'set-move',
  slideId: slideId('1'),
  layerId: layerId('p'),
  move: {
    kind: 'set',
    first: { x: 0.4, y: 0.5, width: 0.6, height: 0.50625, turnDegrees: 0 },
    last: { x: 0.6, y: 0.5, width: 0.5, height: 0.421875, turnDegrees: 0 },
  },
};

describe('a picture with a loupe on it', () => {
  it('that is framed otherwise takes the loupe along to the same places, as one step', () => {
    const show = made();
    const edit = withItsLoupes(show, FACTS, framed);
    expect(edit.kind).toBe('together');
    const { show: after, inverse } = edited(show, edit);
    const plan = planOf(after)!;
    plan.places.forEach((place, index) => {
      expect(place.x).toBeCloseTo(PLACES[index]!.x, 6);
      expect(place.y).toBeCloseTo(PLACES[index]!.y, 6);
    });
    const around = aroundOf(after);
    const base = layerIn(after.slides[0]!.layers, layerId('p')) as PictureLayer;
    const ms = plan.beginMs + 500 + 100;
    const under = placeUnder(around, base, ms, sightOf(around, layerId('l-rim'), ms)!.centre);
    expect([under.x, under.y]).toEqual([expect.closeTo(PLACES[0]!.x, 6), expect.closeTo(PLACES[0]!.y, 6)]);
    expect(edited(after, inverse).show).toEqual(show);
    // Left alone it would lie beside them.
    expect(planOf(edited(show, framed).show)).toBeNull();
  });
  it('that is cropped keeps the loupe on what it was on', () => {
    const show = made();
    const base = show.slides[0]!.layers[0] as PictureLayer;
    const crop = { x: 0.5, y: 0.5, width: 0.8, height: 0.8, turnDegrees: 0 };
    const edit = withItsLoupes(show, FACTS, {
      kind: 'set-crops',
      crops: [{ slideId: slideId('1'), layerId: base.id, crop, move: base.move }],
    });
    const [first] = planOf(edited(show, edit).show)!.places;
    expect(first!.x).toBeCloseTo(0.5 + (PLACES[0]!.x - 0.5) / 0.8, 6);
  });
  it('is left alone when its parts were changed by hand, or when something else is edited', () => {
    const show = made();
    const group = layerIn(show.slides[0]!.layers, layerId('l')) as GroupLayer;
    const [rim, ...rest] = group.layers;
    const changed = edited(show, {
      kind: 'put-layer',
      slideId: slideId('1'),
      layer: { ...group, layers: [{ ...rim!, channels: { x: 0.2 } }, ...rest] },
    }).show;
    expect(withItsLoupes(changed, FACTS, framed)).toBe(framed);
    const named = { kind: 'rename-show' as const, title: 'Dusk' };
    expect(withItsLoupes(show, FACTS, named)).toBe(named);
  });
});

describe('a loupe in another shape of the frame', () => {
  const restAt = (plan: LoupePlan, index: number) => loupeArrivals(plan)[index]! + 100;
  it.each(['9:16', '1:1', '4:3', '21:9'])('of %s visits the same places of its picture, centred on them', (shape) => {
    const own = made();
    const shaped = seenInShape(own, FACTS, shape);
    const around = aroundOf(shaped);
    const base = layerIn(shaped.slides[0]!.layers, layerId('p')) as PictureLayer;
    const plan = planOf(shaped)!;
    PLACES.forEach((place, index) => {
      const { centre } = sightOf(around, layerId('l-rim'), restAt(plan, index))!;
      const under = placeUnder(around, base, restAt(plan, index), centre);
      expect([under.x, under.y]).toEqual([expect.closeTo(place.x, 5), expect.closeTo(place.y, 5)]);
    });
    // Left as it was made it would lie elsewhere.
    if (shape !== '21:9') expect(planOf(inShape(own, shape))).toBeNull();
  });
  it('keeps its size against the shorter side, its name and its edges', () => {
    const own = made();
    const named = edited(own, {
      kind: 'set-layer-properties',
      slideId: slideId('1'),
      layerId: layerId('l'),
      properties: { name: 'Grandmother’s glass' },
    }).show;
    const shaped = seenInShape(named, FACTS, '9:16');
    const [before, after] = [planOf(named)!, planOf(shaped)!];
    expect(after.across * shaped.frame.heightPx).toBeCloseTo(before.across * named.frame.heightPx, 6);
    expect(layerIn(shaped.slides[0]!.layers, layerId('l'))!.name).toBe('Grandmother’s glass');
  });
  it('follows its picture to where it is framed for that shape', () => {
    const corrected = edited(made(), {
      kind: 'set-shape',
      corrections: [
        {
          slideId: slideId('1'),
          layerId: layerId('p'),
          shape: '9:16',
          correction: { move: { kind: 'set', first: UPRIGHT, last: UPRIGHT } },
        },
      ],
    }).show;
    expect(planOf(seenInShape(corrected, FACTS, '9:16'))!.places[1]!.x).toBeCloseTo(PLACES[1]!.x, 6);
  });
  it('is left alone in the show’s own shape, where nothing is known, and where its parts were changed', () => {
    const own = made();
    expect(seenInShape(own, FACTS, '16:9')).toBe(own);
    expect(seenInShape(own, new Map(), '9:16')).toEqual(inShape(own, '9:16'));
    const changed = edited(own, {
      kind: 'set-channels',
      slideId: slideId('1'),
      layerId: layerId('l-rim'),
      channels: { ...layerIn(own.slides[0]!.layers, layerId('l-rim'))!.channels, turnDegrees: 8 },
    }).show;
    expect(seenInShape(changed, FACTS, '9:16')).toEqual(inShape(changed, '9:16'));
  });
});
