import { describe, expect, it } from '@jest/globals';
import type { PictureLayer } from '../show/layer';
import { assetId, layerId } from '../show/ids';
import { centre, type Box } from './box';
import { focusInUse } from './focus-in-use';
import { focusOf, wholeFace } from './focus-of';
import { framed } from './reframe';
import type { FocusFacts } from './focus-facts';
import { salientBox, saliencyMap } from './saliency';
import { finenessOf, sharpnessOf } from './sharpness';

const [W, H] = [120, 80];
const drawn = (colourAt: (x: number, y: number) => readonly [number, number, number]) => {
  const rgb = new Uint8Array(3 * W * H);
  for (let y = 0; y < H; y += 1) for (let x = 0; x < W; x += 1) rgb.set(colourAt(x, y), 3 * (y * W + x));
  return rgb;
};
/** The same at every run. */
const noise = (x: number, y: number) => ((x * 7919 + y * 104_729 + x * y * 31) % 41) - 20;
const grass = (x: number, y: number) => [70 + noise(x, y), 120 + noise(y, x), 60 + noise(x + 3, y)] as const;

const face = (left: number, top: number, size: number) => ({
  left,
  top,
  width: size,
  height: size,
  score: 0.9,
  sharpness: 0.5,
});
const facts = (more: Partial<FocusFacts>): FocusFacts => ({
  faces: [],
  subjects: [],
  salient: null,
  sharpness: 0.5,
  ...more,
});
const SALIENT: Box = { left: 0.6, top: 0.6, width: 0.1, height: 0.1 };

describe('what stands out', () => {
  it.each([
    [30, 25],
    [85, 30],
    [60, 55],
    [90, 60],
  ])('is a red disc at %s, %s on grass', (cx, cy) => {
    const rgb = drawn((x, y) => (Math.hypot(x - cx, y - cy) < 9 ? [200, 40, 40] : grass(x, y)));
    const box = salientBox(saliencyMap(rgb, W, H), W, H)!;
    const { x, y } = centre(box);
    expect([Math.abs(x * W - cx) < 4, Math.abs(y * H - cy) < 4]).toEqual([true, true]);
    expect([box.width * W > 10, box.width * W < 30]).toEqual([true, true]);
  });
  it('is what is sharp before what is not, where colours say little', () => {
    const rgb = drawn((x, y) => {
      const fine = Math.hypot(x - 88, y - 40) < 12 && (x + y) % 2 === 0;
      return fine ? [150, 150, 150] : [120, 120, 120];
    });
    const grey = Uint8Array.from({ length: W * H }, (_, at) => rgb[3 * at]!);
    const map = saliencyMap(rgb, W, H, finenessOf(grey, W, H, W, H));
    expect(Math.abs(centre(salientBox(map, W, H)!).x * W - 88)).toBeLessThan(5);
  });
  it('is nothing in an even picture', () => {
    expect(
      salientBox(
        saliencyMap(
          drawn(() => [90, 120, 160]),
          W,
          H,
        ),
        W,
        H,
      ),
    ).toBeNull();
  });
});

describe('sharpness', () => {
  const sharp = Uint8Array.from({ length: W * H }, (_, at) => (Math.floor((at % W) / 4) % 2 ? 200 : 50));
  const soft = Uint8Array.from(sharp, (_, at) => {
    let sum = 0;
    for (let by = -4; by <= 4; by += 1) sum += sharp[Math.min(W * H - 1, Math.max(0, at + by))]!;
    return sum / 9;
  });
  it('is less in a blurred picture of the same', () =>
    expect(sharpnessOf(soft, W, H)).toBeLessThan(sharpnessOf(sharp, W, H) - 0.1));
  it('is less where a hand moved sideways or upwards, though edges that run that way stay sharp', () => {
    let state = 3;
    const roll = () => (state = (Math.imul(state, 1_103_515_245) + 12_345) & 0x7fffffff) / 0x7fffffff;
    // Leaves of all shades, four pixels wide, and here and there a long sharp edge each way.
    const shades = Array.from({ length: W * H }, roll);
    const scene = Uint8Array.from({ length: W * H }, (_, at) => {
      const [x, y] = [at % W, Math.floor(at / W)];
      if (x % 40 === 3 || y % 40 === 3) return 230;
      return 60 + 90 * shades[4 * Math.floor(y / 16) * W + 4 * Math.floor(x / 4)]!;
    });
    const smeared = (step: number) =>
      Uint8Array.from(scene, (_, at) => {
        let sum = 0;
        for (let by = -6; by <= 6; by += 1) sum += scene[Math.min(W * H - 1, Math.max(0, at + by * step))]!;
        return sum / 13;
      });
    const own = sharpnessOf(scene, W, H);
    expect(own).toBeGreaterThan(0.7);
    expect(sharpnessOf(smeared(1), W, H)).toBeLessThan(0.8 * own);
    expect(sharpnessOf(smeared(W), W, H)).toBeLessThan(0.8 * own);
    // Blinds are not smeared.
    expect(sharpnessOf(sharp, W, H)).toBeGreaterThan(0.6);
  });
  it('is that of a part when one is named', () => {
    const half = Uint8Array.from(sharp, (value, at) => (at % W < W / 2 ? value : soft[at]!));
    const of = (left: number) => sharpnessOf(half, W, H, { left, top: 0, width: 0.5, height: 1 });
    expect(of(0)).toBeGreaterThan(of(0.5) + 0.1);
  });
});

