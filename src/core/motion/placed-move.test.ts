import { describe, expect, it } from '@jest/globals';
import { placedMove, SIDES, standing, standingOf } from './placed-move';

const FRAME = { widthPx: 1920, heightPx: 1080 };
const LANDSCAPE = { widthPx: 6000, heightPx: 4000 };
const PORTRAIT = { widthPx: 4000, heightPx: 6000 };

describe('standing', () => {
  it('fills the frame without leaving the picture, at the side it is put to', () => {
    expect(standing(LANDSCAPE, FRAME, 'fill', 'top')).toMatchObject({ x: 0.5, width: 1, height: 0.84375, y: 0.421875 });
    expect(standing(PORTRAIT, FRAME, 'fill', 'bottom')).toMatchObject({ width: 1, y: 1 - 0.375 / 2, height: 0.375 });
  });
  it('shows the picture whole, at the side it is put to', () => {
    const { x, width, height } = standing(PORTRAIT, FRAME, 'whole', 'left');
    expect([height, x - width / 2]).toEqual([1, 0]);
    const right = standing(PORTRAIT, FRAME, 'whole', 'right');
    expect(right.x + right.width / 2).toBeCloseTo(1, 12);
  });
  it('is known again', () => {
    for (const picture of [LANDSCAPE, PORTRAIT])
      for (const how of ['fill', 'whole'] as const)
        for (const side of SIDES) {
          const place = standing(picture, FRAME, how, side);
          const found = standingOf({ first: place, last: place }, picture, FRAME)!;
          // At a side where nothing is left to shift, a side is the centre.
          expect(standing(picture, FRAME, found.how, found.side)).toEqual(place);
        }
    expect(
      standingOf(
        {
          first: { x: 0.4, y: 0.4, width: 0.5, height: 0.42, turnDegrees: 0 },
          last: { x: 0.4, y: 0.4, width: 0.5, height: 0.42, turnDegrees: 0 },
        },
        LANDSCAPE,
        FRAME,
      ),
    ).toBeNull();
  });
});

describe('a move put elsewhere', () => {
  const place = standing(LANDSCAPE, FRAME, 'fill', 'top');
  it('goes as much closer as it did', () => {
    const moved = placedMove(
      { first: { ...place, width: 0.8, height: 0.675 }, last: { ...place, width: 0.6, height: 0.50625 } },
      place,
    );
    expect(moved).toMatchObject({ kind: 'set', first: place, last: { width: expect.closeTo(0.75, 9) } });
  });
  it('or further away, and stands still when it did', () => {
    expect(placedMove({ first: { ...place, width: 0.5 }, last: { ...place, width: 1 } }, place)).toMatchObject({
      first: { width: 0.5 },
      last: place,
    });
    expect(placedMove({ first: place, last: place }, place)).toEqual({ kind: 'set', first: place, last: place });
  });
});
