import { describe, expect, it } from '@jest/globals';
import { createStretcher } from './sound-stretcher';

const RATE = 48_000;
/** Both sides from a function of time. */
const soundOf = (seconds: number, left: (t: number) => number, right = left) => {
  const samples = new Float32Array(2 * seconds * RATE);
  for (let at = 0; at < samples.length / 2; at += 1) {
    samples[2 * at] = left(at / RATE);
    samples[2 * at + 1] = right(at / RATE);
  }
  return samples;
};
const stretched = (samples: Float32Array, rate: number, pieces = [7919]) => {
  const stretcher = createStretcher(rate);
  const out: Float32Array[] = [];
  for (let at = 0, turn = 0; at < samples.length; turn += 1) {
    const next = Math.min(samples.length, at + 2 * pieces[turn % pieces.length]!);
    stretcher.add(samples.subarray(at, next));
    at = next;
    out.push(stretcher.take(4096));
  }
  stretcher.end();
  for (let got = stretcher.take(50_000); got.length > 0; got = stretcher.take(50_000)) out.push(got);
  const whole = new Float32Array(out.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of out) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
};
const leftOf = (samples: Float32Array) => samples.filter((_, at) => at % 2 === 0);
/** Cycles a second, by rising crossings of zero. */
const pitchOf = (samples: Float32Array) => {
  let crossings = 0;
  for (let at = 1; at < samples.length; at += 1) if (samples[at - 1]! < 0 && samples[at]! >= 0) crossings += 1;
  return (crossings * RATE) / samples.length;
};
const rms = (samples: Float32Array) =>
  Math.sqrt(samples.reduce((sum, value) => sum + value * value, 0) / samples.length);
const SPEEDS = [0.25, 0.5, 0.75, 1.5, 2, 4];

describe('a sound at another speed', () => {
  it.each(SPEEDS)('%s × lasts as much shorter or longer, to the sample, at its own pitch and level', (rate) => {
    const tone = soundOf(4, (t) => 0.4 * Math.sin(2 * Math.PI * 220 * t));
    const out = leftOf(stretched(tone, rate));
    expect(out).toHaveLength(Math.round((4 * RATE) / rate));
    const middle = out.subarray(4800, out.length - 9600);
    expect(Math.abs(pitchOf(middle) - 220)).toBeLessThan(1.5);
    expect(Math.abs(20 * Math.log10(rms(middle) / (0.4 / Math.SQRT2)))).toBeLessThan(0.3);
  });
  it.each(SPEEDS)('%s × has no jumps: a voice-like sound stays as smooth as it was', (rate) => {
    const voice = (t: number) =>
      [1, 2, 3, 4, 5].reduce(
        (sum, n) => sum + (0.2 / n) * Math.sin(2 * Math.PI * n * (130 + 10 * Math.sin(2 * t)) * t),
        0,
      );
    const source = soundOf(3, voice);
    const largest = (samples: Float32Array) => {
      let most = 0;
      for (let at = 1; at < samples.length; at += 1) most = Math.max(most, Math.abs(samples[at]! - samples[at - 1]!));
      return most;
    };
    const out = leftOf(stretched(source, rate));
    expect(largest(out.subarray(0, out.length - 4096))).toBeLessThan(1.7 * largest(leftOf(source)));
  });
  it.each([0.5, 2])('%s × has what is said when it is due, within a window', (rate) => {
    // A knock every half second.
    const knocks = soundOf(4, (t) => (t % 0.5 < 0.02 ? 0.8 * Math.sin(2 * Math.PI * 900 * t) : 0));
    const out = leftOf(stretched(knocks, rate));
    for (let knock = 1; knock < 7; knock += 1) {
      const due = (knock * 0.5 * RATE) / rate;
      const from = Math.round(due - 0.1 * RATE);
      const near = out.subarray(from, Math.round(due + 0.1 * RATE));
      const first = near.findIndex((value) => Math.abs(value) > 0.2);
      expect(Math.abs(from + first - due) / RATE).toBeLessThan(0.05);
    }
  });
  it('keeps both sides together', () => {
    const both = soundOf(
      2,
      (t) => 0.3 * Math.sin(2 * Math.PI * 300 * t),
      (t) => 0.15 * Math.sin(2 * Math.PI * 300 * t),
    );
    const out = stretched(both, 0.7);
    let apart = 0;
    for (let at = 0; at < out.length; at += 2) apart = Math.max(apart, Math.abs(out[at]! - 2 * out[at + 1]!));
    expect(apart).toBeLessThan(1e-5);
  });
  it('is the same whatever pieces it comes in', () => {
    const noise = soundOf(2, (t) => Math.sin(1e5 * t * t) * 0.3);
    expect(stretched(noise, 1.37, [480])).toEqual(stretched(noise, 1.37, [20_001, 13]));
  });
  it('at its own speed is itself', () => {
    const tone = soundOf(1, (t) => 0.4 * Math.sin(2 * Math.PI * 330 * t));
    const out = stretched(tone, 1);
    expect(out).toHaveLength(tone.length);
    for (let at = 0; at < tone.length; at += 101) expect(out[at]).toBeCloseTo(tone[at]!, 5);
  });
  it('keeps silence silent, takes nothing for nothing, and refuses what nobody could hear', () => {
    expect(rms(stretched(new Float32Array(RATE), 0.5))).toBe(0);
    expect(stretched(new Float32Array(0), 0.5)).toHaveLength(0);
    expect(() => createStretcher(0.1)).toThrow(RangeError);
    expect(() => createStretcher(Number.NaN)).toThrow(RangeError);
  });
});
