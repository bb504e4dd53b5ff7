import type { Onsets } from './onsets';
import { FRAMES_PER_SECOND } from './spectrogram';

// Looked up once: these are asked for each sample.
const { abs, max, min, round } = Math;

/** What a song says, frame by frame, about where its beats are. */
export interface SongEvidence {
  readonly onsets: Onsets;
  readonly harmony: Float32Array;
  /** Frames at which something clearly begins. */
  readonly peaks: readonly number[];
}

/**
 * What speaks for and against a grid of beats; see `WEIGHTS`. Each is set against the mean and the deviation it has over many grids of many songs.
 */
const EVIDENCE = [
  'tempo',
  'fast',
  'slow',
  'bass',
  'halves',
  'bassHalves',
  'highHalves',
  'bassQuarters',
  'thirds',
  'turns',
  'highTurns',
  'chords',
  'chordHalves',
  'steady',
  'onBeats',
  'onQuarters',
  'onThirds',
  'bars',
  'agreed',
  'strong',
] as const;
type Evidence = (typeof EVIDENCE)[number];

/** The tempo most songs have; how far a grid is from it counts in octaves. */
const USUAL_BPM = 115;
/** Tempi further from the usual one than this are rare. */
const USUAL_OCTAVES = 0.55;
/** Strokes so many frames from a place of the grid lie on it. */
const ON_PLACE = 3.2;

/**
 * How well a grid of beats suits a song: a weighted sum of what speaks for and against it. The weights were found on pieces with known beats by making the
 * expected F-measure of the grid taken as large as possible; docs/listening.md says how and what was reached on pieces they were not found on.
 *
 * @param frames of the beats, at least three
 * @param others grids found by other means; where several agree they are more likely right
 */
export function gridScore(
  song: SongEvidence,
  frames: readonly number[],
  others: readonly (readonly number[])[],
): number {
  const evidence = evidenceOf(song, frames, others);
  return EVIDENCE.reduce((sum, name) => {
    const [weight, mean, deviation] = WEIGHTS[name];
    return sum + weight * max(-4, min(4, (evidence[name] - mean) / deviation));
  }, 0);
}

export function evidenceOf(
  { onsets, harmony, peaks }: SongEvidence,
  frames: readonly number[],
  others: readonly (readonly number[])[],
): Record<Evidence, number> {
  const gaps = frames.length - 1;
  const all = frames.map((frame) => nearby(onsets.all, frame, 2));
  const low = frames.map((frame) => nearby(onsets.low, frame, 2));
  const high = frames.map((frame) => nearby(onsets.high, frame, 2));
  const between = (curve: Float32Array, share: number, reach = 2) => {
    let sum = 0;
    for (let beat = 0; beat < gaps; beat += 1)
      sum += nearby(curve, frames[beat]! + (frames[beat + 1]! - frames[beat]!) * share, reach);
    return sum / gaps;
  };
  const octaves = Math.log2(bpmOf(frames) / USUAL_BPM);
  const strokes = placesOfStrokes(frames, peaks);
  return {
    tempo: octaves * octaves,
    fast: max(0, octaves - USUAL_OCTAVES) ** 2,
    slow: max(0, -octaves - USUAL_OCTAVES) ** 2,
    bass: mean(low),
    halves: between(onsets.all, 0.5),
    bassHalves: between(onsets.low, 0.5),
    highHalves: between(onsets.high, 0.5),
    bassQuarters: (between(onsets.low, 0.25) + between(onsets.low, 0.75)) / 2,
    thirds: (between(onsets.all, 1 / 3) + between(onsets.all, 2 / 3)) / 2,
    turns: abs(turn(all)),
    highTurns: abs(turn(high)),
    chords: mean(frames.map((frame) => nearby(harmony, frame, 4))),
    chordHalves: between(harmony, 0.5, 4),
    steady: unsteadiness(frames),
    onBeats: strokes.beats,
    onQuarters: strokes.quarters,
    onThirds: strokes.thirds,
    bars: change(all, low, 4) - change(all, low, 1),
    agreed: mean(others.map((other) => agreement(other, frames))),
    strong: all.filter((value) => value > 0.5).length / all.length,
  };
}

/** Beats a minute, by the mean of all gaps. */
export function bpmOf(frames: readonly number[]): number {
  return (60 * FRAMES_PER_SECOND * (frames.length - 1)) / (frames.at(-1)! - frames[0]!);
}

