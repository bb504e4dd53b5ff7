import { describe, expect, it } from '@jest/globals';
import { inSpace } from '../frame/matrix';
import { layerPoses } from '../frame/layer-poses';
import { sightsAt } from '../frame/layer-sight';
import { faultOfShow } from '../show/faults';
import { layerId, slideId } from '../show/ids';
import { inShape } from '../show/shape';
import type { Layer, PictureLayer } from '../show/layer';
import { everyLayer } from '../show/layer';
import { aroundOf, ASSETS, disc, edited, picture, prepared, seen, showOf } from '../layers/slides.testing';
import { seenInShape } from './in-shape';
import { LANTERN_SHAPES, lanterns, lanternsNeedMs, lanternsPlanOf, USUAL_LANTERNS } from './lanterns';
import { lanternsOfSlides, makeLoupe, makeTurnover, turnoverOfSlides, type Built } from './make-builds';
import { USUAL_LOUPE } from './loupe';
import { turnover, turnoverNeedsMs, USUAL_TURNOVER } from './turnover';

const ok = (built: Built) => {
  if (!built.ok) throw new Error(built.sentence);
  return built;
};
const sentence = (built: Built) => (built.ok ? null : built.sentence);
const pictures = (count: number) => Array.from({ length: count }, (_, index) => ASSETS[index % ASSETS.length]!);

describe('a loupe made on a slide', () => {
  const show = showOf([picture('p', { move: { kind: 'automatic' } })]);
  const made = ok(
    makeLoupe(
      prepared(show),
      show.slides[0]!,
      layerId('p'),
      {
        ...USUAL_LOUPE,
        places: [
          { x: 0.3, y: 0.4 },
          { x: 0.7, y: 0.6 },
        ],
      },
      layerId('l'),
    ),
  );
  it('is one step, leaves the picture moving as it did, makes the slide long enough, and is undone exactly', () => {
    const { show: after, inverse } = edited(show, made.edit);
    expect(faultOfShow(after)).toBeNull();
    expect((after.slides[0]!.layers[0] as PictureLayer).move.kind).toBe('set');
    const planned = (of: typeof show) => prepared(of).moves.get(slideId('1'))!.get(layerId('p'))!;
    expect([planned(after).first, planned(after).last]).toEqual([planned(show).first, planned(show).last]);
    expect(edited(after, inverse).show).toEqual(show);
  });
  it('without a place is not made, and says what to do', () => {
    expect(
      sentence(makeLoupe(prepared(show), show.slides[0]!, layerId('p'), { ...USUAL_LOUPE, places: [] }, layerId('l'))),
    ).toMatch(/Click on the picture/);
  });
});

