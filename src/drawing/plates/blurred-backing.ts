import { bytesOf, type Kernels } from '../kernel-module';
import type { Pixels } from '../planes/picture-planes';
import type { Surface } from '../planes/surface';
import { blur } from './gaussian';

/** The picture is blurred at this width, in 32-bit floats; a blur this wide holds nothing finer. */
export const BACKING_SOURCE_WIDTH_PX = 192;
/** The copy is a little greyer than the picture that stands on it. */
const SATURATION = 0.75;

/**
 * Fills a surface with a blurred copy of a picture, scaled to cover it. Interpolated in floats and dithered to 8 bits, so that no steps show.
 * The dither is a fixed pattern: a backing stands still, and so must its grain.
 *
 * @param pixels the whole picture, about `BACKING_SOURCE_WIDTH_PX` wide
 * @param how `amount` is a share of the frame's height, `darkness` 0…1, `colour` how much of its colour is left
 */
export function fillWithBlur(
  kernels: Kernels,
  surface: Surface,
  pixels: Pixels,
  how: { readonly amount: number; readonly darkness: number; readonly colour?: number },
): void {
  const frameAspect = surface.widthPx / surface.heightPx;
  const aspect = pixels.widthPx / pixels.heightPx;
  const cover =
    aspect > frameAspect ? { width: frameAspect / aspect, height: 1 } : { width: 1, height: aspect / frameAspect };
  // The blur is measured in the frame, of which the copy covers all.
  const planes = floatPlanes(
    pixels,
    1 - how.darkness,
    how.colour ?? SATURATION,
    Math.max(0.4, how.amount * cover.height * pixels.heightPx),
  );
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

function floatPlanes(
  pixels: Pixels,
  brightness: number,
  saturation: number,
  sigma: number,
): { y: Float32Array; u: Float32Array; v: Float32Array } {
  const count = pixels.widthPx * pixels.heightPx;
  const y = new Float32Array(count);
  const u = new Float32Array(count);
  const v = new Float32Array(count);
  for (let index = 0; index < count; index += 1) {
    const r = pixels.rgba[4 * index]!;
    const g = pixels.rgba[4 * index + 1]!;
    const b = pixels.rgba[4 * index + 2]!;
    const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
    y[index] = 16 + (luma * brightness * 219) / 255;
    u[index] = 128 + ((b - luma) / 1.8556) * brightness * saturation * (224 / 255);
    v[index] = 128 + ((r - luma) / 1.5748) * brightness * saturation * (224 / 255);
  }
  for (const plane of [y, u, v]) blur(plane, pixels.widthPx, pixels.heightPx, sigma);
  return { y, u, v };
}

interface Crop {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

function enlarge(
  plane: Float32Array,
  planeWidth: number,
  planeHeight: number,
  crop: Crop,
  memory: Uint8Array,
  to: number,
  stride: number,
  width: number,
  height: number,
  salt: number,
): void {
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
