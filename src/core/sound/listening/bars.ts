import { nearby, type SongEvidence } from './grid-evidence';
import { PITCH_STRIDE, type Spectrogram } from './spectrogram';

/** Where bars begin among the beats. */
export interface Bars {
  readonly beatsABar: 3 | 4;
  /** Indices of the beats that begin one. */
  readonly firsts: readonly number[];
}

/**
 * What speaks for a bar beginning on a beat, each with mean 0 and deviation 1 over the song; found by logistic regression on pieces whose bars are known.
 */
const WEIGHTS = { harmony: 0.25, chord: 0.44, bassStroke: 0.63, highStroke: -0.15, bassChange: 0.33, bassLevel: 0.2 };
/** A bar of another length now and then (a beat too many found, one too few) costs this much. */
const SLIP_COST = 8;
/** Three to a bar is rarer than four. */
const WALTZ_COST = 0.1;
const BASS_HZ = 200;

/**
 * The likeliest bars by Viterbi over the place in the bar, for three and for four beats to the bar (after Krebs, Böck and Widmer 2013, “Rhythmic pattern
 * modeling for beat and downbeat tracking”, with accents of harmony and bass in place of learnt patterns).
 *
 * @param frames of the beats
 */
export function barsOf(spectrum: Spectrogram, song: SongEvidence, frames: readonly number[]): Bars {
  const accents = accentsOf(spectrum, song, frames);
  const four = best(accents, 4);
  const three = best(accents, 3);
  return three.score - WALTZ_COST > four.score
    ? { beatsABar: 3, firsts: three.firsts }
    : { beatsABar: 4, firsts: four.firsts };
}

function accentsOf(spectrum: Spectrogram, song: SongEvidence, frames: readonly number[]): number[] {
  const endOf = (beat: number) => frames[beat + 1] ?? frames[beat]! + (frames[beat]! - (frames[beat - 1] ?? 0));
  const chords = frames.map((frame, beat) => chordBetween(spectrum, frame, endOf(beat)));
  const basses = frames.map((frame, beat) => bassBetween(spectrum, frame + 2, endOf(beat)));
  const evidence = {
    harmony: frames.map((frame) => nearby(song.harmony, frame, 6)),
    chord: chords.map((chord, beat) => (beat === 0 ? 0 : 1 - likeness(chords[beat - 1]!, chord))),
    bassStroke: frames.map((frame) => nearby(song.onsets.low, frame, 2)),
    highStroke: frames.map((frame) => nearby(song.onsets.high, frame, 2)),
    bassChange: basses.map((bass, beat) => (beat === 0 ? 0 : distance(basses[beat - 1]!, bass))),
    bassLevel: basses.map((bass) => bass.reduce((sum, value) => sum + value, 0)),
  };
  const names = Object.keys(WEIGHTS) as (keyof typeof WEIGHTS)[];
  const levelled = names.map((name) => ({ weight: WEIGHTS[name], values: standard(evidence[name]) }));
  return frames.map((_, beat) => levelled.reduce((sum, { weight, values }) => sum + weight * values[beat]!, 0));
}

/** @returns the score a beat */
function best(accents: readonly number[], length: number): { score: number; firsts: number[] } {
  // Only first beats are worth something, by the square root of how many there are: so bars of three and of four are compared by how much their firsts stand out.
  const worth = (accent: number, place: number) => (place === 0 ? accent * Math.sqrt(length) : 0);
  let scores = Array.from({ length }, (_, place) => worth(accents[0] ?? 0, place));
  const came: number[][] = [];
  for (const accent of accents.slice(1)) {
    const top = scores.indexOf(Math.max(...scores));
    const usual = (place: number) => (place + length - 1) % length;
    const from = scores.map((_, place) => (scores[usual(place)]! >= scores[top]! - SLIP_COST ? usual(place) : top));
    scores = from.map(
      (before, place) => scores[before]! - (before === usual(place) ? 0 : SLIP_COST) + worth(accent, place),
    );
    came.push(from);
  }
  const score = Math.max(...scores);
  let place = scores.indexOf(score);
  const firsts: number[] = [];
  for (let beat = accents.length - 1; beat >= 0; beat -= 1) {
    if (place === 0) firsts.push(beat);
    place = came[beat - 1]?.[place] ?? 0;
  }
  return { score: score / Math.max(1, accents.length), firsts: firsts.reverse() };
}

function chordBetween({ chroma, chromaCount }: Spectrogram, from: number, to: number): number[] {
  const chord = Array.from({ length: 12 }, () => 0);
  const end = Math.min(chromaCount, Math.round(to / PITCH_STRIDE));
  for (let group = Math.max(0, Math.round(from / PITCH_STRIDE)); group < end; group += 1)
    for (let pitch = 0; pitch < 12; pitch += 1) chord[pitch] = chord[pitch]! + chroma[group * 12 + pitch]!;
  return chord;
}

function bassBetween({ bands, bandCount, bandHz, frameCount }: Spectrogram, from: number, to: number): number[] {
  const count = bandHz.filter((hz) => hz < BASS_HZ).length;
  const bass = Array.from({ length: count }, () => 0);
  const end = Math.min(frameCount, Math.round(to));
  for (let frame = Math.max(0, Math.round(from)); frame < end; frame += 1)
    for (let band = 0; band < count; band += 1) bass[band] = bass[band]! + bands[frame * bandCount + band]!;
  return bass;
}

/** The cosine of the angle between two; 1 where one is silent. */
export function likeness(one: readonly number[], other: readonly number[]): number {
  let [both, a, b] = [0, 0, 0];
  one.forEach((value, at) => {
    both += value * other[at]!;
    a += value * value;
    b += other[at]! * other[at]!;
  });
  return a > 0 && b > 0 ? both / Math.sqrt(a * b) : 1;
}

function distance(one: readonly number[], other: readonly number[]): number {
  return one.reduce((sum, value, at) => sum + Math.abs(value - other[at]!), 0);
}

function standard(values: readonly number[]): number[] {
  const mean = values.reduce((sum, value) => sum + value, 0) / Math.max(1, values.length);
  const deviation =
    Math.sqrt(values.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, values.length)) + 1e-6;
  return values.map((value) => Math.max(-3, Math.min(3, (value - mean) / deviation)));
}
