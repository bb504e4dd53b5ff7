import { LISTENING_RATE, PITCH_STRIDE, HOP, type Spectrogram } from './spectrogram';

// Looked up once: these are asked for each pair of beats.
const { abs, exp, floor, max, min, round, sqrt } = Math;

/** Places of a song between which it can be joined because it goes on there as it would have gone on here. */
export interface Joints {
  /** Rising: its beats, or every half second where nobody is sure of any. */
  readonly atMs: readonly number[];
  /** How many of them are kept together as a bar. */
  readonly aBar: number;
  /**
   * For each place where one can leave, whereto: triples of a place, how unlike what follows there is (in hundredths of what neighbouring bars of this song
   * differ by), and by how many tenths of a millisecond later to enter so that both are in phase.
   */
  readonly to: readonly (readonly number[])[];
}

/** Features of a moment, once in `PITCH_STRIDE` frames. */
export interface Texture {
  readonly moments: readonly Float32Array[];
}

const TIMBRES = 10;
const SIZE = 12 + TIMBRES + 1;
/** What pitches, colour of sound and loudness count. */
const PITCH_WEIGHT = 1.6;
const TIMBRE_WEIGHT = 1;
const LEVEL_WEIGHT = 0.8;
/** Beats before and after a joint that are compared. */
const AROUND = 4;
const WEIGHTS = Array.from({ length: 2 * AROUND }, (_, at) => exp(-(((at - AROUND + 0.5) / 2.4) ** 2)));
const WEIGHT = WEIGHTS.reduce((sum, weight) => sum + weight, 0);
/** Joints kept for each place, forwards and back. */
const KEPT = 7;
/** So many more that change the place in the bar, for lengths that no whole bars come near to; they count as so much more unlike. */
const KEPT_BETWEEN = 3;
const HALF_BAR_COSTS = 0.5;
const BEAT_COSTS = 1;
const NEAREST_BEATS = 4;
/** Worse than this is heard. */
const LARGEST = 2.2;
export const GRID_MS = 500;
/** Samples for phases: half of those listened to. */
export const PHASE_RATE = LISTENING_RATE / 2;
const PHASE_REACH = round(0.012 * PHASE_RATE);
const PHASE_WINDOW = round(0.03 * PHASE_RATE);
/** Longer songs are not tailored: their joints would be millions. */
export const LONGEST_TAILORED_MS = 20 * 60_000;

/** What a stretch of a song is like, as it is heard. */
export function textureOf({ bands, bandCount, frameCount, chroma, chromaCount }: Spectrogram): Texture {
  const moments: Float32Array[] = [];
  for (let at = 0; at < chromaCount; at += 1) {
    const own = new Float32Array(SIZE);
    own.set(chroma.subarray(at * 12, at * 12 + 12));
    const frames = min(PITCH_STRIDE, frameCount - at * PITCH_STRIDE);
    for (let frame = 0; frame < frames; frame += 1)
      for (let band = 0; band < bandCount; band += 1) {
        const value = bands[(at * PITCH_STRIDE + frame) * bandCount + band]! / frames;
        const timbre = 12 + floor((band * TIMBRES) / bandCount);
        own[timbre] = own[timbre]! + (value * TIMBRES) / bandCount;
        own[SIZE - 1] = own[SIZE - 1]! + value / bandCount;
      }
    moments.push(own);
  }
  return { moments };
}

const MOMENTS_A_SECOND = LISTENING_RATE / HOP / PITCH_STRIDE;

/**
 * Where a song can be joined.
 *
 * @param places rising, in milliseconds
 * @param barPlaces the place in its bar of each, or null where bars are not known: then all count alike
 * @param samples of the whole song, one channel at `PHASE_RATE`
 */
export function jointsOf(
  moments: readonly Float32Array[],
  places: readonly number[],
  barPlaces: readonly number[] | null,
  aBar: number,
  samples: Float32Array,
): Joints {
  const count = places.length;
  const beats = places.map((atMs, index) => meanOf(moments, atMs, places[index + 1] ?? atMs + GRID_MS));
  const apart = differences(beats);
  const usual = usualDifference(apart, count, aBar);
  const to = places.map((_, from) => {
    const found: { place: number; cost: number; isBar: boolean }[] = [];
    for (let place = AROUND; place < count - AROUND; place += 1) {
      if (from < AROUND || from >= count - AROUND || abs(place - from) < NEAREST_BEATS) continue;
      const off = barPlaces ? (barPlaces[place]! - barPlaces[from]! + 2 * aBar) % aBar : 0;
      const moved = off === 0 ? 0 : 2 * off === aBar ? HALF_BAR_COSTS : BEAT_COSTS;
      const cost = unlikeness(apart, count, from, place) / usual + moved;
      if (cost <= LARGEST) found.push({ place, cost, isBar: off === 0 });
    }
    const best = (some: typeof found, most: number) => some.toSorted((a, b) => a.cost - b.cost).slice(0, most);
    const ways = [found.filter(({ place }) => place > from), found.filter(({ place }) => place < from)];
    const kept = ways.flatMap((some) => [
      ...best(
        some.filter(({ isBar }) => isBar),
        KEPT,
      ),
      ...best(
        some.filter(({ isBar }) => !isBar),
        KEPT_BETWEEN,
      ),
    ]);
    return kept.flatMap(({ place, cost }) => [
      place,
      round(100 * cost),
      round(10 * laterMs(samples, places[from]!, places[place]!)),
    ]);
  });
  return { atMs: places, aBar, to };
}

