import { describe, expect, it } from '@jest/globals';
import type { AssetFacts, FactsById } from '../show/asset-facts';
import { assetId, cueId, showId, slideId } from '../show/ids';
import { songAfter, voiceHere, type PlacedSound } from '../show/placed-sound';
import { emptyShow, type Show, type Slide } from '../show/show';
import { createLimiter, LIMITER_DELAY } from './limiter';
import { gatedLufs, loudnessMeter, powerOfLufs, truePeakMeter } from './loudness';
import { addToMix, amplify, sampleOf } from './mix-block';
import { gainAt, gainOfDb, MIX_SAMPLE_RATE, type MixPart, type MixPlan } from './mix-plan';
import { planMix } from './plan-mix';

const SONG = assetId('1'.repeat(64));
const OTHER = assetId('2'.repeat(64));
const VOICE = assetId('3'.repeat(64));

/** A sound of which half seconds are so loud. */
function sound(lengthMs: number, lufs: number): AssetFacts {
  return {
    kind: 'sound',
    lengthMs,
    title: null,
    artist: null,
    listening: {
      loudness: {
        integratedLufs: lufs,
        truePeakDb: -1,
        curve: Array.from({ length: lengthMs / 500 }, () => 10 * lufs),
      },
      heardFromMs: 0,
      heardToMs: lengthMs,
      beats: null,
      sections: [],
      energy: [],
      accentsMs: [],
    },
  };
}
const facts: FactsById = new Map<typeof SONG, AssetFacts>([
  [SONG, sound(20_000, -9)],
  [OTHER, sound(30_000, -20)],
  [VOICE, sound(3000, -20)],
]);
const plain = (name: string, lengthMs: number): Slide => ({
  id: slideId(name),
  lengthMs,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  layers: [],
  sounds: [],
});
const cue = (name: string, more: Partial<PlacedSound> = {}): PlacedSound => ({
  ...songAfter(cueId(name), SONG, 0),
  ...more,
});
const showOf = (lengthMs: number, cues: PlacedSound[], more: Partial<Show> = {}): Show => ({
  ...emptyShow(showId('x'), ''),
  slides: [plain('a', lengthMs)],
  cues,
  ...more,
});
const gainOf = (parts: readonly MixPart[], atMs: number): number[] =>
  parts.flatMap((part) =>
    atMs >= part.startMs && atMs < part.startMs + part.lengthMs ? [gainAt(part.gains, atMs)] : [],
  );
const db = (gain: number) => 20 * Math.log10(gain);

