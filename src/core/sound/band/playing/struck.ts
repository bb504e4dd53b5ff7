import { BAND_RATE, hertzOf, inMiddle, kept, noiseFrom, filtered, toPeak, type Voice } from './tone';

// Looked up once: these are asked for each pair and each sample.
const { abs, ceil, cos, exp, log, max, min, sin, sqrt } = Math;

/** A sound as the sum of what swings in it (modal synthesis): each part of its own pitch, loudness and decay. */
export interface Struck {
  /** Pitches of the parts against the note's own. */
  ratio(part: number, pitch: number): number;
  /** Loudness of a part, by how hard it is struck. */
  level(part: number, pitch: number, loudness: number): number;
  /** Seconds until a part has gone down by 60 dB. */
  decay(part: number, pitch: number): number;
  readonly parts: number;
  /** Two strings a note, so many cents apart, beat against each other; 0 for one. */
  readonly apartCents: number;
  /** The knock of the hammer: how loud, and where its sound lies. */
  readonly knock: { readonly level: number; readonly hertz: number; readonly ms: number };
  readonly releaseMs: number;
  readonly gain: number;
  readonly longestSeconds: number;
}

const SILENT = 10 ** (-75 / 20);

export function struckVoice(of: Struck): Voice {
  const tone = kept((pitch, loudness) => inMiddle(strike(of, pitch, loudness)));
  return { rings: true, releaseMs: of.releaseMs, gain: of.gain, tone };
}

function strike(of: Struck, pitch: number, loudness: number): Float32Array {
  const base = hertzOf(pitch);
  const longest = min(of.longestSeconds, of.decay(0, pitch) * 1.1);
  const samples = new Float32Array(ceil(longest * BAND_RATE));
  for (let part = 0; part < of.parts; part += 1) {
    const hertz = base * of.ratio(part, pitch);
    if (hertz > 17_000) break;
    const level = of.level(part, pitch, loudness);
    if (level < 1e-4) continue;
    const strings = of.apartCents > 0 && part < 6 ? 2 : 1;
    for (let string = 0; string < strings; string += 1) {
      const own = hertz * 2 ** (((string === 0 ? -0.5 : 0.5) * of.apartCents * (strings - 1)) / 1200);
      // The second string dies away more slowly: the sound has two decays, as a piano's has.
      ring(
        samples,
        own,
        (level / strings) * (string === 0 ? 1.15 : 0.85),
        of.decay(part, pitch) * (string === 0 ? 0.8 : 1.25),
        part + 17 * string,
      );
    }
  }
  toPeak(samples);
  const { knock } = of;
  if (knock.level > 0) {
    const noise = noiseFrom(pitch + 1000);
    const frames = ceil((knock.ms / 1000) * BAND_RATE * 4);
    const thud = filtered(
      Float32Array.from({ length: frames }, (_, at) => noise() * exp(-at / ((knock.ms / 1000) * BAND_RATE))),
      'band',
      knock.hertz,
      0.8,
    );
    toPeak(thud);
    for (let at = 0; at < min(frames, samples.length); at += 1)
      samples[at] = samples[at]! + knock.level * (0.3 + 0.7 * loudness) * thud[at]!;
  }
  // A millisecond to begin with, so that nothing clicks.
  for (let at = 0; at < 48; at += 1) samples[at]! *= at / 48;
  const end = min(samples.length, 4800);
  for (let at = 0; at < end; at += 1) samples[samples.length - 1 - at]! *= at / end;
  return samples;
}

/** Adds a decaying sine by its recurrence: two multiplications a sample. */
function ring(samples: Float32Array, hertz: number, level: number, seconds: number, seed: number): void {
  const angle = (2 * Math.PI * hertz) / BAND_RATE;
  const radius = 10 ** (-3 / (seconds * BAND_RATE));
  const [first, second] = [2 * radius * cos(angle), radius * radius];
  const phase = 0.4 * sin(seed * 12.9898);
  let one = level * sin(phase - angle);
  let two = level * sin(phase - 2 * angle);
  const until = min(samples.length, ceil(log(SILENT / max(level, 1e-6)) / log(radius) || 0));
  for (let at = 0; at < until; at += 1) {
    const value = first * one - second * two;
    two = one;
    one = value;
    samples[at] = samples[at]! + value;
  }
}

const harmonics = (part: number) => part + 1;

/** Stiff strings: the higher a part, the more it is sharp (Fletcher 1964). */
function stiff(part: number, pitch: number): number {
  const stiffness = 0.00011 * 2 ** ((pitch - 49) / 9.5);
  const n = part + 1;
  return n * sqrt((1 + stiffness * n * n) / (1 + stiffness));
}

