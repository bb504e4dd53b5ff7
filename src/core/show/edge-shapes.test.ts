import { describe, expect, it } from '@jest/globals';
import { EDGE_SHAPES, pathOfHand } from './edge-shapes';

const circle = (count: number, radius = 40) =>
  Array.from({ length: count }, (_, index) => ({
    x: 50 + radius * Math.cos((2 * Math.PI * index) / count),
    y: 50 + radius * Math.sin((2 * Math.PI * index) / count),
  }));
const numbersOf = (path: string) => path.match(/-?\d+(\.\d+)?/g)!.map(Number);

describe('shapes to cut a picture to', () => {
  it.each(Object.entries(EDGE_SHAPES))('%s is closed and lies in its box, give or take a curve’s handle', (_, path) => {
    expect(path).toMatch(/^M.*Z$/);
    for (const value of numbersOf(path)) {
      expect(value).toBeGreaterThanOrEqual(-5);
      expect(value).toBeLessThanOrEqual(105);
    }
  });
});

describe('a line drawn by hand', () => {
  it('becomes a closed path of few curves that follows it', () => {
    const path = pathOfHand(circle(400))!;
    expect(path).toMatch(/^M[\d. ]+(Q[\d. ]+){6,60}Z$/);
    const numbers = numbersOf(path);
    for (let at = 0; at < numbers.length; at += 2)
      expect(Math.hypot(numbers[at]! - 50, numbers[at + 1]! - 50)).toBeGreaterThan(36);
  });
  it('is held within the box', () =>
    expect(numbersOf(pathOfHand(circle(60, 90))!).every((value) => value >= 0 && value <= 100)).toBe(true));
  it('is nothing when it encloses nothing', () => {
    expect(
      pathOfHand([
        { x: 10, y: 10 },
        { x: 40, y: 40 },
        { x: 90, y: 90 },
      ]),
    ).toBeNull();
    expect(pathOfHand(circle(40, 1))).toBeNull();
    expect(pathOfHand([])).toBeNull();
  });
});
