import { times4, rotation, translation, scaling, projected, type Matrix4 } from '../../core/frame/matrix';
import { facesEye } from '../../core/frame/space-order';
import type { Framing } from '../../core/motion/framing';
import type { FourWays } from '../../core/show/transition';
import type { TransitionPlan } from '../../core/transitions/transition-plan';
import { unreachable } from '../../core/unreachable';
import { q15, type Kernels } from '../kernel-module';
import { bitmapSamples, drawQuad, WHOLE_BOX } from '../planes/draw-quad';
import { drawFramed } from '../planes/draw-picture';
import { lightPicture } from '../planes/light-planes';
import { padPlanes } from '../planes/picture-planes';
import { blurCel } from '../planes/cels';
import { copySurface, fillSurface, ycbcrOf, type Surface } from '../planes/surface';
import { NEUTRAL } from '../../core/frame/frame-plan';
import { paintLayer, type Easel } from './paint-layer';

/** Behind turning cards and cubes, as shares of the frame’s height and in stops. */
const BEHIND_BLUR = 0.05;
const BEHIND_EXPOSURE = -1.1;
/** The back of a turned page. */
const PAGE = '#efe9dc';

/** The two finished frames and a third to draw on. */
export interface Frames {
  readonly leaving: Surface;
  readonly coming: Surface;
  readonly out: Surface;
}

/** Draws a transition at a progress of 0…1. @returns the surface that holds the result; the others are spent */
export function performTransition(easel: Easel, frames: Frames, transition: TransitionPlan, progress: number): Surface {
  const { kernels } = easel;
  const { leaving, coming, out } = frames;
  if (progress <= 0) return leaving;
  if (progress >= 1) return coming;
  switch (transition.kind) {
    case 'dissolve':
      return mixed(kernels, leaving, coming, progress);
    case 'dip': {
      fillSurface(kernels, out, transition.colour);
      return progress < 0.5
        ? mixed(kernels, leaving, out, 2 * progress)
        : mixed(kernels, out, coming, 2 * progress - 1);
    }
    case 'burn':
      return burn(kernels, frames, transition.colour, progress);
    case 'map':
      return wipe(easel, frames, transition, progress);
    case 'built': {
      padPlanes(kernels, leaving);
      padPlanes(kernels, coming);
      fillSurface(kernels, out, transition.colour);
      for (const layer of transition.layers) paintLayer({ ...easel, frames: { leaving, coming } }, out, layer);
      return out;
    }
    case 'push':
    case 'slide-over':
    case 'slide-off':
      return slide(kernels, frames, transition.kind, transition.direction, progress);
    case 'slide-apart':
      return apart(kernels, frames, transition.direction, progress);
    case 'zoom-through':
      return zoomThrough(kernels, frames, transition.direction, progress);
    case 'zoom-blur':
      return zoomBlur(kernels, frames, transition.direction, progress);
    case 'page-turn':
      return pageTurn(kernels, frames, transition.direction, progress);
    case 'card-turn':
      return cardTurn(easel, frames, transition.direction, progress);
    case 'cube-turn':
      return cubeTurn(easel, frames, transition.direction, progress);
    case 'blur-through':
      return blurThrough(easel, frames, progress);
    case 'mosaic':
      return mosaic(kernels, frames, transition.count, progress);
    default:
      return unreachable(transition);
  }
}

/** b over a by a share, into a. A dissolve is linear in Y'CbCr, so it is exact on finished frames. */
function mixed(kernels: Kernels, a: Surface, b: Surface, share: number): Surface {
  kernels.mixRow(a.block, a.block, b.block, a.byteCount, q15(share));
  return a;
}

/** Burns out to the colour, brightest places first, and comes back from it. */
function burn(kernels: Kernels, { leaving, coming, out }: Frames, colour: string, progress: number): Surface {
  const [from, glow] = progress < 0.5 ? ([leaving, 2 * progress] as const) : ([coming, 2 - 2 * progress] as const);
  lightPicture(kernels, from, from, { ...NEUTRAL, exposure: 3 * glow, saturation: 0.3 * glow });
  fillSurface(kernels, out, colour);
  return mixed(kernels, from, out, glow ** 2.2);
}

