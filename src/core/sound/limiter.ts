import { BETWEEN_SAMPLES, RISES_AT_MOST, TAPS } from './between-samples';

// Looked up once: it is asked for each sample.
const { abs, max } = Math;

/**
 * No sample, nor the curve between samples, of what comes out is larger than this: −1 dBTP, less what measuring at four times the rate may miss and what packing as
 * AAC adds to peaks (0.1 dB at 256 kbit/s on loud drums; at 192 it was 1.5 dB).
 */
export const CEILING = 10 ** (-1.5 / 20);
/** So many samples are looked at together; a power of two. */
const HOLD = 128;
/** What comes out is so many samples late: the limiter sees what comes, and the filter that looks between samples is itself late. */
export const LIMITER_DELAY = HOLD + TAPS;
/** How fast it lets go, in samples. */
const RELEASE = 4800;

export interface Limiter {
  /** Changes interleaved stereo in place; what comes out is `LIMITER_DELAY` samples late. */
  run(samples: Float32Array): void;
}

/**
 * A look-ahead limiter on true peaks (ITU-R BS.1770-4, annex 2, for what is measured): the gain each sample needs is held for the look-ahead and averaged over it, so
 * that it has come down, smoothly, by the time the peak comes out.
 */
export function createLimiter(): Limiter {
  /** What came before, then what comes. */
  let line = new Float32Array(2 * LIMITER_DELAY);
  const state = { released: 1, ringAt: 0, sum: HOLD, first: 0, end: 0, now: 0 };
  // A mean over the last gains, as a ring and its sum.
  const ring = new Float64Array(HOLD).fill(1);
  // The least of the last needs, by a queue of those that may still be the least.
  const queueAt = new Int32Array(2 * HOLD);
  const queueNeed = new Float64Array(2 * HOLD);
  const mask = 2 * HOLD - 1;

  return {
    run(samples) {
      const kept = 2 * LIMITER_DELAY;
      if (line.length < kept + samples.length) {
        const longer = new Float32Array(kept + samples.length);
        longer.set(line.subarray(0, kept));
        line = longer;
      }
      line.set(samples, kept);
      // In the hands of the loop: what closures hold is slower to reach.
      let { released, ringAt, sum, first, end, now } = state;
      const current = line;
      for (let at = 0; at < samples.length; at += 2) {
        const need = needAt(current, kept + at - 2 * (2 * TAPS - 1));
        while (first !== end && queueNeed[(end - 1) & mask]! >= need) end = (end - 1) & mask;
        queueAt[end] = now;
        queueNeed[end] = need;
        end = (end + 1) & mask;
        // Counts of samples wrap after half a day.
        if (((now - queueAt[first]!) | 0) >= HOLD) first = (first + 1) & mask;
        now = (now + 1) | 0;
        const least = queueNeed[first]!;
        if (least < released) released = least;
        else if (released < 1) {
          released += (least - released) / RELEASE;
          if (released > 0.99999) released = 1;
        }
        sum += released - ring[ringAt]!;
        ring[ringAt] = released;
        ringAt = (ringAt + 1) & (HOLD - 1);
        // Added up anew now and then, so that rounding never piles up.
        if (ringAt === 0 && released < 1) sum = ring.reduce((all, gain) => all + gain, 0);
        const gain = sum / HOLD;
        samples[at] = current[at]! * gain;
        samples[at + 1] = current[at + 1]! * gain;
      }
      Object.assign(state, { released, ringAt, sum, first, end, now });
      line.copyWithin(0, samples.length, samples.length + kept);
    },
  };
}

/** The gain that keeps the curve around the middle of `2 × TAPS` frames under the ceiling. @param from index of the first of them */
function needAt(line: Float32Array, from: number): number {
  const middle = from + 2 * (TAPS - 1);
  const left = max(abs(line[middle]!), abs(line[middle + 2]!));
  const right = max(abs(line[middle + 1]!), abs(line[middle + 3]!));
  let peak = max(left, right);
  if (RISES_AT_MOST * peak <= CEILING) return 1;
  for (let channel = 0; channel < 2; channel += 1) {
    if (RISES_AT_MOST * (channel === 0 ? left : right) <= CEILING) continue;
    for (const taps of BETWEEN_SAMPLES) {
      let value = 0;
      for (let tap = 0; tap < 2 * TAPS; tap += 1) value += taps[tap]! * line[from + 2 * tap + channel]!;
      peak = max(peak, abs(value));
    }
  }
  return peak > CEILING ? CEILING / peak : 1;
}
