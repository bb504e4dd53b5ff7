import { readFile } from 'node:fs/promises';
import { beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import {
  inverse3,
  mapped,
  projected,
  rotation,
  scaling,
  times3,
  times4,
  translation,
  type Matrix3,
} from '../../core/frame/matrix';
import { bytesOf, loadKernels, type Kernels } from '../kernel-module';
import { bitmapSamples, drawQuad, WHOLE_BOX } from './draw-quad';
import { planesFromPixels, type PicturePlanes, type Pixels } from './picture-planes';
import { createSurface, fillSurface, i420Of, ycbcrOf, type Surface } from './surface';

// Looked up once: under the test runner every look at a global takes long.
const { abs, floor, log10, max, min, sqrt } = Math;

const FRAME = { widthPx: 640, heightPx: 360 };
let kernels: Kernels;
let photograph: PicturePlanes;
beforeAll(async () => {
  kernels = await loadKernels(new Uint8Array(await readFile('public/drawing/kernels.wasm')));
  const { data } = await sharp('demo/files/PE_0463.jpg')
    .autoOrient()
    .resize(900, 600)
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true });
  photograph = planesFromPixels(kernels, {
    widthPx: 900,
    heightPx: 600,
    rgba: new Uint8Array(data),
    hasTransparency: false,
  });
});

const plain = (rgba: readonly number[], hasTransparency = false): Pixels => ({
  widthPx: 64,
  heightPx: 48,
  hasTransparency,
  rgba: Uint8Array.from({ length: 64 * 48 * 4 }, (_, at) => rgba[at % 4]!),
});

/** A box of a size, turned and leaned about the middle of the frame. */
function seen(width: number, height: number, turn: number, tiltX: number, tiltY: number): Matrix3 {
  const { widthPx, heightPx } = FRAME;
  const box = times4(
    translation(widthPx / 2, heightPx / 2, 0),
    times4(rotation(turn, tiltX, tiltY), times4(scaling(width, height, 1), translation(-0.5, -0.5, 0))),
  );
  return projected(box, { x: widthPx / 2, y: heightPx / 2, distance: 2.5 * heightPx });
}

function drawn(picture: PicturePlanes, toScreen: Matrix3, opacity = 1, transparent = false): Surface {
  const surface = createSurface(kernels, FRAME.widthPx, FRAME.heightPx, transparent);
  if (transparent)
    for (const [plane, bytes] of [
      [surface.y, 1],
      [surface.alpha, 1],
      [surface.u, 0.5],
      [surface.v, 0.5],
      [surface.halfAlpha, 0.5],
    ] as const)
      kernels.fillPlane(
        plane,
        bytes === 1 ? surface.yStride : surface.cStride,
        FRAME.widthPx * bytes,
        FRAME.heightPx * bytes,
        0,
      );
  else fillSurface(kernels, surface, '#203040');
  drawQuad(kernels, surface, picture, toScreen, bitmapSamples(picture), WHOLE_BOX, opacity);
  return surface;
}

/** Float64 bilinear interpolation through the inverse map; null outside the box and within a pixel of its border. `half` samples chroma at its own places. */
function reference(
  picture: PicturePlanes,
  plane: 'y' | 'u' | 'v',
  toScreen: Matrix3,
): (x: number, y: number) => number | null {
  const memory = bytesOf(kernels);
  const luma = plane === 'y';
  const [w, h, stride] = luma
    ? [picture.widthPx, picture.heightPx, picture.yStride]
    : [picture.widthPx / 2, picture.heightPx / 2, picture.cStride];
  const back = times3(bitmapSamples(picture), inverse3(toScreen)!);
  const at = (x: number, y: number) => memory[picture[plane] + min(h - 1, max(0, y)) * stride + min(w - 1, max(0, x))]!;
  return (x, y) => {
    const [px, py] = luma ? [x + 0.5, y + 0.5] : [2 * x + 0.5, 2 * y + 1];
    const inside = [
      [-1.5, -1.5],
      [1.5, -1.5],
      [-1.5, 1.5],
      [1.5, 1.5],
    ].every(([dx, dy]) => {
      const box = mapped(inverse3(toScreen)!, px + dx!, py + dy!);
      return box.x > 0 && box.x < 1 && box.y > 0 && box.y < 1;
    });
    if (!inside) return null;
    const place = mapped(back, px, py);
    const [u, v] = luma ? [place.x, place.y] : [place.x / 2, place.y / 2 - 0.25];
    const [x0, y0] = [floor(u), floor(v)];
    const top = at(x0, y0) + (at(x0 + 1, y0) - at(x0, y0)) * (u - x0);
    const under = at(x0, y0 + 1) + (at(x0 + 1, y0 + 1) - at(x0, y0 + 1)) * (u - x0);
    return top + (under - top) * (v - y0);
  };
}

function psnrOf(
  surface: Surface,
  picture: PicturePlanes,
  plane: 'y' | 'u' | 'v',
  toScreen: Matrix3,
): { db: number; count: number; worst: number } {
  const wanted = reference(picture, plane, toScreen);
  const [w, h, stride] =
    plane === 'y'
      ? [FRAME.widthPx, FRAME.heightPx, surface.yStride]
      : [FRAME.widthPx / 2, FRAME.heightPx / 2, surface.cStride];
  const memory = bytesOf(kernels);
  let [sum, count, worst] = [0, 0, 0];
  for (let y = 0; y < h; y += 3)
    for (let x = 0; x < w; x += 1) {
      const value = wanted(x, y);
      if (value === null) continue;
      const error = memory[surface[plane] + y * stride + x]! - value;
      sum += error * error;
      worst = max(worst, abs(error));
      count += 1;
    }
  return { db: 10 * log10(255 ** 2 / (sum / count)), count, worst };
}

