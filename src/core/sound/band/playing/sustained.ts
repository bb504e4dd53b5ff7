import { BAND_RATE, hertzOf, noiseFrom, type Tone, type Voice } from './tone';

// Looked up once: these are asked for each pair and each sample.
const { ceil, cos, exp, floor, log, log2, max, min, round, sin, sqrt } = Math;

/** A sound that lasts as long as it is held: its harmonics, softer and brighter, as two waves between which it moves. */
export interface Sustained {
  /** Loudness of a harmonic that lies at so many Hz, of a soft (0) and of a full (1) tone. */
  level(harmonic: number, hertz: number, full: number): number;
  readonly attackMs: readonly [soft: number, hard: number];
  readonly releaseMs: number;
  readonly vibrato: { readonly hertz: number; readonly cents: number; readonly afterMs: number };
  /** Players of one note, and how far they are apart. */
  readonly players: number;
  readonly apartCents: number;
  /** Breath or bow. */
  readonly noise: number;
  /** How far it goes down while it is held: 1 not at all. */
  readonly holds: number;
  /** How much brighter it is when it begins. */
  readonly bite: number;
  /** Left and right are played by different players. */
  readonly wide: boolean;
  readonly gain: number;
}

const TABLE = 2048;
const TURN = 2 * Math.PI;
/** No note is still coming when so much of it is over. */
const ATTACK_OF_NOTE = 0.16;
/**
 * A note that swells is heard to begin within its rise, not where that sets out (Gordon 1987, “The perceptual attack time of musical tones”): after so much of
 * it, and no pad is played much before its place.
 */
const SPEAKS_AT = 0.45;
const LATEST_MS = 60;
/** The envelope and the vibrato are worked out once in so many samples. */
const STEP = 32;

export function sustainedVoice(of: Sustained): Voice {
  const waves = new Map<string, Float32Array>();
  const wave = (pitch: number, full: number) => {
    // Tables for every other semitone are near enough for what they leave out.
    const near = 2 * round(pitch / 2);
    const key = `${near} ${full}`;
    let found = waves.get(key);
    if (!found) waves.set(key, (found = waveOf(of, hertzOf(near), full)));
    return found;
  };
  return {
    rings: false,
    releaseMs: of.releaseMs,
    gain: of.gain,
    speaksMs: (loudness, frames) => min(LATEST_MS, (SPEAKS_AT * 1000 * attackOf(of, loudness, frames)) / BAND_RATE),
    tone(pitch, loudness, frames): Tone {
      const [soft, full] = [wave(pitch, 0), wave(pitch, 1)];
      const left = held(of, pitch, loudness, frames, soft, full, 1);
      return of.wide ? apart(left, held(of, pitch, loudness, frames, soft, full, 2)) : { left, right: left };
    },
  };
}

/** How long a note's rise takes, in frames: a short note is struck, a long one swells. */
function attackOf({ attackMs: [gentle, hard] }: Sustained, loudness: number, frames: number): number {
  const usual = ((gentle + (hard - gentle) * loudness) / 1000) * BAND_RATE;
  return max(STEP, min(usual, ATTACK_OF_NOTE * frames));
}

function waveOf(of: Sustained, hertz: number, full: number): Float32Array {
  const table = new Float32Array(TABLE + 1);
  const most = min(80, floor(17_500 / hertz));
  let power = 0;
  for (let harmonic = 1; harmonic <= most; harmonic += 1) {
    const level = of.level(harmonic, harmonic * hertz, full);
    if (level < 2e-4) continue;
    power += level * level;
    const phase = TURN * ((harmonic * harmonic * 0.618) % 1);
    for (let at = 0; at < TABLE; at += 1) table[at] = table[at]! + level * sin((TURN * harmonic * at) / TABLE + phase);
  }
  const scale = 1 / sqrt(max(1e-9, power));
  for (let at = 0; at < TABLE; at += 1) table[at]! *= scale;
  table[TABLE] = table[0]!;
  return table;
}