/** The largest value of a curve around a place. */
export function nearby(curve: Float32Array, place: number, reach: number): number {
  const at = round(place);
  let largest = -1;
  for (let frame = max(0, at - reach); frame <= at + reach && frame < curve.length; frame += 1)
    if (curve[frame]! > largest) largest = curve[frame]!;
  return largest;
}

/** The F-measure of two grids, beats within 50 ms of each other being the same. */
export function agreement(one: readonly number[], other: readonly number[]): number {
  const tolerance = 0.05 * FRAMES_PER_SECOND;
  let [i, j, hits] = [0, 0, 0];
  while (i < one.length && j < other.length) {
    const away = other[j]! - one[i]!;
    if (abs(away) <= tolerance) hits += 1;
    if (away <= tolerance) j += 1;
    if (away >= -tolerance) i += 1;
  }
  return one.length + other.length === 0 ? 0 : (2 * hits) / (one.length + other.length);
}

const mean = (values: readonly number[]) =>
  values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;

/** How much every second beat differs from those between. */
function turn(values: readonly number[]): number {
  return mean(values.filter((_, beat) => beat % 2 === 0)) - mean(values.filter((_, beat) => beat % 2 === 1));
}

/** How much beats differ from those so many later. */
function change(all: readonly number[], low: readonly number[], by: number): number {
  const count = all.length - by;
  if (count <= 0) return 0;
  let sum = 0;
  for (let beat = 0; beat < count; beat += 1)
    sum += abs(all[beat]! - all[beat + by]!) + abs(low[beat]! - low[beat + by]!);
  return sum / count;
}

/** Mean squared change of the gap from beat to beat, in thousandths. */
function unsteadiness(frames: readonly number[]): number {
  let sum = 0;
  for (let beat = 1; beat + 1 < frames.length; beat += 1) {
    const ratio = Math.log((frames[beat + 1]! - frames[beat]!) / (frames[beat]! - frames[beat - 1]!));
    sum += min(0.05, ratio * ratio);
  }
  return (1000 * sum) / max(1, frames.length - 1);
}

/** Shares of a song’s strokes that lie on beats, on quarters and on thirds of them. */
function placesOfStrokes(
  frames: readonly number[],
  peaks: readonly number[],
): { beats: number; quarters: number; thirds: number } {
  let [beats, quarters, thirds, beat] = [0, 0, 0, 0];
  for (const peak of peaks) {
    while (beat + 2 < frames.length && frames[beat + 1]! <= peak) beat += 1;
    const gap = frames[beat + 1]! - frames[beat]!;
    const place = (peak - frames[beat]!) / gap;
    if (place < -0.2 || place > 1.2) continue;
    const on = (share: number) => abs(place - share) * gap <= ON_PLACE;
    if (on(0) || on(1)) beats += 1;
    else if (on(0.5)) continue;
    else if (on(0.25) || on(0.75)) quarters += 1;
    else if (on(1 / 3) || on(2 / 3)) thirds += 1;
  }
  const count = max(1, peaks.length);
  return { beats: beats / count, quarters: quarters / count, thirds: thirds / count };
}

/** Weight, mean, deviation. */
const WEIGHTS: Readonly<Record<Evidence, readonly [number, number, number]>> = {
  tempo: [-0.574, 0.4682, 0.4888],
  fast: [-0.418, 0.00482, 0.01955],
  slow: [-0.315, 0.07894, 0.1587],
  bass: [0.538, 1.237, 0.6468],
  halves: [0.229, 0.9626, 0.938],
  bassHalves: [-0.22, 0.8872, 0.7057],
  highHalves: [0.187, 0.9131, 0.954],
  bassQuarters: [-0.113, 0.6242, 0.4919],
  thirds: [-0.603, 0.7686, 0.853],
  turns: [-0.077, 0.762, 0.7908],
  highTurns: [0.395, 0.7603, 0.7973],
  chords: [0.255, 0.2888, 0.2163],
  chordHalves: [-0.716, 0.2463, 0.2119],
  steady: [-0.484, 0.266, 0.2929],
  onBeats: [1.012, 0.2311, 0.1238],
  onQuarters: [-0.098, 0.2007, 0.1475],
  onThirds: [-0.715, 0.1954, 0.1822],
  bars: [-0.147, -0.553, 1.12],
  agreed: [0.927, 0.3293, 0.1748],
  strong: [0.405, 0.5999, 0.2439],
};
