import { describe, expect, it } from '@jest/globals';
import { isSetting, LIGHT_SETTINGS, withSetting } from './settings';
import { lostOf, toneCounts } from './tone-counts';

describe('the histogram of a picture', () => {
  it('counts each value of each colour, and what is lost at either end', () => {
    const counts = toneCounts(
      Uint8ClampedArray.from(
        [
          [0, 0, 0],
          [1, 1, 1],
          [2, 0, 0],
          [128, 128, 128],
          [255, 10, 10],
          [253, 253, 253],
        ].flatMap((rgb) => [...rgb, 255]),
      ),
    );
    expect([counts.pixels, counts.blown, counts.drowned]).toEqual([6, 1, 2]);
    expect([counts.red[255], counts.green[10], counts.blue[128], counts.red[2]]).toEqual([1, 1, 1, 1]);
    expect(counts.luma[128]).toBe(1);
    expect(counts.luma.reduce((sum, count) => sum + count, 0)).toBe(6);
  });
  it('takes a colour that is as bright as it can be for blown, and only near black for drowned', () => {
    expect([lostOf(255, 0, 0), lostOf(253, 253, 253), lostOf(1, 1, 1), lostOf(2, 1, 1)]).toEqual([1, 0, -1, 0]);
  });
});

describe('a light at one press', () => {
  it('replaces the amounts and keeps what was done to the picture itself', () => {
    const redEyes = [{ x: 0.5, y: 0.5, radius: 0.02 }];
    const light = { exposure: 1, redEyes, print: { kind: 'pencil' as const, strength: 0.5 } };
    for (const setting of LIGHT_SETTINGS) {
      const next = withSetting(light, setting);
      expect(next).toEqual({ ...setting.light, redEyes, print: light.print });
      expect(isSetting(next, setting)).toBe(true);
      expect(isSetting({ ...next, exposure: -3 }, setting)).toBe(false);
    }
    expect(isSetting(undefined, LIGHT_SETTINGS[0]!)).toBe(false);
  });
});