function held(
  of: Sustained,
  pitch: number,
  loudness: number,
  frames: number,
  soft: Float32Array,
  full: Float32Array,
  side: number,
): Float32Array {
  const release = ceil((of.releaseMs / 1000) * BAND_RATE);
  const attack = attackOf(of, loudness, frames);
  const samples = new Float32Array(frames + release);
  const hertz = hertzOf(pitch);
  const noise = noiseFrom(pitch * 7 + side);
  for (let player = 0; player < of.players; player += 1) {
    const spread = of.players === 1 ? 0 : player / (of.players - 1) - 0.5;
    const cents = of.apartCents * spread + (side === 2 ? 0.35 * of.apartCents : 0);
    const own = hertz * 2 ** (cents / 1200);
    let phase = (TABLE * ((player * 0.382 + side * 0.27 + pitch * 0.113) % 1)) | 0;
    const rate = of.vibrato.hertz * (1 + 0.06 * spread);
    for (let from = 0; from < samples.length; from += STEP) {
      const seconds = from / BAND_RATE;
      const deep = of.vibrato.cents * min(1, max(0, (1000 * seconds - of.vibrato.afterMs) / 350));
      const bent = own * 2 ** ((deep * sin(TURN * rate * seconds + player * 1.7)) / 1200);
      const by = (bent * TABLE) / BAND_RATE;
      const bite = of.bite * exp(-seconds / 0.12);
      const bright = min(1, max(0, 0.15 + 0.85 * loudness + bite));
      const end = min(samples.length, from + STEP);
      for (let at = from; at < end; at += 1) {
        const index = phase | 0;
        const part = phase - index;
        const one = soft[index]! + part * (soft[index + 1]! - soft[index]!);
        const two = full[index]! + part * (full[index + 1]! - full[index]!);
        samples[at] = samples[at]! + one + bright * (two - one);
        phase += by;
        if (phase >= TABLE) phase -= TABLE;
      }
    }
  }
  const share = 0.5 / sqrt(of.players);
  const fall = of.holds < 1 ? log(of.holds) / (2 * BAND_RATE) : 0;
  let breath = 0;
  for (let at = 0; at < samples.length; at += 1) {
    const rise = at < attack ? 0.5 - 0.5 * cos((Math.PI * at) / attack) : 1;
    const sinks = fall === 0 ? 1 : max(0.12, exp(fall * at));
    const left = at < frames ? 1 : (0.5 + 0.5 * cos((Math.PI * (at - frames)) / release)) ** 1.5;
    let value = samples[at]! * share;
    if (of.noise > 0) {
      breath += 0.35 * (noise() - breath);
      value += of.noise * breath * (1 + 2 * exp(-at / 2400));
    }
    samples[at] = value * rise * sinks * left;
  }
  return samples;
}

/** Two players a little towards each other's side, so that what both play is left when left and right become one. */
function apart(one: Float32Array, other: Float32Array): Tone {
  const [near, far] = [0.76, 0.5];
  return {
    left: one.map((sample, at) => near * sample + far * other[at]!),
    right: other.map((sample, at) => near * sample + far * one[at]!),
  };
}

const hump = (hertz: number, at: number, octaves: number) => exp(-((log2(hertz / at) / octaves) ** 2));
const below = (hertz: number, edge: number, order: number) => 1 / sqrt(1 + (hertz / edge) ** (2 * order));

function bowed(body: readonly [number, number], gain: number): Sustained {
  return {
    level: (harmonic, hertz, full) =>
      (1 / harmonic ** (1.15 - 0.25 * full)) *
      (0.5 + 0.9 * hump(hertz, body[0], 0.45) + 0.7 * hump(hertz, body[1], 0.5)) *
      below(hertz, 2200 + 2600 * full, 1.6),
    attackMs: [130, 55],
    releaseMs: 170,
    vibrato: { hertz: 5.3, cents: 13, afterMs: 180 },
    players: 2,
    apartCents: 9,
    noise: 0.012,
    holds: 1,
    bite: 0.2,
    wide: false,
    gain,
  };
}

