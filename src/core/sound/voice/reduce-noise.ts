import FFT from 'fft.js';
import { joined, NOTHING, type Stage } from './stage';

const { exp, floor, log, max, min, sqrt } = Math;

/** 21 ms at 48 kHz, a new one after a quarter of it. */
export const WINDOW = 1024;
export const HOP = WINDOW / 4;
const BINS = WINDOW / 2 + 1;
/** How much of a frame’s estimate comes from the frame before: Ephraim and Malah’s decision-directed estimate. */
const FROM_BEFORE = 0.9;
const LEAST_PRIOR = 10 ** (-20 / 10);
/** Of the noise as it was learnt: taking it all away takes from the voice, measured by log-spectral distance. */
const LEARNT_SHARE = 0.75;
/** Bins at either side that say how likely speech is in one. */
const NEIGHBOURS = 4;
const WEIGHTS = Float64Array.from(
  { length: 2 * NEIGHBOURS + 1 },
  (_, at) => 0.5 - 0.5 * Math.cos((Math.PI * (at + 1)) / (NEIGHBOURS + 1)),
);
const UNDER_SPEECH_DB = -7;
/** Where speech is told from the room: 140 Hz to 4 kHz at 48 kHz. */
const SPEECH_BINS = { from: 3, to: 85 };
/** Mean of the decibels by which bins are above the room, where only the room is heard (0.95 expected of Gaussian noise), and how far above that speech is certain. */
const ROOM_ALONE_DB = 2;
const SURE_DB = 4;
/** Frames of 5 ms by which speech is taken to begin before and end after it is told. */
const LOOKS_AHEAD = 8;
const LOOKS_BACK = 12;

/** Power of the room’s noise in each bin of a windowed frame. */
export type NoiseProfile = Float64Array;

/** Learns how the room sounds from its quietest moments; what it is told to be room alone counts for itself. */
export interface NoiseLearner {
  /** @param isRoom whether it is known that nothing but the room is heard */
  push(samples: Float32Array, isRoom?: boolean): void;
  finish(): NoiseProfile;
}

const QUIETEST_SHARE = 0.12;
/** Frames of so many seconds are sorted by loudness together. */
const KEPT_FRAMES = 4000;

export function noiseLearner(): NoiseLearner {
  const spectrum = spectra();
  let waiting: Float32Array = NOTHING;
  const quiet: { level: number; power: Float64Array }[] = [];
  const room: Float64Array[] = [];
  let seen = 0;
  return {
    push(samples, isRoom = false) {
      waiting = joined(waiting, samples);
      let from = 0;
      for (; from + WINDOW <= waiting.length; from += WINDOW) {
        const { power, level } = spectrum(waiting.subarray(from, from + WINDOW));
        seen += 1;
        if (level < 1e-14) continue;
        if (isRoom && room.length < KEPT_FRAMES) room.push(power);
        else quiet.push({ level, power });
        if (quiet.length > KEPT_FRAMES) {
          quiet.sort((a, b) => a.level - b.level);
          quiet.length = max(8, floor(KEPT_FRAMES * QUIETEST_SHARE * 2));
        }
      }
      waiting = waiting.slice(from);
    },
    finish() {
      if (room.length >= 8) return meanOf(room, 1);
      quiet.sort((a, b) => a.level - b.level);
      const count = max(4, Math.round(min(quiet.length, seen) * QUIETEST_SHARE));
      // The quietest of noisy frames are quieter than noise is on average.
      return meanOf(
        quiet.slice(0, count).map(({ power }) => power),
        1.25,
      );
    },
  };
}

function meanOf(powers: readonly Float64Array[], times: number): NoiseProfile {
  const mean = new Float64Array(BINS);
  for (const power of powers) for (let bin = 0; bin < BINS; bin += 1) mean[bin] = mean[bin]! + power[bin]!;
  for (let bin = 0; bin < BINS; bin += 1) mean[bin] = (times * mean[bin]!) / max(1, powers.length) + 1e-15;
  return mean;
}

