import { bytesOf, type Kernels } from '../kernel-module';

/** Decoded pixels, upright, sRGB, straight alpha, four bytes a pixel, rows without gaps. */
export interface Pixels {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly rgba: Uint8Array | Uint8ClampedArray;
  readonly hasTransparency: boolean;
}

/** Planes of Y'CbCr 4:2:0 as a decoder hands them out: Y, then U, then V, rows without gaps, BT.709 limited range, chroma sited left. */
export interface DecodedFrame {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly i420: Uint8Array;
}

/**
 * A picture as the kernels draw it: padded planes in their memory. `alpha` and `halfAlpha` are 0 for opaque pictures; others are premultiplied.
 * All pointers are at sample (0, 0).
 */
export interface PicturePlanes {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly y: number;
  readonly u: number;
  readonly v: number;
  readonly alpha: number;
  readonly halfAlpha: number;
  readonly yStride: number;
  readonly cStride: number;
  readonly block: number;
  readonly byteCount: number;
}

export const PAD_LEFT = 16;
const PAD_RIGHT = 32;
const PAD_ROWS = 4;
/** Pixels are handed to the kernels so many rows at a time (two share their colour), so that their memory need not hold a whole picture twice. */
const STAGED_ROWS = 128;

/** Puts pixels into planes. The caller releases them with `releasePlanes`. */
export function planesFromPixels(kernels: Kernels, pixels: Pixels): PicturePlanes {
  const { widthPx, heightPx, rgba } = pixels;
  if (rgba.length !== widthPx * heightPx * 4)
    throw new RangeError(`rgba must hold ${widthPx} × ${heightPx} × 4 bytes, got ${rgba.length}`);
  const planes = allocatePlanes(kernels, widthPx, heightPx, pixels.hasTransparency);
  const staging = kernels.allocate(4 * widthPx * Math.min(STAGED_ROWS, heightPx));
  for (let top = 0; top < heightPx; top += STAGED_ROWS) {
    const rows = Math.min(STAGED_ROWS, heightPx - top);
    bytesOf(kernels).set(rgba.subarray(4 * widthPx * top, 4 * widthPx * (top + rows)), staging);
    const y = planes.y + top * planes.yStride;
    const chroma = (top / 2) * planes.cStride;
    const [u, v] = [planes.u + chroma, planes.v + chroma];
    if (planes.alpha === 0) kernels.planesFromRgba(staging, widthPx, rows, y, planes.yStride, u, v, planes.cStride);
    else
      kernels.planesFromTransparentRgba(
        staging,
        widthPx,
        rows,
        y,
        planes.alpha + top * planes.yStride,
        planes.yStride,
        u,
        v,
        planes.halfAlpha + chroma,
        planes.cStride,
      );
  }
  kernels.release(staging);
  padPlanes(kernels, planes);
  return planes;
}

/** Puts a decoded frame of a clip into planes. */
export function planesFromDecodedFrame(kernels: Kernels, frame: DecodedFrame): PicturePlanes {
  const { widthPx, heightPx, i420 } = frame;
  const planes = allocatePlanes(kernels, widthPx, heightPx, false);
  const cWidth = (widthPx + 1) >> 1;
  const cHeight = (heightPx + 1) >> 1;
  const memory = bytesOf(kernels);
  const put = (plane: number, stride: number, from: number, width: number, height: number) => {
    for (let row = 0; row < height; row += 1)
      memory.set(i420.subarray(from + row * width, from + (row + 1) * width), plane + row * stride);
  };
  put(planes.y, planes.yStride, 0, widthPx, heightPx);
  put(planes.u, planes.cStride, widthPx * heightPx, cWidth, cHeight);
  put(planes.v, planes.cStride, widthPx * heightPx + cWidth * cHeight, cWidth, cHeight);
  padPlanes(kernels, planes);
  return planes;
}

export function releasePlanes(kernels: Kernels, planes: PicturePlanes): void {
  kernels.release(planes.block);
}

/** Planes with room around them and nothing in them yet. */
export function allocatePlanes(
  kernels: Kernels,
  widthPx: number,
  heightPx: number,
  transparent: boolean,
): PicturePlanes {
  const cWidth = (widthPx + 1) >> 1;
  const cHeight = (heightPx + 1) >> 1;
  const yStride = roundUp(PAD_LEFT + widthPx + PAD_RIGHT);
  const cStride = roundUp(PAD_LEFT + cWidth + PAD_RIGHT);
  const yBytes = yStride * (heightPx + 2 * PAD_ROWS);
  const cBytes = cStride * (cHeight + 2 * PAD_ROWS);
  const byteCount = transparent ? 2 * yBytes + 3 * cBytes : yBytes + 2 * cBytes;
  const block = kernels.allocate(byteCount);
  const yInset = PAD_ROWS * yStride + PAD_LEFT;
  const cInset = PAD_ROWS * cStride + PAD_LEFT;
  const chroma = block + yBytes;
  return {
    widthPx,
    heightPx,
    yStride,
    cStride,
    block,
    byteCount,
    y: block + yInset,
    u: chroma + cInset,
    v: chroma + cBytes + cInset,
    halfAlpha: transparent ? chroma + 2 * cBytes + cInset : 0,
    alpha: transparent ? chroma + 3 * cBytes + yInset : 0,
  };
}

/** Repeats the border into the room around every plane; needed before planes are drawn from. */
export function padPlanes(kernels: Kernels, planes: PicturePlanes): void {
  const cWidth = (planes.widthPx + 1) >> 1;
  const cHeight = (planes.heightPx + 1) >> 1;
  for (const plane of [planes.y, planes.alpha])
    if (plane) kernels.padPlane(plane, planes.yStride, planes.widthPx, planes.heightPx, PAD_LEFT, PAD_RIGHT, PAD_ROWS);
  for (const plane of [planes.u, planes.v, planes.halfAlpha])
    if (plane) kernels.padPlane(plane, planes.cStride, cWidth, cHeight, PAD_LEFT, PAD_RIGHT, PAD_ROWS);
}

function roundUp(value: number): number {
  return (value + 15) & ~15;
}