describe('a framing of somebody who is taller than it', () => {
  const bird = { left: 0.18, top: 0.03, width: 0.62, height: 0.89, kind: 'animal' as const, score: 0.55 };
  const size = { width: 1, height: 0.84 };
  it('begins at the head and leaves out the feet, with a little air where there is any', () => {
    const { y } = framed(size, focusOf(facts({ subjects: [bird] }), undefined, 1.5))!;
    const top = y - size.height / 2;
    expect(top).toBeGreaterThanOrEqual(0);
    expect(top).toBeLessThan(0.03);
    const lower = { ...bird, top: 0.1, height: 0.88 };
    expect(framed(size, focusOf(facts({ subjects: [lower] }), undefined, 1.5))!.y - 0.42).toBeCloseTo(0.0748, 6);
  });
  it('stands in the middle of what has no head', () => {
    const { y } = framed(size, focusOf(facts({ salient: { ...bird, height: 0.94 } }), undefined, 1.5))!;
    expect(y).toBeCloseTo(0.03 + 0.47 + 0.06 * 0.84, 6);
  });
});

describe('what a picture is about', () => {
  it('is its faces, with hair and chin, before anything else', () => {
    const found = facts({
      faces: [face(0.4, 0.3, 0.1)],
      subjects: [{ left: 0, top: 0, width: 0.5, height: 0.5, kind: 'animal', score: 0.9 }],
      salient: SALIENT,
    });
    const focus = focusOf(found, undefined, 1.5)!;
    expect(focus.from).toBe('faces');
    expect(focus.about).toEqual(wholeFace(face(0.4, 0.3, 0.1)));
    expect(focus.about.top).toBeLessThan(0.27);
  });
  it('is those whom the picture is of, not who passes by; nobody may be cut all the same', () => {
    const focus = focusOf(facts({ faces: [face(0.4, 0.3, 0.2), face(0.9, 0.1, 0.03)] }), undefined, 1.5)!;
    expect(focus.about.left + focus.about.width).toBeLessThan(0.7);
    expect(focus.whole).toHaveLength(2);
  });
  it('is people and animals before colours, but no bird in the sky', () => {
    const bird = { left: 0.1, top: 0.1, width: 0.02, height: 0.02, kind: 'animal' as const, score: 0.5 };
    expect(focusOf(facts({ subjects: [bird], salient: SALIENT }), undefined, 1.5)!.from).toBe('colours');
    expect(focusOf(facts({ subjects: [{ ...bird, width: 0.3, height: 0.3 }] }), undefined, 1.5)!.from).toBe('subjects');
  });
  it('is what a person says; and nothing when a person says so', () => {
    const found = facts({ faces: [face(0.4, 0.3, 0.1)] });
    const focus = focusOf(found, [{ x: 0.2, y: 0.8, radius: 0.1 }], 1.5)!;
    expect([focus.from, focus.whole.length]).toEqual(['person', 1]);
    expect(centre(focus.about).x).toBeCloseTo(0.2, 6);
    expect(focusOf(found, [], 1.5)).toBeNull();
  });
  it('is on what a crop leaves, and gone with what it takes away', () => {
    const layer = (crop: PictureLayer['crop']): PictureLayer => ({
      kind: 'picture',
      id: layerId('p'),
      assetId: assetId('a'.repeat(64)),
      move: { kind: 'automatic' },
      ...(crop && { crop }),
    });
    const picture = {
      kind: 'picture' as const,
      widthPx: 3000,
      heightPx: 2000,
      hasTransparency: false,
      takenAt: null,
      camera: null,
      brightness: 0.5,
      focus: facts({ faces: [face(0.7, 0.4, 0.1)] }),
    };
    const half = (x: number) => ({ x, y: 0.5, width: 0.5, height: 1, turnDegrees: 0 });
    const right = focusInUse(layer(half(0.75)), picture, undefined)!;
    expect(centre(right.about).x).toBeCloseTo(0.5, 6);
    expect(focusInUse(layer(half(0.25)), picture, undefined)).toBeNull();
  });
});
