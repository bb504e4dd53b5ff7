import { BETWEEN_SAMPLES, TAPS } from './between-samples';

// Looked up once: it is asked for each sample.
const { abs } = Math;

/** No sample, nor the curve between samples, of what comes out is larger than this: −1 dBTP, less what measuring at four times the rate may miss. */
export const CEILING = 10 ** (-1.15 / 20);
/** What comes out is so many samples late: the limiter sees what comes. */
export const LIMITER_DELAY = 192;
/** Of each channel at 48 kHz; how fast it lets go. */
const RELEASE_SAMPLES = 4800;

export interface Limiter {
  /** Changes interleaved stereo in place; what comes out is `LIMITER_DELAY` samples late. */
  run(samples: Float32Array): void;
}

/**
 * A look-ahead limiter on true peaks (ITU-R BS.1770-4, annex 2, for what is measured): the gain each sample needs is held for the look-ahead and averaged over it, so
 * that it has come down, smoothly, by the time the peak comes out.
 */
export function createLimiter(): Limiter {
  // The filter that looks between samples is itself this late.
  const history = new Float32Array(2 * (2 * TAPS));
  const delayed = new Float32Array(2 * LIMITER_DELAY);
  const hold = LIMITER_DELAY - TAPS;
  const smooth = new Float64Array(hold).fill(1);
  let smoothSum = hold;
  let released = 1;
  let smoothAt = 0;
  let delayAt = 0;
  // Minimum of the last `hold` needs, by a queue of candidates.
  const queueAt = new Int32Array(hold + 1);
  const queueValue = new Float64Array(hold + 1);
  let [head, tail, now] = [0, 0, 0];

  return {
    run(samples) {
      for (let frame = 0; 2 * frame < samples.length; frame += 1) {
        const [left, right] = [samples[2 * frame]!, samples[2 * frame + 1]!];
        history.copyWithin(0, 2);
        history[4 * TAPS - 2] = left;
        history[4 * TAPS - 1] = right;
        const need = needAt(history);
        // The least gain needed within the look-ahead.
        while (tail !== head && queueValue[(tail + hold) % (hold + 1)]! >= need) tail = (tail + hold) % (hold + 1);
        queueAt[tail] = now;
        queueValue[tail] = need;
        tail = (tail + 1) % (hold + 1);
        if (now - queueAt[head]! >= hold) head = (head + 1) % (hold + 1);
        const least = queueValue[head]!;
        now += 1;
        released = least < released ? least : released + (least - released) / RELEASE_SAMPLES;
        if (released > 0.99999 && least === 1) released = 1;
        // Averaged over the look-ahead: steps become ramps.
        smoothSum += released - smooth[smoothAt]!;
        smooth[smoothAt] = released;
        smoothAt = (smoothAt + 1) % hold;
        if (smoothAt === 0) smoothSum = smooth.reduce((sum, value) => sum + value, 0);
        const gain = smoothSum / hold;
        const outLeft = delayed[delayAt]!;
        const outRight = delayed[delayAt + 1]!;
        delayed[delayAt] = left;
        delayed[delayAt + 1] = right;
        delayAt = (delayAt + 2) % delayed.length;
        samples[2 * frame] = outLeft * gain;
        samples[2 * frame + 1] = outRight * gain;
      }
    },
  };
}

/** The gain that keeps the curve around the middle of the history under the ceiling. */
function needAt(history: Float32Array): number {
  const middle = 2 * (TAPS - 1);
  const largest = Math.max(
    abs(history[middle]!),
    abs(history[middle + 1]!),
    abs(history[middle + 2]!),
    abs(history[middle + 3]!),
  );
  // Nothing between two samples rises to twice the larger of them.
  if (2 * largest <= CEILING) return 1;
  let peak = largest;
  for (const taps of BETWEEN_SAMPLES)
    for (let channel = 0; channel < 2; channel += 1) {
      let value = 0;
      for (let tap = 0; tap < 2 * TAPS; tap += 1) value += taps[tap]! * history[2 * tap + channel]!;
      if (abs(value) > peak) peak = abs(value);
    }
  return peak > CEILING ? CEILING / peak : 1;
}
