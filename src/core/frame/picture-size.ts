import type { PlannedMove } from '../motion/automatic-move';
import type { PictureSize } from './frame-plan';

/** Source pixels per frame pixel at the tightest framing. Below 1.05 a slow move pulses between soft and sharp, above 1.8 it shimmers. */
const LEAST_RATIO = 1.1;
/** Nothing is gained by pictures larger than this; it bounds memory for extreme framings. */
const LARGEST_SIDE_PX = 8192;

/** The size to read a picture at for a move, drawn into a frame of the given size. Even in both directions. */
export function pictureSizeFor(picture: { readonly widthPx: number; readonly heightPx: number }, move: Pick<PlannedMove, 'first' | 'last'>, frame: { readonly widthPx: number }): PictureSize {
  const tightest = Math.min(move.first.width, move.last.width);
  const wantedPx = (LEAST_RATIO * frame.widthPx) / tightest;
  const aspect = picture.heightPx / picture.widthPx;
  const widthPx = Math.min(wantedPx, LARGEST_SIDE_PX, LARGEST_SIDE_PX / aspect);
  return { widthPx: even(widthPx), heightPx: even(widthPx * aspect) };
}

function even(value: number): number {
  return Math.max(2, 2 * Math.round(value / 2));
}
