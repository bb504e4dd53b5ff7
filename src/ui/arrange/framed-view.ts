import type { PlannedMove } from '../../core/motion/automatic-move';
import type { Framing } from '../../core/motion/framing';

interface Size {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** How a picture and its framings lie on the screen: picture pixels from (left, top) on, times the scale. */
export interface FramedView {
  readonly left: number;
  readonly top: number;
  readonly scale: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** The picture and both framings, as large as fits. */
export function framedView(
  picture: Size,
  move: Pick<PlannedMove, 'first' | 'last'> | undefined,
  most: Size,
): FramedView {
  const boxes = (move ? [move.first, move.last] : []).map((framing) => ({
    left: (framing.x - framing.width / 2) * picture.widthPx,
    right: (framing.x + framing.width / 2) * picture.widthPx,
    top: (framing.y - framing.height / 2) * picture.heightPx,
    bottom: (framing.y + framing.height / 2) * picture.heightPx,
  }));
  const all = [...boxes, { left: 0, right: picture.widthPx, top: 0, bottom: picture.heightPx }];
  const left = Math.min(...all.map((entry) => entry.left));
  const top = Math.min(...all.map((entry) => entry.top));
  const [width, height] = [
    Math.max(...all.map((entry) => entry.right)) - left,
    Math.max(...all.map((entry) => entry.bottom)) - top,
  ];
  const scale = Math.min(most.widthPx / width, most.heightPx / height);
  return { left, top, scale, widthPx: Math.round(width * scale), heightPx: Math.round(height * scale) };
}

/** A framing's rectangle on the screen, before its turn about its own middle. */
export function framingBox(
  view: FramedView,
  framing: Framing,
  picture: Size,
): { x: number; y: number; width: number; height: number } {
  return {
    x: ((framing.x - framing.width / 2) * picture.widthPx - view.left) * view.scale,
    y: ((framing.y - framing.height / 2) * picture.heightPx - view.top) * view.scale,
    width: framing.width * picture.widthPx * view.scale,
    height: framing.height * picture.heightPx * view.scale,
  };
}
