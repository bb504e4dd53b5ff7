import { cutPolygon, type Point } from '../../core/frame/polygon';
import { inverse3, mapped, type Matrix3 } from '../../core/frame/matrix';
import type { Framing } from '../../core/motion/framing';
import type { Kernels } from '../kernel-module';
import { drawQuad, WHOLE_BOX, type Rect } from './draw-quad';
import { drawUpright, LEAST_SHARE, type Axis } from './draw-upright';
import type { PicturePlanes } from './picture-planes';
import type { Surface } from './surface';

/** Beyond this a turn is worth the slower sampler; below, it cannot be seen at any frame size. */
const LEAST_TURN_DEGREES = 1e-4;

/**
 * Draws a picture through a framing: the framing's rectangle fills the frame.
 *
 * @param opacity 0…1
 */
export function drawPicture(
  kernels: Kernels,
  surface: Surface,
  picture: PicturePlanes,
  framing: Framing,
  opacity: number,
): void {
  if (opacity <= 0) return;
  if (Math.abs(framing.turnDegrees) < LEAST_TURN_DEGREES) drawFramed(kernels, surface, picture, framing, opacity);
  else
    drawQuad(
      kernels,
      surface,
      picture,
      [surface.widthPx, 0, 0, 0, surface.heightPx, 0, 0, 0, 1],
      framingSamples(framing, picture),
      framedOutline(framing, picture),
      opacity,
    );
}

/** A box filled by a framing, to the picture's samples. */
export function framingSamples(
  framing: Framing,
  picture: { readonly widthPx: number; readonly heightPx: number },
): Matrix3 {
  const radians = (framing.turnDegrees * Math.PI) / 180;
  const [cos, sin] = [Math.cos(radians), Math.sin(radians)];
  const [w, h] = [framing.width * picture.widthPx, framing.height * picture.heightPx];
  const x = framing.x * picture.widthPx - (cos * w) / 2 + (sin * h) / 2 - 0.5;
  const y = framing.y * picture.heightPx - (sin * w) / 2 - (cos * h) / 2 - 0.5;
  return [cos * w, -sin * h, x, sin * w, cos * h, y, 0, 0, 1];
}

/** The part of a box in which the framed picture lies; the whole box where the framing lies on the picture. */
export function framedOutline(
  framing: Framing,
  picture: { readonly widthPx: number; readonly heightPx: number },
  within: readonly Point[] = WHOLE_BOX,
): Point[] {
  const back = inverse3(framingSamples(framing, picture))!;
  const [w, h] = [picture.widthPx - 0.5, picture.heightPx - 0.5];
  const slack = LEAST_SHARE;
  const corners = [mapped(back, -0.5, -0.5), mapped(back, w, -0.5), mapped(back, w, h), mapped(back, -0.5, h)];
  if (
    framing.turnDegrees === 0 &&
    corners[0]!.x <= slack &&
    corners[0]!.y <= slack &&
    corners[2]!.x >= 1 - slack &&
    corners[2]!.y >= 1 - slack
  )
    return [...within];
  return cutPolygon(within, corners);
}

/** Where a place of the target lies on a picture under an upright framing. */
function axis(centre: number, size: number, pictureSamples: number, frameSamples: number): Axis {
  return { scale: (size * pictureSamples) / frameSamples, offset: (centre - size / 2) * pictureSamples };
}

/**
 * Draws through a framing without turn.
 *
 * @param reach as for `drawUpright`; without it the picture's own extent
 */
export function drawFramed(
  kernels: Kernels,
  surface: Surface,
  picture: PicturePlanes,
  framing: Framing,
  share: number,
  reach?: Rect,
): void {
  const across = axis(framing.x, framing.width, picture.widthPx, surface.widthPx);
  const down = axis(framing.y, framing.height, picture.heightPx, surface.heightPx);
  drawUpright(
    kernels,
    surface,
    picture,
    across,
    down,
    reach ?? {
      left: -across.offset / across.scale,
      right: (picture.widthPx - across.offset) / across.scale,
      top: -down.offset / down.scale,
      bottom: (picture.heightPx - down.offset) / down.scale,
    },
    share,
  );
}