describe('songs', () => {
  it('cross over as loud together as each alone', () => {
    const second = cue('r', { assetId: OTHER, starts: { at: 'after', overlapMs: 4000 } });
    const { parts } = planMix(showOf(40_000, [cue('q', { fadeOutMs: 1000 }), second]), facts);
    expect(parts.map((part) => [part.startMs, part.lengthMs])).toEqual([
      [0, 20_000],
      [16_000, 24_000],
    ]);
    for (const atMs of [16_400, 17_000, 18_000, 19_300]) {
      const [one, other] = gainOf(parts, atMs) as [number, number];
      expect(one ** 2 + other ** 2).toBeCloseTo(1, 1);
    }
    expect(gainOf(parts, 15_900)).toEqual([1]);
    expect(gainOf(parts, 20_100)).toEqual([1]);
  });
  it('loop from where they are trimmed to, without a gap, until the end of the show', () => {
    const looping = cue('q', { loops: true, trimStartMs: 4000, trimEndMs: 12_000, fadeOutMs: 2000 });
    const { parts } = planMix(showOf(21_000, [looping]), facts);
    expect(parts.map((part) => [part.startMs, part.fromMs])).toEqual([
      [0, 4000],
      [8000, 4000],
      [16_000, 4000],
    ]);
    for (const join of [8000, 16_000])
      for (const after of [2, 6, 10]) {
        const gains = gainOf(parts, join + after);
        expect(gains.reduce((sum, gain) => sum + gain ** 2, 0)).toBeCloseTo(1, 1);
      }
    expect(gainOf(parts, 20_000)[0]).toBeCloseTo(0.5, 2);
    expect(gainOf(parts, 20_999)[0]).toBeCloseTo(0, 2);
  });
  it('loop at full strength where the file has nothing left to cross over with', () => {
    const { parts } = planMix(showOf(41_000, [cue('q', { loops: true })]), facts);
    expect(parts.map((part) => [part.startMs, part.lengthMs])).toEqual([
      [0, 20_000],
      [20_000, 20_000],
      [40_000, 1000],
    ]);
    for (const atMs of [19_995, 20_000, 20_005]) expect(gainOf(parts, atMs)).toEqual([1]);
  });
  it('end where they are trimmed to in their file', () => {
    const { parts } = planMix(showOf(40_000, [cue('q', { trimStartMs: 1000, trimEndMs: 7000 }), cue('r')]), facts);
    expect(parts.map((part) => [part.startMs, part.lengthMs])).toEqual([
      [0, 6000],
      [6000, 20_000],
    ]);
  });
  it.each([
    ['straight', 0.25],
    ['gentle', 0.5 - 0.5 * Math.cos(Math.PI / 4)],
    ['equal', Math.sin(Math.PI / 8)],
  ] as const)('fade in along a %s curve', (fadeInCurve, quarter) => {
    const { parts } = planMix(showOf(20_000, [cue('q', { fadeInMs: 8000, fadeInCurve })]), facts);
    expect(gainOf(parts, 2000)[0]).toBeCloseTo(quarter, 2);
    expect(gainOf(parts, 8000)[0]).toBeCloseTo(1, 3);
  });
  it('follow their level line in decibels, points from the end staying with the end', () => {
    const levels = [
      { from: 'start', offsetMs: 2000, gainDb: 0 },
      { from: 'start', offsetMs: 4000, gainDb: -12 },
      { from: 'end', offsetMs: 3000, gainDb: -12 },
      { from: 'end', offsetMs: 1000, gainDb: 6 },
    ] as const;
    for (const lengthMs of [12_000, 18_000]) {
      const { parts } = planMix(showOf(lengthMs, [cue('q', { levels })]), facts);
      expect(db(gainOf(parts, 1000)[0]!)).toBeCloseTo(0, 1);
      expect(db(gainOf(parts, 3000)[0]!)).toBeCloseTo(-6, 1);
      expect(db(gainOf(parts, lengthMs - 4000)[0]!)).toBeCloseTo(-12, 1);
      expect(db(gainOf(parts, lengthMs - 2000)[0]!)).toBeCloseTo(-3, 1);
      expect(db(gainOf(parts, lengthMs - 100)[0]!)).toBeCloseTo(6, 1);
    }
  });
  it.each([
    [11, 450],
    [24, 200],
    [40, 150],
  ])('go down under a voice by %i dB within %i ms, never by more than 3 dB in 10 ms', (duckDb, duckInMs) => {
    const show = showOf(20_000, [cue('q')], { mix: { duckDb, duckInMs, duckOutMs: duckInMs } });
    const spoken = { ...show, slides: [{ ...show.slides[0]!, sounds: [voiceHere(cueId('v'), VOICE, 8000)] }] };
    const { parts } = planMix(spoken, facts);
    const music = parts.find((part) => part.kind === 'music')!;
    const level = (atMs: number) => db(gainAt(music.gains, atMs));
    expect([level(8000 - duckInMs - 20), level(12_000)].map(Math.round)).toEqual([0, 0]);
    for (const atMs of [8001, 9500, 10_990]) expect(Math.abs(level(atMs) + duckDb)).toBeLessThan(1);
    const steps = Array.from({ length: 5000 }, (_, at) => Math.abs(level(7010 + at) - level(7000 + at)));
    expect(Math.max(...steps)).toBeLessThan(3);
  });
});

