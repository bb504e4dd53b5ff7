import { bytesOf, type Kernels } from '../kernel-module';
import type { Pixels } from './picture-planes';
import type { Surface } from './surface';

/** The picture is blurred at this width, in 32-bit floats; a blur this wide holds nothing finer. */
export const BACKING_SOURCE_WIDTH_PX = 192;
const SIGMA_PX = 7;
/** The copy is a good deal darker and a little greyer than the picture that stands on it. */
const BRIGHTNESS = 0.62;
const SATURATION = 0.75;

/**
 * Fills a surface with a blurred copy of a picture, scaled to cover it. Interpolated in floats and dithered to 8 bits, so that no steps show.
 * The dither is a fixed pattern: a backing stands still, and so must its grain.
 *
 * @param pixels the whole picture, about `BACKING_SOURCE_WIDTH_PX` wide
 */
export function fillWithBlur(kernels: Kernels, surface: Surface, pixels: Pixels): void {
  const planes = floatPlanes(pixels);
  const frameAspect = surface.widthPx / surface.heightPx;
  const aspect = pixels.widthPx / pixels.heightPx;
  const cover = aspect > frameAspect ? { width: frameAspect / aspect, height: 1 } : { width: 1, height: aspect / frameAspect };
  const memory = bytesOf(kernels);
  const crop = {
    x: ((1 - cover.width) / 2) * pixels.widthPx,
    y: ((1 - cover.height) / 2) * pixels.heightPx,
    width: cover.width * pixels.widthPx,
    height: cover.height * pixels.heightPx,
  };
  const lay = (plane: Float32Array, to: number, stride: number, width: number, height: number, salt: number) =>
    enlarge(plane, pixels.widthPx, pixels.heightPx, crop, memory, to, stride, width, height, salt);
  lay(planes.y, surface.y, surface.yStride, surface.widthPx, surface.heightPx, 1);
  lay(planes.u, surface.u, surface.cStride, surface.widthPx / 2, surface.heightPx / 2, 2);
  lay(planes.v, surface.v, surface.cStride, surface.widthPx / 2, surface.heightPx / 2, 3);
}

function floatPlanes(pixels: Pixels): { y: Float32Array; u: Float32Array; v: Float32Array } {
  const count = pixels.widthPx * pixels.heightPx;
  const y = new Float32Array(count);
  const u = new Float32Array(count);
  const v = new Float32Array(count);
  for (let index = 0; index < count; index += 1) {
    const r = pixels.rgba[4 * index]!;
    const g = pixels.rgba[4 * index + 1]!;
    const b = pixels.rgba[4 * index + 2]!;
    const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    y[index] = 16 + (luma * BRIGHTNESS * 219) / 255;
    u[index] = 128 + ((b - luma) / 1.8556) * BRIGHTNESS * SATURATION * (224 / 255);
    v[index] = 128 + ((r - luma) / 1.5748) * BRIGHTNESS * SATURATION * (224 / 255);
  }
  const sigma = (SIGMA_PX * pixels.widthPx) / BACKING_SOURCE_WIDTH_PX;
  for (const plane of [y, u, v]) blur(plane, pixels.widthPx, pixels.heightPx, sigma);
  return { y, u, v };
}

/** Gaussian blur in place, edges repeated: the sampled kernel out to three sigma, rows then columns. */
export function blur(plane: Float32Array, width: number, height: number, sigma: number): void {
  const radius = Math.ceil(3 * sigma);
  const weights = Float32Array.from({ length: 2 * radius + 1 }, (_, index) => Math.exp(-((index - radius) ** 2) / (2 * sigma * sigma)));
  const total = weights.reduce((sum, weight) => sum + weight, 0);
  for (let index = 0; index < weights.length; index += 1) weights[index] = weights[index]! / total;
  const pass = (lines: number, length: number, lineStep: number, step: number) => {
    const line = new Float32Array(length + 2 * radius);
    for (let at = 0; at < lines; at += 1) {
      const start = at * lineStep;
      for (let index = 0; index < line.length; index += 1) line[index] = plane[start + step * Math.min(length - 1, Math.max(0, index - radius))]!;
      for (let index = 0; index < length; index += 1) {
        let sum = 0;
        for (let tap = 0; tap < weights.length; tap += 1) sum += weights[tap]! * line[index + tap]!;
        plane[start + step * index] = sum;
      }
    }
  };
  pass(height, width, width, 1);
  pass(width, height, 1, width);
}

interface Crop {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

function enlarge(plane: Float32Array, planeWidth: number, planeHeight: number, crop: Crop, memory: Uint8Array, to: number, stride: number, width: number, height: number, salt: number): void {
  const left = new Int32Array(width);
  const share = new Float32Array(width);
  for (let x = 0; x < width; x += 1) {
    const at = Math.min(planeWidth - 1, Math.max(0, crop.x + ((x + 0.5) * crop.width) / width - 0.5));
    left[x] = Math.min(planeWidth - 2, Math.floor(at));
    share[x] = at - left[x]!;
  }
  let noise = 0x9e3779b9 ^ salt;
  for (let y = 0; y < height; y += 1) {
    const at = Math.min(planeHeight - 1, Math.max(0, crop.y + ((y + 0.5) * crop.height) / height - 0.5));
    const top = Math.min(planeHeight - 2, Math.floor(at));
    const lower = at - top;
    const a = top * planeWidth;
    const b = a + planeWidth;
    for (let x = 0; x < width; x += 1) {
      const l = left[x]!;
      const s = share[x]!;
      const upper = plane[a + l]! + (plane[a + l + 1]! - plane[a + l]!) * s;
      const under = plane[b + l]! + (plane[b + l + 1]! - plane[b + l]!) * s;
      // Marsaglia's xorshift; the same sequence everywhere.
      noise ^= noise << 13;
      noise ^= noise >>> 17;
      noise ^= noise << 5;
      memory[to + y * stride + x] = upper + (under - upper) * lower + (noise >>> 0) / 0x1_0000_0000;
    }
  }
}
