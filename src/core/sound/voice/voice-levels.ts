import { kWeighting } from '../loudness';
import { NOTHING, joined } from './stage';

const { abs, max, sqrt, log10 } = Math;

/** Levels of speech are taken once in so long. */
export const LEVEL_MS = 10;

/** How loud a voice is, once in `LEVEL_MS`. */
export interface VoiceLevels {
  /** dB below full scale, mean square. */
  readonly rmsDb: Float32Array;
  /** Mean squares as ears weigh them (ITU-R BS.1770), of one channel. */
  readonly weighted: Float32Array;
  /** Largest sample. */
  readonly peak: Float32Array;
}

export interface LevelMeter {
  push(samples: Float32Array): void;
  finish(): VoiceLevels;
}

/** @param rate samples a second, of one channel */
export function levelMeter(rate: number): LevelMeter {
  // Rates of which 10 ms are no whole number of samples take turns.
  const edge = (step: number) => Math.round((step * rate * LEVEL_MS) / 1000);
  const weigh = kWeighting(rate);
  const rmsDb: number[] = [];
  const weighted: number[] = [];
  const peaks: number[] = [];
  let waiting: Float32Array = NOTHING;
  const take = (samples: Float32Array) => {
    const squares = weigh(samples);
    let [power, heard, peak] = [0, 0, 0];
    for (let at = 0; at < samples.length; at += 1) {
      const size = abs(samples[at]!);
      power += size * size;
      heard += squares[at]!;
      if (size > peak) peak = size;
    }
    rmsDb.push(decibels(sqrt(power / samples.length)));
    weighted.push(heard / samples.length);
    peaks.push(peak);
  };
  return {
    push(samples) {
      waiting = joined(waiting, samples);
      let from = 0;
      for (;;) {
        const length = edge(peaks.length + 1) - edge(peaks.length);
        if (from + length > waiting.length) break;
        take(waiting.subarray(from, from + length));
        from += length;
      }
      waiting = waiting.slice(from);
    },
    finish() {
      if (waiting.length > 0) take(waiting);
      waiting = NOTHING;
      return {
        rmsDb: Float32Array.from(rmsDb),
        weighted: Float32Array.from(weighted),
        peak: Float32Array.from(peaks),
      };
    },
  };
}

export const decibels = (size: number): number => 20 * log10(max(1e-6, size));
