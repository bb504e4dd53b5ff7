import { describe, expect, it } from '@jest/globals';
import { beatsThatCount, tempoOfTaps } from './beats-said';
import type { BeatGrid } from './listening-facts';

const found: BeatGrid = {
  tempoBpm: 120,
  beatsMs: [500, 1000, 1500, 2000, 2500, 3000, 3500, 4000, 4500],
  beatsABar: 4,
  firsts: [1, 5],
  confidence: 0.3,
};
const counted = (said: Parameters<typeof beatsThatCount>[1]) => beatsThatCount(found, said, 5000)!;

describe('what a person says about beats', () => {
  it('is nothing when nothing is said', () => {
    expect(beatsThatCount(found, undefined, 5000)).toBe(found);
    expect(beatsThatCount(null, undefined, 5000)).toBeNull();
  });
  it('halves them so that the first bar begins on a beat that stays, and doubles them', () => {
    expect(counted({ times: 'half' })).toMatchObject({
      tempoBpm: 60,
      beatsMs: [1000, 2000, 3000, 4000],
      firsts: [0],
      confidence: 1,
    });
    expect(counted({ times: 'twice' })).toMatchObject({ tempoBpm: 240, firsts: [2, 6, 10, 14] });
    expect(counted({ times: 'twice' }).beatsMs.slice(0, 4)).toEqual([500, 750, 1000, 1250]);
  });
  it('moves them, changes the bar, and where bars begin', () => {
    expect(counted({ laterMs: -40 }).beatsMs[0]).toBe(460);
    expect(counted({ beatsABar: 3 }).firsts).toEqual([1, 4, 7]);
    expect(counted({ barsLater: 1 }).firsts).toEqual([2, 6]);
    expect(counted({ barsLater: 3 }).firsts).toEqual([0, 4, 8]);
    expect(counted({ sure: 'yes' })).toEqual({ ...found, confidence: 1 });
  });
  it('puts a tapped grid in place of one that was found, or of none', () => {
    const tapped = { bpm: 90, firstMs: 1400 };
    for (const grid of [found, null]) {
      const { beatsMs, firsts, confidence } = beatsThatCount(grid, { tapped }, 4200)!;
      expect([beatsMs, firsts, confidence]).toEqual([[67, 733, 1400, 2067, 2733, 3400, 4067], [2, 6], 1]);
    }
  });
  it('hears the tempo of taps, uneven as hands are, and needs four', () => {
    const taps = [1000, 1490, 2010, 2495, 3005, 3500];
    expect(tempoOfTaps(taps.slice(0, 3))).toBeNull();
    const { bpm, firstMs } = tempoOfTaps(taps)!;
    expect([Math.round(bpm), Math.abs(firstMs - 1000) < 20]).toEqual([120, true]);
    expect(tempoOfTaps([0, 10, 20, 30])).toBeNull();
  });
});
