import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { lanesOf } from './lanes';

describe('lanes', () => {
  it('are the first that is free: one after the other on one, a bell over two songs that cross on a third', () => {
    const stretch = (startMs: number, endMs: number) => ({ startMs, endMs });
    expect(lanesOf([stretch(0, 10), stretch(10, 20), stretch(20, 25)])).toEqual([0, 0, 0]);
    expect(lanesOf([stretch(0, 12), stretch(10, 20), stretch(11, 11.5), stretch(12, 14)])).toEqual([0, 1, 2, 0]);
    expect(lanesOf([stretch(5, 9), stretch(0, 6)])).toEqual([1, 0]);
    expect(lanesOf([])).toEqual([]);
  });
  it('never hold two that sound at once, and are no more than sound at once', () => {
    const stretches = fc.array(
      fc
        .tuple(fc.integer({ min: 0, max: 60 }), fc.integer({ min: 1, max: 20 }))
        .map(([startMs, lasts]) => ({ startMs, endMs: startMs + lasts })),
      { maxLength: 25 },
    );
    fc.assert(
      fc.property(stretches, (all) => {
        const lanes = lanesOf(all);
        const atOnce = all.map(
          ({ startMs }) => all.filter((one) => one.startMs <= startMs && one.endMs > startMs).length,
        );
        expect(Math.max(-1, ...lanes) + 1).toBe(Math.max(0, ...atOnce));
        all.forEach((one, at) =>
          all.forEach((other, beside) => {
            if (at < beside && lanes[at] === lanes[beside])
              expect(one.endMs <= other.startMs || other.endMs <= one.startMs).toBe(true);
          }),
        );
      }),
    );
  });
});