function hann(): Float64Array {
  return Float64Array.from({ length: WINDOW }, (_, at) => 0.5 - 0.5 * Math.cos((2 * Math.PI * (at + 0.5)) / WINDOW));
}

function spectra(): (frame: Float32Array) => { power: Float64Array; level: number } {
  const fft = new FFT(WINDOW);
  const window = hann();
  const input = new Float64Array(WINDOW);
  const output = new Float64Array(2 * WINDOW);
  return (frame) => {
    let level = 0;
    for (let at = 0; at < WINDOW; at += 1) {
      input[at] = frame[at]! * window[at]!;
      level += input[at]! * input[at]!;
    }
    fft.realTransform(output, input);
    const power = new Float64Array(BINS);
    for (let bin = 0; bin < BINS; bin += 1) power[bin] = output[2 * bin]! ** 2 + output[2 * bin + 1]! ** 2;
    return { power, level: level / WINDOW };
  };
}

/**
 * A spectral gate by the log-spectral amplitude estimator of Ephraim and Malah (1985, “Speech enhancement using a minimum mean-square error log-spectral
 * amplitude estimator”), with the noise as it was learnt from the room and each bin’s own estimate smoothed over its neighbours. While nobody speaks the room
 * goes down by `floorDb`; under speech, where it is covered, hardly, since what is taken away there is taken from the voice.
 *
 * @param floorDb below 0
 */
