import { describe, expect, it } from '@jest/globals';
import { shapedLevel, withGains } from './shape-level';
import { LEVEL_MS, type VoiceLevels } from './voice-levels';

/** A voice as its levels: stretches of so many dB for so many milliseconds, with syllables that go up and down a little. */
function voice(parts: readonly (readonly [db: number, ms: number])[]): VoiceLevels {
  const rms = parts.flatMap(([db, ms]) =>
    Array.from({ length: ms / LEVEL_MS }, (_, at) => (db > -60 ? db + 1.5 * Math.sin(at / 4) : db)),
  );
  return {
    rmsDb: Float32Array.from(rms),
    weighted: Float32Array.from(rms, (db) => 10 ** (db / 10)),
    peak: Float32Array.from(rms, (db) => Math.min(1, 10 ** ((db + 6) / 20))),
  };
}
const PAUSE = [-75, 900] as const;
const levelled = ({ rmsDb }: VoiceLevels, gains: Float32Array, fromMs: number, toMs: number) => {
  const within = [...rmsDb].slice(fromMs / LEVEL_MS, toMs / LEVEL_MS);
  const power = within.reduce((sum, db, at) => sum + 10 ** ((db + gains[fromMs / LEVEL_MS + at]!) / 10), 0);
  return 10 * Math.log10(power / within.length);
};

describe('the level of a voice', () => {
  const uneven = voice([PAUSE, [-20, 2000], PAUSE, [-32, 2000], PAUSE]);
  it('is the same for a soft sentence as for a loud one when it is evened', () => {
    const gains = shapedLevel(uneven, { even: true });
    const [loud, soft] = [levelled(uneven, gains, 900, 2900), levelled(uneven, gains, 3800, 5800)];
    expect(Math.abs(loud - soft)).toBeLessThan(0.5);
    // Both channels carry it, so that it lies 3 dB below what is heard: −19 LUFS.
    expect(loud).toBeCloseTo(-19 - 3 + 0.69, 0);
  });
  it('goes from one sentence to the next over the pause between them, without a step', () => {
    const gains = shapedLevel(uneven, { even: true });
    for (let at = 1; at < gains.length; at += 1) expect(Math.abs(gains[at]! - gains[at - 1]!)).toBeLessThan(0.5);
  });
  it('is turned up by twenty decibels at most, and never so that it is overloaded', () => {
    const faint = voice([PAUSE, [-50, 2000], PAUSE]);
    const gains = shapedLevel(faint, { even: true });
    expect(Math.max(...gains)).toBeLessThanOrEqual(20.001);
    const sharp = { ...uneven, peak: uneven.peak.map((_, at) => (at === 150 ? 0.99 : 0.1)) };
    const held = shapedLevel(sharp, { even: true });
    expect(held[150]! + 20 * Math.log10(0.99)).toBeLessThanOrEqual(-1.19);
  });
  it('comes down between sentences where breaths are softened, and nowhere within them', () => {
    const breathing = voice([PAUSE, [-20, 2000], [-75, 300], [-45, 300], [-75, 300], [-20, 2000], PAUSE]);
    const gains = shapedLevel(breathing, { breaths: 0.5 });
    expect(gains[(900 + 2000 + 450) / LEVEL_MS]!).toBeCloseTo(-9, 0);
    for (let ms = 1000; ms < 2800; ms += LEVEL_MS) expect(Math.abs(gains[ms / LEVEL_MS]!)).toBeLessThan(0.2);
  });
  it('is pressed where syllables stand out of their sentence, and gives the loudness back', () => {
    const lively = voice([PAUSE, [-24, 900], [-14, 200], [-24, 900], PAUSE]);
    const gains = shapedLevel(lively, { press: 1 });
    const [loud, rest] = [gains[(900 + 900 + 120) / LEVEL_MS]!, gains[(900 + 300) / LEVEL_MS]!];
    expect(rest - loud).toBeGreaterThan(3);
    const own = levelled(lively, new Float32Array(gains.length), 900, 2900);
    expect(Math.abs(levelled(lively, gains, 900, 2900) - own)).toBeLessThan(1.5);
  });
  it('is left alone where nobody speaks, and where nothing is asked for', () => {
    expect([...shapedLevel(voice([[-75, 3000]]), { even: true, press: 1, breaths: 1 })].every((db) => db === 0)).toBe(
      true,
    );
    expect(Math.max(...shapedLevel(uneven, {}).map(Math.abs))).toBe(0);
  });
});

describe('gains on samples', () => {
  it('change evenly from step to step, the same in whatever pieces the samples come', () => {
    const gains = Float32Array.from([0, 0, -20, -20]);
    const ones = new Float32Array(4 * 480).fill(1);
    const whole = withGains(gains, 48_000)(ones);
    expect([whole[0], whole.at(-1)]).toEqual([1, expect.closeTo(0.1, 6)]);
    for (let at = 1; at < whole.length; at += 1) {
      expect(whole[at]!).toBeLessThanOrEqual(whole[at - 1]! + 1e-7);
      expect(whole[at - 1]! - whole[at]!).toBeLessThan(0.003);
    }
    const byPieces = withGains(gains, 48_000);
    const pieces = [0, 7, 500, 501, 1200].map((from, at, all) => byPieces(ones.subarray(from, all[at + 1])));
    expect(Float32Array.from(pieces.flatMap((piece) => [...piece]))).toEqual(whole);
  });
});