describe('the whole mix', () => {
  it.each(['-14', '-16', '-23'] as const)('comes to %s LUFS, whatever it is made of', (loudness) => {
    const second = cue('r', { assetId: OTHER, starts: { at: 'after', overlapMs: 2000 } });
    const plan = planMix(
      showOf(26_000, [cue('q', { gainDb: -3, trimStartMs: 8000 }), second], { mix: { loudness } }),
      facts,
    );
    // Noise of the loudness that each half second is known to have.
    const { lufs } = measured(plan, (part) => noise(part.assetId === SONG ? -9 : -20));
    expect(Math.abs(lufs! - Number(loudness))).toBeLessThan(0.5);
  });
  it('stays as it is when that is wanted, or when a part has not been listened to', () => {
    const asItIs = planMix(showOf(20_000, [cue('q')], { mix: { loudness: 'as-it-is' } }), facts);
    const unheard = new Map(facts).set(OTHER, { kind: 'sound', lengthMs: 9000, title: null, artist: null });
    const unknown = planMix(showOf(25_000, [cue('q'), cue('r', { assetId: OTHER })]), unheard);
    expect([asItIs.masterGain, unknown.masterGain]).toEqual([1, 1]);
  });
  it('never peaks over −1 dBTP, between samples neither, and is otherwise as it was', () => {
    const samples = new Float32Array(2 * 96_000);
    for (let at = 0; at < 96_000; at += 1) {
      // A quarter of the sampling rate, between its peaks: samples at 0.71 of what the curve reaches; loud in the middle.
      const value = (at > 30_000 && at < 60_000 ? 2.4 : 0.4) * Math.sin((Math.PI / 2) * at + Math.PI / 4);
      samples[2 * at] = value;
      samples[2 * at + 1] = -value;
    }
    const before = samples.slice();
    const limiter = createLimiter();
    for (let from = 0; from < samples.length; from += 2 * 480) limiter.run(samples.subarray(from, from + 2 * 480));
    const meter = truePeakMeter();
    meter.add(samples);
    expect(meter.db()!).toBeLessThanOrEqual(-1);
    expect(meter.db()!).toBeGreaterThan(-2);
    for (const at of [5000, 20_000, 29_000]) expect(samples[2 * (at + LIMITER_DELAY)]!).toBeCloseTo(before[2 * at]!, 5);
  });
});

describe('the loudness meter', () => {
  it('reads a sine of 997 Hz at −20 dBFS in both channels as −20 LUFS, wherever silence is', () => {
    const meter = loudnessMeter(48_000);
    const peak = 10 ** (-20 / 20);
    for (const level of [0, peak, 0]) meter.add(sine(997, level === 0 ? 3 : 20, level));
    const { integratedLufs, truePeakDb, curve } = meter.finish();
    expect(Math.abs(integratedLufs! + 20)).toBeLessThan(0.1);
    expect(truePeakDb).toBeCloseTo(-20, 1);
    expect([curve.length, curve[2], Math.abs(curve[12]! + 200) <= 1]).toEqual([52, -1200, true]);
  });
  it('finds the peak between samples', () => {
    const meter = truePeakMeter();
    const quarter = new Float32Array(2 * 4800);
    for (let at = 0; at < 4800; at += 1)
      quarter[2 * at] = quarter[2 * at + 1] = 0.5 * Math.sin((Math.PI / 2) * at + Math.PI / 4);
    meter.add(quarter.subarray(0, 3000));
    meter.add(quarter.subarray(3000));
    expect(meter.db()!).toBeCloseTo(20 * Math.log10(0.5), 1);
  });
  it('knows no loudness of silence', () => {
    const meter = loudnessMeter(48_000);
    meter.add(new Float32Array(96_000));
    expect(meter.finish()).toMatchObject({ integratedLufs: null, truePeakDb: null });
    expect(gatedLufs([powerOfLufs(-20), powerOfLufs(-20), 0])).toBeCloseTo(-20, 5);
  });
});

function sine(hz: number, seconds: number, peak: number): Float32Array {
  const samples = new Float32Array(2 * seconds * 48_000);
  const { sin, PI } = Math;
  for (let at = 0; at < samples.length; at += 1) samples[at] = peak * sin((2 * PI * hz * (at >> 1)) / 48_000);
  return samples;
}

/** Noise that reads as so many LUFS. */
function noise(lufs: number): Float32Array {
  let state = 7;
  const { imul } = Math;
  const samples = new Float32Array(2 * 48_000 * 21);
  for (let at = 0; at < samples.length; at += 1) {
    state = (imul(state, 1_103_515_245) + 12_345) & 0x7fffffff;
    samples[at] = state / 0x40000000 - 1;
  }
  const meter = loudnessMeter(48_000);
  meter.add(samples);
  amplify(samples, gainOfDb(lufs - meter.finish().integratedLufs!));
  return samples;
}

/** Performs a plan, without the limiter. */
function measured(plan: MixPlan, sourceOf: (part: MixPart) => Float32Array): { lufs: number | null } {
  const mix = new Float32Array(2 * sampleOf(plan.lengthMs));
  for (const part of plan.parts) addToMix(mix, 0, part, sourceOf(part).subarray(0, 2 * sampleOf(part.lengthMs)), 0);
  amplify(mix, plan.masterGain);
  const meter = loudnessMeter(MIX_SAMPLE_RATE);
  meter.add(mix);
  return { lufs: meter.finish().integratedLufs };
}
