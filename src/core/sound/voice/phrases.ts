import { LEVEL_MS } from './voice-levels';

/** Something said without a pause: `[fromMs, toMs)` of the file. */
export interface Phrase {
  readonly fromMs: number;
  readonly toMs: number;
}

/** A silence shorter than this lies within a word. */
const SHORTEST_PAUSE_MS = 130;
/** What is shorter is no speech. */
const SHORTEST_PHRASE_MS = 70;
/** Soft beginnings and ends of words lie below what is taken for speech. */
const BEFORE_MS = 30;
const AFTER_MS = 50;
/** Where between the room and the voice speech begins, and how far below loud speech that may lie, in dB. */
const SHARE = 0.35;
const DEEPEST_DB = 38;
const HIGHEST_DB = 14;
/** A file without this much between its quiet and its loud holds no speech with pauses. */
const LEAST_SPAN_DB = 8;
const SILENT_DB = -75;

/** The level from which on it is speech; null where nothing is spoken. */
export function speechThreshold(rmsDb: ArrayLike<number>): number | null {
  const sorted = Float32Array.from(rmsDb).sort();
  if (sorted.length === 0) return null;
  const loud = sorted[Math.floor(sorted.length * 0.97)]!;
  const quiet = Math.max(SILENT_DB, sorted[Math.floor(sorted.length * 0.08)]!);
  if (loud < -60) return null;
  if (loud - quiet < LEAST_SPAN_DB) return quiet - 1;
  return Math.min(loud - HIGHEST_DB, Math.max(loud - DEEPEST_DB, quiet + SHARE * (loud - quiet)));
}

/** What is said, phrase by phrase, from levels taken once in `LEVEL_MS`. */
export function phrasesOf(rmsDb: ArrayLike<number>): Phrase[] {
  const least = speechThreshold(rmsDb);
  if (least === null) return [];
  const runs: { from: number; to: number }[] = [];
  for (let at = 0; at < rmsDb.length; at += 1) {
    if (rmsDb[at]! < least) continue;
    const last = runs.at(-1);
    if (last && at - last.to < SHORTEST_PAUSE_MS / LEVEL_MS) last.to = at + 1;
    else runs.push({ from: at, to: at + 1 });
  }
  const end = rmsDb.length * LEVEL_MS;
  return runs
    .filter(({ from, to }) => (to - from) * LEVEL_MS >= SHORTEST_PHRASE_MS)
    .map(({ from, to }) => ({
      fromMs: Math.max(0, from * LEVEL_MS - BEFORE_MS),
      toMs: Math.min(end, to * LEVEL_MS + AFTER_MS),
    }));
}

/** Silence left before and after what is said when a recording is trimmed. */
const KEPT_BEFORE_MS = 120;
const KEPT_AFTER_MS = 250;

/** Where a recording is worth hearing; null when nothing is said in it. */
export function trimmed(phrases: readonly Phrase[], lengthMs: number): Phrase | null {
  const [first, last] = [phrases[0], phrases.at(-1)];
  if (!first || !last) return null;
  return {
    fromMs: Math.max(0, Math.round(first.fromMs - KEPT_BEFORE_MS)),
    toMs: Math.min(Math.round(lengthMs), Math.round(last.toMs + KEPT_AFTER_MS)),
  };
}
