import { lettersToSay } from '../../captions/sentences';

const { cos, min, PI, sin } = Math;

/** Speech as a machine of two lines would have it: a buzzing voice through three resonances that wander, with hisses between; its sentences stand at known times. */
export interface Spoken {
  readonly samples: Float32Array;
  readonly sentences: readonly { readonly fromMs: number; readonly toMs: number }[];
}

export const SPOKEN_RATE = 48_000;
const LEVEL = 0.08;

/** Numbers that look random and are always the same. */
export function dice(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return state / 4294967296;
  };
}

interface Saying {
  readonly texts: readonly string[];
  readonly leadMs?: number;
  readonly pausesMs?: readonly number[];
  readonly msALetter?: number;
  readonly pitchHz?: number;
  readonly seed?: number;
}

export function spoken({
  texts,
  leadMs = 1500,
  pausesMs = [650],
  msALetter = 68,
  pitchHz = 120,
  seed = 3,
}: Saying): Spoken {
  const roll = dice(seed);
  const parts: Float32Array[] = [new Float32Array((leadMs * SPOKEN_RATE) / 1000)];
  const sentences: { fromMs: number; toMs: number }[] = [];
  let atMs = leadMs;
  texts.forEach((text, index) => {
    const clauses = text.split(/(?<=,)\s/);
    const fromMs = atMs;
    clauses.forEach((clause, at) => {
      const lengthMs = Math.round(lettersToSay(clause) * msALetter * (0.95 + 0.1 * roll()));
      parts.push(said(lengthMs, pitchHz * (0.95 + 0.1 * roll()), roll));
      atMs += lengthMs;
      if (at < clauses.length - 1) {
        parts.push(new Float32Array((180 * SPOKEN_RATE) / 1000));
        atMs += 180;
      }
    });
    sentences.push({ fromMs, toMs: atMs });
    const pauseMs = pausesMs[index % pausesMs.length]!;
    parts.push(new Float32Array((pauseMs * SPOKEN_RATE) / 1000));
    atMs += pauseMs;
  });
  const samples = new Float32Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    samples.set(part, at);
    at += part.length;
  }
  return { samples, sentences };
}

/** Syllables of 170 ms: a vowel, then a soft or a hissing consonant. */
function said(lengthMs: number, pitchHz: number, roll: () => number): Float32Array {
  const count = Math.round((lengthMs * SPOKEN_RATE) / 1000);
  const out = new Float32Array(count);
  const resonances = [0, 0, 0].map(() => ({ y1: 0, y2: 0 }));
  const syllable = Math.round(0.17 * SPOKEN_RATE);
  let phase = 0;
  let formants = [600, 1400, 2500];
  let hisses = false;
  for (let index = 0; index < count; index += 1) {
    const within = index % syllable;
    if (within === 0) {
      formants = [300 + 500 * roll(), 900 + 1100 * roll(), 2300 + 600 * roll()];
      hisses = roll() < 0.35;
    }
    const share = within / syllable;
    const vowel = share < 0.7 ? min(1, share * 12, (0.78 - share) * 12) : 0.12;
    phase += (pitchHz * (1 + 0.04 * sin(index / 9000))) / SPOKEN_RATE;
    phase %= 1;
    // As glottises open and close: half a sine over a third of the period.
    const pulse = phase < 0.33 ? 0.02 * sin((PI * phase) / 0.33) : 0;
    let value = 0;
    resonances.forEach((state, which) => {
      const radius = 0.985;
      const turn = (2 * PI * formants[which]!) / SPOKEN_RATE;
      const y = pulse * [1, 0.5, 0.25][which]! + 2 * radius * cos(turn) * state.y1 - radius * radius * state.y2;
      state.y2 = state.y1;
      state.y1 = y;
      value += y * (1 - radius) * 2;
    });
    const hiss = hisses && share >= 0.72 ? 0.12 * (roll() - 0.5) : 0;
    const ends = min(1, index / 400, (count - 1 - index) / 400);
    out[index] = ends * (value * vowel + hiss);
  }
  const power = out.reduce((sum, sample) => sum + sample * sample, 0) / count;
  const gain = LEVEL / Math.sqrt(power);
  return out.map((sample) => sample * gain);
}

/** A fan: low noise, the same all the time. */
export function fan(count: number, level: number, seed = 11): Float32Array {
  const roll = dice(seed);
  const out = new Float32Array(count);
  let [low, power] = [0, 0];
  for (let index = 0; index < count; index += 1) {
    low += 0.06 * (roll() + roll() + roll() - 1.5 - low);
    out[index] = low;
    power += low * low;
  }
  const gain = level / Math.sqrt(power / count);
  return out.map((sample) => sample * gain);
}

export function rms(samples: Float32Array, fromMs = 0, toMs = Infinity): number {
  const part = samples.subarray(
    Math.round((fromMs * SPOKEN_RATE) / 1000),
    Number.isFinite(toMs) ? Math.round((toMs * SPOKEN_RATE) / 1000) : undefined,
  );
  return Math.sqrt(part.reduce((sum, sample) => sum + sample * sample, 0) / part.length);
}
