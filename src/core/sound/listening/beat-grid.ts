import { bestBeats, type BeatRange } from './beat-path';
import { agreement, bpmOf, gridScore, type SongEvidence } from './grid-evidence';
import { FRAMES_PER_SECOND } from './spectrogram';

/** The beats of a song and how sure they are. */
export interface FoundBeats {
  /** Frames, rising; between frames where a beat was put between two others. */
  readonly frames: readonly number[];
  /** 0…1: how much of the likelihood lies with grids that are nearly this one. */
  readonly confidence: number;
}

const SLOWEST_BPM = 45;
const FASTEST_BPM = 220;
/** Where beats are looked for: slow, middle, fast, and all at once for songs whose tempo travels far. */
const RANGES: readonly BeatRange[] = [
  range(50, 110, 80),
  range(70, 170, 115),
  range(100, 215, 150),
  range(50, 215, 110),
];
/** What is listened to: everything, the bass, what rings above. */
const EARS = [
  { all: 1, low: 0, high: 0 },
  { all: 0.6, low: 0.7, high: 0 },
  { all: 0.6, low: 0, high: 0.7 },
] as const;
/** A grid found may be another’s half, double, triple, or lie between its beats: so many to a beat, of which one in so many is taken. */
const RELATIVES: readonly (readonly [number, number])[] = [
  [1, 1],
  [1, 2],
  [2, 1],
  [2, 2],
  [3, 1],
  [1, 3],
  [3, 2],
  [2, 3],
  [4, 3],
  [3, 4],
];
/** Grids that agree so much are the same. */
const SAME = 0.85;

/**
 * Finds a song’s beats: grids are found by several means (`bestBeats` on different bands and ranges of tempo), joined by their halves, doubles and
 * off-beats, and the one that most speaks for is taken (`gridScore`), as in methods that choose among trackers by agreement (Holzapfel, Davies, Zapata, Oliveira
 * and Gouyon 2012).
 *
 * @returns null for what is too short, or has nothing in it that begins
 */
export function findBeats(song: SongEvidence): FoundBeats | null {
  if (song.peaks.length < 4) return null;
  const { grids, candidates } = candidateGrids(song);
  const scored = candidates.map((frames) => ({ frames, score: gridScore(song, frames, grids) }));
  const best = scored.reduce<(typeof scored)[number] | null>(
    (top, one) => (top === null || one.score > top.score ? one : top),
    null,
  );
  if (!best) return null;
  const likelihoods = scored.map(({ score }) => Math.exp(score - best.score));
  const whole = likelihoods.reduce((sum, value) => sum + value, 0);
  const same = scored.reduce(
    (sum, { frames }, index) => (agreement(frames, best.frames) > SAME ? sum + likelihoods[index]! : sum),
    0,
  );
  return { frames: best.frames, confidence: same / whole };
}

/** A beat at whose place so little begins, against the usual one, is none; so near to it counts, in frames. */
const DIED_AWAY = 0.15;
const NEAR_BEAT = 4;
/** So near to it a change of harmony counts. */
const HARMONY_REACH = 8;

/** A chord that rings on: for so many seconds, with nothing in it that begins more strongly than this against the chord itself, and no change of harmony above the usual. */
const RINGS_S = 6;
const IN_RINGING = 0.5;

/** Beats up to a last chord that is held until the end: while it is, instruments that sound together make it rise and fall, but nothing begins. */
export function untilLastChord(frames: readonly number[], { onsets, harmony }: SongEvidence): readonly number[] {
  const end = frames.at(-1) ?? 0;
  const strokes = frames.map((frame) => largest(onsets.rise, frame, NEAR_BEAT));
  for (let beat = 0; beat < frames.length; beat += 1) {
    if (end - frames[beat]! > RINGS_S * FRAMES_PER_SECOND) continue;
    const rings = frames.every(
      (frame, after) =>
        after <= beat || (strokes[after]! < IN_RINGING * strokes[beat]! && largest(harmony, frame, HARMONY_REACH) < 0),
    );
    if (rings) return frames.slice(0, beat + 1);
  }
  return frames;
}

function largest(curve: Float32Array, place: number, reach: number): number {
  const at = Math.round(place);
  return curve.subarray(Math.max(0, at - reach), at + reach + 1).reduce((most, value) => Math.max(most, value));
}

/**
 * Beats up to the last at whose place something still begins: where a song only rings on there are none, though the best sequence goes on to the song's end (as
 * Ellis 2007 leaves out what is weak at the ends).
 *
 * @param rise how strongly something begins at each frame, not set against its surroundings
 */
export function untilLastStroke(frames: readonly number[], rise: Float32Array): readonly number[] {
  const strokes = frames.map((frame) => {
    const at = Math.round(frame);
    return rise
      .subarray(Math.max(0, at - NEAR_BEAT), at + NEAR_BEAT + 1)
      .reduce((most, value) => Math.max(most, value), 0);
  });
  const usual = strokes.toSorted((one, other) => one - other)[strokes.length >> 1]!;
  const last = strokes.findLastIndex((stroke) => stroke >= DIED_AWAY * usual);
  return frames.slice(0, last + 1);
}

/** Grids as they were found, and all that may be meant by them. */
export function candidateGrids(song: SongEvidence): {
  grids: (readonly number[])[];
  candidates: (readonly number[])[];
} {
  const grids = EARS.flatMap((ear) => {
    const strength = Float32Array.from(
      song.onsets.all,
      (value, frame) => ear.all * value + ear.low * song.onsets.low[frame]! + ear.high * song.onsets.high[frame]!,
    );
    return RANGES.flatMap((where) => {
      const found = bestBeats(strength, where);
      return found ? [found] : [];
    });
  });
  const candidates = new Map<string, readonly number[]>();
  for (const grid of grids)
    for (const frames of relatives(grid)) {
      if (frames.length < 4) continue;
      const bpm = bpmOf(frames);
      if (bpm < SLOWEST_BPM || bpm > FASTEST_BPM) continue;
      const sample = frames.filter((_, beat) => beat % 8 === 4).slice(0, 6);
      candidates.set(`${Math.round(bpm)} ${sample.map((frame) => Math.round(frame / 4)).join(' ')}`, frames);
    }
  return { grids, candidates: [...candidates.values()] };
}

function* relatives(grid: readonly number[]): Generator<readonly number[]> {
  for (const [parts, every] of RELATIVES) {
    const finer = grid.flatMap((frame, beat) => {
      const next = grid[beat + 1];
      if (next === undefined) return [frame];
      return Array.from({ length: parts }, (_, part) => frame + ((next - frame) * part) / parts);
    });
    for (let first = 0; first < every; first += 1)
      if (parts !== every || first > 0 || parts === 1) yield finer.filter((_, index) => index % every === first);
  }
}

function range(slowestBpm: number, fastestBpm: number, usualBpm: number): BeatRange {
  const frames = (bpm: number) => (60 * FRAMES_PER_SECOND) / bpm;
  return {
    shortest: frames(fastestBpm),
    longest: frames(slowestBpm),
    prior: (interval) => -0.6 * Math.log2(frames(usualBpm) / interval) ** 2,
  };
}