export const PIANO: Struck = {
  ratio: stiff,
  level: (part, pitch, loudness) => {
    const n = part + 1;
    // Struck at an eighth of its length; softer hammers leave out what is high.
    const place = abs(sin((Math.PI * n) / 8.3)) / sin(Math.PI / 8.3);
    const soft = exp(-((hertzOf(pitch) * n) / (900 + 3600 * loudness * loudness + 14 * pitch)));
    return (place / n ** 0.75) * soft;
  },
  decay: (part, pitch) => (14 * 2 ** (-(pitch - 33) / 16)) / (1 + 0.16 * part),
  parts: 28,
  apartCents: 1.4,
  knock: { level: 0.1, hertz: 420, ms: 9 },
  releaseMs: 130,
  gain: 0.62,
  longestSeconds: 9,
};

export const ELECTRIC_PIANO: Struck = {
  ratio: (part) => [1, 2, 3, 4, 7.1, 14.2][part]!,
  level: (part, _pitch, loudness) => [1, 0.32, 0.1, 0.04, 0.12 * loudness, 0.08 * loudness][part]!,
  decay: (part, pitch) => [7, 4.5, 3, 2, 0.35, 0.18][part]! * 2 ** (-(pitch - 60) / 30),
  parts: 6,
  apartCents: 2.5,
  knock: { level: 0.03, hertz: 900, ms: 5 },
  releaseMs: 220,
  gain: 0.62,
  longestSeconds: 8,
};

export const MUSIC_BOX: Struck = {
  ratio: (part) => [1, 2.01, 5.4, 8.9, 13.3][part]!,
  level: (part, _pitch, loudness) => [1, 0.14, 0.22 * (0.4 + loudness), 0.08, 0.03][part]!,
  decay: (part, pitch) => [3.4, 2, 0.7, 0.4, 0.2][part]! * 2 ** (-(pitch - 72) / 26),
  parts: 5,
  apartCents: 0,
  knock: { level: 0.12, hertz: 3600, ms: 2 },
  releaseMs: 900,
  gain: 0.5,
  longestSeconds: 5,
};

export const VIBRAPHONE: Struck = {
  ratio: (part) => [1, 3.98, 10.1][part]!,
  level: (part, _pitch, loudness) => [1, 0.22 * loudness, 0.06 * loudness][part]!,
  decay: (part, pitch) => [6, 1.6, 0.4][part]! * 2 ** (-(pitch - 60) / 26),
  parts: 3,
  apartCents: 4,
  knock: { level: 0.05, hertz: 1400, ms: 4 },
  releaseMs: 240,
  gain: 0.5,
  longestSeconds: 7,
};

export const MARIMBA: Struck = {
  ratio: (part) => [1, 3.93, 9.4][part]!,
  level: (part, _pitch, loudness) => [1, 0.28 * (0.3 + loudness), 0.1 * loudness][part]!,
  decay: (part, pitch) => [1.5, 0.35, 0.1][part]! * 2 ** (-(pitch - 60) / 20),
  parts: 3,
  apartCents: 0,
  knock: { level: 0.14, hertz: 800, ms: 5 },
  releaseMs: 400,
  gain: 0.62,
  longestSeconds: 3,
};

export const BELLS: Struck = {
  ratio: (part) => [1, 2.76, 5.4, 8.93, 0.5][part]!,
  level: (part) => [1, 0.5, 0.26, 0.1, 0.08][part]!,
  decay: (part, pitch) => [5.5, 3.6, 1.8, 0.8, 6][part]! * 2 ** (-(pitch - 72) / 30),
  parts: 5,
  apartCents: 3,
  knock: { level: 0.02, hertz: 4000, ms: 2 },
  releaseMs: 2500,
  gain: 0.36,
  longestSeconds: 7,
};

export const PLUCKS: Struck = {
  ratio: harmonics,
  level: (part, pitch, loudness) => {
    const hertz = hertzOf(pitch) * (part + 1);
    return ((1 / (part + 1)) * (part % 2 === 1 ? 0.55 : 1)) / (1 + (hertz / (1500 + 3500 * loudness)) ** 4) ** 0.5;
  },
  // What is high dies first, as when a filter closes.
  decay: (part, pitch) => (0.95 * 2 ** (-(pitch - 60) / 34)) / (1 + 0.42 * part),
  parts: 20,
  apartCents: 6,
  knock: { level: 0, hertz: 1000, ms: 1 },
  releaseMs: 160,
  gain: 0.5,
  longestSeconds: 2,
};
