import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { shareWithin, type Box } from '../focus/box';
import { focusOf } from '../focus/focus-of';
import { windowOf } from '../focus/reframe';
import { automaticMove, LARGEST_ENLARGEMENT, standingFraming, TEMPERAMENTS } from './automatic-move';
import { framingAt } from './move-pace';
import type { PlannedMove } from './automatic-move';

const shape = (widthPx: number, heightPx: number) => ({ widthPx, heightPx, rate: { frames: 30, seconds: 1 } });
const FRAMES = [shape(1920, 1080), shape(1080, 1920), shape(1080, 1080), shape(1440, 1080)];
const face = fc
  .record({
    x: fc.double({ min: 0.03, max: 0.97, noNaN: true }),
    y: fc.double({ min: 0.03, max: 0.97, noNaN: true }),
    size: fc.double({ min: 0.02, max: 0.25, noNaN: true }),
  })
  .map(({ x, y, size }) => ({
    left: x - size / 2,
    top: y - size / 2,
    width: size,
    height: size,
    score: 0.9,
    sharpness: 0.5,
  }));
const scene = fc.record({
  widthPx: fc.integer({ min: 300, max: 9000 }),
  heightPx: fc.integer({ min: 300, max: 9000 }),
  faces: fc.array(face, { maxLength: 5 }),
  frame: fc.constantFrom(...FRAMES),
  lengthMs: fc.integer({ min: 1000, max: 20_000 }),
  seed: fc.string({ maxLength: 6 }),
  temperament: fc.constantFrom(...TEMPERAMENTS),
});
const focusFor = (faces: readonly Box[], aspect: number) =>
  focusOf({ faces: faces as never, subjects: [], salient: null, sharpness: 0.5 }, undefined, aspect);
const way = (move: PlannedMove) => Array.from({ length: 25 }, (_, step) => framingAt(move, step, 24));
/** Neither all in sight nor all out of it. */
const isCut = (box: Box, window: Box) => {
  const share = shareWithin(box, window);
  return share > 1e-4 && share < 1 - 1e-4;
};