function wipe(
  { kernels, store, frame }: Easel,
  { leaving, coming }: Frames,
  { map, softness }: Extract<TransitionPlan, { kind: 'map' }>,
  progress: number,
): Surface {
  const made = store.made(
    { kind: 'wipe-map', look: map, frame: { widthPx: frame.widthPx, heightPx: frame.heightPx } },
    'wipe-map',
  );
  if (!made) return mixed(kernels, leaving, coming, progress);
  const border = Math.max(1, Math.round(softness * 32767));
  const moment = Math.round(progress * (32767 + border));
  const [w, h] = [frame.widthPx, frame.heightPx];
  kernels.mixByMap(leaving.y, leaving.y, coming.y, leaving.yStride, made.map, made.stride, w, h, moment, border);
  kernels.mixByMap(
    leaving.u,
    leaving.u,
    coming.u,
    leaving.cStride,
    made.half,
    made.halfStride,
    w / 2,
    h / 2,
    moment,
    border,
  );
  kernels.mixByMap(
    leaving.v,
    leaving.v,
    coming.v,
    leaving.cStride,
    made.half,
    made.halfStride,
    w / 2,
    h / 2,
    moment,
    border,
  );
  return leaving;
}

const WHOLE: Framing = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
const WAY: Record<FourWays, readonly [x: number, y: number]> = {
  left: [-1, 0],
  right: [1, 0],
  up: [0, -1],
  down: [0, 1],
};

/** The frame moved by shares of its width and height. */
function moved(x: number, y: number, scale = 1): Framing {
  return { ...WHOLE, x: 0.5 - x / scale, y: 0.5 - y / scale, width: 1 / scale, height: 1 / scale };
}

function everywhere(surface: Surface): { left: number; top: number; right: number; bottom: number } {
  return { left: 0, top: 0, right: surface.widthPx, bottom: surface.heightPx };
}

function slide(
  kernels: Kernels,
  { leaving, coming, out }: Frames,
  kind: 'push' | 'slide-over' | 'slide-off',
  direction: FourWays,
  progress: number,
): Surface {
  const [dx, dy] = WAY[direction];
  padPlanes(kernels, leaving);
  padPlanes(kernels, coming);
  if (kind === 'slide-off') {
    drawFramed(kernels, coming, leaving, moved(dx * progress, dy * progress), 1);
    return coming;
  }
  const came = moved(dx * (progress - 1), dy * (progress - 1));
  if (kind === 'slide-over') {
    drawFramed(kernels, leaving, coming, came, 1);
    return leaving;
  }
  // The leaving frame goes on to the border between them and beyond; the coming one is laid over it.
  drawFramed(kernels, out, leaving, moved(dx * progress, dy * progress), 1, everywhere(out));
  drawFramed(kernels, out, coming, came, 1);
  return out;
}

function apart(kernels: Kernels, { leaving, coming }: Frames, direction: 'across' | 'down', progress: number): Surface {
  padPlanes(kernels, leaving);
  const [w, h] = [leaving.widthPx, leaving.heightPx];
  const across = direction === 'across';
  const by = progress / 2;
  const [firstEnd, secondStart] = across ? [w * (0.5 - by), w * (0.5 + by)] : [h * (0.5 - by), h * (0.5 + by)];
  drawFramed(kernels, coming, leaving, across ? moved(-by, 0) : moved(0, -by), 1, {
    ...everywhere(leaving),
    ...(across ? { right: firstEnd } : { bottom: firstEnd }),
  });
  drawFramed(kernels, coming, leaving, across ? moved(by, 0) : moved(0, by), 1, {
    ...everywhere(leaving),
    ...(across ? { left: secondStart } : { top: secondStart }),
  });
  return coming;
}

/** In: the leaving frame comes up and fades, and the next grows out of its middle. Out: the same backwards. */
function zoomThrough(
  kernels: Kernels,
  { leaving, coming, out }: Frames,
  direction: 'in' | 'out',
  progress: number,
): Surface {
  padPlanes(kernels, leaving);
  padPlanes(kernels, coming);
  const inwards = direction === 'in';
  const share = inwards ? progress : 1 - progress;
  const [far, near] = inwards ? [coming, leaving] : [leaving, coming];
  const smooth = (low: number, high: number, value: number) => {
    const t = Math.min(1, Math.max(0, (value - low) / (high - low)));
    return t * t * (3 - 2 * t);
  };
  drawFramed(kernels, out, near, moved(0, 0, 3 ** share), 1, everywhere(out));
  drawFramed(kernels, out, far, moved(0, 0, 0.28 ** (1 - share)), smooth(0.05, 0.6, share));
  return out;
}

