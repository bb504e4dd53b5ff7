import { describe, expect, it } from '@jest/globals';
import { okLab } from '../keys/colour';
import { mainColours } from './main-colours';

const pixels = (
  ...runs: readonly (readonly [count: number, rgb: readonly [number, number, number], alpha?: number])[]
) =>
  Uint8ClampedArray.from(
    runs.flatMap(([count, rgb, alpha = 255]) => Array.from({ length: count }, () => [...rgb, alpha]).flat()),
  );

describe('the main colours of a picture', () => {
  it('are what much of it has and what stands out, however little of that there is', () => {
    const found = mainColours(
      pixels([900, [40, 48, 60]], [600, [200, 196, 188]], [40, [216, 55, 31]], [3, [90, 90, 90]]),
      3,
    );
    expect(new Set(found)).toEqual(new Set(['#28303c', '#c8c4bc', '#d8371f']));
  });
  it('are never two that look alike', () => {
    const ramp = Uint8ClampedArray.from(
      Array.from({ length: 4000 }, (_, at) => [at % 256, 120, 200 - (at % 150), 255]).flat(),
    );
    const found = mainColours(ramp, 6);
    expect(found).toHaveLength(6);
    found.forEach((one, index) =>
      found.slice(index + 1).forEach((other) => {
        const [a, b] = [okLab(one), okLab(other)];
        expect(Math.hypot(...a.map((value, axis) => value - b[axis]!))).toBeGreaterThan(0.08);
      }),
    );
  });
  it('are as many as there are, and none of what cannot be seen', () => {
    expect(mainColours(pixels([50, [128, 128, 128]]), 5)).toEqual(['#808080']);
    expect(mainColours(pixels([50, [255, 0, 0], 0]), 5)).toEqual([]);
  });
  it('are the same each time', () => {
    const same = pixels([10, [10, 200, 30]], [10, [200, 30, 10]], [10, [30, 10, 200]]);
    expect(mainColours(same, 3)).toEqual(mainColours(same, 3));
  });
});
