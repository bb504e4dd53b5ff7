import { readFile } from 'node:fs/promises';
import path from 'node:path';
import { beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import type { Framing } from '../core/motion/framing';
import { bytesOf, FULL_OPACITY, loadKernels, q15, type Kernels } from './kernel-module';
import { drawPicture } from './planes/draw-picture';
import {
  planesFromDecodedFrame,
  planesFromPixels,
  releasePlanes,
  type PicturePlanes,
  type Pixels,
} from './planes/picture-planes';
import { createSurface, fillSurface, i420Of, pixelsOf, type Surface, ycbcrOf } from './planes/surface';

// Looked up once: under the test runner every look at a global takes long.
const { abs, atan2, cos, floor, log10, max, min, round, sin, sqrt } = Math;

let kernels: Kernels;
let photograph: Pixels;
beforeAll(async () => {
  kernels = await loadKernels(new Uint8Array(await readFile('public/drawing/kernels.wasm')));
  const { data, info } = await sharp(path.join('demo/files/PE_0463.jpg'))
    .autoOrient()
    .resize(900, 600)
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  photograph = { widthPx: info.width, heightPx: info.height, rgba: new Uint8Array(data), hasTransparency: false };
});

const plain = (widthPx: number, heightPx: number, rgba: readonly number[], hasTransparency = false): Pixels => ({
  widthPx,
  heightPx,
  hasTransparency,
  rgba: Uint8Array.from({ length: widthPx * heightPx * 4 }, (_, at) => rgba[at % 4]!),
});
const sampleOf = (plane: number, stride: number, x: number, y: number) => bytesOf(kernels)[plane + y * stride + x]!;

function psnr(got: ArrayLike<number>, wanted: ArrayLike<number>): number {
  let sum = 0;
  for (let at = 0; at < got.length; at += 1) sum += (got[at]! - wanted[at]!) ** 2;
  return sum === 0 ? Infinity : 10 * log10(255 ** 2 / (sum / got.length));
}

/** The plain truth: every target sample by float64 bilinear interpolation of the very planes the kernel reads, edges repeated, nothing outside. */
function referenceLuma(picture: PicturePlanes, surface: Surface, framing: Framing, before: number): Float64Array {
  const memory = bytesOf(kernels);
  const radians = (framing.turnDegrees * Math.PI) / 180;
  const out = new Float64Array(surface.widthPx * surface.heightPx);
  const at = (x: number, y: number) =>
    memory[picture.y + min(picture.heightPx - 1, max(0, y)) * picture.yStride + min(picture.widthPx - 1, max(0, x))]!;
  for (let y = 0; y < surface.heightPx; y += 1) {
    for (let x = 0; x < surface.widthPx; x += 1) {
      const dx = ((x + 0.5) / surface.widthPx - 0.5) * framing.width * picture.widthPx;
      const dy = ((y + 0.5) / surface.heightPx - 0.5) * framing.height * picture.heightPx;
      const u = framing.x * picture.widthPx + cos(radians) * dx - sin(radians) * dy;
      const v = framing.y * picture.heightPx + sin(radians) * dx + cos(radians) * dy;
      const [sx, sy] = [u - 0.5, v - 0.5];
      const [x0, y0] = [floor(sx), floor(sy)];
      const top = at(x0, y0) + (at(x0 + 1, y0) - at(x0, y0)) * (sx - x0);
      const bottom = at(x0, y0 + 1) + (at(x0 + 1, y0 + 1) - at(x0, y0 + 1)) * (sx - x0);
      const inside = u >= 0 && u <= picture.widthPx && v >= 0 && v <= picture.heightPx;
      out[y * surface.widthPx + x] = inside ? top + (bottom - top) * (sy - y0) : before;
    }
  }
  return out;
}

function drawn(picture: PicturePlanes, framing: Framing, widthPx = 640, heightPx = 360, opacity = 1): Surface {
  const surface = createSurface(kernels, widthPx, heightPx);
  fillSurface(kernels, surface, '#000000');
  drawPicture(kernels, surface, picture, framing, opacity);
  return surface;
}

const lumaOf = (surface: Surface) => i420Of(kernels, surface).subarray(0, surface.widthPx * surface.heightPx);
const framing = (x: number, y: number, width: number, turnDegrees = 0, aspect = 900 / 600): Framing => ({
  x,
  y,
  width,
  height: (width * aspect) / (16 / 9),
  turnDegrees,
});

describe('drawing an upright picture', () => {
  it.each([
    [framing(0.5, 0.5, 0.93)],
    [framing(0.4731, 0.5123, 0.8137)],
    [framing(0.51, 0.47, 0.55)],
    [framing(0.5, 0.5, 0.31)],
  ])('agrees with float64 bilinear within rounding: %j', (where) => {
    const picture = planesFromPixels(kernels, photograph);
    const surface = drawn(picture, where);
    const reference = referenceLuma(picture, surface, where, 16);
    const got = lumaOf(surface);
    expect(psnr(got, reference)).toBeGreaterThan(52);
    expect(got.reduce((most, value, at) => max(most, abs(value - reference[at]!)), 0)).toBeLessThan(3);
    releasePlanes(kernels, picture);
  });
  it('agrees where the picture must be made much smaller than itself, by the slower way', () => {
    const picture = planesFromPixels(kernels, photograph);
    const where = framing(0.5, 0.5, 0.98);
    const surface = drawn(picture, where, 160, 90);
    expect(psnr(lumaOf(surface), referenceLuma(picture, surface, where, 16))).toBeGreaterThan(48);
  });
  it.each(['#ffffff', '#000000', '#d8371f', '#33708f'])('leaves %s exactly as it is, at any framing', (colour) => {
    const [r, g, b] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16)) as [number, number, number];
    const picture = planesFromPixels(kernels, plain(301, 207, [r, g, b, 255]));
    const surface = drawn(picture, { x: 0.503, y: 0.49, width: 0.877, height: 0.71, turnDegrees: 0 });
    const { y, u, v } = ycbcrOf(colour);
    const i420 = i420Of(kernels, surface);
    const luma = 640 * 360;
    expect([
      new Set(i420.subarray(0, luma)),
      new Set(i420.subarray(luma, luma * 1.25)),
      new Set(i420.subarray(luma * 1.25)),
    ]).toEqual([new Set([y]), new Set([u]), new Set([v])]);
  });
  it.each([
    [1, 0.5],
    [0.5, 0.25],
    [0.91, 0.455],
    [1 / 3, 1 / 6],
  ])('covers every sample of the frame when the framing (width %d) begins at the picture’s very edge', (width, x) => {
    const picture = planesFromPixels(kernels, plain(700, 394, [240, 120, 40, 255]));
    const wanted = ycbcrOf('#f07828');
    for (const at of [x, 1 - x]) {
      const surface = createSurface(kernels, 640, 360);
      // What lies beneath must nowhere show through.
      fillSurface(kernels, surface, '#00ff00');
      drawPicture(kernels, surface, picture, { x: at, y: at, width, height: width, turnDegrees: 0 }, 1);
      const i420 = i420Of(kernels, surface);
      const luma = 640 * 360;
      expect([
        new Set(i420.subarray(0, luma)),
        new Set(i420.subarray(luma, luma * 1.25)),
        new Set(i420.subarray(luma * 1.25)),
      ]).toEqual([new Set([wanted.y]), new Set([wanted.u]), new Set([wanted.v])]);
    }
  });
  it('draws odd sizes and framings beyond the picture without touching what is not its own', () => {
    const picture = planesFromPixels(kernels, plain(37, 53, [255, 255, 255, 255]));
    const guard = kernels.allocate(64);
    bytesOf(kernels).fill(77, guard, guard + 64);
    const surface = drawn(picture, { x: 0.5, y: 0.5, width: 4.2, height: 1.9, turnDegrees: 0 }, 198, 110);
    const luma = lumaOf(surface);
    expect([luma[0], luma[197], luma[55 * 198 + 99], luma[109 * 198]]).toEqual([16, 16, 235, 16]);
    expect(
      bytesOf(kernels)
        .subarray(guard, guard + 64)
        .every((value) => value === 77),
    ).toBe(true);
  });
  it('gives an edge between samples the share of the sample it covers', () => {
    const picture = planesFromPixels(kernels, plain(40, 40, [255, 255, 255, 255]));
    // The picture is 100 samples wide in a frame of 320: from 110.25 to 210.25.
    const surface = drawn(picture, { x: 0.5 - 0.25 / 100, y: 0.5, width: 3.2, height: 1.8, turnDegrees: 0 }, 320, 180);
    const row = (x: number) => lumaOf(surface)[90 * 320 + x]!;
    expect([row(109), row(110), row(111), row(209), row(210), row(211)]).toEqual([
      16,
      expect.closeTo(16 + 219 * 0.75, -0.5),
      235,
      235,
      expect.closeTo(16 + 219 * 0.25, -0.5),
      16,
    ]);
  });
  it('moves by less than a pixel as smoothly as by many: the measured shift is the intended one within 0.05 px', () => {
    const wave = (x: number) => 128 + 90 * sin((2 * Math.PI * x) / 24);
    const rgba = Uint8Array.from({ length: 800 * 450 * 4 }, (_, at) =>
      at % 4 === 3 ? 255 : wave(((at >> 2) % 800) + 0.5),
    );
    const picture = planesFromPixels(kernels, { widthPx: 800, heightPx: 450, rgba, hasTransparency: false });
    const shifts = Array.from({ length: 60 }, (_, step) => 0.5 + step * 0.00013);
    const phase = (surface: Surface) => {
      const line = lumaOf(surface).subarray(100 * 640, 101 * 640);
      const per = 24 / ((800 * 0.9) / 640);
      let [real, imaginary] = [0, 0];
      for (let x = 0; x < 600; x += 1) {
        // A Hann window keeps the ends of the line out of the measure.
        const weight = 0.5 - 0.5 * cos((2 * Math.PI * x) / 600);
        real += weight * line[x]! * cos((2 * Math.PI * x) / per);
        imaginary += weight * line[x]! * sin((2 * Math.PI * x) / per);
      }
      return (atan2(imaginary, real) * per) / (2 * Math.PI);
    };
    const measured = shifts.map((x) => phase(drawn(picture, { x, y: 0.5, width: 0.9, height: 0.9, turnDegrees: 0 })));
    const intended = shifts.map((x) => -((x - shifts[0]!) * 800 * 640) / (800 * 0.9));
    const per = 24 / ((800 * 0.9) / 640);
    // A phase is known up to whole periods.
    const errors = measured.map((value, step) => {
      const error = value - measured[0]! - intended[step]!;
      return error - per * round(error / per);
    });
    const mean = errors.reduce((sum, error) => sum + error, 0) / errors.length;
    expect(sqrt(errors.reduce((sum, error) => sum + (error - mean) ** 2, 0) / errors.length)).toBeLessThan(0.05);
  });
});

