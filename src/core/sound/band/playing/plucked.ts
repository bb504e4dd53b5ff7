import { BAND_RATE, filtered, hertzOf, inMiddle, kept, noiseFrom, toPeak, type Voice } from './tone';

// Looked up once: these are asked for each pair and each sample.
const { ceil, floor, max, min, round } = Math;

/** A string as a delay line that is fed back through a filter (Karplus and Strong 1983, with Jaffe and Smith's tuning and plucking place). */
export interface Plucked {
  /** 0…1: how much of what is high is in the pluck of a soft and of a hard note. */
  readonly brightness: readonly [soft: number, hard: number];
  /** Where it is plucked, as a share of its length. */
  readonly place: number;
  /** Seconds until a note has gone down by 60 dB, of MIDI 48 and by octave. */
  readonly seconds: number;
  readonly perOctave: number;
  /** 0…1: how fast what is high dies away. */
  readonly damping: number;
  /** What its body adds: Hz, width, dB. */
  readonly body: readonly (readonly [hertz: number, q: number, gainDb: number])[];
  readonly releaseMs: number;
  readonly gain: number;
}

const LONGEST_SECONDS = 6;

export function pluckedVoice(of: Plucked): Voice {
  return {
    rings: true,
    releaseMs: of.releaseMs,
    gain: of.gain,
    tone: kept((pitch, loudness) => inMiddle(pluck(of, pitch, loudness))),
  };
}

function pluck(of: Plucked, pitch: number, loudness: number): Float32Array {
  const period = BAND_RATE / hertzOf(pitch);
  const seconds = of.seconds * of.perOctave ** ((pitch - 48) / 12);
  // The averaging filter and the tuning filter are themselves late.
  const whole = floor(period - of.damping - 0.1);
  const rest = period - of.damping - whole;
  const tune = (1 - rest) / (1 + rest);
  const line = new Float32Array(whole);
  const noise = noiseFrom(pitch * 31 + round(loudness * 10));
  const bright = of.brightness[0] + (of.brightness[1] - of.brightness[0]) * loudness;
  let low = 0;
  for (let at = 0; at < whole; at += 1) line[at] = low += bright * (noise() - low);
  const away = max(1, round(of.place * whole));
  const plucked = Float32Array.from(line, (value, at) => value - line[(at + whole - away) % whole]!);
  const mean = plucked.reduce((sum, value) => sum + value, 0) / whole;
  for (let at = 0; at < whole; at += 1) line[at] = plucked[at]! - mean;
  const feedback = 10 ** ((-3 * period) / (seconds * BAND_RATE));
  const samples = new Float32Array(ceil(min(LONGEST_SECONDS, seconds) * BAND_RATE));
  let [at, last, tuneIn, tuneOut] = [0, 0, 0, 0];
  for (let frame = 0; frame < samples.length; frame += 1) {
    const value = line[at]!;
    samples[frame] = value;
    const smooth = (1 - of.damping) * value + of.damping * last;
    last = value;
    const tuned = tune * smooth + tuneIn - tune * tuneOut;
    tuneIn = smooth;
    tuneOut = tuned;
    line[at] = feedback * tuned;
    at = at + 1 === whole ? 0 : at + 1;
  }
  for (const [hertz, q, gainDb] of of.body) filtered(samples, 'bell', hertz, q, gainDb);
  toPeak(samples);
  const end = min(samples.length, 4800);
  for (let frame = 0; frame < end; frame += 1) samples[samples.length - 1 - frame]! *= frame / end;
  for (let frame = 0; frame < 36; frame += 1) samples[frame]! *= frame / 36;
  return samples;
}

const WOOD = [
  [105, 4, 5],
  [210, 3, 3.5],
  [430, 2, 1.5],
] as const;

export const GUITAR: Plucked = {
  brightness: [0.16, 0.5],
  place: 0.2,
  seconds: 3.6,
  perOctave: 0.72,
  damping: 0.46,
  body: [...WOOD, [6000, 0.7, -6]],
  releaseMs: 110,
  gain: 0.62,
};

export const STEEL_GUITAR: Plucked = {
  brightness: [0.3, 0.85],
  place: 0.14,
  seconds: 5,
  perOctave: 0.72,
  damping: 0.3,
  body: [...WOOD, [3200, 1, 2]],
  releaseMs: 110,
  gain: 0.5,
};

export const DOUBLE_BASS: Plucked = {
  brightness: [0.1, 0.26],
  place: 0.28,
  seconds: 2.6,
  perOctave: 0.75,
  damping: 0.5,
  body: [
    [70, 2, 5],
    [150, 2, 3],
    [1800, 1, -5],
  ],
  releaseMs: 90,
  gain: 0.78,
};
