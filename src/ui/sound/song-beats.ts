import type { BeatGrid } from '../../core/sound/listening/listening-facts';

/** The beats of a song, in its own time. */
export type SongBeats = Pick<BeatGrid, 'beatsMs' | 'firsts'>;

/** Where bars begin catches from as far again. */
const BARS_CATCH = 2;

/** The beat a moment lies near; the first of a bar, if one is near enough, before any other. Null when none is. */
export function nearestBeat({ beatsMs, firsts }: SongBeats, ms: number, withinMs: number): number | null {
  const near = (moments: readonly number[], reach: number) => {
    let best: number | null = null;
    for (const at of moments)
      if (Math.abs(at - ms) <= reach && (best === null || Math.abs(at - ms) < Math.abs(best - ms))) best = at;
    return best;
  };
  return (
    near(
      firsts.map((first) => beatsMs[first]!),
      BARS_CATCH * withinMs,
    ) ?? near(beatsMs, withinMs)
  );
}

/** The next beat before or after a moment; null where there is none. */
export function beatMoved({ beatsMs }: SongBeats, ms: number, way: -1 | 1): number | null {
  const slack = 1;
  return (way < 0 ? beatsMs.findLast((at) => at < ms - slack) : beatsMs.find((at) => at > ms + slack)) ?? null;
}

/** “bar 12, beat 3”, both counted from 1; “before bar 1”, “before the first beat”. */
export function placeInSong({ beatsMs, firsts }: SongBeats, ms: number): string {
  const beat = beatsMs.findLastIndex((at) => at <= ms + 1);
  if (beat < 0) return 'before the first beat';
  const bar = firsts.findLastIndex((first) => first <= beat);
  return bar < 0 ? 'before bar 1' : `bar ${bar + 1}, beat ${beat - firsts[bar]! + 1}`;
}
