import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { slideId } from '../show/ids';
import type { Slide } from '../show/show';
import type { ShowBeat } from '../sound/show-beats';
import { fitToBeats, type BeatFit } from './fit-to-beats';
import { wholeRate } from './frame-rate';

const slide = (name: string, lengthMs = 4000): Slide => ({
  ...{ id: slideId(name), lengthMs, transition: { kind: 'cut' }, backing: { kind: 'automatic' } },
  ...{ layers: [], sounds: [] },
});
/** Four to a bar, a section every eight bars. */
const beatsOf = (gapMs: number, count: number): ShowBeat[] =>
  Array.from({ length: count }, (_, at) => ({
    atMs: at * gapMs,
    begins: at % 32 === 0 ? 'section' : at % 4 === 0 ? 'bar' : 'beat',
    bar: Math.floor(at / 4) + 1,
    beat: (at % 4) + 1,
  }));
const HALF_FRAME_MS = 1000 / 60 + 1;
const fit = (more: Partial<BeatFit>): BeatFit => ({
  slides: Array.from({ length: 12 }, (_, at) => slide(`s${at}`)),
  beats: beatsOf(500, 200),
  ...{ endMs: null, idealMs: 4000, rate: wholeRate(30) },
  keepsLength: () => false,
  shareOf: () => 1,
  leastOf: () => 700,
  energyAt: () => 0.5,
  meetsAfterMs: () => 0,
  ...more,
});
const fitted = (more: Partial<BeatFit>) => {
  const result = fitToBeats(fit(more));
  if (!result.ok) throw new Error(result.reason);
  return result;
};

describe('fitting pictures to beats', () => {
  it('ends every picture on a beat, bars rather, at about the pace that is wanted', () => {
    const { lengths, offBeat } = fitted({});
    expect(offBeat).toEqual([]);
    let atMs = 0;
    for (const { lengthMs } of lengths) {
      atMs += lengthMs;
      expect(Math.abs(atMs / 2000 - Math.round(atMs / 2000)) * 2000).toBeLessThan(HALF_FRAME_MS);
      expect(lengthMs).toBeGreaterThan(1900);
      expect(lengthMs).toBeLessThan(6100);
    }
  });
  it('gives twice the share about twice the time, and less where there is more going on', () => {
    const shares = fitted({ endMs: 60_000, idealMs: null, shareOf: ({ id }) => (id === 's3' ? 2 : 1) }).lengths;
    const of = (name: string) => shares.find((one) => one.slideId === name)!.lengthMs;
    expect(of('s3') / of('s4')).toBeGreaterThan(1.5);
    const lively = fitted({ endMs: 60_000, idealMs: null, energyAt: (ms) => (ms < 30_000 ? 0.1 : 0.9) }).lengths;
    const mean = (some: typeof lively) => some.reduce((sum, { lengthMs }) => sum + lengthMs, 0) / some.length;
    expect(mean(lively.slice(0, 4))).toBeGreaterThan(1.3 * mean(lively.slice(-4)));
  });
  it('puts the middle of a transition on the beat where that is what is to meet it', () => {
    const { lengths } = fitted({ meetsAfterMs: () => 300 });
    let atMs = 0;
    for (const { lengthMs } of lengths.slice(0, -1)) {
      atMs += lengthMs;
      const metMs = atMs + 300;
      expect(Math.abs(metMs - 500 * Math.round(metMs / 500))).toBeLessThan(HALF_FRAME_MS);
    }
  });
  it('says why it cannot: nothing to fit, no beats, too little music', () => {
    expect(fitToBeats(fit({ keepsLength: () => true }))).toMatchObject({ ok: false, reason: 'no-slides' });
    expect(fitToBeats(fit({ beats: beatsOf(500, 1) }))).toMatchObject({ ok: false, reason: 'no-beats' });
    expect(fitToBeats(fit({ endMs: 8000 }))).toEqual({ ok: false, reason: 'music-too-short', shortestMs: 8400 });
  });
  it('goes on at the last tempo where the music is through before the pictures are', () => {
    const { lengths, offBeat } = fitted({ beats: beatsOf(500, 20) });
    expect([lengths.length, offBeat]).toEqual([12, []]);
  });
  it('keeps what is held, gives nobody less than they need, and ends with the music, for any of them', () => {
    fc.assert(
      fc.property(
        fc.array(fc.record({ held: fc.boolean(), leastMs: fc.integer({ min: 300, max: 6000 }) }), {
          minLength: 1,
          maxLength: 20,
        }),
        fc.integer({ min: 300, max: 1500 }),
        fc.double({ min: 1, max: 3, noNaN: true }),
        (kinds, gapMs, room) => {
          const slides = kinds.map((_, at) => slide(`s${at}`, 2500));
          const kindOf = new Map(slides.map(({ id }, at) => [id, kinds[at]!]));
          const neededMs = kinds.reduce((sum, { held, leastMs }) => sum + (held ? 2500 : leastMs), 0);
          const endMs = Math.round(neededMs * room) + 10;
          const result = fitToBeats(
            fit({
              ...{ slides, endMs, idealMs: null, beats: beatsOf(gapMs, Math.ceil(endMs / gapMs) + 2) },
              keepsLength: ({ id }) => kindOf.get(id)!.held,
              leastOf: ({ id }) => kindOf.get(id)!.leastMs,
            }),
          );
          if (kinds.every(({ held }) => held)) return expect(result).toMatchObject({ ok: false, reason: 'no-slides' });
          if (!result.ok) throw new Error(result.reason);
          const lengthOf = new Map(result.lengths.map((one) => [one.slideId, one.lengthMs]));
          let sum = 0;
          for (const { id, lengthMs } of slides) {
            const own = lengthOf.get(id);
            expect(own === undefined).toBe(kindOf.get(id)!.held);
            if (own !== undefined) expect(own).toBeGreaterThanOrEqual(kindOf.get(id)!.leastMs);
            sum += own ?? lengthMs;
          }
          // Rounding to frames may take a frame from each slide that is at its least.
          expect(sum).toBeGreaterThanOrEqual(endMs - 1);
          expect(sum - endMs).toBeLessThan(34 * slides.length);
        },
      ),
      { numRuns: 200 },
    );
  });
});
