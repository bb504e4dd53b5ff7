import { describe, expect, it } from '@jest/globals';
import { FLASH_FRAME, worstFlashes } from './flashes';

const CELLS = FLASH_FRAME.across * FLASH_FRAME.down;

/** Three seconds at 30 frames a second: a share of the frame goes between two levels of light so many times a second. */
const flashing = (perSecond: number, low: number, high: number, share = 1): Float32Array[] =>
  Array.from({ length: 90 }, (_, frame) =>
    Float32Array.from({ length: CELLS }, (_cell, cell) => {
      const bright = Math.floor((frame / 30) * perSecond * 2) % 2 === 1;
      return cell < share * CELLS && bright ? high : low;
    }),
  );

describe('flashes', () => {
  it.each([
    [4, 0.1, 0.9],
    [5, 0.1, 0.9],
    [10, 0, 0.3],
    [4, 0.5, 0.62],
  ])('are told at %d a second between %d and %d', (perSecond, low, high) => {
    expect(worstFlashes(flashing(perSecond, low, high), 30)?.perSecond).toBeGreaterThanOrEqual(perSecond - 0.5);
  });
  it.each([
    ['three a second', flashing(3, 0.1, 0.9)],
    ['one a second', flashing(1, 0, 1)],
    ['changes of less than a tenth', flashing(10, 0.4, 0.48)],
    ['what stays brighter than 0.8', flashing(10, 0.82, 1)],
    ['a small corner of the frame', flashing(10, 0, 1, 0.04)],
    ['nothing that moves', flashing(0, 0.2, 0.9)],
  ])('are not told of %s', (_name, frames) => {
    expect(worstFlashes(frames, 30)).toBeNull();
  });
  it('are told where they begin', () => {
    const calm = flashing(0, 0.2, 0.2);
    const worst = worstFlashes([...calm, ...flashing(8, 0, 1)], 30)!;
    expect(worst.frame).toBeGreaterThanOrEqual(60);
    expect(worst.frame).toBeLessThanOrEqual(95);
  });
  it('a slow rise and fall is none, however far it goes', () => {
    const frames = Array.from({ length: 90 }, (_, frame) =>
      new Float32Array(CELLS).fill(0.5 + 0.5 * Math.sin((2 * Math.PI * frame) / 30)),
    );
    expect(worstFlashes(frames, 30)).toBeNull();
  });
});
