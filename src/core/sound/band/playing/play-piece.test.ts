import { describe, expect, it } from '@jest/globals';
import { CEILING } from '../../limiter';
import { loudnessMeter } from '../../loudness';
import { BAND_INSTRUMENTS, BAND_STYLES, type BandWishes } from '../band-wishes';
import { INSTRUMENT_RANGES, isDrum } from '../instruments';
import { centsOff, largestOf, played, rmsOf, sideLikeness, soundPrint, thirdOctaves } from './sound-measures.testing';
import { BAND_RATE, hertzOf } from './tone';
import { voiceOfInstrument } from './voices';

const wishesOf = (over: Partial<BandWishes>): BandWishes => ({
  style: 'quiet-piano',
  mood: 'warm',
  energy: 0.7,
  lengthMs: 17_000,
  seed: 3,
  ...over,
});

describe.each(BAND_STYLES)('%s, as it sounds', (style) => {
  const { samples, lastMs } = played(wishesOf({ style }));
  it('is as long as it must be, and ends in silence after its last chord', () => {
    expect(samples.length).toBe(2 * 17 * BAND_RATE);
    expect(rmsOf(samples, lastMs, lastMs + 400)).toBeGreaterThan(0.01);
    expect(rmsOf(samples, 16_980, 17_000)).toBeLessThan(0.003);
  });
  it('sounds as it did', () => {
    expect(soundPrint(samples)).toMatchSnapshot();
  });
  it('has no clipping, no clicks, and does not vanish in mono', () => {
    const { size, step } = largestOf(samples);
    expect(size).toBeGreaterThan(0.1);
    expect(size).toBeLessThanOrEqual(CEILING + 1e-6);
    expect(step).toBeLessThan(0.75);
    expect(sideLikeness(samples)).toBeGreaterThan(0.3);
  });
  it('is as loud as the others, and has something in every third of an octave a speaker has', () => {
    const meter = loudnessMeter(BAND_RATE);
    meter.add(samples);
    const { integratedLufs } = meter.finish();
    expect(integratedLufs).toBeGreaterThan(-22);
    expect(integratedLufs).toBeLessThan(-14);
    const bands = thirdOctaves(samples);
    expect(Math.min(...bands)).toBeGreaterThan(-36);
    // No band stands alone above those beside it.
    bands.forEach((level, at) => {
      const beside = [bands[at - 1], bands[at + 1]].filter((one) => one !== undefined);
      expect(level - Math.max(...beside)).toBeLessThan(9);
    });
  });
});

it.each(['jazz-trio', 'folk-guitar', 'march'] as const)(
  'the last chord of %s is heard within 10 ms of its place',
  (style) => {
    const { samples, lastMs } = played(wishesOf({ style, energy: 0.9 }));
    const power = Array.from({ length: 60 }, (_, step) => rmsOf(samples, lastMs - 30 + step, lastMs - 28 + step));
    const rises = power.map((value, at) => value - (power[at - 6] ?? power[0]!));
    const most = rises.indexOf(Math.max(...rises));
    // The steepest rise over 6 ms begins where the chord does.
    expect(Math.abs(most - 6 + 1 - 30)).toBeLessThanOrEqual(10);
  },
);

it('the same wishes sound the same, sample by sample', () => {
  const [one, other] = [played(wishesOf({ lengthMs: 9000 })), played(wishesOf({ lengthMs: 9000 }))];
  expect(one.samples).toEqual(other.samples);
});

it.each(BAND_INSTRUMENTS)('the %s sounds as it did', (instrument) => {
  const { lowest, highest } = INSTRUMENT_RANGES[instrument];
  const voice = voiceOfInstrument(instrument);
  const prints = [0.1, 0.5, 0.9].map((share) => {
    const { left, right } = voice.tone(Math.round(lowest + share * (highest - lowest)), 0.25 + share / 2, BAND_RATE);
    return soundPrint(Float32Array.from({ length: 2 * left.length }, (_, at) => (at % 2 ? right : left)[at >> 1]!));
  });
  expect(prints).toMatchSnapshot();
});

it.each(BAND_INSTRUMENTS.filter((instrument) => !isDrum(instrument)))('the %s is in tune', (instrument) => {
  const { lowest, highest } = INSTRUMENT_RANGES[instrument];
  const voice = voiceOfInstrument(instrument);
  for (const pitch of [
    Math.round(lowest + 0.35 * (highest - lowest)),
    Math.round(lowest + 0.65 * (highest - lowest)),
  ]) {
    expect([pitch, Math.abs(centsOff(voice.tone(pitch, 0.6, 3 * BAND_RATE).left, hertzOf(pitch))) <= 9]).toEqual([
      pitch,
      true,
    ]);
  }
});
