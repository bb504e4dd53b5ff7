import type { PlannedMove } from '../motion/automatic-move';
import { narrowestWidth } from '../motion/move-pace';
import type { PictureSize, SizeShare } from './frame-plan';

/** Source pixels per frame pixel at the tightest framing. Below 1.05 a slow move pulses between soft and sharp, above 1.8 it shimmers. */
const LEAST_RATIO = 1.1;
/** From this ratio on the next smaller size begins to take over, and at the greatest it has: sharpness then changes without a step. */
const GIVES_WAY = 1.38;
const GREATEST_RATIO = 1.5;
const STEP = GREATEST_RATIO / LEAST_RATIO;
/** Nothing is gained by pictures larger than this; it bounds memory for extreme framings. */
const LARGEST_SIDE_PX = 8000;
/** Below this a picture is a few pixels on the screen and one size serves. */
const SMALLEST_SIDE_PX = 16;

/** The width to read a picture at so that a box of the given width on the screen, filled by a share of the picture, is sharp. */
export function wantedWidthPx(shownWidthPx: number, framingWidth: number): number {
  return (LEAST_RATIO * shownWidthPx) / framingWidth;
}

/** The size to read a picture at for a move that fills a frame of the given size. Even in both directions. */
export function pictureSizeFor(
  picture: { readonly widthPx: number; readonly heightPx: number },
  move: Omit<PlannedMove, 'name'>,
  frame: { readonly widthPx: number },
): PictureSize {
  return sizeOfWidth(picture, wantedWidthPx(frame.widthPx, narrowestWidth(move)));
}

/**
 * The size or sizes to draw from at a moment.
 *
 * @param largestPx the width wanted at the closest moment of the slide: sizes step down from it, so that slow moves need one only
 * @param wantedPx the width wanted now, at most `largestPx`
 */
export function sizesFor(
  picture: { readonly widthPx: number; readonly heightPx: number },
  largestPx: number,
  wantedPx: number,
): SizeShare[] {
  const steps = Math.log(Math.max(1, largestPx / Math.max(SMALLEST_SIDE_PX, wantedPx))) / Math.log(STEP);
  const rung = Math.floor(steps + 1e-9);
  const ratio = LEAST_RATIO * STEP ** (steps - rung);
  const size = (at: number) => sizeOfWidth(picture, largestPx / STEP ** at);
  const next = (ratio - GIVES_WAY) / (GREATEST_RATIO - GIVES_WAY);
  return next <= 0
    ? [{ size: size(rung), share: 1 }]
    : [
        { size: size(rung), share: 1 },
        { size: size(rung + 1), share: Math.min(1, next) },
      ];
}

function sizeOfWidth(picture: { readonly widthPx: number; readonly heightPx: number }, wantedPx: number): PictureSize {
  const aspect = picture.heightPx / picture.widthPx;
  const widthPx = Math.min(wantedPx, LARGEST_SIDE_PX, LARGEST_SIDE_PX / aspect);
  return { widthPx: even(widthPx), heightPx: even(widthPx * aspect) };
}

function even(value: number): number {
  return Math.max(2, 2 * Math.round(value / 2));
}
