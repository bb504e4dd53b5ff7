import { beatNear, type ShowBeat } from '../sound/show-beats';

/** Closer than this to a beat, a seam that is dragged is caught by it. */
export const CATCH_MS = 160;

export interface CaughtSeam {
  readonly byMs: number;
  /** What it was caught by; null when it lies free. */
  readonly beat: ShowBeat | null;
}

/**
 * Where a seam comes to lie that is dragged: on the beat it is nearest to, if one is near.
 *
 * @param seamMs where it lay before
 * @param beats rising
 */
export function caughtSeam(beats: readonly ShowBeat[], seamMs: number, byMs: number): CaughtSeam {
  const beat = byMs === 0 ? null : beatNear(beats, seamMs + byMs, CATCH_MS);
  return beat ? { byMs: beat.atMs - seamMs, beat } : { byMs, beat: null };
}

/** “bar 12, beat 3”. */
export function beatName({ bar, beat }: ShowBeat): string {
  return bar === 0 ? 'after the music' : `bar ${bar}, beat ${beat}`;
}