export function reduceNoise(noise: NoiseProfile, floorDb: number): Stage {
  const fft = new FFT(WINDOW);
  const window = hann();
  const input = new Float64Array(WINDOW);
  const back = new Float64Array(2 * WINDOW);
  /** Of the frame before: its estimate’s power over the noise. */
  const before = new Float64Array(BINS);
  const over = new Float64Array(BINS);
  /** Frames whose neighbours to come are not known yet. */
  let ahead: { spectrum: Float64Array; presence: number }[] = [];
  let heldUp: number[] = [];
  // Silence before the first sample and after the last, so that every sample lies in four windows.
  let waiting: Float32Array = new Float32Array(WINDOW - HOP);
  const sum = new Float64Array(WINDOW);
  let skip = WINDOW - HOP;
  let [taken, given] = [0, 0];
  const underSpeech = max(floorDb, UNDER_SPEECH_DB);

  const presenceOf = (spectrum: Float64Array): number => {
    let all = 0;
    for (let bin = SPEECH_BINS.from; bin < SPEECH_BINS.to; bin += 1) {
      const times = (spectrum[2 * bin]! ** 2 + spectrum[2 * bin + 1]! ** 2) / noise[bin]!;
      if (times > 1) all += log(times);
    }
    const db = ((10 / Math.LN10) * all) / (SPEECH_BINS.to - SPEECH_BINS.from);
    return max(0, min(1, (db - ROOM_ALONE_DB) / SURE_DB));
  };
  const analysed = (samples: Float32Array) => {
    for (let at = 0; at < WINDOW; at += 1) input[at] = samples[at]! * window[at]!;
    const spectrum = new Float64Array(2 * WINDOW);
    fft.realTransform(spectrum, input);
    return { spectrum, presence: presenceOf(spectrum) };
  };
  const synthesised = (spectrum: Float64Array, presence: number): Float32Array => {
    const least = 10 ** ((floorDb + (underSpeech - floorDb) * presence) / 20);
    for (let bin = 0; bin < BINS; bin += 1) {
      const power = spectrum[2 * bin]! ** 2 + spectrum[2 * bin + 1]! ** 2;
      over[bin] = max(0, min(1e4, power / (LEARNT_SHARE * noise[bin]!)) - 1);
    }
    for (let bin = 0; bin < BINS; bin += 1) {
      let smooth = 0;
      let weights = 0;
      const last = min(BINS - 1, bin + NEIGHBOURS);
      for (let near = max(0, bin - NEIGHBOURS); near <= last; near += 1) {
        const weight = WEIGHTS[near - bin + NEIGHBOURS]!;
        smooth += weight * over[near]!;
        weights += weight;
      }
      const posterior = over[bin]! + 1;
      const prior = max(LEAST_PRIOR, FROM_BEFORE * before[bin]! + ((1 - FROM_BEFORE) * smooth) / weights);
      const share = prior / (1 + prior);
      const gain = max(least, min(1, share * logSpectralFactor(share * posterior)));
      before[bin] = gain * gain * posterior;
      spectrum[2 * bin] = spectrum[2 * bin]! * gain;
      spectrum[2 * bin + 1] = spectrum[2 * bin + 1]! * gain;
    }
    fft.completeSpectrum(spectrum);
    fft.inverseTransform(back, spectrum);
    // Four squared Hann windows a quarter apart add up to 1.5.
    for (let at = 0; at < WINDOW; at += 1) sum[at] = sum[at]! + (back[2 * at]! * window[at]!) / 1.5;
    const done = Float32Array.from(sum.subarray(0, HOP));
    sum.copyWithin(0, HOP);
    sum.fill(0, WINDOW - HOP);
    return done;
  };
  const next = (): Float32Array => {
    const { spectrum, presence } = ahead[0]!;
    const around = max(presence, ...heldUp, ...ahead.slice(1, 1 + LOOKS_AHEAD).map((frame) => frame.presence));
    heldUp = [...heldUp, presence].slice(-LOOKS_BACK);
    ahead = ahead.slice(1);
    return synthesised(spectrum, around);
  };
  const run = (samples: Float32Array, isLast: boolean): Float32Array => {
    waiting = joined(waiting, samples);
    const done: Float32Array[] = [];
    let from = 0;
    for (; from + WINDOW <= waiting.length; from += HOP) {
      ahead.push(analysed(waiting.subarray(from, from + WINDOW)));
      if (ahead.length > LOOKS_AHEAD) done.push(next());
    }
    while (isLast && ahead.length > 0) done.push(next());
    waiting = waiting.slice(from);
    const all = joined(...done);
    const left = all.subarray(min(skip, all.length));
    skip -= all.length - left.length;
    return left;
  };
  return {
    push(samples) {
      taken += samples.length;
      const done = run(samples, false).slice();
      given += done.length;
      return done;
    },
    finish: () => run(new Float32Array(2 * WINDOW), true).slice(0, taken - given),
  };
}

const FACTOR_STEP = 1 / 64;
const FACTORS = Float64Array.from({ length: 6 / FACTOR_STEP + 2 }, (_, at) => {
  const root = max(1e-4, at * FACTOR_STEP);
  return root * exp(0.5 * expint(root * root));
});

/** exp(E₁(v) / 2), from a table of what is smooth of it: that times √v over √v. */
function logSpectralFactor(v: number): number {
  const root = sqrt(max(v, 1e-8));
  if (root >= 6) return 1;
  const place = root / FACTOR_STEP;
  const at = floor(place);
  const left = FACTORS[at]!;
  return (left + (FACTORS[at + 1]! - left) * (place - at)) / root;
}

/** The exponential integral E₁, to a relative 1e-4: its series below 1, its continued fraction above (Abramowitz and Stegun 5.1.11, 5.1.22). */
export function expint(x: number): number {
  if (x > 30) return 0;
  const value = max(x, 1e-10);
  if (value < 1) {
    let [sum, term] = [-0.5772156649015329 - log(value), 1];
    for (let n = 1; n < 12; n += 1) {
      term *= -value / n;
      sum -= term / n;
    }
    return sum;
  }
  let fraction = 0;
  for (let n = 14; n >= 1; n -= 1) fraction = n / (1 + n / (value + fraction));
  return exp(-value) / (value + fraction);
}
