import { beforeAll, describe, expect, it } from '@jest/globals';
import type { Gradient, Shape } from '../../core/show/layer';
import { openNodeDrawing, type NodeDrawing } from '../../server/films/node-drawing';
import { gradientAt, paintOutline, paintShape, paintStencil, paintVignette, scaledPath } from './painted';

let drawing: NodeDrawing;
beforeAll(async () => {
  drawing = await openNodeDrawing();
});
const size = { widthPx: 200, heightPx: 100 };
const red = { kind: 'colour', colour: '#ff0000' } as const;
const alphaOf = (rgba: ArrayLike<number>, width: number, x: number, y: number) => rgba[4 * (y * width + x) + 3]!;

describe('shapes', () => {
  it.each([
    [{ kind: 'rectangle' }, 1],
    [{ kind: 'rectangle', radius: 0.5 }, (200 - 100 + (Math.PI * 100) / 4) / 200],
    [{ kind: 'ellipse' }, Math.PI / 4],
    [{ kind: 'polygon', sides: 6 }, (6 * Math.sin(Math.PI / 3)) / 8],
    [{ kind: 'star', points: 5, depth: 0.5 }, (5 * 0.5 * Math.sin(Math.PI / 5)) / 4],
    [{ kind: 'free', path: 'M0 0L100 0L0 100Z' }, 0.5],
  ] as [Shape, number][])('cover what they should of their box: %j', (shape, share) => {
    const { rgba } = paintShape(shape, red, size, drawing.drawing2d);
    let sum = 0;
    for (let at = 3; at < rgba.length; at += 4) sum += rgba[at]!;
    expect(sum / 255 / (200 * 100)).toBeCloseTo(share, 2);
    expect([...rgba.subarray(4 * (50 * 200 + 95), 4 * (50 * 200 + 95) + 3)]).toEqual([255, 0, 0]);
  });
  it('are solid where nothing of them is clear', () => {
    expect(paintShape({ kind: 'rectangle' }, red, size, drawing.drawing2d).hasTransparency).toBe(false);
    expect(paintShape({ kind: 'ellipse' }, red, size, drawing.drawing2d).hasTransparency).toBe(true);
  });
});

describe('gradients', () => {
  const stops: Gradient<string>['stops'] = [
    { at: 0, colour: '#000000' },
    { at: 1, colour: '#ffffff' },
  ];
  it('run along their angle, outwards, or round', () => {
    const linear = gradientAt({ kind: 'linear', angleDegrees: 90, stops }, 200, 100);
    [0, 127.5, 255].forEach((value, index) => expect(linear(100, 50 * index)[0]).toBeCloseTo(value, 6));
    const radial = gradientAt({ kind: 'radial', stops }, 200, 100);
    expect(radial(100, 50)[0]).toBeCloseTo(0, 6);
    expect(radial(0, 0)[0]).toBeCloseTo(255, 6);
    const conic = gradientAt({ kind: 'conic', stops }, 200, 100);
    expect(conic(150, 50)[0]).toBeCloseTo(63.75, 6);
    expect(conic(50, 50)[0]).toBeCloseTo(191.25, 6);
  });
  it('hold their ends and tint nothing where they are clear', () => {
    const clear = gradientAt(
      {
        kind: 'linear',
        stops: [
          { at: 0.4, colour: '#ff0000', opacity: 0 },
          { at: 0.6, colour: '#0000ff' },
        ],
      },
      100,
      10,
    );
    expect(clear(10, 5)[3]).toBe(0);
    expect(clear(90, 5)).toEqual([0, 0, 255, 1]);
    expect(clear(50, 5)).toEqual([0, 0, 255, 0.5]);
  });
  it('show no steps: the mean of every stretch is what it should be', () => {
    const { rgba } = paintShape(
      { kind: 'rectangle' },
      {
        kind: 'linear',
        stops: [
          { at: 0, colour: '#101010' },
          { at: 1, colour: '#181818' },
        ],
      },
      { widthPx: 640, heightPx: 64 },
      drawing.drawing2d,
    );
    for (let column = 0; column < 40; column += 1) {
      let sum = 0;
      for (let y = 0; y < 64; y += 1) for (let x = 0; x < 16; x += 1) sum += rgba[4 * (y * 640 + column * 16 + x)]!;
      expect(sum / (16 * 64)).toBeCloseTo(16 + (8 * (column + 0.5)) / 40, 1);
    }
  });
});

describe('edges', () => {
  it('feather inwards: nothing at the rim, all of it inside', () => {
    const { rgba } = paintStencil({ shape: null, inset: 0, feather: 0.2, bitmap: size }, drawing.drawing2d);
    expect(alphaOf(rgba, 200, 0, 50)).toBeLessThan(12);
    expect(alphaOf(rgba, 200, 100, 50)).toBe(255);
    for (let x = 1; x < 100; x += 1)
      expect(alphaOf(rgba, 200, x, 50)).toBeGreaterThanOrEqual(alphaOf(rgba, 200, x - 1, 50));
  });
  it.each([
    ['inside', 5, -5],
    ['outside', -5, 5],
    ['centre', 2, 8],
  ] as const)('outline %s lies where it says', (where, there, notThere) => {
    const { pixels, marginX } = paintOutline(
      { shape: null, feather: 0, inset: 0, bitmap: size, colour: '#ffffff', width: 0.1, where },
      drawing.drawing2d,
    );
    const rim = Math.round(marginX * 200);
    expect(alphaOf(pixels.rgba, pixels.widthPx, rim + there, pixels.heightPx / 2)).toBe(255);
    expect(alphaOf(pixels.rgba, pixels.widthPx, Math.max(0, rim + notThere), pixels.heightPx / 2)).toBe(0);
  });
  it('vignette the corners, not the middle', () => {
    const { rgba, widthPx } = paintVignette();
    expect(alphaOf(rgba, widthPx, 256, 256)).toBeLessThan(2);
    expect(alphaOf(rgba, widthPx, 2, 2)).toBeGreaterThan(200);
  });
  it('bring a path to the box’s size, arcs with their flags', () => {
    expect(scaledPath('M10 20H50v5A10 20 30 1 0 60 40l-5,-5Z', 200, 50)).toBe(
      'M20 10H100v2.5A20 10 30 1 0 120 20l-10 -2.5Z',
    );
  });
});
