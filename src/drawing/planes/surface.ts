import { bytesOf, type Kernels } from '../kernel-module';
import { allocatePlanes, PAD_LEFT, padPlanes, releasePlanes, type PicturePlanes, type Pixels } from './picture-planes';

/** A frame being drawn. A cel is one with transparency, premultiplied. Like any planes it can be drawn from, once it is padded. */
export type Surface = PicturePlanes;

/** @throws {RangeError} when a side is odd or not positive: 4:2:0 frames have even sides */
export function createSurface(kernels: Kernels, widthPx: number, heightPx: number, transparent = false): Surface {
  for (const side of [widthPx, heightPx])
    if (!(side > 0 && side % 2 === 0))
      throw new RangeError(`a frame's sides must be even and positive, got ${widthPx} × ${heightPx}`);
  return allocatePlanes(kernels, widthPx, heightPx, transparent);
}

export function releaseSurface(kernels: Kernels, surface: Surface): void {
  releasePlanes(kernels, surface);
}

export function copySurface(kernels: Kernels, to: Surface, from: Surface): void {
  kernels.copyBytes(to.block, from.block, from.byteCount);
}

/** @param colour #rrggbb, sRGB */
export function fillSurface(kernels: Kernels, surface: Surface, colour: string): void {
  const { y, u, v } = ycbcrOf(colour);
  kernels.fillBytes(surface.y, y, surface.yStride * surface.heightPx - PAD_LEFT);
  kernels.fillBytes(surface.u, u, (surface.cStride * surface.heightPx) / 2 - PAD_LEFT);
  kernels.fillBytes(surface.v, v, (surface.cStride * surface.heightPx) / 2 - PAD_LEFT);
}

/** The frame as an encoder takes it: Y, U, V, rows without gaps. A copy. */
export function i420Of(kernels: Kernels, surface: Surface, into?: Uint8Array): Uint8Array {
  const { widthPx, heightPx, yStride, cStride } = surface;
  const memory = bytesOf(kernels);
  const i420 = into ?? new Uint8Array((widthPx * heightPx * 3) / 2);
  let at = 0;
  const take = (plane: number, stride: number, width: number, height: number) => {
    for (let row = 0; row < height; row += 1, at += width)
      i420.set(memory.subarray(plane + row * stride, plane + row * stride + width), at);
  };
  take(surface.y, yStride, widthPx, heightPx);
  take(surface.u, cStride, widthPx / 2, heightPx / 2);
  take(surface.v, cStride, widthPx / 2, heightPx / 2);
  return i420;
}

/** The frame as opaque RGBA, for stills. A copy. */
export function pixelsOf(kernels: Kernels, surface: Surface): Pixels {
  const { widthPx, heightPx } = surface;
  const rowPx = rowOfRgba(widthPx);
  const rgba = kernels.allocate(rowPx * heightPx * 4);
  rgbaInto(kernels, surface, rgba);
  const out = new Uint8ClampedArray(widthPx * heightPx * 4);
  const memory = bytesOf(kernels);
  for (let row = 0; row < heightPx; row += 1)
    out.set(memory.subarray(rgba + row * rowPx * 4, rgba + row * rowPx * 4 + widthPx * 4), row * widthPx * 4);
  kernels.release(rgba);
  return { widthPx, heightPx, rgba: out, hasTransparency: false };
}

/** Pixels in a row of `rgbaInto`: the kernel works through sixteen at a time. */
export function rowOfRgba(widthPx: number): number {
  return (widthPx + 15) & ~15;
}

/** The frame as opaque RGBA in the kernels' own memory. @param rgba room for `rowOfRgba(widthPx)` × height pixels */
export function rgbaInto(kernels: Kernels, surface: Surface, rgba: number): void {
  // The last column of a frame whose width is no multiple of sixteen looks at chroma beyond it.
  if (rowOfRgba(surface.widthPx) !== surface.widthPx) padPlanes(kernels, surface);
  kernels.rgbaFromPlanes(
    surface.y,
    surface.yStride,
    surface.u,
    surface.v,
    surface.cStride,
    rgba,
    rowOfRgba(surface.widthPx),
    surface.heightPx,
  );
}

/** BT.709, limited range; the same arithmetic as the kernel's, so that a plain colour equals a plain picture of it. */
export function ycbcrOf(colour: string): { y: number; u: number; v: number } {
  if (!/^#[0-9a-f]{6}$/i.test(colour)) throw new RangeError(`a colour must read #rrggbb, got ${colour}`);
  const [r, g, b] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16)) as [number, number, number];
  const half = 1 << 15;
  return {
    y: (11966 * r + 40254 * g + 4064 * b + (16 << 16) + half) >> 16,
    u: (-6596 * r - 22189 * g + 28784 * b + (128 << 16) + half) >> 16,
    v: (28784 * r - 26145 * g - 2639 * b + (128 << 16) + half) >> 16,
  };
}
