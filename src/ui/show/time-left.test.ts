import { describe, expect, it } from '@jest/globals';
import { timeLeftMs } from './time-left';

const samples = (...pairs: [atMs: number, left: number][]) => pairs.map(([atMs, left]) => ({ atMs, left }));

describe('timeLeftMs', () => {
  it('goes by the pace since the first was taken', () => {
    expect(timeLeftMs(samples([0, 60], [1000, 58], [4000, 52]))).toBe(26_000);
  });
  it('counts anew when more came', () => {
    expect(timeLeftMs(samples([0, 10], [1000, 8], [2000, 40], [6000, 36]))).toBe(36_000);
  });
  it('says nothing too soon', () => {
    for (const few of [samples(), samples([0, 9]), samples([0, 9], [500, 2]), samples([0, 9], [9000, 7])])
      expect(timeLeftMs(few)).toBeNull();
  });
});
