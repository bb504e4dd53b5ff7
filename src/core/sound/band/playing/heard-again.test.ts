import { describe, expect, it } from '@jest/globals';
import type { BandStyleName } from '../band-wishes';
import { songHearing } from '../../listening/hear-song';
import { compose } from '../compose';
import { asHeard, played } from './sound-measures.testing';
import { BAND_RATE } from './tone';
import { voiceOfInstrument } from './voices';

/** Beats found within 70 ms of one that was written, both ways (F-measure). */
function foundAgain(style: BandStyleName, seed: number): number {
  const wishes = { style, mood: 'warm', energy: 0.6, lengthMs: 17_000, seed } as const;
  const hearing = songHearing(true);
  hearing.add(asHeard(played(wishes).samples));
  const { beats } = hearing.finish({
    integratedLufs: -18,
    truePeakDb: -1,
    curve: Array.from({ length: 34 }, () => -180),
  });
  const found = beats?.beatsMs ?? [];
  const written = compose(wishes).form.beatsMs;
  const hits = found.filter((one) => written.some((other) => Math.abs(one - other) <= 70)).length;
  return (2 * hits) / (found.length + written.length);
}

describe('our own listener finds the beats of a short piece', () => {
  // Bows and pipes are hardest: they swell, and hold their last chord.
  it.each([
    ['string-quartet', 7],
    ['string-quartet', 3],
    ['organ', 7],
    ['brass-band', 7],
    ['march', 1],
  ] as const)('of the %s, dealt as %i', (style, seed) => expect(foundAgain(style, seed)).toBeGreaterThan(0.9));
});

describe('a note that swells', () => {
  it('sets out so much before its place as it takes to be half as loud as it gets', () => {
    for (const [instrument, loudness] of [
      ['violin', 0.5],
      ['viola', 0.9],
      ['horn', 0.6],
    ] as const) {
      const voice = voiceOfInstrument(instrument);
      const frames = BAND_RATE;
      const { left } = voice.tone(57, loudness, frames);
      const loudest = (fromMs: number) =>
        left
          .subarray((fromMs * BAND_RATE) / 1000, ((fromMs + 12) * BAND_RATE) / 1000)
          .reduce((most, sample) => Math.max(most, Math.abs(sample)), 0);
      const full = Math.max(...Array.from({ length: 20 }, (_, at) => loudest(200 + 12 * at)));
      const half = Array.from({ length: 60 }, (_, at) => 3 * at).find((fromMs) => loudest(fromMs) > full / 2)! + 6;
      expect(Math.abs(voice.speaksMs!(loudness, frames) - half)).toBeLessThan(15);
    }
  });
  it('does not where it is struck or plucked', () => {
    for (const instrument of ['piano', 'guitar'] as const)
      expect(voiceOfInstrument(instrument).speaksMs).toBeUndefined();
  });
  it('never sets out further ahead than is heard as late', () => {
    expect(voiceOfInstrument('pad').speaksMs!(0.2, 10 * BAND_RATE)).toBe(60);
  });
});
