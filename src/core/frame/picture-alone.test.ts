import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, layerId, showId } from '../show/ids';
import type { ClipLayer, PictureLayer } from '../show/layer';
import { emptyShow } from '../show/show';
import { pictureAlone } from './picture-alone';
import { planFrame, prepareShow } from './plan-frame';

const ASSET = assetId('a'.repeat(64));
const picture = (widthPx: number, heightPx: number): Exclude<AssetFacts, { kind: 'sound' }> => ({
  kind: 'picture',
  widthPx,
  heightPx,
  hasTransparency: false,
  takenAt: null,
  camera: null,
  brightness: 0.5,
});
const layer: PictureLayer = {
  kind: 'picture',
  id: layerId('p'),
  assetId: ASSET,
  move: { kind: 'automatic' },
  light: { exposure: 1, vignette: 0.4 },
  edge: { feather: 0.1 },
  channels: { x: 0.2, width: 0.3, opacity: 0.5 },
};
const show = emptyShow(showId('s'), 'S');
const planOf = (of: PictureLayer | ClipLayer, facts: Exclude<AssetFacts, { kind: 'sound' }>, longPx = 320) => {
  const alone = pictureAlone(show, of, facts, longPx);
  return planFrame(prepareShow(alone, new Map([[ASSET, facts]])), 500, alone.frame)!;
};

describe('a picture by itself', () => {
  it.each([
    [3000, 2000],
    [2000, 3000],
    [6000, 400],
    [300, 5000],
  ])('of %i × %i fills a frame of its own shape, in its light and nothing else of its layer', (widthPx, heightPx) => {
    const plan = planOf(layer, picture(widthPx, heightPx));
    expect(Math.abs(Math.log(plan.widthPx / plan.heightPx / (widthPx / heightPx)))).toBeLessThan(0.25);
    expect(plan.widthPx % 16).toBe(0);
    const [only, ...others] = plan.slide.layers;
    expect(others).toEqual([]);
    if (only?.content.kind !== 'picture') throw new Error('it shows no picture');
    expect([only.opacity, only.edge]).toEqual([1, null]);
    expect(only.content.light).toMatchObject({ values: { exposure: 1 } });
    const { width, height } = only.content.framing;
    expect(Math.max(width, height)).toBeCloseTo(1, 6);
    expect(Math.min(width, height)).toBeGreaterThan(0.75);
  });
  it('is what its crop leaves, and a clip its first frame', () => {
    const crop = { x: 0.25, y: 0.5, width: 0.5, height: 1, turnDegrees: 0 };
    const cropped = planOf({ ...layer, crop }, picture(3000, 2000));
    expect(cropped.widthPx / cropped.heightPx).toBeCloseTo(0.75, 1);
    const clip: ClipLayer = { kind: 'clip', id: layerId('c'), assetId: ASSET, trimStartMs: 2000, soundGainDb: 0 };
    const plan = planOf(clip, {
      kind: 'clip',
      widthPx: 1920,
      heightPx: 1080,
      lengthMs: 9000,
      hasSound: true,
      takenAt: null,
    });
    expect(plan.slide.layers[0]!.content.kind).toBe('clip');
    expect(plan.widthPx / plan.heightPx).toBeCloseTo(16 / 9, 1);
  });
});
