import { gainAt, MIX_SAMPLE_RATE, type MixPart } from './mix-plan';

/** Gains are worked out this often and joined by straight lines: 5 ms, far below what can be heard as steps. */
const GAIN_STEP_SAMPLES = 240;

/**
 * Adds a stretch of one part to a block of the mix.
 *
 * @param block interleaved stereo, changed in place
 * @param blockStartSample sample index of the block's first frame in the show
 * @param source interleaved stereo of the part, at `MIX_SAMPLE_RATE`
 * @param sourceStartSample sample index in the part (0 is where it starts to sound) of the source's first frame
 */
export function addToMix(
  block: Float32Array,
  blockStartSample: number,
  part: MixPart,
  source: Float32Array,
  sourceStartSample: number,
): void {
  const partStart = sampleOf(part.startMs);
  const firstSample = Math.max(blockStartSample, partStart + sourceStartSample);
  const endSample = Math.min(
    blockStartSample + block.length / 2,
    partStart + sourceStartSample + source.length / 2,
    sampleOf(part.startMs + part.lengthMs),
  );
  for (let from = firstSample; from < endSample; from += GAIN_STEP_SAMPLES) {
    const to = Math.min(endSample, from + GAIN_STEP_SAMPLES);
    const gainFrom = gainAt(part.gains, (from * 1000) / MIX_SAMPLE_RATE);
    const gainTo = gainAt(part.gains, (to * 1000) / MIX_SAMPLE_RATE);
    const step = (gainTo - gainFrom) / (to - from);
    for (let sample = from; sample < to; sample += 1) {
      const gain = gainFrom + step * (sample - from);
      const into = 2 * (sample - blockStartSample);
      const outOf = 2 * (sample - partStart - sourceStartSample);
      block[into] = block[into]! + gain * source[outOf]!;
      block[into + 1] = block[into + 1]! + gain * source[outOf + 1]!;
    }
  }
}

/** The sample on which a moment falls, at `MIX_SAMPLE_RATE`. */
export function sampleOf(momentMs: number): number {
  return Math.round((momentMs * MIX_SAMPLE_RATE) / 1000);
}

/** Brings a block to its loudness, before the limiter. In place. */
export function amplify(block: Float32Array, gain: number): void {
  if (gain === 1) return;
  for (let index = 0; index < block.length; index += 1) block[index] = block[index]! * gain;
}
