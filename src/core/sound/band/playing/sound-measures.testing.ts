import { fingerprint } from '../../../fingerprint.testing';
import type { BandWishes } from '../band-wishes';
import { LISTENING_RATE } from '../../listening/spectrogram';
import { compose } from '../compose';
import { playPiece } from './play-piece';
import { BAND_RATE } from './tone';

// Looked up once: these are asked for each sample.
const { abs, cos, log10, min, PI, sin, sqrt } = Math;

/** A whole piece, and where its last chord lies. */
export function played(wishes: BandWishes): { samples: Float32Array; lastMs: number } {
  const piece = compose(wishes);
  const playing = playPiece(piece);
  const samples = new Float32Array(2 * playing.frameCount);
  let at = 0;
  for (let block = playing.next(); block; block = playing.next()) {
    samples.set(block, at);
    at += block.length;
  }
  return { samples, lastMs: piece.form.beatsMs.at(-1)! };
}

/** How alike left and right are, −1…1: what is below 0 is lost where both become one. @param samples interleaved stereo */
export function sideLikeness(samples: Float32Array): number {
  let [left, right, both] = [0, 0, 0];
  for (let at = 0; at < samples.length; at += 2) {
    const [one, other] = [samples[at]!, samples[at + 1]!];
    left += one * one;
    right += other * other;
    both += one * other;
  }
  return both / sqrt(left * right);
}

export function largestOf(samples: Float32Array): { size: number; step: number } {
  let [size, step] = [0, 0];
  for (let at = 0; at < samples.length; at += 1) {
    const sample = abs(samples[at]!);
    if (!(sample <= size)) size = sample;
    if (at >= 2 && abs(samples[at]! - samples[at - 2]!) > step) step = abs(samples[at]! - samples[at - 2]!);
  }
  return { size, step };
}

/** Decibels of each third of an octave from 80 Hz to 8 kHz, against the loudest of them. */
export function thirdOctaves(samples: Float32Array): number[] {
  const levels = Array.from({ length: 21 }, (_, band) => {
    const angle = (2 * PI * 80 * 2 ** (band / 3)) / BAND_RATE;
    const alpha = sin(angle) / (2 * 4.32);
    const [gain, back, far] = [alpha / (1 + alpha), (2 * cos(angle)) / (1 + alpha), (1 - alpha) / (1 + alpha)];
    let [x1, x2, y1, y2, power] = [0, 0, 0, 0, 0];
    for (let at = 0; at < samples.length; at += 2) {
      const value = samples[at]! + samples[at + 1]!;
      const out = gain * (value - x2) + back * y1 - far * y2;
      x2 = x1;
      x1 = value;
      y2 = y1;
      y1 = out;
      power += out * out;
    }
    return 10 * log10(power / samples.length + 1e-15);
  });
  const most = Math.max(...levels);
  return levels.map((level) => level - most);
}

/** Loudness of a stretch, as the root of its mean square. */
export function rmsOf(samples: Float32Array, fromMs: number, toMs: number): number {
  const [from, to] = [fromMs, toMs].map((ms) => 2 * Math.round((ms / 1000) * BAND_RATE));
  let power = 0;
  for (let at = from!; at < to!; at += 1) power += samples[at]! * samples[at]!;
  return sqrt(power / (to! - from!));
}

/** How far a tone is off a frequency: the middle of what sounds within 36 cents of it, as vibrato and several players spread a tone. */
export function centsOff(samples: Float32Array, hertz: number): number {
  const to = min(samples.length, 3 * BAND_RATE);
  const strengths = Array.from({ length: 25 }, (_, at) => {
    const angle = (2 * PI * hertz * 2 ** ((3 * (at - 12)) / 1200)) / BAND_RATE;
    const [turnRe, turnIm] = [cos(angle), sin(angle)];
    let [re, im, sumRe, sumIm] = [1, 0, 0, 0];
    for (let frame = 2400; frame < to; frame += 1) {
      sumRe += samples[frame]! * re;
      sumIm += samples[frame]! * im;
      const next = re * turnRe - im * turnIm;
      im = re * turnIm + im * turnRe;
      re = next;
    }
    return sumRe * sumRe + sumIm * sumIm;
  });
  const all = strengths.reduce((sum, strength) => sum + strength, 0);
  return strengths.reduce((sum, strength, at) => sum + 3 * (at - 12) * strength, 0) / all;
}

/** So many pairs of samples are told of together. */
const TOLD_TOGETHER = 2400;
/** Softer is silence. */
const SILENT = 1e-4;

/** A short name for how something sounds: how loud left, right, their difference and their edges are, every 50 ms. @param samples interleaved stereo */
export function soundPrint(samples: Float32Array): string {
  const levels: number[][] = [];
  for (let from = 0; from < samples.length; from += 2 * TOLD_TOGETHER) {
    let [left, right, apart, edge] = [0, 0, 0, 0];
    const to = min(samples.length, from + 2 * TOLD_TOGETHER);
    for (let at = from; at < to; at += 2) {
      const [one, other] = [samples[at]!, samples[at + 1]!];
      const before = at > from ? samples[at - 2]! : one;
      left += one * one;
      right += other * other;
      apart += (one - other) * (one - other);
      edge += (one - before) * (one - before);
    }
    levels.push([left, right, apart, edge].map((power) => Math.round(sqrt(power / TOLD_TOGETHER) / SILENT)));
  }
  return fingerprint(levels);
}

/** One channel, at the rate of listening: the mean of what lies under each of its samples. */
export function asHeard(samples: Float32Array): Float32Array {
  const step = BAND_RATE / LISTENING_RATE;
  return Float32Array.from({ length: Math.floor(samples.length / 2 / step) }, (_, at) => {
    const [from, to] = [Math.round(at * step), Math.round((at + 1) * step)];
    let sum = 0;
    for (let frame = from; frame < to; frame += 1) sum += samples[2 * frame]! + samples[2 * frame + 1]!;
    return sum / (2 * (to - from));
  });
}
