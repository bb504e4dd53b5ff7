// Looked up once: these are asked for each pair and each sample.
const { abs, floor, imul, max, min, sin } = Math;

/** Samples a second of everything the band plays. */
export const BAND_RATE = 48_000;

/** One note of an instrument: one channel, or two that differ a little. */
export interface Tone {
  readonly left: Float32Array;
  /** The same array where both are alike. */
  readonly right: Float32Array;
}

/** Makes the notes of an instrument. */
export interface Voice {
  /** A tone rings on by itself, and is damped where the note ends; or it sounds just as long as it is asked for. */
  readonly rings: boolean;
  /** How long it takes to be silent once a note ends. */
  readonly releaseMs: number;
  /** What brings it to the loudness of the others. */
  readonly gain: number;
  /** How long a note takes until it is heard to have begun: players set out so much sooner. Nothing where it is struck or plucked. */
  speaksMs?(loudness: number, frames: number): number;
  /** @param frames how long the note is; for those that ring it does not matter */
  tone(pitch: number, loudness: number, frames: number): Tone;
}

export const hertzOf = (pitch: number): number => 440 * 2 ** ((pitch - 69) / 12);

/** Noise that is the same every time: −1…1. */
export function noiseFrom(seed: number): () => number {
  let state = (imul(seed, 0x9e3779b1) ^ 0x6d2b79f5) >>> 0;
  return () => {
    state = (imul(state, 1664525) + 1013904223) >>> 0;
    return state / 0x8000_0000 - 1;
  };
}

/** A filter of second order, from the usual cookbook (R. Bristow-Johnson, “Audio EQ cookbook formulae”), run over samples in place. */
export function filtered(
  samples: Float32Array,
  kind: 'low' | 'high' | 'band' | 'bell',
  hertz: number,
  q: number,
  gainDb = 0,
): Float32Array {
  const angle = (2 * Math.PI * min(hertz, 0.45 * BAND_RATE)) / BAND_RATE;
  const [turned, alpha] = [Math.cos(angle), sin(angle) / (2 * q)];
  const raise = 10 ** (gainDb / 40);
  const [b0, b1, b2, a0, a1, a2] =
    kind === 'low'
      ? [(1 - turned) / 2, 1 - turned, (1 - turned) / 2, 1 + alpha, -2 * turned, 1 - alpha]
      : kind === 'high'
        ? [(1 + turned) / 2, -1 - turned, (1 + turned) / 2, 1 + alpha, -2 * turned, 1 - alpha]
        : kind === 'band'
          ? [alpha, 0, -alpha, 1 + alpha, -2 * turned, 1 - alpha]
          : [1 + alpha * raise, -2 * turned, 1 - alpha * raise, 1 + alpha / raise, -2 * turned, 1 - alpha / raise];
  const [c0, c1, c2, d1, d2] = [b0! / a0!, b1! / a0!, b2! / a0!, a1! / a0!, a2! / a0!];
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  for (let at = 0; at < samples.length; at += 1) {
    const value = samples[at]!;
    const out = c0 * value + c1 * x1 + c2 * x2 - d1 * y1 - d2 * y2;
    x2 = x1;
    x1 = value;
    y2 = y1;
    y1 = out;
    samples[at] = out;
  }
  return samples;
}

/** Makes its loudest sample 1. */
export function toPeak(samples: Float32Array): Float32Array {
  let peak = 1e-9;
  for (const sample of samples) peak = max(peak, abs(sample));
  for (let at = 0; at < samples.length; at += 1) samples[at]! /= peak;
  return samples;
}

const LAYERS = 5;

/** Keeps what was made: tones of struck and plucked instruments are made once a pitch and layer of loudness. */
export function kept(make: (pitch: number, loudness: number) => Tone): (pitch: number, loudness: number) => Tone {
  const made = new Map<number, Tone>();
  return (pitch, loudness) => {
    const layer = min(LAYERS - 1, floor(loudness * LAYERS));
    const key = pitch * LAYERS + layer;
    let tone = made.get(key);
    if (!tone) made.set(key, (tone = make(pitch, (layer + 0.6) / LAYERS)));
    return tone;
  };
}

export const inMiddle = (samples: Float32Array): Tone => ({ left: samples, right: samples });
