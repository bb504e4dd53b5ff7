import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { cornerOf, CORNERS, leavesPicture, sizedFraming, type Corner } from './framing-drag';

const picture = { widthPx: 3000, heightPx: 2000 };
const framing = { x: 0.5, y: 0.5, width: 0.5, height: 0.5, turnDegrees: 0 };

describe('a framing sized by a corner', () => {
  it('keeps the opposite corner where it is, its shape and its turn, however it is turned', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...CORNERS),
        fc.integer({ min: -170, max: 170 }),
        fc.integer({ min: 20, max: 180 }),
        (corner, turnDegrees, percent) => {
          const start = { ...framing, x: 0.45, height: 0.42, turnDegrees };
          const opposite = ((corner + 2) % 4) as Corner;
          const [from, stays] = [cornerOf(start, picture, corner), cornerOf(start, picture, opposite)];
          const share = percent / 100;
          const to = { x: stays.x + share * (from.x - stays.x), y: stays.y + share * (from.y - stays.y) };
          const sized = { ...start, ...sizedFraming(start, picture, corner, to, false) };
          expect(sized.width).toBeCloseTo(share * start.width);
          expect(sized.height / sized.width).toBeCloseTo(start.height / start.width);
          for (const [at, wanted] of [
            [opposite, stays],
            [corner, to],
          ] as const) {
            const there = cornerOf(sized, picture, at);
            expect([there.x, there.y]).toEqual([expect.closeTo(wanted.x, 4), expect.closeTo(wanted.y, 4)]);
          }
        },
      ),
    );
  });
  it('keeps its middle when that is asked for, and is never turned inside out', () => {
    const to = { x: 3000, y: 2000 };
    expect(sizedFraming(framing, picture, 2, to, true)).toEqual({ x: 0.5, y: 0.5, width: 1, height: 1 });
    const beyond = sizedFraming(framing, picture, 2, { x: -900, y: -900 }, false);
    expect(beyond.width).toBe(0.04);
    expect(beyond.x).toBeCloseTo(0.25 + 0.02);
  });
  it('says when it leaves the picture, turned or not', () => {
    expect(leavesPicture(framing, picture)).toBe(false);
    expect(leavesPicture({ ...framing, width: 1, height: 1 }, picture)).toBe(false);
    expect(leavesPicture({ ...framing, x: 0.8 }, picture)).toBe(true);
    expect(leavesPicture({ ...framing, width: 0.95, height: 0.95, turnDegrees: 8 }, picture)).toBe(true);
  });
});
