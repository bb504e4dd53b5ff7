import { q15, type Kernels } from '../kernel-module';
import type { Rect } from './draw-quad';
import type { PicturePlanes } from './picture-planes';
import type { Surface } from './surface';

/** A smaller share of a sample than any opacity can tell. */
export const LEAST_SHARE = 1e-6;

/** Where a place of the target (0 at the frame's edge) lies on the picture, in its samples from its own edge: `scale · place + offset`. The scale is positive. */
export interface Axis {
  readonly scale: number;
  readonly offset: number;
}

/**
 * Draws a picture without turn, lean or flip: the quickest way there is.
 *
 * @param reach the part of the surface to draw in, in pixels and parts of them; where it goes beyond the picture, the picture's border is repeated
 * @param share opacity, 0…1
 */
export function drawUpright(
  kernels: Kernels,
  surface: Surface,
  picture: PicturePlanes,
  across: Axis,
  down: Axis,
  reach: Rect,
  share: number,
): void {
  const opacity = q15(share);
  const { left, right, top, bottom } = reach;
  const full = (from: number, to: number) => {
    kernels.drawUpright(
      from,
      picture.alpha,
      picture.yStride,
      picture.widthPx,
      picture.heightPx,
      to,
      surface.yStride,
      surface.widthPx,
      surface.heightPx,
      across.scale * 0.5 + across.offset - 0.5,
      across.scale,
      down.scale * 0.5 + down.offset - 0.5,
      down.scale,
      left,
      right,
      top,
      bottom,
      opacity,
    );
  };
  full(picture.y, surface.y);
  if (surface.u === 0) return;
  // Chroma sample j of either side sits at luma coordinate 2j + ½ across and 2j + 1 down.
  const startX = (across.scale * 0.5 + across.offset - 0.5) / 2;
  const startY = (down.scale + down.offset - 1) / 2;
  const edge = (luma: number) => (luma - 0.5) / 2 + 0.5;
  // The first chroma sample reaches half a luma sample beyond the frame; what lies out there covers nothing less.
  const chromaLeft = left <= LEAST_SHARE ? 0 : edge(left);
  const half = (from: number, to: number) => {
    kernels.drawUpright(
      from,
      picture.halfAlpha,
      picture.cStride,
      (picture.widthPx + 1) >> 1,
      (picture.heightPx + 1) >> 1,
      to,
      surface.cStride,
      surface.widthPx / 2,
      surface.heightPx / 2,
      startX,
      across.scale,
      startY,
      down.scale,
      chromaLeft,
      edge(right),
      top / 2,
      bottom / 2,
      opacity,
    );
  };
  half(picture.u, surface.u);
  half(picture.v, surface.v);
  if (surface.alpha === 0) return;
  if (picture.alpha !== 0) {
    full(picture.alpha, surface.alpha);
    half(picture.halfAlpha, surface.halfAlpha);
    return;
  }
  // An opaque picture covers as a white one would.
  const white = kernels.whitePlane();
  kernels.drawUpright(
    white,
    0,
    0,
    1,
    1,
    surface.alpha,
    surface.yStride,
    surface.widthPx,
    surface.heightPx,
    0,
    0,
    0,
    0,
    left,
    right,
    top,
    bottom,
    opacity,
  );
  kernels.drawUpright(
    white,
    0,
    0,
    1,
    1,
    surface.halfAlpha,
    surface.cStride,
    surface.widthPx / 2,
    surface.heightPx / 2,
    0,
    0,
    0,
    0,
    chromaLeft,
    edge(right),
    top / 2,
    bottom / 2,
    opacity,
  );
}
