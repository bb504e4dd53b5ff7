import { describe, expect, it } from '@jest/globals';
import { numberTyped, secondsTyped } from './typed-number';

describe('seconds as people type them', () => {
  it.each([
    ['4.5', 4.5],
    ['4,5', 4.5],
    [' 4 s ', 4],
    ['.5', 0.5],
    ['1:30', 90],
    ['0:03.2', 3.2],
    ['1:02:03', 3723],
    ['2 min', 120],
    ['1 min 30', 90],
    ['1m30s', 90],
    ['1,5 min', 90],
    ['1h 1m', 3660],
    ['90 seconds', 90],
    ['-3', -3],
  ])('%s is %d', (text, seconds) => expect(secondsTyped(text)).toBeCloseTo(seconds, 6));
  it.each(['', ' ', 'soon', '1:75', '1:2:3:4', '4.5.6', '1e3', 's', '5 px', 'min', '1:'])('%j is none', (text) =>
    expect(secondsTyped(text)).toBeNull(),
  );
});

describe('a number as it is typed', () => {
  it.each([
    ['7', 7],
    ['−0,25', -0.25],
    ['12 %', 12],
    ['3.', 3],
    ['45°', 45],
  ])('%s is %d', (text, value) => expect(numberTyped(text)).toBe(value));
  it.each(['', 'many', '1:30', '--4', '4 5'])('%j is none', (text) => expect(numberTyped(text)).toBeNull());
});
