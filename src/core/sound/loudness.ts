import { BETWEEN_SAMPLES, RISES_AT_MOST, TAPS } from './between-samples';

// Looked up once: it is asked for each sample.
const { abs } = Math;

/** Loudness as ears judge it, by ITU-R BS.1770-4 and EBU R 128. */
export interface Loudness {
  /** Of the whole, gated; null when nothing is loud enough to count. */
  readonly integratedLufs: number | null;
  /** The largest value the sound reaches between its samples too; null for silence. */
  readonly truePeakDb: number | null;
  /** Of each half second by itself, in tenths of LUFS; −1200 for silence. */
  readonly curve: readonly number[];
}

export interface LoudnessMeter {
  /** @param samples interleaved stereo */
  add(samples: Float32Array): void;
  finish(): Loudness;
}

export const CURVE_PER_SECOND = 2;
const SILENT = -1200;
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE = -10;
/** A block of the standard is 400 ms, a new one every 100 ms. */
const STEPS_A_SECOND = 10;
const STEPS_A_BLOCK = 4;
const STEPS_A_POINT = STEPS_A_SECOND / CURVE_PER_SECOND;

/** @param rate samples a second and channel */
export function loudnessMeter(rate: number): LoudnessMeter {
  const filters = [weighting(rate), weighting(rate)];
  const peak = truePeakMeter();
  const stepSamples = rate / STEPS_A_SECOND;
  const powers: number[] = [];
  let sum = 0;
  let counted = 0;
  let inStep = 0;
  let squares = new Float64Array(0);
  return {
    add(samples) {
      peak.add(samples);
      const frames = samples.length >> 1;
      if (squares.length < frames) squares = new Float64Array(frames);
      squares.fill(0);
      filters.forEach((filter, channel) => filter(samples, channel, squares));
      for (let frame = 0; frame < frames;) {
        // To the end of the step, or of what came.
        const end = Math.min(frames, frame + Math.ceil((powers.length + 1) * stepSamples) - counted);
        let added = 0;
        counted += end - frame;
        inStep += end - frame;
        for (; frame < end; frame += 1) added += squares[frame]!;
        sum += added;
        if (counted >= (powers.length + 1) * stepSamples) flush();
      }
    },
    finish() {
      if (inStep > 0) flush();
      const points = Math.ceil(powers.length / STEPS_A_POINT);
      const curve = Array.from({ length: points }, (_, point) =>
        tenths(mean(powers.slice(point * STEPS_A_POINT, (point + 1) * STEPS_A_POINT))),
      );
      return { integratedLufs: gated(powers), truePeakDb: peak.db(), curve };
    },
  };

  function flush(): void {
    powers.push(sum / inStep);
    sum = 0;
    inStep = 0;
  }
}

/** Loudness of a mean square of both channels together. */
export function lufsOfPower(power: number): number {
  return -0.691 + 10 * Math.log10(Math.max(1e-30, power));
}

export function powerOfLufs(lufs: number): number {
  return 10 ** ((lufs + 0.691) / 10);
}

/**
 * The gated loudness of half seconds whose powers are known, as a mix of several sounds has them. Against the standard’s overlapping blocks it is off by less
 * than 0.2 LU on music.
 *
 * @returns null when nothing is loud enough to count
 */
export function gatedLufs(powers: readonly number[]): number | null {
  return twiceGated(powers);
}

const mean = (values: readonly number[]) =>
  values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;

const tenths = (power: number) => Math.max(SILENT, Math.round(10 * lufsOfPower(power)));

function gated(powers: readonly number[]): number | null {
  if (powers.length < STEPS_A_BLOCK) return twiceGated(powers);
  const blocks: number[] = [];
  for (let at = 0; at + STEPS_A_BLOCK <= powers.length; at += 1)
    blocks.push(mean(powers.slice(at, at + STEPS_A_BLOCK)));
  return twiceGated(blocks);
}

function twiceGated(blocks: readonly number[]): number | null {
  const heard = blocks.filter((power) => lufsOfPower(power) > ABSOLUTE_GATE);
  if (heard.length === 0) return null;
  const threshold = lufsOfPower(mean(heard)) + RELATIVE_GATE;
  return lufsOfPower(mean(heard.filter((power) => lufsOfPower(power) > threshold)));
}