function blown(
  formant: number,
  edge: readonly [soft: number, full: number],
  attackMs: readonly [number, number],
  gain: number,
): Sustained {
  return {
    level: (harmonic, hertz, full) =>
      (0.45 + hump(hertz, formant, 0.9)) *
      below(hertz, edge[0] + (edge[1] - edge[0]) * full, 1.7) *
      (harmonic === 1 ? 0.9 : 1),
    attackMs,
    releaseMs: 110,
    vibrato: { hertz: 4.8, cents: 5, afterMs: 420 },
    players: 2,
    apartCents: 7,
    noise: 0.006,
    holds: 0.9,
    bite: 0.22,
    wide: false,
    gain,
  };
}

export const VIOLIN = bowed([480, 1300], 0.42);
export const VIOLA = bowed([360, 950], 0.42);
export const CELLO = bowed([230, 620], 0.46);
export const CORNET = blown(1150, [900, 3000], [60, 28], 0.36);
export const HORN = blown(420, [420, 1500], [80, 40], 0.42);
export const TROMBONE = blown(560, [600, 2200], [75, 35], 0.4);
export const TUBA = blown(230, [260, 900], [70, 35], 0.56);

export const FLUTE: Sustained = {
  level: (harmonic, hertz, full) =>
    [1, 0.3 + 0.35 * full, 0.1 + 0.16 * full, 0.05 * (1 + full), 0.02, 0.01][harmonic - 1]! * below(hertz, 6000, 2) ||
    0,
  attackMs: [90, 50],
  releaseMs: 130,
  vibrato: { hertz: 5, cents: 10, afterMs: 260 },
  players: 1,
  apartCents: 0,
  noise: 0.03,
  holds: 1,
  bite: 0.15,
  wide: false,
  gain: 0.42,
};

export const CLARINET: Sustained = {
  level: (harmonic, hertz, full) =>
    (harmonic % 2 === 1 ? 1 / harmonic ** 0.85 : (0.06 + 0.1 * full) / harmonic ** 0.5) *
    below(hertz, 1800 + 1800 * full, 1.8),
  attackMs: [60, 32],
  releaseMs: 100,
  vibrato: { hertz: 4.5, cents: 3, afterMs: 500 },
  players: 1,
  apartCents: 0,
  noise: 0.012,
  holds: 1,
  bite: 0.1,
  wide: false,
  gain: 0.4,
};

/** Principals of eight, four and two feet, a soft twelfth among them. */
export const ORGAN_PIPES: Sustained = {
  level: (harmonic, hertz, full) =>
    ((harmonic === 1 ? 1 : 0) +
      (harmonic % 2 === 0 ? 0.62 / (harmonic / 2) : 0) +
      (harmonic % 4 === 0 ? (0.25 + 0.25 * full) / (harmonic / 4) : 0) +
      (harmonic % 3 === 0 ? 0.16 / (harmonic / 3) : 0) +
      0.28 / harmonic) *
    below(hertz, 3000 + 1500 * full, 1.5),
  attackMs: [45, 40],
  releaseMs: 120,
  vibrato: { hertz: 1, cents: 0, afterMs: 0 },
  players: 2,
  apartCents: 5,
  noise: 0.006,
  holds: 1,
  bite: 0.05,
  wide: true,
  gain: 0.34,
};

export const PEDALS: Sustained = {
  ...ORGAN_PIPES,
  level: (harmonic, hertz) => (harmonic === 1 ? 1 : 0.5 / harmonic) * below(hertz, 420, 1.6),
  gain: 0.46,
};

export const PAD: Sustained = {
  level: (harmonic, hertz, full) => (1 / harmonic) * below(hertz, 650 + 1100 * full, 1.4),
  attackMs: [520, 320],
  releaseMs: 900,
  vibrato: { hertz: 0.6, cents: 4, afterMs: 0 },
  players: 3,
  apartCents: 16,
  noise: 0,
  holds: 1,
  bite: 0,
  wide: true,
  gain: 0.36,
};

export const SYNTH_BASS: Sustained = {
  level: (harmonic, hertz, full) => (1 / harmonic) * below(hertz, 260 + 520 * full, 1.6),
  attackMs: [8, 5],
  releaseMs: 60,
  vibrato: { hertz: 1, cents: 0, afterMs: 0 },
  players: 1,
  apartCents: 0,
  noise: 0,
  holds: 0.45,
  bite: 0.5,
  wide: false,
  gain: 0.6,
};
