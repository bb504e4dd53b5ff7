import { object, oneOf, type Schema } from '../schema/schema';
import type { ShowEdit } from '../show/edit';
import type { AssetId } from '../show/ids';
import type { Show } from '../show/show';
import { FRAME_RATE, framesPerSecond, wholeRate, type FrameRate } from './frame-rate';

/**
 * How the frames between are come by when a clip is evened out: two that follow each other mixed by how near they are, or drawn anew with what is in them carried
 * along as it moves.
 */
export const EVENED_WAYS = ['mixed', 'drawn'] as const;
export type EvenedWay = (typeof EVENED_WAYS)[number];

/** What is wanted of a clip's evened copy: its frames a second (`faultOfRate`), and how those between are come by. */
export interface EvenedWish {
  readonly rate: FrameRate;
  readonly way: EvenedWay;
}
export const EVENED_WISH: Schema = object<EvenedWish>({ rate: FRAME_RATE, way: oneOf(EVENED_WAYS) });

/** Frames are drawn between for clips up to this long: a second of full HD takes about 24 s. */
export const LONGEST_DRAWN_MS = 5 * 60_000;
/** More frames a second than this are wanted by no film. */
const MOST = 120;

/** The rate an evened copy of a clip needs, so that its frames go one by one into a film's, or evenly, at the speed it is played. @param speed above 0 */
export function evenedRate(film: FrameRate, speed: number): FrameRate {
  const each = framesPerSecond(film) / speed;
  return wholeRate(each / Math.ceil(each / MOST));
}

/** About how long an evened copy is in the making on a plain machine; null: it is not made that way. */
export function evenedWithinMs(
  { widthPx, heightPx, lengthMs }: { readonly widthPx: number; readonly heightPx: number; readonly lengthMs: number },
  rate: FrameRate,
  way: EvenedWay,
): number | null {
  if (way === 'drawn' && lengthMs > LONGEST_DRAWN_MS) return null;
  const megapixels = (widthPx * heightPx * (lengthMs / 1000) * framesPerSecond(rate)) / 1e6;
  return megapixels * MS_A_MEGAPIXEL[way];
}

/** Measured with one core, at 720p (`docs/performance.md`). */
const MS_A_MEGAPIXEL: Record<EvenedWay, number> = { mixed: 25, drawn: 380 };

/** A show with the evened copy of a clip in the clip's place, with what was said of it. */
export function withEvenedCopy(show: Show, from: AssetId, to: AssetId): ShowEdit {
  const posterMs = show.posters?.[from];
  const licence = show.licences?.[from];
  return {
    kind: 'together',
    name: 'put an evened copy in the place of a clip',
    edits: [
      { kind: 'swap-file', from, to },
      ...(posterMs === undefined ? [] : [{ kind: 'set-posters', posters: [{ assetId: to, atMs: posterMs }] } as const]),
      ...(licence === undefined ? [] : [{ kind: 'set-licences', licences: [{ assetId: to, licence }] } as const]),
    ],
  };
}
