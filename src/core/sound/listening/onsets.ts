import { HOP, LISTENING_RATE, type Spectrogram } from './spectrogram';

// Looked up once: these are asked for each sample.
const { max, min, sqrt } = Math;

/** How strongly something begins at each frame: over all bands, in the bass, and in what rings above; −0.5…4, mean 0 and deviation 1 over its surroundings. */
export interface Onsets {
  readonly all: Float32Array;
  readonly low: Float32Array;
  readonly high: Float32Array;
  /** As strong as it is by itself: over all bands, not set against its surroundings. */
  readonly rise: Float32Array;
}

/** A rise is measured against so many frames before. */
const LAG = 3;
const LOW_HZ = 180;
const HIGH_HZ = 2500;
/** Loud and quiet parts count alike: strengths are set against those within so many seconds. */
const SURROUNDINGS_S = 4;
/** A single loud stroke does not outweigh a row of others. */
const MOST = 4;

const PEAK_REACH = 3;
const PEAK_LEAST = 0.8;

/**
 * SuperFlux (Böck and Widmer 2013, “Maximum filter vibrato suppression for onset detection”): the rise of each band over the largest of itself and its
 * neighbours a little earlier, summed.
 */
export function onsetsOf(spectrum: Spectrogram): Onsets {
  const { frameCount, bandCount, bandHz } = spectrum;
  const [all, low, high] = [0, 1, 2].map(() => new Float32Array(frameCount)) as [
    Float32Array,
    Float32Array,
    Float32Array,
  ];
  for (let frame = LAG; frame < frameCount; frame += 1) {
    const now = frame * bandCount;
    const before = (frame - LAG) * bandCount;
    for (let band = 0; band < bandCount; band += 1) {
      const left = spectrum.bands[before + max(0, band - 1)]!;
      const own = spectrum.bands[before + band]!;
      const right = spectrum.bands[before + min(bandCount - 1, band + 1)]!;
      const rise = spectrum.bands[now + band]! - max(left, own, right);
      if (rise <= 0) continue;
      all[frame] = all[frame]! + rise;
      if (bandHz[band]! < LOW_HZ) low[frame] = low[frame]! + rise;
      else if (bandHz[band]! > HIGH_HZ) high[frame] = high[frame]! + rise;
    }
  }
  return { all: levelled(all), low: levelled(low), high: levelled(high), rise: all };
}

/** Frames at which a curve has a clear peak: the largest value within 30 ms on both sides. */
export function strokePeaks(curve: Float32Array): number[] {
  const peaks: number[] = [];
  for (let frame = PEAK_REACH; frame + PEAK_REACH < curve.length; frame += 1) {
    const value = curve[frame]!;
    if (value <= PEAK_LEAST || peaks.at(-1) === frame - 1) continue;
    let largest = true;
    for (let by = -PEAK_REACH; by <= PEAK_REACH; by += 1) if (curve[frame + by]! > value) largest = false;
    if (largest) peaks.push(frame);
  }
  return peaks;
}

/** Set against mean and deviation of the surroundings. */
function levelled(curve: Float32Array): Float32Array {
  const reach = Math.round((SURROUNDINGS_S * LISTENING_RATE) / HOP);
  const sums = new Float64Array(curve.length + 1);
  const squares = new Float64Array(curve.length + 1);
  curve.forEach((value, at) => {
    sums[at + 1] = sums[at]! + value;
    squares[at + 1] = squares[at]! + value * value;
  });
  const wholeMean = sums[curve.length]! / max(1, curve.length);
  const wholeDeviation = sqrt(max(0, squares[curve.length]! / max(1, curve.length) - wholeMean ** 2));
  return curve.map((value, at) => {
    const from = max(0, at - reach);
    const to = min(curve.length, at + reach);
    const mean = (sums[to]! - sums[from]!) / (to - from);
    const deviation = sqrt(max(0, (squares[to]! - squares[from]!) / (to - from) - mean * mean));
    // A stretch of silence has no beats in its noise.
    return max(-0.5, min(MOST, (value - mean) / (0.9 * deviation + 0.1 * wholeDeviation + 1e-6)));
  });
}
