import type { AssetFacts } from '../show/asset-facts';

/** Shorter sides than this are enlarged more than three times to fill a frame of 1080 lines. */
const LEAST_SIDE_PX = 360;

/** Whether a picture or clip is too small to stand large unasked: in an opener, on a card, in a window. */
export function isTooSmall(known: AssetFacts | undefined): boolean {
  return known !== undefined && known.kind !== 'sound' && Math.min(known.widthPx, known.heightPx) < LEAST_SIDE_PX;
}
