import type { Kernels } from '../kernel-module';
import { q15 } from '../kernel-module';
import type { Rect } from './draw-quad';
import { createSurface, releaseSurface, ycbcrOf, type Surface } from './surface';

/** Cels of the frame's size, lent and taken back; as many as are needed at once. */
export interface Cels {
  /** What is in it is left over from before: clear what will be used. */
  take(): Surface;
  giveBack(cel: Surface): void;
  readonly scratch: number;
  close(): void;
}

export function createCels(kernels: Kernels, widthPx: number, heightPx: number): Cels {
  const all: Surface[] = [];
  const free: Surface[] = [];
  let scratch = 0;
  return {
    take() {
      const cel = free.pop() ?? createSurface(kernels, widthPx, heightPx, true);
      if (!all.includes(cel)) all.push(cel);
      return cel;
    },
    giveBack: (cel) => {
      free.push(cel);
    },
    get scratch() {
      // Rectangles are widened to whole runs, up to 30 samples beyond the frame.
      if (scratch === 0) scratch = kernels.allocate(kernels.blurScratchBytes(widthPx + 32, heightPx));
      return scratch;
    },
    close() {
      for (const cel of all) releaseSurface(kernels, cel);
      if (scratch !== 0) kernels.release(scratch);
    },
  };
}

/** The rectangle widened to whole runs of the kernels (32 samples, which is 16 of chroma) and held to the frame's padded width; null when nothing is left. */
export function runRect(rect: Rect, surface: { readonly widthPx: number; readonly heightPx: number }): Rect | null {
  const out = {
    left: Math.max(0, rect.left) & ~31,
    top: Math.max(0, rect.top) & ~1,
    right: (Math.min(surface.widthPx, rect.right) + 31) & ~31,
    bottom: Math.min(surface.heightPx, (rect.bottom + 1) & ~1),
  };
  return out.left < Math.min(out.right, surface.widthPx) && out.top < out.bottom ? out : null;
}