describe('a move by itself over a picture of which something is known', () => {
  it('cuts no face at any moment, keeps to the picture or shows it whole, and never goes past its pixels', () => {
    fc.assert(
      fc.property(scene, ({ widthPx, heightPx, faces, frame, lengthMs, seed, temperament }) => {
        const focus = focusFor(faces, widthPx / heightPx);
        const move = automaticMove({ widthPx, heightPx }, frame, lengthMs, seed, { focus, temperament });
        for (const framing of way(move)) {
          const window = windowOf(framing);
          for (const box of focus?.whole ?? []) expect(isCut(box, window)).toBe(false);
          expect(frame.widthPx / (framing.width * widthPx)).toBeLessThanOrEqual(LARGEST_ENLARGEMENT + 1e-6);
          expect(
            Math.abs((framing.width * widthPx) / (framing.height * heightPx) / (frame.widthPx / frame.heightPx) - 1),
          ).toBeLessThan(1e-6);
        }
        const filled = automaticMove({ widthPx, heightPx }, frame, lengthMs, seed, { focus, mustFill: true });
        expect([filled.first.width, filled.last.width].every((width) => width > 0 && width <= 1 + 1e-9)).toBe(true);
        const standing = windowOf(standingFraming({ widthPx, heightPx }, frame, 1.5, { focus }));
        for (const box of focus?.whole ?? []) expect(isCut(box, standing)).toBe(false);
      }),
      { numRuns: 200, endOnFailure: true },
    );
  });
  it('is there also when a face is half a hair within the frame wherever it stands', () => {
    const at = (left: number, top: number, size: number) => ({ left, top, width: size, height: size });
    const focus = focusFor([at(-0.0012, 0.9251, 0.0898), at(0.9384, 0.121, 0.0503)], 8430 / 7013);
    const move = automaticMove({ widthPx: 8430, heightPx: 7013 }, FRAMES[3]!, 10_555, 'M', {
      focus,
      temperament: 'lively',
    });
    for (const framing of way(move)) for (const box of focus!.whole) expect(isCut(box, windowOf(framing))).toBe(false);
  });
  it('has nearly all that the picture is about within its nearer framing', () => {
    for (let index = 0; index < 60; index += 1) {
      const about = { left: 0.05 + 0.012 * index, top: 0.1 + 0.008 * ((index * 7) % 60), width: 0.2, height: 0.2 };
      const focus = focusOf({ faces: [], subjects: [], salient: about, sharpness: 0.5 }, undefined, 1.5);
      const move = automaticMove({ widthPx: 6000, heightPx: 4000 }, FRAMES[0]!, 6000, `p${index}`, { focus });
      const nearer = move.first.width < move.last.width ? move.first : move.last;
      expect(shareWithin(about, windowOf(nearer))).toBeGreaterThan(0.9);
    }
  });
  it('stands for a subject at the side, where one in the middle is cut away', () => {
    const focus = focusOf({ faces: [face0(0.8, 0.3)], subjects: [], salient: null, sharpness: 0.5 }, undefined, 1.5);
    const upright = standingFraming({ widthPx: 6000, heightPx: 4000 }, FRAMES[2]!, 1.5, { mustFill: true, focus });
    expect(upright.x).toBeGreaterThan(0.6);
    expect(standingFraming({ widthPx: 6000, heightPx: 4000 }, FRAMES[2]!, 1.5, { mustFill: true }).x).toBe(0.5);
  });
  it('shows a picture whole rather than cut people off its sides', () => {
    const focus = focusOf(
      { faces: [face0(0.06, 0.04), face0(0.94, 0.9)], subjects: [], salient: null, sharpness: 0.5 },
      undefined,
      1.5,
    );
    const move = automaticMove({ widthPx: 6000, heightPx: 4000 }, FRAMES[0]!, 6000, 's', { focus });
    expect(Math.min(move.first.width, move.last.width)).toBeGreaterThanOrEqual(1);
  });
  it('keeps to the limits of speed however lively it is and however short', () => {
    for (const seconds of [1, 2, 4, 8, 12])
      for (let seed = 0; seed < 12; seed += 1) {
        const lively = { temperament: 'lively' } as const;
        const move = automaticMove({ widthPx: 6000, heightPx: 4000 }, FRAMES[0]!, 1000 * seconds, `${seed}`, lively);
        const zoom = Math.max(move.first.width / move.last.width, move.last.width / move.first.width) - 1;
        expect(zoom / seconds).toBeLessThanOrEqual(0.04 + 1e-9);
        const along = automaticMove({ widthPx: 9000, heightPx: 2400 }, FRAMES[0]!, 1000 * seconds, `${seed}`, lively);
        expect(Math.abs(along.last.x - along.first.x) / along.first.width / seconds).toBeLessThanOrEqual(0.11 + 1e-9);
      }
  });
  it('moves less when it is to be calm, and more when it is to be lively', () => {
    const zoom = (temperament: (typeof TEMPERAMENTS)[number]) => {
      const { first, last } = automaticMove({ widthPx: 6000, heightPx: 4000 }, FRAMES[0]!, 6000, 'x', {
        temperament,
        unlike: null,
      });
      return Math.abs(Math.log(last.width / first.width)) + Math.hypot(last.x - first.x, last.y - first.y);
    };
    expect([zoom('calm') < zoom('even'), zoom('even') < zoom('lively')]).toEqual([true, true]);
  });
});

function face0(x: number, y: number) {
  return { left: x - 0.03, top: y - 0.03, width: 0.06, height: 0.06, score: 0.9, sharpness: 0.5 };
}

describe('how a set move goes', () => {
  const first = { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
  const last = { x: 0.7, y: 0.4, width: 0.5, height: 0.5, turnDegrees: 0 };
  const middle = { framing: { x: 0.3, y: 0.5, width: 0.6, height: 0.6, turnDegrees: 0 }, at: 0.5 };
  it('rests before and after, and is where it was said to be in the middle', () => {
    const move = { first, last, pace: { beforeMs: 1000, afterMs: 2000, middle, easing: 'linear' as const } };
    expect(framingAt(move, 900, 8000)).toEqual(expect.objectContaining({ x: 0.5 }));
    expect(framingAt(move, 3500, 8000).x).toBeCloseTo(0.3, 9);
    expect(framingAt(move, 3500, 8000).width).toBeCloseTo(0.6, 9);
    expect(framingAt(move, 6500, 8000).x).toBeCloseTo(0.7, 9);
  });
  it('passes the middle without a jump in its speed', () => {
    const move = { first, last, pace: { middle } };
    const at = (ms: number) => framingAt(move, ms, 8000).x;
    expect((at(4000) - at(3990)) / (at(4010) - at(4000))).toBeCloseTo(1, 1);
  });
  it('shares what time there is between rests that are too long', () => {
    const move = { first, last, pace: { beforeMs: 3000, afterMs: 1000 } };
    expect([framingAt(move, 1400, 2000).x, framingAt(move, 1600, 2000).x]).toEqual([0.5, 0.7]);
  });
});
