import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import type { AssetFacts } from '../show/asset-facts';
import { assetId } from '../show/ids';
import type { MixPart } from './mix-plan';
import { inPieces, LONGEST_WHOLE_MS, PIECE_MS } from './sound-pieces';

const LONG = assetId('a'.repeat(64));
const SHORT = assetId('b'.repeat(64));
const clip = (lengthMs: number): AssetFacts => ({
  ...{ kind: 'clip', widthPx: 640, heightPx: 360, lengthMs, hasSound: true, takenAt: null },
});
const facts = new Map([
  [LONG, clip(7_200_000)],
  [SHORT, clip(LONGEST_WHOLE_MS)],
]);
const part = (more: Partial<MixPart>): MixPart => ({
  ...{ kind: 'clip', assetId: LONG, startMs: 0, lengthMs: 1000, fromMs: 0, gains: [{ atMs: 0, gain: 1 }] },
  ...more,
});

describe('a long sound', () => {
  it('is played in pieces that follow on one another, at any speed, and hold all of what is played', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 7_000_000 }),
        fc.integer({ min: 100, max: 400_000 }),
        fc.constantFrom(0.5, 1, 2),
        fc.integer({ min: 0, max: 100_000 }),
        (fromMs, lengthMs, speed, startMs) => {
          const { whole, pieces } = inPieces([part({ fromMs, lengthMs, speed, startMs })], facts);
          expect(whole).toEqual([]);
          let [showMs, fileMs] = [startMs, fromMs];
          for (const one of pieces) {
            expect(one.startMs).toBeCloseTo(showMs, 6);
            expect(one.piece * PIECE_MS + one.fromMs).toBeCloseTo(fileMs, 6);
            expect(one.fromMs + one.lengthMs * speed).toBeLessThanOrEqual(PIECE_MS + 1e-6);
            showMs += one.lengthMs;
            fileMs += one.lengthMs * speed;
          }
          expect(showMs).toBeCloseTo(startMs + lengthMs, 6);
        },
      ),
    );
  });
  it('that is stretched is made from the whole, as short ones are played', () => {
    const parts = [part({ assetId: SHORT }), part({ tempo: 1.1 })];
    expect(inPieces(parts, facts)).toEqual({ whole: parts, pieces: [] });
  });
  it('comes piece by piece in the order of time, where two are played at once too', () => {
    const parts = [part({ lengthMs: 150_000 }), part({ lengthMs: 150_000, startMs: 30_000, fromMs: 600_000 })];
    expect(inPieces(parts, facts).pieces.map(({ piece, startMs }) => [piece, startMs / 1000])).toEqual([
      [0, 0],
      [10, 30],
      [1, 60],
      [11, 90],
      [2, 120],
      [12, 150],
    ]);
  });
});
