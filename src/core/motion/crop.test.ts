import { describe, expect, it } from '@jest/globals';
import {
  cropOn,
  cropOfShape,
  cropOfSides,
  croppedSize,
  furthestInside,
  heldInside,
  liesInside,
  moveUnderCrop,
  partsOfTurn,
  placeOnCrop,
  placeOnPicture,
  quarterTurned,
  settledCrop,
  sidesOf,
  straightened,
  WHOLE_CROP,
  type Crop,
} from './crop';

const PICTURE = { widthPx: 6000, heightPx: 4000 };
const crop = (parts: Partial<Crop>): Crop => ({ ...WHOLE_CROP, ...parts });

describe('what a crop leaves', () => {
  it('is the whole picture without one', () => expect(croppedSize(PICTURE, undefined)).toEqual(PICTURE));
  it('has the crop’s own sides, also when it is turned', () => {
    expect(croppedSize(PICTURE, crop({ width: 0.5, height: 0.25 }))).toEqual({ widthPx: 3000, heightPx: 1000 });
    expect(croppedSize(PICTURE, quarterTurned(WHOLE_CROP, PICTURE, true))).toEqual({ widthPx: 4000, heightPx: 6000 });
  });
});

describe('a crop made on another picture', () => {
  const upright = { widthPx: 4000, heightPx: 6000 };
  it('is held inside this one and keeps its shape', () => {
    const side = quarterTurned(WHOLE_CROP, PICTURE, true);
    expect(liesInside(side, upright)).toBe(false);
    const held = cropOn(upright, side);
    expect(liesInside(held, upright)).toBe(true);
    expect((held.width * 4000) / (held.height * 6000)).toBeCloseTo((side.width * 4000) / (side.height * 6000), 9);
    expect(croppedSize(upright, side)).toEqual(croppedSize(upright, held));
  });
  it('that fits stays as it is', () => {
    const small = crop({ width: 0.2, height: 0.2 });
    expect(cropOn(upright, small)).toBe(small);
  });
});

describe('sides', () => {
  it.each([0, 90, -90, 180, 7, -31])('come back the same under a turn of %d°', (turnDegrees) => {
    const sides = { left: 0.1, top: 0.2, right: 0.05, bottom: 0.15 };
    const found = sidesOf(cropOfSides(sides, turnDegrees, PICTURE), PICTURE);
    for (const side of ['left', 'top', 'right', 'bottom'] as const) expect(found[side]).toBeCloseTo(sides[side], 9);
  });
  it('are the picture’s own when nothing is turned', () => {
    expect(cropOfSides({ left: 0.1, top: 0, right: 0.3, bottom: 0.5 }, 0, PICTURE)).toMatchObject({
      x: expect.closeTo(0.4, 9),
      y: expect.closeTo(0.25, 9),
      width: expect.closeTo(0.6, 9),
      height: 0.5,
    });
  });
  it('never leave less than a few pixels', () =>
    expect(croppedSize(PICTURE, cropOfSides({ left: 0.7, top: 0, right: 0.7, bottom: 0 }, 0, PICTURE)).widthPx).toBe(
      16,
    ));
});

describe('turning', () => {
  it('tells quarters from straightening', () => {
    expect(partsOfTurn(93)).toEqual({ quarter: 90, straighten: 3 });
    expect(partsOfTurn(-44)).toEqual({ quarter: -0, straighten: -44 });
    expect(partsOfTurn(-178)).toEqual({ quarter: -180, straighten: 2 });
  });
  it('four quarters one way, or one each way, are none', () => {
    const start = crop({ x: 0.4, width: 0.5, height: 0.6 });
    const round = [0, 1, 2, 3].reduce((now) => quarterTurned(now, PICTURE, true), start);
    expect(round.width).toBeCloseTo(0.5, 12);
    expect({ ...round, width: 0.5, height: 0.6 }).toEqual(start);
    expect(quarterTurned(quarterTurned(start, PICTURE, true), PICTURE, false).turnDegrees).toBe(0);
  });
  it('a quarter clockwise shows the picture’s left lower corner at the left upper', () => {
    const side = quarterTurned(WHOLE_CROP, PICTURE, true);
    expect(placeOnPicture(side, { x: 0, y: 0 }, PICTURE)).toEqual({ x: expect.closeTo(0, 9), y: expect.closeTo(1, 9) });
  });
  it.each([3, -12, 44])(
    'straightening by %d° stays on the picture, as large as can be, and comes back whole',
    (degrees) => {
      const straight = straightened(WHOLE_CROP, degrees, PICTURE);
      expect(liesInside(straight, PICTURE)).toBe(true);
      expect(liesInside({ ...straight, width: straight.width * 1.01, height: straight.height * 1.01 }, PICTURE)).toBe(
        false,
      );
      expect(straight.width / straight.height).toBeCloseTo(1, 9);
      expect(straightened(straight, 0, PICTURE)).toMatchObject({
        width: expect.closeTo(1, 6),
        height: expect.closeTo(1, 6),
        turnDegrees: 0,
      });
    },
  );
  it('a small crop keeps its size while it has room', () =>
    expect(straightened(crop({ width: 0.3, height: 0.3 }), 10, PICTURE)).toMatchObject({
      width: 0.3,
      height: 0.3,
      turnDegrees: 10,
    }));
});

