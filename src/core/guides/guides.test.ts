import { describe, expect, it } from '@jest/globals';
import { guidedMove, guidedSize, type GuideBox } from './guides';

const REACH = { x: 0.01, y: 0.01 };
const box = (left: number, top: number, width = 0.2, height = 0.1): GuideBox => ({
  left,
  top,
  right: left + width,
  bottom: top + height,
});
const why = (at: GuideBox, others: readonly GuideBox[] = []) =>
  guidedMove(at, others, REACH).lines.map((line) => `${line.along} ${line.why}`);

describe('a box that is moved', () => {
  it.each([
    [
      'edges of the frame',
      box(0.006, 0.895),
      { dx: -0.006, dy: 0.005 },
      ['x edge of the frame', 'y edge of the frame'],
    ],
    ['the middle', box(0.404, 0.447), { dx: -0.004, dy: 0.003 }, ['x middle of the frame', 'y middle of the frame']],
    [
      'thirds',
      box(0.3303, 0.62),
      { dx: 1 / 3 - 0.3303, dy: 2 / 3 - 0.67 },
      ['x third of the frame', 'y third of the frame'],
    ],
    [
      'what is safe for titles',
      box(0.055, 0.855),
      { dx: -0.005, dy: -0.005 },
      ['x safe for titles', 'y safe for titles'],
    ],
  ])('comes to rest on %s, and the line says so', (_name, at, by, lines) => {
    const guided = guidedMove(at, [], REACH);
    expect([guided.dx, guided.dy]).toEqual([expect.closeTo(by.dx, 9), expect.closeTo(by.dy, 9)]);
    expect(why(at)).toEqual(lines);
  });
  it('lies on others’ sides and middles, each direction by itself', () => {
    const other = box(0.12, 0.2);
    const guided = guidedMove(box(0.125, 0.7), [other], REACH);
    expect([guided.dx, guided.dy]).toEqual([expect.closeTo(-0.005, 9), 0]);
    expect(guided.lines.every(({ along }) => along === 'x')).toBe(true);
    expect(why(box(0.125, 0.7), [other])).toContain('x edge of another');
  });
  it('keeps gaps like those between others, beside them and between two', () => {
    const [one, two] = [box(0.06, 0.2, 0.1), box(0.21, 0.2, 0.1)];
    const beside = guidedMove(box(0.364, 0.2, 0.11), [one, two], REACH);
    expect(beside.dx).toBeCloseTo(-0.004, 9);
    expect(beside.lines.map((line) => line.why)).toContain('equal gap');
    const between = guidedMove(box(0.414, 0.2, 0.02), [box(0.21, 0.2, 0.1), box(0.53, 0.2, 0.1)], REACH);
    expect(between.dx).toBeCloseTo(-0.004, 9);
  });
  it('goes where it is put when nothing is near', () => {
    expect(guidedMove(box(0.2, 0.24), [], { x: 0.001, y: 0.001 })).toEqual({ dx: 0, dy: 0, lines: [] });
  });
});

describe('a size', () => {
  it('is taken from the nearest of others within reach', () => {
    expect(guidedSize(0.304, [0.3, 0.31, 0.5], 0.01)).toEqual({ size: 0.3, caught: true });
    expect(guidedSize(0.4, [0.3, 0.5], 0.01)).toEqual({ size: 0.4, caught: false });
  });
});