interface PlaneOf {
  readonly at: number;
  readonly stride: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** The five planes of a cel within a rectangle: Y, transparency, U, V, half-size transparency. */
function planesIn(cel: Surface, rect: Rect): [y: PlaneOf, alpha: PlaneOf, u: PlaneOf, v: PlaneOf, halfAlpha: PlaneOf] {
  const full = (plane: number): PlaneOf => ({
    at: plane + rect.top * cel.yStride + rect.left,
    stride: cel.yStride,
    widthPx: rect.right - rect.left,
    heightPx: rect.bottom - rect.top,
  });
  const half = (plane: number): PlaneOf => ({
    at: plane + (rect.top / 2) * cel.cStride + rect.left / 2,
    stride: cel.cStride,
    widthPx: (rect.right - rect.left) / 2,
    heightPx: (rect.bottom - rect.top) / 2,
  });
  return [full(cel.y), full(cel.alpha), half(cel.u), half(cel.v), half(cel.halfAlpha)];
}

export function clearCel(kernels: Kernels, cel: Surface, rect: Rect): void {
  for (const plane of planesIn(cel, rect)) kernels.fillPlane(plane.at, plane.stride, plane.widthPx, plane.heightPx, 0);
}

/** Lays a cel over a frame or another cel. */
export function layOver(kernels: Kernels, target: Surface, cel: Surface, rect: Rect, opacity: number): void {
  const share = q15(opacity);
  const to = planesIn(target, rect);
  const [y, alpha, u, v, halfAlpha] = planesIn(cel, rect);
  const cover = (into: PlaneOf, from: PlaneOf, by: PlaneOf) =>
    kernels.coverPlane(into.at, into.stride, from.at, by.at, from.stride, from.widthPx, from.heightPx, share);
  cover(to[0], y, alpha);
  cover(to[2], u, halfAlpha);
  cover(to[3], v, halfAlpha);
  if (target.alpha === 0) return;
  cover(to[1], alpha, alpha);
  cover(to[4], halfAlpha, halfAlpha);
}

/** A cel's transparency, and with it its premultiplied colours, weighed by another's. */
export function maskCel(kernels: Kernels, cel: Surface, mask: Surface, rect: Rect): void {
  const [, by, , , halfBy] = planesIn(mask, rect);
  const [y, alpha, u, v, halfAlpha] = planesIn(cel, rect);
  for (const plane of [y, alpha])
    kernels.scalePlane(plane.at, plane.stride, by.at, by.stride, plane.widthPx, plane.heightPx);
  for (const plane of [u, v, halfAlpha])
    kernels.scalePlane(plane.at, plane.stride, halfBy.at, halfBy.stride, plane.widthPx, plane.heightPx);
}

/** Turns a cel into a mask in its transparency planes. */
export function makeMask(
  kernels: Kernels,
  cels: Cels,
  cel: Surface,
  rect: Rect,
  how: { readonly by: 'brightness' | 'transparency'; readonly inverted: boolean; readonly featherPx: number },
): void {
  const [y, alpha, , , halfAlpha] = planesIn(cel, rect);
  if (how.by === 'brightness')
    kernels.brightnessOf(y.at, alpha.at, y.stride, alpha.at, alpha.stride, y.widthPx, y.heightPx);
  if (how.inverted) kernels.invertPlane(alpha.at, alpha.stride, alpha.widthPx, alpha.heightPx);
  if (how.featherPx > 0)
    kernels.blurPlane(
      alpha.at,
      alpha.stride,
      alpha.at,
      alpha.stride,
      alpha.widthPx,
      alpha.heightPx,
      how.featherPx,
      cels.scratch,
    );
  kernels.halvePlane(alpha.at, alpha.stride, halfAlpha.at, halfAlpha.stride, halfAlpha.widthPx, halfAlpha.heightPx);
}

/** Gaussian blur of all of a cel or a frame within a rectangle. */
export function blurCel(kernels: Kernels, cels: Cels, cel: Surface, rect: Rect, sigmaPx: number): void {
  const [y, alpha, u, v, halfAlpha] = planesIn(cel, rect);
  for (const plane of cel.alpha === 0 ? [y] : [y, alpha])
    kernels.blurPlane(
      plane.at,
      plane.stride,
      plane.at,
      plane.stride,
      plane.widthPx,
      plane.heightPx,
      sigmaPx,
      cels.scratch,
    );
  for (const plane of cel.alpha === 0 ? [u, v] : [u, v, halfAlpha])
    kernels.blurPlane(
      plane.at,
      plane.stride,
      plane.at,
      plane.stride,
      plane.widthPx,
      plane.heightPx,
      sigmaPx / 2,
      cels.scratch,
    );
}

/** The soft shadow of a cel, laid on the target. `rect` holds both the cel's content and its shadow. */
export function layShadow(
  kernels: Kernels,
  cels: Cels,
  target: Surface,
  cel: Surface,
  rect: Rect,
  shadow: {
    readonly xPx: number;
    readonly yPx: number;
    readonly blurPx: number;
    readonly colour: string;
    readonly opacity: number;
  },
): void {
  const own = cels.take();
  clearCel(kernels, own, rect);
  const [shifted, blurred, , , half] = planesIn(own, rect);
  const [, alpha] = planesIn(cel, rect);
  kernels.blurPlane(
    alpha.at,
    alpha.stride,
    blurred.at,
    blurred.stride,
    alpha.widthPx,
    alpha.heightPx,
    shadow.blurPx,
    cels.scratch,
  );
  const [w, h] = [blurred.widthPx, blurred.heightPx];
  // Shifted by any part of a sample, so that a moving shadow moves smoothly. Only the part whose source lies in the rectangle is written.
  kernels.drawUpright(
    blurred.at,
    0,
    blurred.stride,
    w,
    h,
    shifted.at,
    shifted.stride,
    w,
    h,
    -shadow.xPx,
    1,
    -shadow.yPx,
    1,
    Math.ceil(Math.max(0, shadow.xPx)),
    Math.floor(Math.min(w, w - 1 + shadow.xPx)),
    Math.ceil(Math.max(0, shadow.yPx)),
    Math.floor(Math.min(h, h - 1 + shadow.yPx)),
    32767,
  );
  kernels.weakenPlane(shifted.at, shifted.stride, w, h, q15(shadow.opacity));
  kernels.halvePlane(shifted.at, shifted.stride, half.at, half.stride, half.widthPx, half.heightPx);
  const colour = ycbcrOf(shadow.colour);
  const to = planesIn(target, rect);
  kernels.tintPlane(to[0].at, to[0].stride, colour.y, shifted.at, shifted.stride, w, h);
  kernels.tintPlane(to[2].at, to[2].stride, colour.u, half.at, half.stride, half.widthPx, half.heightPx);
  kernels.tintPlane(to[3].at, to[3].stride, colour.v, half.at, half.stride, half.widthPx, half.heightPx);
  if (target.alpha !== 0) {
    kernels.coverPlane(to[1].at, to[1].stride, shifted.at, shifted.at, shifted.stride, w, h, 32767);
    kernels.coverPlane(to[4].at, to[4].stride, half.at, half.at, half.stride, half.widthPx, half.heightPx, 32767);
  }
  cels.giveBack(own);
}

const MODES = { multiply: 1, screen: 2, overlay: 3, 'soft-light': 4, lighten: 5, darken: 6, add: 7 } as const;

/** Lays a cel over the target by a blend mode. */
export function blendOver(
  kernels: Kernels,
  target: Surface,
  cel: Surface,
  rect: Rect,
  opacity: number,
  mode: keyof typeof MODES,
): void {
  kernels.blendPlanes(
    target.y,
    target.u,
    target.v,
    target.yStride,
    target.cStride,
    target.alpha,
    target.halfAlpha,
    cel.y,
    cel.u,
    cel.v,
    cel.alpha,
    cel.halfAlpha,
    rect.left,
    rect.top,
    Math.min(rect.right, target.widthPx),
    rect.bottom,
    opacity,
    MODES[mode],
  );
}