describe('drawing a turned picture', () => {
  it.each([[3], [-11], [47]])('agrees with float64 bilinear at %d degrees', (turn) => {
    const picture = planesFromPixels(kernels, photograph);
    const where = framing(0.5, 0.5, 0.42, turn);
    const surface = drawn(picture, where);
    expect(psnr(lumaOf(surface), referenceLuma(picture, surface, where, 16))).toBeGreaterThan(48);
  });
  it('has antialiased edges', () => {
    const picture = planesFromPixels(kernels, plain(300, 200, [255, 255, 255, 255]));
    const levels = new Set(lumaOf(drawn(picture, { x: 0.5, y: 0.5, width: 2, height: 1.6875, turnDegrees: 8 })));
    expect(levels.size).toBeGreaterThan(40);
    expect(levels.has(16) && levels.has(235)).toBe(true);
  });
});

describe('colour', () => {
  it('makes planes by BT.709 in limited range, within one level of the formula', () => {
    const picture = planesFromPixels(kernels, photograph);
    let worst = 0;
    for (let y = 0; y < 600; y += 7) {
      for (let x = 0; x < 900; x += 5) {
        const [r, g, b] = photograph.rgba.subarray(4 * (y * 900 + x), 4 * (y * 900 + x) + 3) as unknown as [
          number,
          number,
          number,
        ];
        worst = max(
          worst,
          abs(sampleOf(picture.y, picture.yStride, x, y) - (16 + (219 / 255) * (0.2126 * r + 0.7152 * g + 0.0722 * b))),
        );
      }
    }
    expect(worst).toBeLessThanOrEqual(0.51);
  });
  it.each([
    [255, 0, 0],
    [0, 255, 0],
    [0, 0, 255],
    [250, 240, 10],
    [12, 200, 190],
  ])('brings the colour %d %d %d back on the screen', (r, g, b) => {
    const surface = createSurface(kernels, 64, 32);
    fillSurface(kernels, surface, `#${[r, g, b].map((value) => value.toString(16).padStart(2, '0')).join('')}`);
    const { rgba } = pixelsOf(kernels, surface);
    for (const at of [0, 4 * 63, 4 * (31 * 64 + 17)])
      [r, g, b, 255].forEach((value, channel) => expect(abs(rgba[at + channel]! - value)).toBeLessThanOrEqual(3));
  });
  it.each([
    [900, 600],
    [37, 21],
    [2, 2],
    [51, 8],
  ])('halves chroma with the weights 1 2 1 across and 1 1 down, at %i × %i', (w, h) => {
    const at = (x: number, y: number) => 4 * (min(h - 1, y) * w + min(w - 1, max(0, x)));
    const rgba = Uint8Array.from(
      { length: w * h * 4 },
      (_, index) =>
        photograph.rgba[4 * (floor(index / 4 / w) * photograph.widthPx + (floor(index / 4) % w)) + (index % 4)]!,
    );
    const picture = planesFromPixels(kernels, { widthPx: w, heightPx: h, rgba, hasTransparency: false });
    let worst = 0;
    for (let y = 0; y < h / 2; y += 1)
      for (let x = 0; x < w / 2; x += 1) {
        const [r, g, b] = [0, 1, 2].map(
          (channel) =>
            [0, 1].reduce(
              (sum, row) =>
                sum +
                rgba[at(2 * x - 1, 2 * y + row) + channel]! +
                2 * rgba[at(2 * x, 2 * y + row) + channel]! +
                rgba[at(2 * x + 1, 2 * y + row) + channel]!,
              0,
            ) / 8,
        ) as [number, number, number];
        const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
        worst = max(
          worst,
          abs(sampleOf(picture.u, picture.cStride, x, y) - (128 + ((b - luma) / 1.8556) * (224 / 255))),
          abs(sampleOf(picture.v, picture.cStride, x, y) - (128 + ((r - luma) / 1.5748) * (224 / 255))),
        );
      }
    expect(worst).toBeLessThanOrEqual(0.52);
    releasePlanes(kernels, picture);
  });
  it('shows a frame with the colours of BT.709, to the last column and row', () => {
    const surface = createSurface(kernels, 50, 14);
    const memory = bytesOf(kernels);
    for (const [plane, stride, width, height, low, range] of [
      [surface.y, surface.yStride, 50, 14, 16, 219],
      [surface.u, surface.cStride, 25, 7, 60, 136],
      [surface.v, surface.cStride, 25, 7, 60, 136],
    ] as const) {
      for (let y = 0; y < height; y += 1)
        for (let x = 0; x < width; x += 1) memory[plane + y * stride + x] = low + ((x * 37 + y * 91) % range);
    }
    const { rgba } = pixelsOf(kernels, surface);
    let worst = 0;
    for (let y = 0; y < 14; y += 1)
      for (let x = 0; x < 50; x += 1) {
        const half = (plane: number) => {
          const here = sampleOf(plane, surface.cStride, x >> 1, y >> 1);
          return (
            (x % 2 === 0 || x === 49
              ? here
              : floor((here + sampleOf(plane, surface.cStride, (x >> 1) + 1, y >> 1) + 1) / 2)) - 128
          );
        };
        const [luma, u, v] = [
          (255 / 219) * (sampleOf(surface.y, surface.yStride, x, y) - 16),
          half(surface.u),
          half(surface.v),
        ];
        [luma + 1.79274 * v, luma - 0.21325 * u - 0.53291 * v, luma + 2.1124 * u, 255].forEach((value, channel) => {
          worst = max(worst, abs(rgba[4 * (y * 50 + x) + channel]! - min(255, max(0, value))));
        });
      }
    expect(worst).toBeLessThanOrEqual(1.1);
  });
  it('takes a decoded frame as it is', () => {
    const i420 = Uint8Array.from({ length: 40 * 20 * 1.5 }, (_, at) => at % 251);
    const planes = planesFromDecodedFrame(kernels, { widthPx: 40, heightPx: 20, i420 });
    expect([
      sampleOf(planes.y, planes.yStride, 39, 19),
      sampleOf(planes.u, planes.cStride, 19, 9),
      sampleOf(planes.v, planes.cStride, 0, 0),
    ]).toEqual([i420[799], i420[999], i420[1000]]);
    expect(sampleOf(planes.y, planes.yStride, 45, 23)).toBe(i420[799]);
  });
  it('refuses pixels that are not as many as they say, and odd frames', () => {
    expect(() =>
      planesFromPixels(kernels, { widthPx: 2, heightPx: 2, rgba: new Uint8Array(15), hasTransparency: false }),
    ).toThrow('rgba must hold 2 × 2 × 4 bytes, got 15');
    expect(() => createSurface(kernels, 101, 50)).toThrow('even and positive, got 101 × 50');
    expect(() => ycbcrOf('red')).toThrow(RangeError);
  });
});

