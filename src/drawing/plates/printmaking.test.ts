import { describe, expect, it } from '@jest/globals';
import type { PrintEffect } from '../../core/show/light';
import { smooth } from '../../core/light/running-mean';
import { blur } from './gaussian';
import { lumaOf, printmake } from './printmaking';

// Looked up once: under the test runner every look at a global takes long.
const { abs, hypot } = Math;

const [W, H] = [600, 400];
type Colour = readonly [number, number, number];

function drawn(colourAt: (x: number, y: number) => Colour): Uint8ClampedArray {
  const rgba = new Uint8ClampedArray(4 * W * H).fill(255);
  for (let y = 0; y < H; y += 1) for (let x = 0; x < W; x += 1) rgba.set(colourAt(x, y), 4 * (y * W + x));
  return rgba;
}
const SKIN: Colour = [214, 170, 148];
const EYES = [
  [250, 170],
  [350, 170],
] as const;

/** A face before a dark wall: soft light, eyes and a mouth a little darker than the skin. */
const face = drawn((x, y) => {
  if (hypot((x - 300) / 130, (y - 200) / 170) > 1) return [52, 48, 56];
  const shade = 1 - 0.2 * ((x - 170) / 260);
  const isEye = EYES.some(([ex, ey]) => hypot((x - ex) / 18, (y - ey) / 8) < 1);
  const isMouth = hypot((x - 300) / 48, (y - 285) / 7) < 1;
  const of = isEye ? 0.5 : isMouth ? 0.62 : 1;
  return SKIN.map((value) => value * shade * of) as unknown as Colour;
});
/** The lower half blue, the upper pale. */
const horizon = drawn((_x, y) => (y < H / 2 ? [206, 214, 224] : [60, 90, 150]));

const made = (rgba: Uint8ClampedArray, kind: PrintEffect) => {
  const out = rgba.slice();
  printmake(out, W, H, kind, 1);
  return lumaOf(out);
};
const mean = (luma: Float32Array, x: number, y: number, halfWidth: number, halfHeight: number) => {
  let [sum, count] = [0, 0];
  for (let py = y - halfHeight; py <= y + halfHeight; py += 1)
    for (let px = x - halfWidth; px <= x + halfWidth; px += 1, count += 1) sum += luma[py * W + px]!;
  return sum / count;
};

describe('printmaking', () => {
  it.each<PrintEffect>(['linocut', 'poster'])(
    '%s keeps a face readable: eyes and mouth dark, skin light, wall dark',
    (kind) => {
      const luma = made(face, kind);
      const skin = mean(luma, 300, 230, 40, 20);
      for (const [x, y] of EYES) expect(mean(luma, x, y, 9, 4)).toBeLessThan(skin - 0.15);
      expect(mean(luma, 300, 285, 30, 3)).toBeLessThan(skin - 0.1);
      expect(mean(luma, 60, 200, 40, 40)).toBeLessThan(skin - 0.35);
    },
  );
  it('linocut is ink and paper and hardly anything between', () => {
    const between = made(face, 'linocut').filter((value) => value > 0.3 && value < 0.8).length;
    expect(between / (W * H)).toBeLessThan(0.06);
  });
  it('watercolour dries darker along the border of what is darker, and not on the pale side of it', () => {
    const luma = made(horizon, 'watercolour');
    const row = (y: number) => mean(luma, 300, y, 250, 1);
    const rim = Math.min(...[202, 204, 206, 208].map(row));
    expect(rim).toBeLessThan(row(320) - 0.06);
    expect(abs(row(180) - row(90))).toBeLessThan(0.08);
  });
  it('watercolour shows the paper’s grain where the picture is even, and leaves the lightest as paper', () => {
    const even = made(
      drawn(() => [120, 140, 170]),
      'watercolour',
    );
    let rough = 0;
    for (let at = W * 100; at < W * 300; at += 1) rough += abs(even[at]! - even[at + 1]!);
    expect(rough / (W * 200)).toBeGreaterThan(0.01);
    const white = made(
      drawn(() => [255, 255, 255]),
      'watercolour',
    );
    expect(mean(white, 300, 200, 200, 100)).toBeCloseTo(0.953, 1);
  });
  it('poster has few levels of brightness', () => {
    const ramp = made(
      drawn((x) => [(255 * x) / W, (255 * x) / W, (255 * x) / W]),
      'poster',
    );
    const counts = new Array<number>(51).fill(0);
    ramp.slice(W * 200, W * 201).forEach((value) => (counts[Math.round(50 * value)]! += 1));
    const few = counts.toSorted((a, b) => b - a).slice(0, 6);
    expect(few.reduce((sum, count) => sum + count, 0)).toBeGreaterThan(0.6 * W);
  });
});

describe('smoothing by running means', () => {
  it.each([1.2, 3, 9, 25])('is the Gaussian within six hundredths at sigma %s, at the edges too', (sigma) => {
    const plane = Float32Array.from({ length: 90 * 70 }, (_, at) => ((at % 90) + Math.floor(at / 90) > 80 ? 1 : 0));
    const [near, true_] = [plane.slice(), plane.slice()];
    smooth(near, 90, 70, sigma);
    blur(true_, 90, 70, sigma);
    expect(Math.max(...near.map((value, at) => abs(value - true_[at]!)))).toBeLessThan(0.06);
  });
});
