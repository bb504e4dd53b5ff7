import { describe, expect, it } from '@jest/globals';
import type { ClipFacts } from '../show/asset-facts';
import { assetId } from '../show/ids';
import { countedAsUsual, EACH_FRAME, ownClipRate } from './clip-rate';
import { framesPerSecond } from './frame-rate';

const clip = (rate?: number, uneven?: true): ClipFacts => ({
  ...{ kind: 'clip', widthPx: 1920, heightPx: 1080, lengthMs: 9000, hasSound: true, takenAt: null },
  ...(rate !== undefined && { framesPerSecond: rate }),
  ...(uneven && { uneven }),
});

describe('the rate a clip is read at', () => {
  it.each([
    [23.976, 24_000 / 1001],
    [24, 24],
    [25, 25],
    [29.97, 30_000 / 1001],
    [59.94, 60_000 / 1001],
    [119.88, 120_000 / 1001],
    [240, 120],
    [50.004, 50],
  ])('is its own where it is filmed at %d', (rate, own) => {
    expect(framesPerSecond(ownClipRate(clip(rate))!)).toBeCloseTo(own, 9);
  });
  it.each([[30], [30.004], [15], [10], [undefined]])('is the usual one at %p', (rate) => {
    expect(ownClipRate(clip(rate))).toBeNull();
  });
  it('is the usual one for all clips of a viewer, of which all else is known as before', () => {
    const id = assetId('c'.repeat(64));
    const viewed = countedAsUsual(new Map([[id, clip(25)]])).get(id) as ClipFacts;
    expect([ownClipRate(viewed), viewed]).toEqual([null, clip()]);
  });
  it.each([
    [25, true],
    [30, true],
    [27.3, undefined],
    [12, undefined],
  ] as const)('is that of each single frame at %d (uneven: %p)', (rate, uneven) => {
    expect(ownClipRate(clip(rate, uneven))).toBe(EACH_FRAME);
  });
});