describe('a turnover', () => {
  const plan = { ...USUAL_TURNOVER, stepsBack: 0 };
  const turned = (axis: 'upright' | 'level') =>
    turnover(picture('p', { channels: { width: 0.6 } }), { ...plan, axis, back: ASSETS[1]! });
  it.each(['upright', 'level'] as const)(
    'about its %s line stands exactly edge-on half way, front before and back after',
    (axis) => {
      const layer = turned(axis);
      const around = { ...aroundOf(showOf([layer])), seenMs: turnoverNeedsMs({ ...plan, back: ASSETS[1]! }) };
      const across = (ms: number) => {
        const box = layerPoses(around, ms).box(layer);
        const [from, to] =
          axis === 'upright'
            ? [inSpace(box, 0, 0.5), inSpace(box, 1, 0.5)]
            : [inSpace(box, 0.5, 0), inSpace(box, 0.5, 1)];
        return axis === 'upright' ? to[0] - from[0] : to[1] - from[1];
      };
      const middle = plan.beginMs + plan.lengthMs / 2;
      expect(Math.abs(across(middle))).toBeLessThan(1e-6);
      expect(Math.sign(across(middle - 20))).toBe(1);
      expect(Math.sign(across(middle + 20))).toBe(-1);
      const faces = (ms: number) => sightsAt(around, ms)[0]!.facesEye;
      expect([faces(middle - 20), faces(middle + 20)]).toEqual([true, false]);
    },
  );
  it('of two slides is one slide with both pictures and the words, undone exactly', () => {
    const words: Layer = { kind: 'words', id: layerId('w'), title: 'Before', subtitle: '', place: 'top' };
    const show = showOf([picture('p'), words], [picture('q', { assetId: ASSETS[1]! })]);
    const built = ok(turnoverOfSlides(prepared(show), [slideId('1'), slideId('2')], plan));
    const { show: after, inverse } = edited(show, built.edit);
    expect(after.slides).toHaveLength(1);
    expect(after.slides[0]!.layers).toMatchObject([
      { assetId: ASSETS[0]!, back: { assetId: ASSETS[1]! } },
      { kind: 'words' },
    ]);
    expect(after.slides[0]!.chosen).toEqual({ length: 'hand' });
    expect(edited(after, inverse).show).toEqual(show);
    expect(sentence(turnoverOfSlides(prepared(show), [slideId('1')], plan))).toMatch(/two pictures/);
  });
  it('takes a picture that lay beside it onto its back, and refuses what is no picture', () => {
    const show = showOf([picture('p'), picture('q', { assetId: ASSETS[1]! }), disc('d')]);
    const { show: after } = edited(
      show,
      ok(makeTurnover(prepared(show), show.slides[0]!, layerId('p'), { ...plan, back: ASSETS[1]! })).edit,
    );
    expect(after.slides[0]!.layers.map(({ id }) => id)).toEqual(['p', 'd']);
    expect(
      sentence(makeTurnover(prepared(show), show.slides[0]!, layerId('d'), { ...plan, back: ASSETS[1]! })),
    ).toMatch(/Choose the picture/);
  });
});

