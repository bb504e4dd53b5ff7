import type { Loudness } from '../loudness';
import { CURVE_PER_SECOND } from '../loudness';
import { barsOf } from './bars';
import { findBeats, untilLastChord, untilLastStroke } from './beat-grid';
import type { SongEvidence } from './grid-evidence';
import { harmonicChange } from './harmony';
import { GRID_MS, jointsOf, LONGEST_TAILORED_MS, PHASE_RATE, textureOf, type Joints, type Texture } from './joints';
import { isDoubtful, type BeatGrid, type ListeningFacts } from './listening-facts';
import { onsetsOf, strokePeaks, type Onsets } from './onsets';
import { sectionsOf, type Section } from './sections';
import { FRAMES_PER_SECOND, LISTENING_RATE, PITCH_STRIDE, spectrogram } from './spectrogram';

/** A stroke is found this long after it begins, half a frame and the rise of its sound; measured on clicks and on pieces with known beats. */
const LATE_MS = 7;
/** Longer songs are heard in pieces, so that memory does not grow with their length. */
const PIECE_SECONDS = 300;
/** Pieces overlap by so much, and are joined in the middle of that. */
const OVERLAP_SECONDS = 20;
const LEAST_SECONDS = 8;
const ACCENT = 2.2;

/** What one piece of a song says; times from the song’s start. */
interface HeardPiece {
  readonly fromMs: number;
  readonly toMs: number;
  readonly grid: BeatGrid | null;
  readonly sections: readonly Section[];
  readonly strokes: readonly { readonly atMs: number; readonly strength: number }[];
  readonly texture: Texture;
}

export interface SongHearing {
  /** @param samples one channel at `LISTENING_RATE` */
  add(samples: Float32Array): void;
  finish(loudness: Loudness): ListeningFacts;
}

/**
 * Hears a song as its samples come, piece by piece.
 *
 * @param wantsBeats false for what is no music: a clip’s own sound
 * @param pieceSeconds more than twice what pieces overlap by
 * @param known beats and sections that need not be found: the score is there
 */
export function songHearing(
  wantsBeats: boolean,
  pieceSeconds = PIECE_SECONDS,
  known: Pick<ListeningFacts, 'beats' | 'sections'> | null = null,
): SongHearing {
  const pieceSamples = pieceSeconds * LISTENING_RATE;
  const overlapSamples = OVERLAP_SECONDS * LISTENING_RATE;
  let waiting: Float32Array[] = [];
  let waitingCount = 0;
  let heardBefore = 0;
  const phases = phaseSamples();
  const pieces: HeardPiece[] = [];
  return {
    add(samples) {
      if (!wantsBeats) return;
      phases.add(samples);
      waiting.push(samples);
      waitingCount += samples.length;
      while (waitingCount >= pieceSamples + overlapSamples) {
        const all = joined(waiting, waitingCount);
        pieces.push(heardPiece(all.subarray(0, pieceSamples), heardBefore, false));
        const rest = all.slice(pieceSamples - overlapSamples);
        heardBefore += pieceSamples - overlapSamples;
        waiting = [rest];
        waitingCount = rest.length;
      }
    },
    finish(loudness) {
      if (wantsBeats && waitingCount > 0) pieces.push(heardPiece(joined(waiting, waitingCount), heardBefore, true));
      const facts = { ...factsOf(loudness, pieces), ...known };
      const joints = jointsIn(facts, pieces, phases.all());
      return joints ? { ...facts, joints } : facts;
    },
  };
}

