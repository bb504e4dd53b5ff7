import { beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { PRINT_EFFECTS } from '../../core/show/light';
import { tonePoints } from '../../core/light/histogram';
import type { LightPlan } from '../../core/frame/frame-plan';
import type { Pixels } from '../planes/picture-planes';
import { NEUTRAL } from '../../core/frame/frame-plan';
import { applyStillEffects } from './still-effects';

// Looked up once: under the test runner every look at a global takes long.
const { abs } = Math;

const light = (more: Partial<LightPlan>): LightPlan => ({
  values: NEUTRAL,
  moves: false,
  sharpen: 0,
  print: null,
  redEyes: [],
  ...more,
});
const [W, H] = [480, 320];
let photograph: Pixels;
beforeAll(async () => {
  photograph = {
    widthPx: W,
    heightPx: H,
    hasTransparency: false,
    rgba: new Uint8Array(await sharp('demo/files/PE_0426.jpg').resize(W, H).ensureAlpha().raw().toBuffer()),
  };
});
const apart = (a: Pixels, b: Pixels) =>
  Array.from(a.rgba).reduce((sum, value, at) => sum + abs(value - b.rgba[at]!), 0) / a.rgba.length;
const detail = (pixels: Pixels) => {
  let sum = 0;
  for (let at = 4; at < pixels.rgba.length; at += 4) sum += abs(pixels.rgba[at]! - pixels.rgba[at - 4]!);
  return sum;
};

describe('printmaking effects', () => {
  it.each(PRINT_EFFECTS)(
    '%s makes another picture, the same every time, by its strength, and leaves transparency alone',
    (kind) => {
      const whole = applyStillEffects(photograph, light({ print: { kind, strength: 1 } }));
      expect(applyStillEffects(photograph, light({ print: { kind, strength: 1 } })).rgba).toEqual(whole.rgba);
      expect(apart(whole, photograph)).toBeGreaterThan(5);
      const half = applyStillEffects(photograph, light({ print: { kind, strength: 0.5 } }));
      expect(apart(half, photograph)).toBeCloseTo(apart(whole, photograph) / 2, 0);
      expect(applyStillEffects(photograph, light({ print: { kind, strength: 0 } })).rgba).toEqual(
        Uint8ClampedArray.from(photograph.rgba),
      );
      expect(whole.rgba.filter((_, at) => at % 4 === 3).every((alpha) => alpha === 255)).toBe(true);
    },
  );
  it('linocut leaves ink and paper, hardly anything between', () => {
    const { rgba } = applyStillEffects(photograph, light({ print: { kind: 'linocut', strength: 1 } }));
    const between = rgba.filter((value, at) => at % 4 === 0 && value > 60 && value < 220).length;
    expect(between / (W * H)).toBeLessThan(0.25);
  });
});

describe('sharpening', () => {
  it('raises fine contrast by its amount and changes no flat colour', () => {
    expect(detail(applyStillEffects(photograph, light({ sharpen: 1 })))).toBeGreaterThan(1.05 * detail(photograph));
    const flat: Pixels = { ...photograph, rgba: new Uint8Array(W * H * 4).fill(90) };
    expect(applyStillEffects(flat, light({ sharpen: 1 })).rgba).toEqual(Uint8ClampedArray.from(flat.rgba));
  });
});

describe('red eyes', () => {
  it('are darkened where they are marked and red, and nowhere else', () => {
    const rgba = new Uint8Array(W * H * 4).fill(255);
    for (let at = 0; at < W * H; at += 1) rgba.set([200, 30, 40], 4 * at);
    // A white spark in the eye stays.
    rgba.set([250, 250, 250], 4 * (160 * W + 241));
    const out = applyStillEffects({ ...photograph, rgba }, light({ redEyes: [{ x: 0.5, y: 0.5, radius: 0.05 }] })).rgba;
    expect(out[4 * (160 * W + 238)]!).toBeLessThan(60);
    expect([...out.subarray(4 * (160 * W + 241), 4 * (160 * W + 241) + 3)]).toEqual([250, 250, 250]);
    expect(out[4 * (160 * W + 100)]).toBe(200);
  });
});

describe('tonePoints', () => {
  it('leaves half a percent out at either side', () => {
    const histogram: number[] = Array.from({ length: 256 }, (_, value): number =>
      value >= 40 && value <= 200 ? 100 : 0,
    );
    histogram[0] = 20;
    histogram[255] = 20;
    expect(tonePoints(histogram)).toEqual({ black: expect.closeTo(40 / 255, 2), white: expect.closeTo(200 / 255, 2) });
  });
  it('never tears a plain grey apart', () => {
    const { black, white } = tonePoints(Array.from({ length: 256 }, (_, value) => (value === 128 ? 1000 : 0)));
    expect(white - black).toBeCloseTo(0.2, 6);
  });
});