/** Every step lays what there is over itself, a little larger, and so doubles the sizes it is the mean of. */
const ZOOM_DOUBLINGS = 3;

/** The mean of several sizes; the frames change over in the middle, where the smear is longest. */
function zoomBlur(
  kernels: Kernels,
  { leaving, coming, out }: Frames,
  direction: 'in' | 'out',
  progress: number,
): Surface {
  const share = Math.min(1, Math.max(0, (progress - 0.38) / 0.24));
  const smear = 1 + 0.42 * Math.sin(Math.PI * progress) ** 2;
  const [leavingGrown, comingGrown] =
    direction === 'in' ? [1 + 0.5 * progress ** 2, 1] : [1, 1 + 0.5 * (1 - progress) ** 2];
  padPlanes(kernels, leaving);
  padPlanes(kernels, coming);
  if (share < 1) drawFramed(kernels, out, leaving, moved(0, 0, leavingGrown), 1, everywhere(out));
  if (share > 0) drawFramed(kernels, out, coming, moved(0, 0, comingGrown), share, everywhere(out));
  const step = smear ** (1 / (2 ** ZOOM_DOUBLINGS - 1));
  let [from, to] = [out, leaving];
  for (let doubling = 0; doubling < ZOOM_DOUBLINGS; doubling += 1) {
    padPlanes(kernels, from);
    copySurface(kernels, to, from);
    drawFramed(kernels, to, from, moved(0, 0, step ** (2 ** doubling)), 0.5, everywhere(to));
    [from, to] = [to, from];
  }
  return from;
}

function pageTurn(kernels: Kernels, { leaving, coming, out }: Frames, direction: FourWays, progress: number): Surface {
  padPlanes(kernels, leaving);
  const [wayX, wayY] = WAY[direction];
  // A little aslant, as a hand lifts a page by its corner. Its normal points at the side that is lifted.
  const slant = 0.22;
  const length = Math.hypot(1, slant);
  const [dirX, dirY] = [(-wayX + slant * -wayY) / length, (-wayY + slant * Math.abs(wayX)) / length];
  const [w, h] = [leaving.widthPx, leaving.heightPx];
  const reaches = [
    [0, 0],
    [w, 0],
    [0, h],
    [w, h],
  ].map(([x, y]) => x! * dirX + y! * dirY);
  const radius = 0.09 * (wayX !== 0 ? w : h);
  const [first, last] = [Math.max(...reaches), Math.min(...reaches) - radius];
  const fold = first + (last - first) * progress;
  const paper = ycbcrOf(PAGE);
  kernels.turnPagePlane(leaving.y, coming.y, out.y, leaving.yStride, w, h, dirX, dirY, fold, radius, 16, paper.y);
  for (const [a, b, to, back] of [
    [leaving.u, coming.u, out.u, paper.u],
    [leaving.v, coming.v, out.v, paper.v],
  ] as const) {
    kernels.turnPagePlane(a, b, to, leaving.cStride, w / 2, h / 2, dirX, dirY, fold / 2, radius / 2, 128, back);
  }
  return out;
}

/** The frame as a plane in space, about its middle, in pixels. */
function plane(surface: Surface, moves: Matrix4): Matrix4 {
  const [w, h] = [surface.widthPx, surface.heightPx];
  return times4(translation(w / 2, h / 2, 0), times4(moves, times4(scaling(w, h, 1), translation(-0.5, -0.5, 0))));
}

function eyeOf(surface: Surface): { x: number; y: number; distance: number } {
  return { x: surface.widthPx / 2, y: surface.heightPx / 2, distance: 2.2 * surface.heightPx };
}