describe('lanterns', () => {
  const frame = { widthPx: 1920, heightPx: 1080 };
  it.each(LANTERN_SHAPES.flatMap((shape) => [4, 7, 16, 36].map((count) => [shape, count] as const)))(
    'that gather to a %s, %d of them, come to rest within the frame, facing the viewer or round a ring',
    (shape, count) => {
      const plan = { ...USUAL_LANTERNS, shape, pictures: pictures(count) };
      const made = lanterns(plan, frame, layerId('l'));
      const show = showOf([made]);
      const around = { ...aroundOf(show), seenMs: lanternsNeedMs(plan) };
      const boxes = sightsAt(around, plan.beginMs + plan.overMs).filter(({ layer }) => layer.kind === 'box');
      expect(boxes).toHaveLength(count);
      for (const { centre } of boxes) {
        expect(centre.x).toBeGreaterThan(0.04);
        expect(centre.x).toBeLessThan(0.96);
        expect(centre.y).toBeGreaterThan(0.04);
        expect(centre.y).toBeLessThan(0.96);
      }
      if (shape !== 'ring') expect(boxes.every(({ facesEye }) => facesEye)).toBe(true);
      expect(faultOfShow(show)).toBeNull();
    },
  );
  it('are all out of sight before the first rises', () => {
    const plan = { ...USUAL_LANTERNS, pictures: pictures(12) };
    const around = aroundOf(showOf([lanterns(plan, frame, layerId('l'))]));
    const boxes = sightsAt(around, 0).filter(({ layer }) => layer.kind === 'box');
    expect(boxes.every(({ corners }) => Math.min(...corners.map(({ y }) => y)) > 1)).toBe(true);
  });
  it('stand on a slide of their own after the chosen ones, or in their place, and are undone exactly', () => {
    const show = showOf(...pictures(5).map((assetId, index) => [picture(`p${index}`, { assetId })]));
    const plan = { ...USUAL_LANTERNS, pictures: pictures(5) };
    const ids = show.slides.slice(0, 4).map(({ id }) => id);
    const after = edited(show, ok(lanternsOfSlides(prepared(show), ids, plan, null, layerId('l'), 'after')).edit);
    expect(after.show.slides.map(({ id }) => id)).toEqual(['1', '2', '3', '4', 'l-slide', '5']);
    expect([...everyLayer(after.show.slides[4]!.layers)].filter((layer) => layer.kind === 'box')).toHaveLength(5);
    expect(edited(after.show, after.inverse).show).toEqual(show);
    const instead = edited(
      show,
      ok(lanternsOfSlides(prepared(show), ids, plan, ASSETS[2]!, layerId('l'), 'instead')).edit,
    );
    expect(instead.show.slides.map(({ id }) => id)).toEqual(['1', '5']);
    expect(instead.show.slides[0]!.backing).toEqual({ kind: 'picture', assetId: ASSETS[2]! });
    expect(edited(instead.show, instead.inverse).show).toEqual(show);
    expect(seen(edited(instead.show, instead.inverse).show)).toEqual(seen(show));
  });
  it.each(LANTERN_SHAPES)(
    'gathered to a %s are known again, and stay cubes within a frame of another shape',
    (shape) => {
      const plan = { ...USUAL_LANTERNS, shape, pictures: pictures(9) };
      const made = lanterns(plan, frame, layerId('l'));
      expect(lanternsPlanOf(made, frame)).toEqual(plan);
      const named = { ...made, name: 'The whole village' };
      const shaped = seenInShape(showOf([named]), new Map(), '9:16');
      const { widthPx, heightPx } = shaped.frame;
      const [group] = shaped.slides[0]!.layers;
      expect(group).toEqual({ ...lanterns(plan, shaped.frame, layerId('l')), name: 'The whole village' });
      const sights = sightsAt({ ...aroundOf(shaped), seenMs: lanternsNeedMs(plan) }, plan.beginMs + plan.overMs);
      for (const { layer, centre } of sights.filter((sight) => sight.layer.kind === 'box')) {
        if (layer.kind === 'box')
          expect((layer.channels!.width as number) * widthPx).toBeCloseTo(
            (layer.channels!.height as number) * heightPx,
            6,
          );
        expect(Math.max(Math.abs(centre.x - 0.5), Math.abs(centre.y - 0.5))).toBeLessThan(0.46);
      }
    },
  );
  it.each(
    LANTERN_SHAPES.flatMap((shape) =>
      [4, 16, 36].flatMap((count) => ['9:16', '1:1'].map((form) => [shape, count, form] as const)),
    ),
  )('gathered to a %s, %d of them, lie whole within a frame of %s', (shape, count, form) => {
    const plan = { ...USUAL_LANTERNS, shape, pictures: pictures(count) };
    const shaped = inShape(showOf([]), form).frame;
    const show = { ...showOf([lanterns(plan, shaped, layerId('l'))]), frame: shaped };
    const around = { ...aroundOf(show), seenMs: lanternsNeedMs(plan) };
    for (const { layer, corners } of sightsAt(around, plan.beginMs + plan.overMs))
      for (const { x, y } of layer.kind === 'box' ? corners : []) {
        expect(Math.abs(x - 0.5)).toBeLessThan(0.5);
        expect(Math.abs(y - 0.5)).toBeLessThan(0.5);
      }
  });
  it('whose boxes were changed by hand are left as they are in any shape', () => {
    const made = lanterns({ ...USUAL_LANTERNS, pictures: pictures(4) }, frame, layerId('l'));
    const [first, ...others] = made.layers;
    const changed = { ...made, layers: [{ ...first!, channels: { ...first!.channels, blur: 0.01 } }, ...others] };
    expect(lanternsPlanOf(changed, frame)).toBeNull();
    expect(seenInShape(showOf([changed]), new Map(), '1:1').slides[0]!.layers[0]).toBe(changed);
  });
  it('of too few or too many pictures are not made', () => {
    for (const count of [3, 37])
      expect(() => lanterns({ ...USUAL_LANTERNS, pictures: pictures(count) }, frame, layerId('l'))).toThrow(RangeError);
  });
});