function joined(parts: readonly Float32Array[], count: number): Float32Array {
  if (parts.length === 1) return parts[0]!;
  const all = new Float32Array(count);
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

function heardPiece(samples: Float32Array, firstSample: number, isLast: boolean): HeardPiece {
  const fromMs = (firstSample * 1000) / LISTENING_RATE;
  const toMs = fromMs + (samples.length * 1000) / LISTENING_RATE;
  if (samples.length < LEAST_SECONDS * LISTENING_RATE)
    return { fromMs, toMs, grid: null, sections: [], strokes: [], texture: { moments: [] } };
  const spectrum = spectrogram(samples);
  const onsets = onsetsOf(spectrum);
  const song: SongEvidence = { onsets, harmony: harmonicChange(spectrum), peaks: strokePeaks(onsets.all) };
  const beats = findBeats(song);
  const found =
    beats && isLast ? { ...beats, frames: untilLastChord(untilLastStroke(beats.frames, onsets.rise), song) } : beats;
  const momentOf = (frame: number) => Math.round(fromMs + (frame * 1000) / FRAMES_PER_SECOND - LATE_MS);
  const bars = found && barsOf(spectrum, song, found.frames);
  const grid =
    found &&
    bars &&
    withoutEarly({
      tempoBpm: 0,
      beatsMs: found.frames.map(momentOf),
      beatsABar: bars.beatsABar,
      firsts: bars.firsts,
      confidence: found.confidence,
    });
  const energy = energyOf(onsets, spectrum.bands, spectrum.bandCount);
  const barsMs = grid ? grid.firsts.map((beat) => grid.beatsMs[beat]! - fromMs) : [];
  const sections = sectionsOf(spectrum, energy, barsMs, toMs - fromMs).map((section) => ({
    ...section,
    startMs: Math.round(section.startMs + fromMs),
    endMs: Math.round(section.endMs + fromMs),
  }));
  const strokes = song.peaks
    .map((frame) => ({ atMs: momentOf(frame), strength: onsets.all[frame]! }))
    .filter(({ atMs, strength }) => strength > ACCENT && atMs >= 0);
  return { fromMs, toMs, grid, sections, strokes, texture: textureOf(spectrum) };
}

/** Every second of the samples, for as long as a song can be tailored; null for longer ones. */
function phaseSamples(): { add(samples: Float32Array): void; all(): Float32Array | null } {
  let parts: Float32Array[] | null = [];
  let count = 0;
  let odd: number | null = null;
  return {
    add(samples) {
      if (!parts) return;
      const whole = odd === null ? samples : Float32Array.from([odd, ...samples]);
      const half = new Float32Array(whole.length >> 1);
      for (let at = 0; at < half.length; at += 1) half[at] = (whole[2 * at]! + whole[2 * at + 1]!) / 2;
      odd = whole.length % 2 === 1 ? whole.at(-1)! : null;
      parts.push(half);
      count += half.length;
      if ((count / PHASE_RATE) * 1000 > LONGEST_TAILORED_MS) parts = null;
    },
    all: () => parts && joined(parts, count),
  };
}

/** Where the song can be joined; null when it is too short or too long for it. */
function jointsIn(facts: ListeningFacts, pieces: readonly HeardPiece[], samples: Float32Array | null): Joints | null {
  if (!samples || pieces.every(({ texture }) => texture.moments.length === 0)) return null;
  const moments: Float32Array[] = [];
  const perSecond = FRAMES_PER_SECOND / PITCH_STRIDE;
  // Where pieces overlap, the later is as good as the earlier.
  for (const { fromMs, texture } of pieces) {
    const first = Math.round((fromMs / 1000) * perSecond);
    texture.moments.forEach((moment, at) => (moments[first + at] = moment));
  }
  const lengthMs = (samples.length * 1000) / PHASE_RATE;
  const { beats } = facts;
  if (beats && !isDoubtful(beats)) {
    const firsts = new Set(beats.firsts);
    let place = 0;
    const inBar = beats.beatsMs.map((_, beat) => (place = firsts.has(beat) ? 0 : place + 1));
    return jointsOf(moments, beats.beatsMs, inBar, beats.beatsABar, samples);
  }
  const grid = Array.from({ length: Math.floor(lengthMs / GRID_MS) }, (_, at) => at * GRID_MS);
  return jointsOf(moments, grid, null, 4, samples);
}

/** The first beat may lie before the song begins. */
function withoutEarly(grid: BeatGrid): BeatGrid {
  const early = grid.beatsMs.filter((atMs) => atMs < 0).length;
  return {
    ...grid,
    beatsMs: grid.beatsMs.slice(early),
    firsts: grid.firsts.filter((beat) => beat >= early).map((beat) => beat - early),
  };
}

function factsOf(loudness: Loudness, pieces: readonly HeardPiece[]): ListeningFacts {
  const { heardFromMs, heardToMs } = heardWithin(loudness.curve);
  const owned = pieces.map((piece, index) => {
    const halfMs = (OVERLAP_SECONDS * 1000) / 2;
    return {
      piece,
      fromMs: index === 0 ? -Infinity : piece.fromMs + halfMs,
      toMs: index === pieces.length - 1 ? Infinity : piece.toMs - halfMs,
    };
  });
  const within = (atMs: number, { fromMs, toMs }: { fromMs: number; toMs: number }) => atMs >= fromMs && atMs < toMs;
  return {
    loudness,
    heardFromMs,
    heardToMs,
    beats: joinedGrids(owned.map((one) => ({ grid: one.piece.grid, holds: (atMs: number) => within(atMs, one) }))),
    sections: owned.flatMap((one) =>
      one.piece.sections.flatMap((section) => {
        const startMs = Math.max(section.startMs, one.fromMs === -Infinity ? 0 : one.fromMs);
        const endMs = Math.min(section.endMs, one.toMs);
        return endMs - startMs > 500 ? [{ ...section, startMs, endMs }] : [];
      }),
    ),
    energy: energyCurve(loudness.curve),
    accentsMs: owned.flatMap((one) => one.piece.strokes.flatMap(({ atMs }) => (within(atMs, one) ? [atMs] : []))),
  };
}

/** One grid of those of the pieces: where two meet, a beat that both found stays once. */
function joinedGrids(
  pieces: readonly { readonly grid: BeatGrid | null; holds(atMs: number): boolean }[],
): BeatGrid | null {
  const beatsMs: number[] = [];
  const firsts: number[] = [];
  let [confidence, counted] = [0, 0];
  for (const { grid, holds } of pieces) {
    if (!grid) continue;
    const own = new Set(grid.firsts);
    grid.beatsMs.forEach((atMs, beat) => {
      const last = beatsMs.at(-1);
      if (!holds(atMs) || (last !== undefined && atMs - last < 180)) return;
      if (own.has(beat)) firsts.push(beatsMs.length);
      beatsMs.push(atMs);
    });
    confidence += grid.confidence * grid.beatsMs.length;
    counted += grid.beatsMs.length;
  }
  const first = pieces.find(({ grid }) => grid)?.grid;
  if (!first || beatsMs.length < 4) return null;
  return {
    tempoBpm: medianTempo(beatsMs),
    beatsMs,
    beatsABar: first.beatsABar,
    firsts,
    confidence: Math.round((100 * confidence) / counted) / 100,
  };
}

function medianTempo(beatsMs: readonly number[]): number {
  // Over eight beats each, so that rounding to frames does not show.
  const span = Math.min(8, beatsMs.length - 1);
  const gaps = beatsMs.slice(span).map((atMs, beat) => (atMs - beatsMs[beat]!) / span);
  const sorted = gaps.toSorted((a, b) => a - b);
  return Math.round((60_000 * 10) / sorted[sorted.length >> 1]!) / 10;
}

const HEARD_ABOVE_LUFS = -60;

function heardWithin(curve: readonly number[]): { heardFromMs: number; heardToMs: number } {
  const heard = (tenths: number) => tenths / 10 > HEARD_ABOVE_LUFS;
  const first = curve.findIndex(heard);
  const last = curve.findLastIndex(heard);
  const msOf = (point: number) => (point * 1000) / CURVE_PER_SECOND;
  return { heardFromMs: first < 0 ? 0 : msOf(first), heardToMs: last < 0 ? msOf(curve.length) : msOf(last + 1) };
}

/** Each half second against the quiet and the loud of its own song, smoothed over 2 s. */
function energyCurve(curve: readonly number[]): number[] {
  const heard = curve.filter((tenths) => tenths > -600).toSorted((a, b) => a - b);
  if (heard.length === 0) return curve.map(() => 0);
  const loud = heard[Math.floor(heard.length * 0.95)]!;
  // Music that never gets quiet is not stretched to seem so: the scale spans 18 dB at least.
  const quiet = Math.min(heard[Math.floor(heard.length * 0.05)]!, loud - 180);
  return curve.map((_, at) => {
    const around = curve.slice(Math.max(0, at - 2), at + 3);
    const level = around.reduce((sum, tenths) => sum + Math.max(quiet, tenths), 0) / around.length;
    return Math.round(100 * Math.max(0, Math.min(1, (level - quiet) / (loud - quiet))));
  });
}

/** The same within a piece, from its bands: 0…1 for each half second. */
function energyOf(onsets: Onsets, bands: Float32Array, bandCount: number): number[] {
  const perMoment = FRAMES_PER_SECOND / 2;
  const levels = Array.from({ length: Math.ceil(onsets.all.length / perMoment) }, (_, moment) => {
    const [from, to] = [
      Math.round(moment * perMoment),
      Math.min(onsets.all.length, Math.round((moment + 1) * perMoment)),
    ];
    let sum = 0;
    for (let at = from * bandCount; at < to * bandCount; at += 1) sum += bands[at]!;
    return sum / Math.max(1, (to - from) * bandCount);
  });
  const sorted = levels.toSorted((a, b) => a - b);
  const loud = sorted[Math.floor(sorted.length * 0.95)] ?? 0;
  const quiet = sorted[Math.floor(sorted.length * 0.05)] ?? 0;
  return levels.map((level) => Math.max(0, Math.min(1, (level - quiet) / Math.max(1e-6, loud - quiet))));
}
