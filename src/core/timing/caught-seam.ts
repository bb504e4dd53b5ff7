import { beatNear, type ShowBeat, type ShowMusic } from '../sound/show-beats';

/** Closer than this to a beat, a seam that is dragged is caught by it. */
const BEAT_CATCH_MS = 160;
/** The same of a loud stroke that lies on no beat. */
const ACCENT_CATCH_MS = 90;

export interface CaughtSeam {
  readonly byMs: number;
  /** What it was caught by: a beat, or a loud stroke between beats; null when it lies free. */
  readonly by: ShowBeat | 'stroke' | null;
}

/**
 * Where a seam comes to lie that is dragged: on the beat it is nearest to, else on the loud stroke, if one is near.
 *
 * @param seamMs where it lay before
 */
export function caughtSeam(
  { beats, accentsMs }: Pick<ShowMusic, 'beats' | 'accentsMs'>,
  seamMs: number,
  byMs: number,
): CaughtSeam {
  if (byMs === 0) return { byMs, by: null };
  const beat = beatNear(beats, seamMs + byMs, BEAT_CATCH_MS);
  if (beat) return { byMs: beat.atMs - seamMs, by: beat };
  const away = (atMs: number) => Math.abs(atMs - seamMs - byMs);
  const stroke = accentsMs.reduce((best, atMs) => (away(atMs) < away(best) ? atMs : best), Infinity);
  return away(stroke) <= ACCENT_CATCH_MS ? { byMs: stroke - seamMs, by: 'stroke' } : { byMs, by: null };
}

/** “bar 12, beat 3”. */
export function catchName(by: NonNullable<CaughtSeam['by']>): string {
  return by === 'stroke' ? 'a loud stroke' : `bar ${by.bar}, beat ${by.beat}`;
}
