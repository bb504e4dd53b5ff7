import { describe, expect, it } from '@jest/globals';
import type { Matrix3 } from './matrix';
import { area, cutOnScreen, cutPolygon, halfOf, screenEdges, screenPolygon, type Point } from './polygon';

const square = (x: number, y: number, side: number): Point[] => [
  { x, y },
  { x: x + side, y },
  { x: x + side, y: y + side },
  { x, y: y + side },
];
const round = (count: number, radius: number, turn = 0): Point[] =>
  Array.from({ length: count }, (_, at) => {
    const angle = turn + (2 * Math.PI * at) / count;
    return { x: 50 + radius * Math.cos(angle), y: 50 + radius * Math.sin(angle) };
  });
const SAME: Matrix3 = [1, 0, 0, 0, 1, 0, 0, 0, 1];
/** Leans away to the right: what lies further right is smaller. */
const LEANS: Matrix3 = [400, 0, 20, 30, 300, 40, 0.4, 0, 1];

/** Whether a point lies in a convex polygon. */
const isIn = (polygon: readonly Point[], { x, y }: Point) =>
  polygon.every((from, at) => {
    const to = polygon[(at + 1) % polygon.length]!;
    return (to.x - from.x) * (y - from.y) - (to.y - from.y) * (x - from.x) >= -1e-9;
  });

describe('a polygon cut by a line', () => {
  it('keeps what lies on the positive side, and the line where it was cut', () => {
    const half = halfOf(square(0, 0, 10), { a: 1, b: 0, c: -4 });
    expect(half.every(({ x }) => x >= 4)).toBe(true);
    expect(area(half)).toBeCloseTo(60);
  });
  it('is all there, or not there at all, where the line does not meet it', () => {
    expect(halfOf(square(0, 0, 10), { a: 1, b: 0, c: 5 })).toEqual(square(0, 0, 10));
    expect(halfOf(square(0, 0, 10), { a: 1, b: 0, c: -20 })).toEqual([]);
  });
  it('makes two parts that together are the whole, wherever it is cut', () => {
    const whole = round(9, 40, 0.3);
    for (let angle = 0; angle < 6.3; angle += 0.37)
      for (const c of [-60, -40, -25, 0, 12]) {
        const line = { a: Math.cos(angle), b: Math.sin(angle), c };
        const [one, other] = [halfOf(whole, line), halfOf(whole, { a: -line.a, b: -line.b, c: -c })];
        expect(Math.abs(area(one)) + Math.abs(area(other))).toBeCloseTo(Math.abs(area(whole)), 6);
      }
  });
});

describe('a polygon cut by another', () => {
  it('is what both share', () => {
    expect(area(cutPolygon(square(0, 0, 10), square(6, 7, 10)))).toBeCloseTo(12);
    expect(cutPolygon(square(0, 0, 10), square(20, 0, 5))).toEqual([]);
    expect(area(cutPolygon(square(0, 0, 10), square(-5, -5, 40)))).toBeCloseTo(100);
  });
  it('is the same whichever is cut by which, and in whichever sense the second turns', () => {
    const [one, other] = [round(7, 30), round(5, 34, 0.5)];
    const shared = Math.abs(area(cutPolygon(one, other)));
    expect(Math.abs(area(cutPolygon(other, one)))).toBeCloseTo(shared, 6);
    expect(Math.abs(area(cutPolygon(one, [...other].reverse())))).toBeCloseTo(shared, 6);
  });
  it('holds exactly the points that lie in both', () => {
    const [one, other] = [round(6, 35), square(30, 40, 40)];
    const both = cutPolygon(one, other);
    for (let x = 5; x < 100; x += 6.3)
      for (let y = 5; y < 100; y += 5.9)
        expect([x, y, isIn(both, { x, y })]).toEqual([x, y, isIn(one, { x, y }) && isIn(other, { x, y })]);
  });
});

describe('a polygon on the screen', () => {
  it('is where the map takes its corners', () => {
    expect(screenPolygon(square(0, 0, 1), SAME)).toEqual(square(0, 0, 1));
    const seen = screenPolygon(square(0, 0, 1), LEANS)!;
    expect(seen[1]!.x).toBeCloseTo(420 / 1.4);
    expect(seen[2]!.y).toBeCloseTo(370 / 1.4);
  });
  it('is none where it reaches behind the eye, or nearly', () => {
    expect(screenPolygon(square(0, 0, 1), [100, 0, 0, 0, 100, 0, -1.5, 0, 1])).toBeNull();
    expect(screenEdges(square(0, 0, 1), [100, 0, 0, 0, 100, 0, -1.5, 0, 1])).toBeNull();
  });
  it('has borders that say how far inside a point lies, in pixels, whichever way round it goes', () => {
    for (const corners of [square(0, 0, 1), [...square(0, 0, 1)].reverse()]) {
      const { edges, points } = screenEdges(corners, LEANS)!;
      expect(edges).toHaveLength(4);
      for (const { a, b } of edges) expect(Math.hypot(a, b)).toBeCloseTo(1);
      const middle = {
        x: points.reduce((sum, { x }) => sum + x, 0) / 4,
        y: points.reduce((sum, { y }) => sum + y, 0) / 4,
      };
      for (const { a, b, c } of edges) expect(a * middle.x + b * middle.y + c).toBeGreaterThan(5);
      for (const point of points)
        expect(Math.min(...edges.map(({ a, b, c }) => Math.abs(a * point.x + b * point.y + c)))).toBeCloseTo(0);
    }
  });
  it('has no borders where it has no area', () => {
    expect(
      screenEdges(
        [
          { x: 0, y: 0 },
          { x: 1, y: 0 },
          { x: 2, y: 0 },
        ],
        SAME,
      ),
    ).toBeNull();
  });
  it('cut on the screen is cut along the same line on its own plane', () => {
    const line = { a: 0.8, b: -0.6, c: -60 };
    const left = cutOnScreen(square(0, 0, 1), LEANS, [line]);
    const seen = screenPolygon(left, LEANS)!;
    for (const { x, y } of seen) expect(line.a * x + line.b * y + line.c).toBeGreaterThan(-1e-6);
    const whole = screenPolygon(square(0, 0, 1), LEANS)!;
    expect(Math.abs(area(seen))).toBeCloseTo(Math.abs(area(halfOf(whole, line))), 4);
  });
});
