import { maybe, number, object, oneOf, whole, type Schema } from '../../schema/schema';
import type { BeatGrid } from './listening-facts';

/** What a person says about the beats of a song; it counts instead of what was found out. What is not said stays as it was found. */
export interface BeatsSaid {
  /** There are twice as many, or half. */
  readonly times?: 'half' | 'twice';
  /** A steady grid a person tapped, in place of the one that was found. */
  readonly tapped?: { readonly bpm: number; readonly firstMs: number };
  /** All beats later by so much; earlier when negative. */
  readonly laterMs?: number;
  readonly beatsABar?: number;
  /** Bars begin so many beats later than was found. */
  readonly barsLater?: number;
  /** A doubtful grid is right. */
  readonly sure?: 'yes';
}

export const LATEST_NUDGE_MS = 500;
export const TAPPED_BPM = { least: 20, most: 400 };

export const BEATS_SAID: Schema = object<BeatsSaid>({
  times: maybe(oneOf(['half', 'twice'])),
  tapped: maybe(
    object<NonNullable<BeatsSaid['tapped']>>({
      bpm: number(TAPPED_BPM.least, TAPPED_BPM.most),
      firstMs: whole(0, 86_400_000),
    }),
  ),
  laterMs: maybe(whole(-LATEST_NUDGE_MS, LATEST_NUDGE_MS)),
  beatsABar: maybe(whole(2, 12)),
  barsLater: maybe(whole(0, 11)),
  sure: maybe(oneOf(['yes'])),
});

/**
 * The beats that count: those found, as a person puts them right.
 *
 * @param found null when none were
 * @param lengthMs of the song, for a tapped grid
 */
export function beatsThatCount(found: BeatGrid | null, said: BeatsSaid | undefined, lengthMs: number): BeatGrid | null {
  if (!said) return found;
  const grid = said.tapped ? tappedGrid(said.tapped, found?.beatsABar ?? 4, lengthMs) : found;
  if (!grid) return null;
  const first = grid.firsts[0] ?? 0;
  const [beatsMs, firstBar] =
    said.times === 'half'
      ? halved(grid.beatsMs, first)
      : said.times === 'twice'
        ? doubled(grid.beatsMs, first)
        : [grid.beatsMs, first];
  const laterMs = said.laterMs ?? 0;
  const changed = said.times !== undefined || said.beatsABar !== undefined || (said.barsLater ?? 0) !== 0;
  const beatsABar = said.beatsABar ?? grid.beatsABar;
  const from = (firstBar + (said.barsLater ?? 0)) % beatsABar;
  return {
    tempoBpm: grid.tempoBpm * (said.times === 'half' ? 0.5 : said.times === 'twice' ? 2 : 1),
    beatsMs: laterMs === 0 ? beatsMs : beatsMs.map((atMs) => Math.max(0, atMs + laterMs)),
    beatsABar,
    firsts: changed
      ? beatsMs.flatMap((_, beat) => (beat >= from && (beat - from) % beatsABar === 0 ? [beat] : []))
      : grid.firsts,
    confidence: said.sure || said.tapped || said.times ? 1 : grid.confidence,
  };
}

function tappedGrid({ bpm, firstMs }: { bpm: number; firstMs: number }, beatsABar: number, lengthMs: number): BeatGrid {
  const gapMs = 60_000 / bpm;
  const before = Math.floor(firstMs / gapMs);
  const count = Math.max(1, Math.floor((lengthMs - firstMs) / gapMs) + 1 + before);
  return {
    tempoBpm: bpm,
    beatsMs: Array.from({ length: count }, (_, beat) => Math.round(firstMs + (beat - before) * gapMs)),
    beatsABar,
    // The beat that was tapped first begins a bar.
    firsts: Array.from({ length: count }, (_, beat) => beat).filter((beat) => (beat - before) % beatsABar === 0),
    confidence: 1,
  };
}

/** Every second beat, so that the first bar begins on one that stays. */
function halved(beatsMs: readonly number[], first: number): readonly [readonly number[], number] {
  return [beatsMs.filter((_, beat) => beat % 2 === first % 2), Math.floor(first / 2)];
}

function doubled(beatsMs: readonly number[], first: number): readonly [readonly number[], number] {
  const twice = beatsMs.flatMap((atMs, beat) => {
    const next = beatsMs[beat + 1];
    return next === undefined ? [atMs] : [atMs, Math.round((atMs + next) / 2)];
  });
  return [twice, 2 * first];
}

/** How fast a person taps: the beats a minute of the line that fits the taps best, and where it puts the first. Null for fewer than four taps. */
export function tempoOfTaps(tapsMs: readonly number[]): { bpm: number; firstMs: number } | null {
  if (tapsMs.length < 4) return null;
  const count = tapsMs.length;
  const meanBeat = (count - 1) / 2;
  const meanMs = tapsMs.reduce((sum, tap) => sum + tap, 0) / count;
  const [over, under] = tapsMs.reduce(
    ([a, b], tap, beat) => [a + (beat - meanBeat) * (tap - meanMs), b + (beat - meanBeat) ** 2],
    [0, 0],
  ) as [number, number];
  const gapMs = over / under;
  const bpm = 60_000 / gapMs;
  if (!(bpm >= TAPPED_BPM.least && bpm <= TAPPED_BPM.most)) return null;
  return { bpm: Math.round(bpm * 100) / 100, firstMs: Math.max(0, Math.round(meanMs - meanBeat * gapMs)) };
}
