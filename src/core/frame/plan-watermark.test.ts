import { describe, expect, it } from '@jest/globals';
import { assetId } from '../show/ids';
import type { Watermark } from '../show/watermark';
import { prepared, showOf } from '../layers/slides.testing';
import { mapped } from './matrix';
import { planWatermark } from './plan-watermark';

const LOGO = assetId('9'.repeat(64));
const WIDE = { widthPx: 1920, heightPx: 1080 };
const UPRIGHT = { widthPx: 1080, heightPx: 1920 };
const MARGIN_PX = 0.045 * 1080;

const planned = (watermark: Partial<Watermark>, frame = WIDE, logo = { widthPx: 400, heightPx: 200 }) => {
  const mark: Watermark = { assetId: LOGO, place: 'bottom-right', size: 0.2, opacity: 0.6, ...watermark };
  const ready = prepared({ ...showOf([]), watermark: mark });
  const facts = new Map(ready.facts).set(LOGO, {
    ...{ kind: 'picture' as const, hasTransparency: true, takenAt: null, camera: null, brightness: 0.5 },
    ...logo,
  });
  return planWatermark({ show: ready.show, facts }, frame);
};
/** Left, top, right and bottom on the frame, in pixels. */
const sides = ([plan]: ReturnType<typeof planWatermark>) => {
  const [from, to] = [mapped(plan!.toScreen, 0, 0), mapped(plan!.toScreen, 1, 1)];
  return [from.x, from.y, to.x, to.y].map((side) => Math.round(10 * side) / 10);
};

describe('a watermark', () => {
  it.each([
    ['top-left', [MARGIN_PX, MARGIN_PX]],
    ['top', [(1920 - 216) / 2, MARGIN_PX]],
    ['top-right', [1920 - 216 - MARGIN_PX, MARGIN_PX]],
    ['left', [MARGIN_PX, (1080 - 108) / 2]],
    ['centre', [(1920 - 216) / 2, (1080 - 108) / 2]],
    ['right', [1920 - 216 - MARGIN_PX, (1080 - 108) / 2]],
    ['bottom-left', [MARGIN_PX, 1080 - 108 - MARGIN_PX]],
    ['bottom', [(1920 - 216) / 2, 1080 - 108 - MARGIN_PX]],
    ['bottom-right', [1920 - 216 - MARGIN_PX, 1080 - 108 - MARGIN_PX]],
  ] as const)('stands at the %s, as far from the edges in both directions', (place, [left, top]) => {
    expect(sides(planned({ place }))).toEqual(
      [left, top, left + 216, top + 108].map((side) => Math.round(10 * side) / 10),
    );
  });
  it('is as large against the shorter side in any shape of the frame, and keeps its own', () => {
    const [left, top, right, bottom] = sides(planned({ size: 0.3 }, UPRIGHT)) as [number, number, number, number];
    expect([right - left, bottom - top]).toEqual([expect.closeTo(324, 0), expect.closeTo(162, 0)]);
    expect([1080 - right, 1920 - bottom]).toEqual([expect.closeTo(MARGIN_PX, 0), expect.closeTo(MARGIN_PX, 0)]);
  });
  it('is measured by its longer side when it is upright', () => {
    const [left, top, right, bottom] = sides(planned({}, WIDE, { widthPx: 100, heightPx: 300 })) as [
      number,
      number,
      number,
      number,
    ];
    expect([right - left, bottom - top]).toEqual([expect.closeTo(72, 0), expect.closeTo(216, 0)]);
  });
  it('is shown whole, as strongly as was said', () => {
    const [plan] = planned({ opacity: 0.35 });
    expect([plan!.opacity, plan!.content]).toMatchObject([0.35, { kind: 'picture', assetId: LOGO, crop: null }]);
  });
  it('is not there when the show has none, or its file is gone', () => {
    const { show, facts } = prepared(showOf([]));
    expect(planWatermark({ show, facts }, WIDE)).toEqual([]);
    const mark: Watermark = { assetId: LOGO, place: 'top', size: 0.2, opacity: 1 };
    expect(planWatermark({ show: { ...show, watermark: mark }, facts }, WIDE)).toEqual([]);
  });
});
