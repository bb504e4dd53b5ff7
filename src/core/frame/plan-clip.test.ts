import { describe, expect, it } from '@jest/globals';
import { clipMove } from '../motion/clip-move';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, layerId, showId, slideId } from '../show/ids';
import type { ClipLayer } from '../show/layer';
import { emptyShow, type Show } from '../show/show';
import type { ClipContent } from './frame-plan';
import { planFrame, prepareShow } from './plan-frame';

const CLIP = assetId('1'.repeat(64));
const FRAME = { widthPx: 1280, heightPx: 720 };
const facts = new Map<typeof CLIP, AssetFacts>([
  [CLIP, { kind: 'clip', widthPx: 1920, heightPx: 1080, lengthMs: 9000, hasSound: true, takenAt: null }],
]);
const showOf = (more: Partial<ClipLayer>, lengthMs = 4000): Show => ({
  ...emptyShow(showId('x'), ''),
  slides: [
    {
      id: slideId('a'),
      lengthMs,
      transition: { kind: 'cut' },
      backing: { kind: 'automatic' },
      sounds: [],
      layers: [{ kind: 'clip', id: layerId('c'), assetId: CLIP, trimStartMs: 1000, soundGainDb: 0, ...more }],
    },
  ],
});
const planAt = (more: Partial<ClipLayer>, momentMs: number) =>
  planFrame(prepareShow(showOf(more), facts), momentMs, FRAME)!;
const clipAt = (more: Partial<ClipLayer>, momentMs: number) =>
  planAt(more, momentMs).slide.layers[0]!.content as ClipContent;
const HALF = { x: 0.75, y: 0.5, width: 0.5, height: 1, turnDegrees: 0 };

describe('a clip in a frame', () => {
  it('shows the frame that is due, backwards, standing and again', () => {
    expect(clipAt({}, 1000).clipFrame).toBe(60);
    expect(clipAt({ trimEndMs: 3000, backwards: true }, 0).clipFrame).toBe(89);
    expect(clipAt({ freezes: [{ atMs: 2000, lengthMs: 1500 }] }, 2400).clipFrame).toBe(60);
    expect(clipAt({ trimEndMs: 2000, after: 'again' }, 1500).clipFrame).toBe(45);
    expect(clipAt({ trimEndMs: 2000 }, 3900).clipFrame).toBe(59);
  });
  it('is the part its crop leaves, as large as that part is seen', () => {
    const { crop, framing, sizes } = clipAt({ crop: HALF }, 500);
    expect(crop).toEqual({ framing: HALF, ofWidthPx: 1920, ofHeightPx: 1080 });
    // 960 × 1080 is left: whole and upright in the frame it reaches neither side.
    expect(sizes[0]!.size.widthPx / sizes[0]!.size.heightPx).toBeCloseTo(960 / 1080, 2);
    expect(framing.height).toBeGreaterThan(0);
    expect(clipAt({}, 500).crop).toBeNull();
  });
  it('has its backing from the same part, and from the frame it begins with', () => {
    const plan = planAt({ crop: HALF, channels: { width: 0.3 } }, 500);
    expect(plan.slide.backing).toMatchObject({ kind: 'blurred', clipFrame: 30, crop: { framing: HALF } });
  });
  it('is gone over by its framing, read at one size all the while', () => {
    const move = clipMove('closer', 16 / 9, 16 / 9);
    const [first, last] = [clipAt({ move }, 0), clipAt({ move }, 3999)];
    expect([first.framing.width, last.framing.width]).toEqual([1, expect.closeTo(0.8, 2)]);
    expect(first.sizes).toEqual(last.sizes);
    expect(first.sizes).toHaveLength(1);
    // Sharp at its closest: no fewer pixels than are shown there.
    expect(first.sizes[0]!.size.widthPx * 0.8).toBeGreaterThanOrEqual(FRAME.widthPx);
  });
});
