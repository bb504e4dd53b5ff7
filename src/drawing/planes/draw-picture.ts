import type { Framing } from '../../core/motion/framing';
import { q15, type Kernels } from '../kernel-module';
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
  if (Math.abs(framing.turnDegrees) < LEAST_TURN_DEGREES) drawWithoutTurn(kernels, surface, picture, framing, q15(opacity));
  else drawWithTurn(kernels, surface, picture, framing, q15(opacity));
}

/** Where a continuous target coordinate (0 at the frame's edge) lies on the picture, in its samples: `scale · target + offset`. */
function axis(centre: number, size: number, pictureSamples: number, frameSamples: number): { scale: number; offset: number } {
  return { scale: (size * pictureSamples) / frameSamples, offset: (centre - size / 2) * pictureSamples };
}

function drawWithoutTurn(kernels: Kernels, surface: Surface, picture: PicturePlanes, framing: Framing, opacity: number): void {
  const across = axis(framing.x, framing.width, picture.widthPx, surface.widthPx);
  const down = axis(framing.y, framing.height, picture.heightPx, surface.heightPx);
  const left = -across.offset / across.scale;
  const right = (picture.widthPx - across.offset) / across.scale;
  const top = -down.offset / down.scale;
  const bottom = (picture.heightPx - down.offset) / down.scale;
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

function drawWithTurn(kernels: Kernels, surface: Surface, picture: PicturePlanes, framing: Framing, opacity: number): void {
  const radians = (framing.turnDegrees * Math.PI) / 180;
  const scale = (framing.width * picture.widthPx) / surface.widthPx;
  const cos = Math.cos(radians) * scale;
  const sin = Math.sin(radians) * scale;
  // Target point (x, y) from the frame's centre goes to the picture turned by the framing's own turn about its centre.
  const centreX = framing.x * picture.widthPx;
  const centreY = framing.y * picture.heightPx;
  const cx = centreX - (cos * surface.widthPx) / 2 + (sin * surface.heightPx) / 2;
  const cy = centreY - (sin * surface.widthPx) / 2 - (cos * surface.heightPx) / 2;
  kernels.drawTurned(
    picture.y, picture.alpha, picture.yStride, picture.widthPx, picture.heightPx,
    surface.y, surface.yStride, surface.widthPx, surface.heightPx,
    cos, -sin, cx + (cos - sin) / 2 - 0.5, sin, cos, cy + (sin + cos) / 2 - 0.5, scale, opacity,
  );
  const chromaX = (cos * 0.5 - sin + cx - 0.5) / 2;
  const chromaY = (sin * 0.5 + cos + cy - 1) / 2;
  for (const [from, to] of [[picture.u, surface.u], [picture.v, surface.v]] as const) {
    kernels.drawTurned(
      from, picture.halfAlpha, picture.cStride, (picture.widthPx + 1) >> 1, (picture.heightPx + 1) >> 1,
      to, surface.cStride, surface.widthPx / 2, surface.heightPx / 2,
      cos, -sin, chromaX, sin, cos, chromaY, scale, opacity,
    );
  }
}
