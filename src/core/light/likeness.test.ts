import { describe, expect, it } from '@jest/globals';
import { isAlike, likenessOf } from './likeness';

/** A made-up scene: hills and lights that depend on the seed. */
const scene = (seed: number, noise = 0) =>
  Array.from({ length: 64 * 64 }, (_, at) => {
    const [x, y] = [at % 64, Math.floor(at / 64)];
    return (
      128 +
      60 * Math.sin(x / (5 + seed) + seed) +
      50 * Math.cos(y / (7 - seed / 3) + x / 11) +
      noise * (((at * 7919) % 13) / 6 - 1)
    );
  });

describe('likenessOf', () => {
  it('is 64 hexadecimal digits and the same for the same picture', () => {
    expect(likenessOf(scene(1), 64)).toMatch(/^[0-9a-f]{64}$/);
    expect(likenessOf(scene(1), 64)).toBe(likenessOf(scene(1), 64));
  });
  it('knows a picture again that was saved once more, a little brighter and with other noise', () => {
    const again = scene(1, 3).map((value) => value * 1.06 + 4);
    expect(isAlike(likenessOf(scene(1), 64)!, likenessOf(again, 64)!)).toBe(true);
  });
  it('tells different pictures apart', () => {
    for (const [one, other] of [
      [1, 2],
      [2, 3],
      [1, 3],
    ] as const)
      expect(isAlike(likenessOf(scene(one), 64)!, likenessOf(scene(other), 64)!)).toBe(false);
  });
  it('says nothing of a picture in one tone', () =>
    expect(likenessOf(new Array<number>(64 * 64).fill(90), 64)).toBeNull());
});