/**
 * The K weighting: a shelf for the head, then a high pass; coefficients from the standard’s analogue prototypes for any rate (as in De Man 2014). Adds the
 * squares of one channel to `squares`.
 */
function weighting(rate: number): (samples: Float32Array, channel: number, squares: Float64Array) => void {
  const shelfK = Math.tan((Math.PI * 1681.974450955533) / rate);
  const shelfQ = 0.7071752369554196;
  const high = 10 ** (3.999843853973347 / 20);
  const band = high ** 0.4996667741545416;
  const shelfA = 1 + shelfK / shelfQ + shelfK * shelfK;
  const [b0, b1, b2] = [
    (high + (band * shelfK) / shelfQ + shelfK * shelfK) / shelfA,
    (2 * (shelfK * shelfK - high)) / shelfA,
    (high - (band * shelfK) / shelfQ + shelfK * shelfK) / shelfA,
  ];
  const [a1, a2] = [(2 * (shelfK * shelfK - 1)) / shelfA, (1 - shelfK / shelfQ + shelfK * shelfK) / shelfA];
  const passK = Math.tan((Math.PI * 38.13547087602444) / rate);
  const passQ = 0.5003270373238773;
  const passA = 1 + passK / passQ + passK * passK;
  const [c1, c2] = [(2 * (passK * passK - 1)) / passA, (1 - passK / passQ + passK * passK) / passA];
  const state = { y1: 0, y2: 0, z1: 0, z2: 0 };
  return (samples, channel, squares) => {
    // In the hands of the loop: what closures hold is slower to reach.
    let { y1, y2, z1, z2 } = state;
    for (let frame = 0; 2 * frame + channel < samples.length; frame += 1) {
      const value = samples[2 * frame + channel]!;
      const shelved = b0 * value + y1;
      y1 = b1 * value - a1 * shelved + y2;
      y2 = b2 * value - a2 * shelved;
      const passed = shelved + z1;
      z1 = -2 * shelved - c1 * passed + z2;
      z2 = shelved - c2 * passed;
      squares[frame] = squares[frame]! + passed * passed;
    }
    Object.assign(state, { y1, y2, z1, z2 });
  };
}

/** The squares of one channel as ears weigh them, sample by sample; goes on from call to call. */
export function kWeighting(rate: number): (samples: Float32Array) => Float64Array {
  const filter = weighting(rate);
  return (samples) => {
    const both = new Float32Array(2 * samples.length);
    for (let at = 0; at < samples.length; at += 1) both[2 * at] = samples[at]!;
    const squares = new Float64Array(samples.length);
    filter(both, 0, squares);
    return squares;
  };
}

/** The largest value of the curve through interleaved stereo samples. Between samples it is looked for only where they are loud. */
export function truePeakMeter(): { add(samples: Float32Array): void; db(): number | null } {
  let largest = 0;
  let kept = new Float32Array(0);
  return {
    add(added) {
      const samples = new Float32Array(kept.length + added.length);
      samples.set(kept);
      samples.set(added, kept.length);
      const frames = samples.length >> 1;
      let least = largest / RISES_AT_MOST;
      for (let frame = TAPS - 1; frame + TAPS < frames; frame += 1)
        for (let channel = 0; channel < 2; channel += 1) {
          const at = 2 * frame + channel;
          const size = abs(samples[at]!);
          if (size > largest) largest = size;
          if (size <= least && abs(samples[at + 2]!) <= least) continue;
          least = largest / RISES_AT_MOST;
          for (const taps of BETWEEN_SAMPLES) {
            let value = 0;
            for (let tap = 0; tap < 2 * TAPS; tap += 1) value += taps[tap]! * samples[at + 2 * (tap - TAPS + 1)]!;
            if (abs(value) > largest) largest = abs(value);
          }
        }
      for (const sample of added) if (abs(sample) > largest) largest = abs(sample);
      kept = samples.slice(Math.max(0, samples.length - 4 * TAPS));
    },
    db: () => (largest > 0 ? 20 * Math.log10(largest) : null),
  };
}