function drawPlane(kernels: Kernels, out: Surface, from: Surface, box: Matrix4): void {
  padPlanes(kernels, from);
  drawQuad(kernels, out, from, projected(box, eyeOf(out)), bitmapSamples(from), WHOLE_BOX, 1);
}

function turnedBy(direction: FourWays, degrees: number): Matrix4 {
  if (direction === 'left') return rotation(0, 0, degrees);
  if (direction === 'right') return rotation(0, 0, -degrees);
  return direction === 'up' ? rotation(0, degrees, 0) : rotation(0, -degrees, 0);
}

/** What is seen past a card or cube while it turns: its own two frames, out of focus and in the dark, so that the screen is never empty. */
function layBehind({ kernels, cels }: Easel, { leaving, coming, out }: Frames, progress: number): void {
  copySurface(kernels, out, leaving);
  mixed(kernels, out, coming, progress);
  blurCel(kernels, cels, out, everywhere(out), BEHIND_BLUR * out.heightPx);
  lightPicture(kernels, out, out, { ...NEUTRAL, exposure: BEHIND_EXPOSURE });
}

/** One card with a frame on either side turns half round, stepping back a little on the way. */
function cardTurn(easel: Easel, frames: Frames, direction: FourWays, progress: number): Surface {
  const { kernels } = easel;
  const { leaving, coming, out } = frames;
  layBehind(easel, frames, progress);
  const back = translation(0, 0, -0.55 * out.heightPx * Math.sin(Math.PI * progress));
  const [shown, degrees] =
    progress < 0.5 ? ([leaving, 180 * progress] as const) : ([coming, 180 * progress - 180] as const);
  drawPlane(kernels, out, shown, plane(out, times4(back, turnedBy(direction, degrees))));
  return out;
}

/** Two neighbouring faces of a cube as deep as it is wide (or high), which turns a quarter round. */
function cubeTurn(easel: Easel, frames: Frames, direction: FourWays, progress: number): Surface {
  const { kernels } = easel;
  const { leaving, coming, out } = frames;
  layBehind(easel, frames, progress);
  const across = direction === 'left' || direction === 'right';
  const half = (across ? out.widthPx : out.heightPx) / 2;
  const back = translation(0, 0, -half - 0.35 * out.heightPx * Math.sin(Math.PI * progress));
  const face = (degrees: number) =>
    plane(out, times4(back, times4(turnedBy(direction, degrees), translation(0, 0, half))));
  const eye = eyeOf(out);
  // Turning towards the left brings the face on the right to the front.
  for (const [from, box] of [
    [leaving, face(-90 * progress)],
    [coming, face(90 - 90 * progress)],
  ] as const)
    if (facesEye(box, eye)) drawPlane(kernels, out, from, box);
  return out;
}

function blurThrough({ kernels, cels }: Easel, { leaving, coming }: Frames, progress: number): Surface {
  const sigma = 0.045 * leaving.heightPx * Math.sin(Math.PI * progress) ** 1.5;
  const share = Math.min(1, Math.max(0, (progress - 0.3) / 0.4));
  const rect = { left: 0, top: 0, right: leaving.widthPx, bottom: leaving.heightPx };
  if (share < 1) blurCel(kernels, cels, leaving, rect, sigma);
  if (share <= 0) return leaving;
  blurCel(kernels, cels, coming, rect, sigma);
  return share >= 1 ? coming : mixed(kernels, leaving, coming, share);
}

/** Squares grow until there are `count` across the frame, change over and shrink again. */
function mosaic(kernels: Kernels, { leaving, coming, out }: Frames, count: number, progress: number): Surface {
  const share = Math.min(1, Math.max(0, (progress - 0.42) / 0.16));
  const from = share <= 0 ? leaving : share >= 1 ? coming : mixed(kernels, leaving, coming, share);
  const side = (leaving.widthPx / count) ** Math.sin(Math.PI * progress);
  if (side < 1.5) return from;
  kernels.mosaicPlane(from.y, out.y, out.yStride, out.widthPx, out.heightPx, side, side);
  for (const [a, to] of [
    [from.u, out.u],
    [from.v, out.v],
  ] as const)
    kernels.mosaicPlane(a, to, out.cStride, out.widthPx / 2, out.heightPx / 2, side / 2, side / 2);
  return out;
}
