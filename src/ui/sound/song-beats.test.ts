import { describe, expect, it } from '@jest/globals';
import { beatMoved, nearestBeat, placeInSong } from './song-beats';

const grid = { beatsMs: [1000, 1500, 2000, 2500, 3000, 3500, 4000, 4500, 5000], firsts: [1, 5] };

describe('the beats of a song under a hand', () => {
  it('catch what is near, bars from farther away', () => {
    expect(nearestBeat(grid, 1980, 40)).toBe(2000);
    expect(nearestBeat(grid, 1900, 40)).toBeNull();
    expect(nearestBeat(grid, 3430, 40)).toBe(3500);
    expect(nearestBeat(grid, 3410, 40)).toBeNull();
    // Nearer to another, and still the bar's.
    expect(nearestBeat({ beatsMs: [100, 150], firsts: [1] }, 120, 30)).toBe(150);
  });
  it('are gone to one by one, to the last and not further', () => {
    expect([beatMoved(grid, 1500, 1), beatMoved(grid, 1500, -1), beatMoved(grid, 1700, -1)]).toEqual([
      2000, 1000, 1500,
    ]);
    expect([beatMoved(grid, 5000, 1), beatMoved(grid, 1000, -1)]).toEqual([null, null]);
  });
  it('are named by bar and beat', () => {
    expect(placeInSong(grid, 400)).toBe('before the first beat');
    expect(placeInSong(grid, 1000)).toBe('before bar 1');
    expect(placeInSong(grid, 2600)).toBe('bar 1, beat 3');
    expect(placeInSong(grid, 3500)).toBe('bar 2, beat 1');
  });
});
