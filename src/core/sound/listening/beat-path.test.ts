import { describe, expect, it } from '@jest/globals';
import { bestBeats, type BeatRange } from './beat-path';

/** The same noise at each run. */
function noise(seed: number): () => number {
  let state = seed;
  return () => (state = (Math.imul(state, 1_103_515_245) + 12_345) & 0x7fffffff) / 0x7fffffff;
}
/** Strokes at some frames over noise, a hundred frames a second; mean about 0. */
function strengthOf(frames: number, strokes: readonly number[], loud = 3, seed = 5): Float32Array {
  const roll = noise(seed);
  const out = Float32Array.from({ length: frames }, () => roll() - 0.5);
  for (const at of strokes) {
    const frame = Math.round(at);
    for (const [by, share] of [
      [-1, 0.4],
      [0, 1],
      [1, 0.4],
    ] as const)
      if (frame + by >= 0 && frame + by < frames) out[frame + by]! += loud * share;
  }
  const mean = out.reduce((sum, value) => sum + value, 0) / frames;
  return out.map((value) => value - mean);
}
const even = (gap: number, from: number, until: number) =>
  Array.from({ length: Math.floor((until - from) / gap) + 1 }, (_, beat) => from + gap * beat);
/** About an octave: strokes alone do not say which of two beats, one twice the other, is meant. */
const near = (gap: number): BeatRange => ({ shortest: 0.72 * gap, longest: 1.4 * gap, prior: () => 0 });
const WIDE: BeatRange = { shortest: 28, longest: 110, prior: () => 0 };
const share = (found: readonly number[], truth: readonly number[], within = 3) =>
  truth.filter((one) => found.some((other) => Math.abs(one - other) <= within)).length / truth.length;

describe('the best path through strokes', () => {
  it.each([32, 41.3, 50, 63.7, 90])('finds an even beat of %d hundredths of a second, and nothing between', (gap) => {
    const truth = even(gap, 17, 2985);
    const found = bestBeats(strengthOf(3000, truth), near(gap))!;
    expect(share(found, truth)).toBeGreaterThan(0.97);
    expect(Math.abs(found.length - truth.length)).toBeLessThanOrEqual(2);
  });
  it('goes along with a song that gets slower all the way', () => {
    const truth: number[] = [20];
    for (let gap = 40; truth.at(-1)! < 4000; gap *= 1.006) truth.push(truth.at(-1)! + gap);
    const found = bestBeats(strengthOf(4100, truth), near(50))!;
    expect(share(found, truth)).toBeGreaterThan(0.95);
  });
  it('goes on through beats that are not struck', () => {
    const truth = even(50, 25, 3950);
    const struck = truth.filter((_, beat) => beat % 8 < 5);
    const found = bestBeats(strengthOf(4000, struck), near(50))!;
    expect(share(found, truth)).toBeGreaterThan(0.93);
  });
  it('is not led astray by single strokes beside the beat', () => {
    const truth = even(48, 30, 2900);
    const astray = truth.filter((_, beat) => beat % 9 === 4).map((at) => at + 21);
    const found = bestBeats(strengthOf(3000, [...truth, ...astray]), near(48))!;
    expect(share(found, truth)).toBeGreaterThan(0.95);
  });
  it('takes the tempo that is likelier in itself where strokes leave it open', () => {
    const strokes = strengthOf(3000, even(30, 10, 2950));
    const likely = (is: (interval: number) => boolean): BeatRange => ({
      ...WIDE,
      longest: 70,
      prior: (interval) => (is(interval) ? 1.2 : -1.2),
    });
    const gapOf = (found: readonly number[]) => (found.at(-1)! - found[0]!) / (found.length - 1);
    expect(
      gapOf(
        bestBeats(
          strokes,
          likely((interval) => interval < 40),
        )!,
      ),
    ).toBeCloseTo(30, 0);
    expect(
      gapOf(
        bestBeats(
          strokes,
          likely((interval) => interval > 45),
        )!,
      ),
    ).toBeCloseTo(60, 0);
  });
  it('rises, keeps within the intervals it was given, and reaches from one end to the other', () => {
    const found = bestBeats(strengthOf(2000, []), WIDE)!;
    found.slice(1).forEach((frame, at) => {
      expect(frame - found[at]!).toBeGreaterThanOrEqual(28);
      expect(frame - found[at]!).toBeLessThanOrEqual(110);
    });
    expect(found[0]!).toBeLessThan(110);
    expect(found.at(-1)!).toBeGreaterThan(2000 - 111);
  });
  it('is none where there is no room for three beats', () => {
    expect(bestBeats(strengthOf(320, []), WIDE)).toBeNull();
  });
});
