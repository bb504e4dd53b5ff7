import { describe, expect, it } from '@jest/globals';
import { clipFramingOf, clipMove } from '../motion/clip-move';
import { planMoves } from '../motion/plan-moves';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, showId } from '../show/ids';
import { slideFromAsset } from '../show/new-slide';
import { emptyShow, type Show } from '../show/show';
import { slideSpans } from '../timing/slide-span';
import { shareWithin, type Box } from './box';
import type { FocusFacts } from './focus-facts';
import { focusOf, wholeFace } from './focus-of';
import { focusOfFrames } from './focus-of-clip';
import { windowOf } from './reframe';

const box = (left: number, top: number, width = 0.2, height = 0.2): Box => ({ left, top, width, height });
const frame = (more: Partial<FocusFacts> = {}): FocusFacts => ({
  faces: [],
  subjects: [],
  salient: null,
  sharpness: 0.5,
  ...more,
});
const face = (left: number, score: number) => ({ ...box(left, 0.3), score, sharpness: 0.4 });

describe('what a clip is about', () => {
  it('is everybody in any of its frames, each place once, and the place around what stands out in most', () => {
    const found = focusOfFrames([
      frame({ faces: [face(0.1, 0.8)], sharpness: 0.3 }),
      frame({ faces: [face(0.12, 0.95)], sharpness: 0.7, salient: box(0.5, 0.5) }),
      frame({ faces: [face(0.5, 0.9)], salient: box(0.4, 0.6) }),
    ]);
    expect(found.faces.map(({ left }) => left)).toEqual([0.12, 0.5]);
    expect(found.sharpness).toBe(0.7);
    expect(found.salient!.left).toBeCloseTo(0.4);
    expect(found.salient!.left + found.salient!.width).toBeCloseTo(0.7);
    expect(focusOfFrames([frame(), frame({ salient: box(0.4, 0.6) })]).salient).toBeNull();
    expect(focusOfFrames([frame({ facesSought: false })]).facesSought).toBe(false);
    expect(focusOfFrames([frame({ tilt: 2, sideways: 'clockwise' })])).toEqual(frame());
  });

  const CLIP = assetId('c'.repeat(64));
  const facts = (focus?: FocusFacts): AssetFacts => ({
    kind: 'clip',
    widthPx: 1920,
    heightPx: 1080,
    lengthMs: 9000,
    hasSound: false,
    takenAt: null,
    ...(focus && { focus }),
  });
  const stands = (focus: FocusFacts | undefined, rings?: Show['focus']) => {
    const known = new Map([[CLIP, facts(focus)]]);
    const slide = slideFromAsset(CLIP, known.get(CLIP)!, 4000, () => 'n');
    const [layer] = slide.layers;
    const upright: Show = {
      ...emptyShow(showId('s'), ''),
      frame: { widthPx: 1080, heightPx: 1920, rate: { frames: 30, seconds: 1 } },
      slides: [{ ...slide, layers: [{ ...layer!, channels: { width: 1, height: 1 } }] }],
      ...(rings && { focus: rings }),
    };
    return windowOf(planMoves(upright, known, slideSpans(upright.slides)).get(slide.id)!.get(layer!.id)!.first);
  };
  it('is seen in a frame of another shape, where it would be cut by the middle', () => {
    const seen = frame({ faces: [face(0.72, 0.9)] });
    expect(shareWithin(wholeFace(seen.faces[0]!), stands(undefined))).toBeLessThan(0.05);
    expect(shareWithin(wholeFace(seen.faces[0]!), stands(seen))).toBeCloseTo(1);
    // What a person says wins.
    expect(
      shareWithin(box(0.05, 0.4, 0.1, 0.2), stands(seen, { [CLIP]: [{ x: 0.1, y: 0.5, radius: 0.05 }] })),
    ).toBeCloseTo(1);
  });
  it('is what the frame goes to, and a framing keeps its name when that is found later', () => {
    const focus = focusOf(frame({ faces: [face(0.7, 0.9)] }), undefined, 16 / 9)!;
    const closer = clipMove('closer', 16 / 9, 16 / 9, focus);
    expect(shareWithin(focus.about, windowOf(closer.last))).toBeCloseTo(1);
    expect(closer.last.x).toBeGreaterThan(0.55);
    expect(clipMove('closer', 16 / 9, 16 / 9).last.x).toBe(0.5);
    for (const about of [focus, null])
      for (const name of ['fill', 'whole', 'closer', 'back', 'to-right', 'to-left'] as const) {
        const move = clipMove(name, 4 / 3, 16 / 9, about);
        expect(clipFramingOf(move, 4 / 3, 16 / 9, focus)).toBe(name);
        for (const framing of [move.first, move.last])
          if (name !== 'whole') {
            const { left, top, width, height } = windowOf(framing);
            expect(Math.min(left, top, 1 - left - width, 1 - top - height)).toBeGreaterThan(-1e-9);
          }
      }
  });
});