describe('staying on the picture', () => {
  it('moves what lies outside in, and makes smaller only what is too large', () => {
    expect(heldInside(crop({ x: 0.9, width: 0.5, height: 0.5 }), PICTURE)).toMatchObject({
      x: 0.75,
      y: 0.5,
      width: 0.5,
      height: 0.5,
    });
    expect(heldInside(crop({ width: 2, height: 1 }), PICTURE)).toMatchObject({ x: 0.5, width: 1, height: 0.5 });
  });
  it('goes as far as there is picture', () => {
    const from = crop({ x: 0.5, y: 0.5, width: 0.2, height: 0.2, turnDegrees: 20 });
    const stopped = furthestInside(from, { ...from, x: 2 }, PICTURE);
    expect(liesInside(stopped, PICTURE)).toBe(true);
    expect(liesInside({ ...stopped, x: stopped.x + 0.01 }, PICTURE)).toBe(false);
    expect(furthestInside(from, { ...from, x: 0.55 }, PICTURE).x).toBe(0.55);
  });
  it('takes a shape out of the middle', () => {
    expect(croppedSize(PICTURE, cropOfShape(WHOLE_CROP, 1, PICTURE))).toEqual({ widthPx: 4000, heightPx: 4000 });
    expect(croppedSize(PICTURE, cropOfShape(WHOLE_CROP, 16 / 9, PICTURE))).toEqual({ widthPx: 6000, heightPx: 3375 });
  });
});

describe('settling', () => {
  it('is nothing when all of the picture is left', () =>
    expect(settledCrop(crop({ width: 0.99999, height: 1 }), PICTURE)).toBeNull());
  it('lies on whole pixels', () => {
    const { widthPx, heightPx } = { widthPx: 1001, heightPx: 667 };
    const settled = settledCrop(crop({ x: 0.5123, y: 0.47, width: 0.431, height: 0.377 }), { widthPx, heightPx })!;
    for (const edge of [
      (settled.x - settled.width / 2) * widthPx,
      (settled.x + settled.width / 2) * widthPx,
      (settled.y - settled.height / 2) * heightPx,
    ])
      expect(edge).toBeCloseTo(Math.round(edge), 6);
  });
  it('keeps quarter turns of the whole', () =>
    expect(settledCrop(quarterTurned(WHOLE_CROP, PICTURE, true), PICTURE)).toMatchObject({
      turnDegrees: -90,
      width: expect.closeTo(2 / 3, 9),
      height: expect.closeTo(1.5, 9),
    }));
});

describe('a move under another crop', () => {
  const set = {
    kind: 'set',
    first: { x: 0.3, y: 0.4, width: 0.2, height: 0.2, turnDegrees: 0 },
    last: { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 },
  } as const;
  it('stays on the same part of the picture, at the same size', () => {
    const after = crop({ x: 0.4, y: 0.5, width: 0.6, height: 0.8 });
    const moved = moveUnderCrop(set, undefined, after, PICTURE);
    if (moved.kind !== 'set') throw new Error('it was set by hand');
    expect(placeOnPicture(after, moved.first, PICTURE)).toEqual({
      x: expect.closeTo(0.3, 9),
      y: expect.closeTo(0.4, 9),
    });
    expect(moved.first.width * 0.6).toBeCloseTo(0.2, 6);
  });
  it('what lay on the picture lies on what is left', () => {
    const after = crop({ width: 0.5, height: 0.5 });
    const moved = moveUnderCrop(set, undefined, after, PICTURE);
    if (moved.kind !== 'set') throw new Error('it was set by hand');
    for (const framing of [moved.first, moved.last])
      expect(liesInside(framing, croppedSize(PICTURE, after))).toBe(true);
  });
  it('stays where it was seen when the crop before had to be held inside', () => {
    const outside = crop({ x: 0.9, width: 0.5, height: 0.5 });
    const seen = placeOnPicture(cropOn(PICTURE, outside), set.first, PICTURE);
    const moved = moveUnderCrop(set, outside, null, PICTURE);
    if (moved.kind !== 'set') throw new Error('it was set by hand');
    expect(moved.first).toMatchObject({ x: expect.closeTo(seen.x, 9), y: expect.closeTo(seen.y, 9) });
  });
  it('leaves automatic moves to themselves', () =>
    expect(moveUnderCrop({ kind: 'automatic' }, undefined, crop({ width: 0.5 }), PICTURE)).toEqual({
      kind: 'automatic',
    }));
  it('places go there and back', () => {
    const turnedCrop = crop({ x: 0.4, y: 0.6, width: 0.3, height: 0.5, turnDegrees: 33 });
    const place = placeOnCrop(turnedCrop, placeOnPicture(turnedCrop, { x: 0.2, y: 0.9 }, PICTURE), PICTURE);
    expect(place).toEqual({ x: expect.closeTo(0.2, 9), y: expect.closeTo(0.9, 9) });
  });
});
