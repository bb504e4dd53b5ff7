import { cutPolygon, type Point } from '../../core/frame/polygon';
import { inverse3, mapped, type Matrix3 } from '../../core/frame/matrix';
import type { Framing } from '../../core/motion/framing';
import { q15, type Kernels } from '../kernel-module';
import { drawQuad, WHOLE_BOX } from './draw-quad';
import type { PicturePlanes } from './picture-planes';
import type { Surface } from './surface';

/** Beyond this a turn is worth the slower sampler; below, it cannot be seen at any frame size. */
const LEAST_TURN_DEGREES = 1e-4;
/** A smaller share of a sample than any opacity can tell. */
const LEAST_SHARE = 1e-6;

/**
 * Draws a picture through a framing: the framing's rectangle fills the frame.
 *
 * @param opacity 0…1
 */
export function drawPicture(kernels: Kernels, surface: Surface, picture: PicturePlanes, framing: Framing, opacity: number): void {
  if (opacity <= 0) return;
  const upright = Math.abs(framing.turnDegrees) < LEAST_TURN_DEGREES && surface.alpha === 0;
  if (upright) drawUpright(kernels, surface, picture, framing, opacity);
  else drawQuad(kernels, surface, picture, [surface.widthPx, 0, 0, 0, surface.heightPx, 0, 0, 0, 1], framingSamples(framing, picture), framedOutline(framing, picture), opacity);
}

/** A box filled by a framing, to the picture's samples. */
export function framingSamples(framing: Framing, picture: { readonly widthPx: number; readonly heightPx: number }): Matrix3 {
  const radians = (framing.turnDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  const [w, h] = [framing.width * picture.widthPx, framing.height * picture.heightPx];
  const x = framing.x * picture.widthPx - (cos * w) / 2 + (sin * h) / 2 - 0.5;
  const y = framing.y * picture.heightPx - (sin * w) / 2 - (cos * h) / 2 - 0.5;
  return [cos * w, -sin * h, x, sin * w, cos * h, y, 0, 0, 1];
}

/** The part of a box in which the framed picture lies; the whole box where the framing lies on the picture. */
export function framedOutline(framing: Framing, picture: { readonly widthPx: number; readonly heightPx: number }, within: readonly Point[] = WHOLE_BOX): Point[] {
  const back = inverse3(framingSamples(framing, picture))!;
  const [w, h] = [picture.widthPx - 0.5, picture.heightPx - 0.5];
  const slack = LEAST_SHARE;
  const corners = [mapped(back, -0.5, -0.5), mapped(back, w, -0.5), mapped(back, w, h), mapped(back, -0.5, h)];
  if (framing.turnDegrees === 0 && corners[0]!.x <= slack && corners[0]!.y <= slack && corners[2]!.x >= 1 - slack && corners[2]!.y >= 1 - slack) return [...within];
  return cutPolygon(within, corners);
}

/** Where a continuous target coordinate (0 at the frame's edge) lies on the picture, in its samples: `scale · target + offset`. */
function axis(centre: number, size: number, pictureSamples: number, frameSamples: number): { scale: number; offset: number } {
  return { scale: (size * pictureSamples) / frameSamples, offset: (centre - size / 2) * pictureSamples };
}

/**
 * Draws without turn; on opaque surfaces only.
 *
 * @param reach the part of the surface to draw in, in pixels; where it goes beyond the picture, the picture's border is repeated. Without it the picture's own extent.
 */
export function drawUpright(kernels: Kernels, surface: Surface, picture: PicturePlanes, framing: Framing, share: number, reach?: { left: number; top: number; right: number; bottom: number }): void {
  const opacity = q15(share);
  const across = axis(framing.x, framing.width, picture.widthPx, surface.widthPx);
  const down = axis(framing.y, framing.height, picture.heightPx, surface.heightPx);
  const left = reach?.left ?? -across.offset / across.scale;
  const right = reach?.right ?? (picture.widthPx - across.offset) / across.scale;
  const top = reach?.top ?? -down.offset / down.scale;
  const bottom = reach?.bottom ?? (picture.heightPx - down.offset) / down.scale;
  kernels.drawUpright(
    picture.y, picture.alpha, picture.yStride, picture.widthPx, picture.heightPx,
    surface.y, surface.yStride, surface.widthPx, surface.heightPx,
    across.scale * 0.5 + across.offset - 0.5, across.scale, down.scale * 0.5 + down.offset - 0.5, down.scale,
    left, right, top, bottom, opacity,
  );
  // Chroma sample j of either side sits at luma coordinate 2j + ½ across and 2j + 1 down.
  const startX = (across.scale * 0.5 + across.offset - 0.5) / 2;
  const startY = (down.scale + down.offset - 1) / 2;
  const edge = (luma: number) => (luma - 0.5) / 2 + 0.5;
  // The first chroma sample reaches half a luma sample beyond the frame; what lies out there covers nothing less.
  const chromaLeft = left <= LEAST_SHARE ? 0 : edge(left);
  for (const [from, to] of [[picture.u, surface.u], [picture.v, surface.v]] as const) {
    kernels.drawUpright(
      from, picture.halfAlpha, picture.cStride, (picture.widthPx + 1) >> 1, (picture.heightPx + 1) >> 1,
      to, surface.cStride, surface.widthPx / 2, surface.heightPx / 2,
      startX, across.scale, startY, down.scale,
      chromaLeft, edge(right), top / 2, bottom / 2, opacity,
    );
  }
}
