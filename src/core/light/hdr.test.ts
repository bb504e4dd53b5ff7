import { describe, expect, it } from '@jest/globals';
import { HDR_PEAK, HDR_WHITE, lightToPq, pqToLight, rolledOff, tonedDown, toneTable } from './hdr';

const grey = (code: number, hdr: 'pq' | 'hlg') => tonedDown([code, code, code], hdr)[1];

describe('HDR', () => {
  it.each([
    // ITU-R BT.2408-7, table 1: light, PQ code.
    [26, 0.38],
    [203, 0.58],
    [1000, 0.752],
  ])('light of %s cd/m² has the PQ code of the standard', (light, code) => {
    expect(lightToPq(light)).toBeCloseTo(code, 2);
    expect(pqToLight(lightToPq(light))).toBeCloseTo(light, 6);
  });
  // The same table gives HLG codes for both; what is expected was worked out by hand from BT.2390's spline.
  it.each<['pq' | 'hlg', number, number, number]>([
    ['pq', 0.38, 0.58, 0.752],
    ['hlg', 0.38, 0.75, 1],
  ])('by %s: mid-grey is 0.425, reference white 0.90, the peak white', (hdr, middle, white, peak) => {
    expect(Math.abs(grey(middle, hdr) / 0.425 - 1)).toBeLessThan(0.03);
    expect(Math.abs(grey(white, hdr) / 0.9 - 1)).toBeLessThan(0.01);
    expect(grey(peak, hdr)).toBeCloseTo(1, 3);
  });
  it('leaves alone what is dark and never goes down as light goes up', () => {
    expect(rolledOff(40)).toBe(40);
    let last = -1;
    for (let light = 0; light <= HDR_PEAK; light += 5) {
      expect(rolledOff(light)).toBeGreaterThanOrEqual(last);
      last = rolledOff(light);
    }
    expect(last).toBeCloseTo(HDR_WHITE, 3);
  });
  it.each<[string, [number, number, number]]>([
    ['skin', [0.52, 0.44, 0.38]],
    ['sky', [0.4, 0.5, 0.62]],
    ['a lantern', [0.72, 0.55, 0.35]],
  ])('keeps the hue of %s as it rolls its light off', (_name, codes) => {
    const hueOf = ([red, green, blue]: readonly number[]) =>
      Math.atan2(Math.sqrt(3) * (green! - blue!), 2 * red! - green! - blue!);
    const linear = (code: number) => code ** 2.4;
    const dim = codes.map((code) => lightToPq(pqToLight(code) / 8)) as [number, number, number];
    const [bright, dark] = [tonedDown(codes, 'pq'), tonedDown(dim, 'pq')].map((colour) => hueOf(colour.map(linear)));
    expect(Math.abs(bright! - dark!)).toBeLessThan(0.02);
  });
  it('is written as a table that runs from black to white', () => {
    const lines = toneTable('pq').trimEnd().split('\n');
    expect(lines).toHaveLength(1 + 49 ** 3);
    expect([lines[1], lines.at(-1)]).toEqual(['0.000000 0.000000 0.000000', '1.000000 1.000000 1.000000']);
  });
});