function meanOf(moments: readonly Float32Array[], fromMs: number, toMs: number): Float32Array {
  const from = max(0, min(moments.length - 1, round((fromMs / 1000) * MOMENTS_A_SECOND)));
  const to = max(from + 1, min(moments.length, round((toMs / 1000) * MOMENTS_A_SECOND)));
  const mean = new Float32Array(SIZE);
  for (let at = from; at < to; at += 1)
    for (let part = 0; part < SIZE; part += 1) mean[part] = mean[part]! + moments[at]![part]! / (to - from);
  return mean;
}

/** Of two beats: of their pitches, their colour and their loudness. */
function difference(a: Float32Array, b: Float32Array): number {
  let both = 0;
  let own = 1e-9;
  let other = 1e-9;
  let timbre = 0;
  for (let pitch = 0; pitch < 12; pitch += 1) {
    both += a[pitch]! * b[pitch]!;
    own += a[pitch]! * a[pitch]!;
    other += b[pitch]! * b[pitch]!;
  }
  for (let band = 12; band < SIZE - 1; band += 1) {
    const apart = a[band]! - b[band]!;
    timbre += apart * apart;
  }
  return (
    PITCH_WEIGHT * (1 - both / sqrt(own * other)) +
    TIMBRE_WEIGHT * sqrt(timbre / TIMBRES) +
    LEVEL_WEIGHT * abs(a[SIZE - 1]! - b[SIZE - 1]!)
  );
}

/** Of each beat and each other, row by row; the same both ways. */
function differences(beats: readonly Float32Array[]): Float32Array {
  const count = beats.length;
  const apart = new Float32Array(count * count);
  for (let one = 0; one < count; one += 1)
    for (let other = one + 1; other < count; other += 1) {
      const value = difference(beats[one]!, beats[other]!);
      apart[one * count + other] = value;
      apart[other * count + one] = value;
    }
  return apart;
}

/** Of what is heard around two places. */
function unlikeness(apart: Float32Array, count: number, from: number, to: number): number {
  let sum = 0;
  for (let off = -AROUND; off < AROUND; off += 1)
    sum += WEIGHTS[off + AROUND]! * apart[(from + off) * count + to + off]!;
  return sum / WEIGHT;
}

/** The median of how neighbouring bars differ. */
function usualDifference(apart: Float32Array, count: number, aBar: number): number {
  const all: number[] = [];
  for (let at = AROUND; at + aBar + AROUND < count; at += 1) all.push(unlikeness(apart, count, at, at + aBar));
  return max(1e-3, all.toSorted((a, b) => a - b)[all.length >> 1] ?? 1);
}

/** By how much later (or earlier) than its beat to enter, for what sounds on to stay in phase. */
function laterMs(samples: Float32Array, leaveMs: number, enterMs: number): number {
  const leave = round((leaveMs / 1000) * PHASE_RATE);
  const enter = round((enterMs / 1000) * PHASE_RATE);
  const reach = PHASE_WINDOW + PHASE_REACH + 2;
  if (min(leave, enter) < reach || max(leave, enter) + reach >= samples.length) return 0;
  const behind = PHASE_WINDOW / 2;
  /** What comes into the window with the next lag but one, when it is counted by twos. */
  const ahead = 2 * Math.ceil((PHASE_WINDOW + behind) / 2) - PHASE_WINDOW;
  const together = (lag: number, step: number) => {
    let both = 0;
    for (
      let at = leave - PHASE_WINDOW, other = enter + lag - PHASE_WINDOW;
      at < leave + behind;
      at += step, other += step
    )
      both += samples[at]! * samples[other]!;
    return both;
  };
  const power = (lag: number, step: number) => {
    let own = 1e-9;
    for (let other = enter + lag - PHASE_WINDOW; other < enter + lag + behind; other += step)
      own += samples[other]! * samples[other]!;
    return own;
  };
  // Every other sample, and from lag to lag only what leaves the window and what comes into it.
  let best = 0;
  let largest = together(0, 2) / sqrt(power(0, 2));
  let own = power(-PHASE_REACH, 2);
  for (let lag = -PHASE_REACH; lag <= PHASE_REACH; lag += 2) {
    const value = together(lag, 2) / sqrt(own);
    if (value > largest) [best, largest] = [lag, value];
    own += samples[enter + lag + ahead]! ** 2 - samples[enter + lag - PHASE_WINDOW]! ** 2;
  }
  const fine = [best - 1, best, best + 1].map((lag) => ({ lag, value: together(lag, 1) / sqrt(power(lag, 1)) }));
  const top = fine.reduce((one, other) => (other.value > one.value ? other : one));
  return (top.lag * 1000) / PHASE_RATE;
}