describe('drawing through a map', () => {
  it.each([
    ['leaned back', 620, 410, 0, 50, 0],
    ['leaned to the side', 600, 400, 0, 0, 48],
    ['leaned and turned', 560, 380, 24, 20, -35],
    ['turned a little', 700, 466, 4, 0, 0],
    ['on its head', 500, 333, 180, 0, 0],
    ['from behind', 500, 333, 0, 0, 160],
    ['far beyond the frame', 2400, 1600, 11, 0, 20],
  ])('agrees with float64 bilinear on a photograph, luma and chroma: %s', (_, width, height, turn, tiltX, tiltY) => {
    const toScreen = seen(width, height, turn, tiltX, tiltY);
    const surface = drawn(photograph, toScreen);
    for (const plane of ['y', 'u', 'v'] as const) {
      const { db, count, worst } = psnrOf(surface, photograph, plane, toScreen);
      expect(count).toBeGreaterThan(2000);
      expect(db).toBeGreaterThan(48);
      // A fraction that went over its end shows here alone.
      expect(worst).toBeLessThan(6);
    }
  });
  it('keeps one colour exactly, everywhere inside', () => {
    const toScreen = seen(420, 300, 17, 30, 20);
    const surface = drawn(planesFromPixels(kernels, plain([216, 55, 31, 255])), toScreen);
    const wanted = ycbcrOf('#d8371f');
    const inside = reference(photograph, 'y', toScreen);
    const wrong = i420Of(kernels, surface)
      .subarray(0, 640 * 360)
      .filter((value, at) => inside(at % 640, floor(at / 640)) !== null && value !== wanted.y);
    expect(wrong).toHaveLength(0);
  });
  it('leaves everything outside as it was', () => {
    const surface = drawn(photograph, seen(200, 120, 30, 0, 0));
    const luma = i420Of(kernels, surface);
    const before = ycbcrOf('#203040').y;
    for (const at of [0, 639, 180 * 640 + 40, 359 * 640, 359 * 640 + 639]) expect(luma[at]).toBe(before);
  });
  it('antialiases its edges by the share of each sample that is covered', () => {
    const toScreen = seen(300, 200, 9, 0, 30);
    const surface = drawn(planesFromPixels(kernels, plain([255, 255, 255, 255])), toScreen);
    const back = inverse3(toScreen)!;
    const before = ycbcrOf('#203040').y;
    const memory = bytesOf(kernels);
    let [sum, count] = [0, 0];
    for (let y = 60; y < 300; y += 1)
      for (let x = 120; x < 520; x += 1) {
        let inside = 0;
        for (let sub = 0; sub < 64; sub += 1) {
          const box = mapped(back, x + ((sub % 8) + 0.5) / 8, y + (floor(sub / 8) + 0.5) / 8);
          if (box.x > 0 && box.x < 1 && box.y > 0 && box.y < 1) inside += 1;
        }
        if (inside === 0 || inside === 64) continue;
        const got = (memory[surface.y + y * surface.yStride + x]! - before) / (235 - before);
        sum += (got - inside / 64) ** 2;
        count += 1;
      }
    expect(count).toBeGreaterThan(700);
    expect(sqrt(sum / count)).toBeLessThan(0.06);
  });
  it('weighs by opacity and by its own transparency', () => {
    const surface = drawn(planesFromPixels(kernels, plain([255, 255, 255, 128], true)), seen(640, 480, 5, 0, 0), 0.5);
    const before = ycbcrOf('#203040').y;
    const middle = bytesOf(kernels)[surface.y + 180 * surface.yStride + 320]!;
    expect(abs(middle - (235 * 0.251 + before * 0.749))).toBeLessThanOrEqual(1);
  });
  it('fills a cel with premultiplied colour and the very coverage it would have on a frame', () => {
    const white = planesFromPixels(kernels, plain([255, 255, 255, 255]));
    const toScreen = seen(300, 200, 9, 0, 30);
    const cel = drawn(white, toScreen, 1, true);
    const frame = drawn(white, toScreen);
    const memory = bytesOf(kernels);
    const before = ycbcrOf('#203040').y;
    let worst = 0;
    for (let y = 0; y < 360; y += 1)
      for (let x = 0; x < 640; x += 1) {
        const [luma, cover] = [memory[cel.y + y * cel.yStride + x]!, memory[cel.alpha + y * cel.yStride + x]!];
        worst = max(
          worst,
          abs(luma - (235 * cover) / 255),
          abs(memory[frame.y + y * frame.yStride + x]! - (luma + (before * (255 - cover)) / 255)),
        );
      }
    expect(worst).toBeLessThanOrEqual(1.1);
  });
  it('draws nothing that stands behind the eye, edge-on or without area', () => {
    const before = i420Of(kernels, drawn(photograph, seen(0, 0, 0, 0, 0)));
    for (const nothing of [seen(300, 200, 0, 0, 90), seen(9000, 6000, 0, 0, 85)])
      expect(i420Of(kernels, drawn(photograph, nothing))).toEqual(before);
  });
});