describe('transparency', () => {
  it.each([[255], [128], [37], [0]])('lays alpha %d over what is there as the formula says', (alpha) => {
    const picture = planesFromPixels(kernels, plain(64, 36, [255, 255, 255, alpha], true));
    const surface = createSurface(kernels, 128, 72);
    fillSurface(kernels, surface, '#404040');
    const before = ycbcrOf('#404040').y;
    drawPicture(kernels, surface, picture, { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 }, 1);
    const wanted = (235 * alpha + before * (255 - alpha)) / 255;
    for (const value of [lumaOf(surface)[0]!, lumaOf(surface)[36 * 128 + 64]!])
      expect(abs(value - wanted)).toBeLessThanOrEqual(1);
  });
  it('keeps a grey picture grey at half alpha', () => {
    const picture = planesFromPixels(kernels, plain(64, 36, [200, 200, 200, 128], true));
    const surface = createSurface(kernels, 64, 36);
    fillSurface(kernels, surface, '#202020');
    drawPicture(kernels, surface, picture, { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 }, 1);
    for (const value of i420Of(kernels, surface).subarray(64 * 36)) expect(abs(value - 128)).toBeLessThanOrEqual(1);
  });
});

describe('mixRow', () => {
  it('is exact at both ends, on equal rows, and within rounding between', () => {
    const count = 1003;
    const [a, b, to] = [kernels.allocate(count + 16), kernels.allocate(count + 16), kernels.allocate(count + 16)];
    const memory = bytesOf(kernels);
    for (let at = 0; at < count; at += 1) {
      memory[a + at] = at % 256;
      memory[b + at] = (at * 7) % 256;
    }
    const mixed = (share: number) => {
      kernels.mixRow(to, a, b, count, q15(share));
      return bytesOf(kernels).slice(to, to + count);
    };
    expect(mixed(0)).toEqual(memory.slice(a, a + count));
    expect(mixed(1)).toEqual(memory.slice(b, b + count));
    for (const share of [0.1, 0.333, 0.5, 0.9])
      mixed(share).forEach((value, at) =>
        expect(abs(value - (memory[a + at]! * (1 - share) + memory[b + at]! * share))).toBeLessThanOrEqual(0.52),
      );
    kernels.mixRow(to, a, a, count, FULL_OPACITY / 3);
    expect(bytesOf(kernels).slice(to, to + count)).toEqual(memory.slice(a, a + count));
  });
});
