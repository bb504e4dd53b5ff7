import { describe, expect, it } from '@jest/globals';
import { firstValue, keyTimes, valueAt, type Channel } from './channel';
import { curveOf, EASING_NAMES } from './easing';

const channel: Channel = {
  keys: [
    { at: { tied: 'start', ms: 1000 }, value: 10, easing: 'linear' },
    { at: { tied: 'stretch', share: 0.5 }, value: 20, easing: 'hold' },
    { at: { tied: 'end', ms: 1000 }, value: 40 },
  ],
};

describe('valueAt', () => {
  it.each([
    [0, 10],
    [1000, 10],
    [3000, 15],
    [5000, 20],
    [8999, 20],
    [9000, 40],
    [20_000, 40],
  ])('at %d ms of ten seconds is %d', (offsetMs, value) => {
    expect(valueAt(channel, offsetMs, 10_000)).toBeCloseTo(value, 9);
  });
  it('keeps start keys at the start and end keys at the end when the slide grows', () => {
    expect([
      valueAt(channel, 1000, 60_000),
      valueAt(channel, 58_999, 60_000),
      valueAt(channel, 59_000, 60_000),
    ]).toEqual([10, 20, 40]);
  });
  it('keeps the order of keys when the slide is too short for them', () => {
    expect(keyTimes((channel as { keys: never }).keys, 1200)).toEqual([1000, 1000, 1000]);
    expect([valueAt(channel, 999, 1200), valueAt(channel, 1000, 1200)]).toEqual([10, 40]);
  });
  it('takes a number for any time, and refuses no keys at all', () => {
    expect(valueAt(0.3, 99, 1)).toBe(0.3);
    expect(() => valueAt({ keys: [] }, 0, 1)).toThrow('at least one key, got none');
  });
});

describe('easings', () => {
  it.each(EASING_NAMES)('%s begins at nothing and ends at all of it', (name) => {
    expect([curveOf(name)(0), curveOf(name)(1)]).toEqual([expect.closeTo(0, 3), expect.closeTo(1, 3)]);
    expect([curveOf(name)(-5), curveOf(name)(5)]).toEqual([expect.closeTo(0, 3), expect.closeTo(1, 3)]);
  });
  it('has two that go beyond or back, and the others never do', () => {
    const steps = Array.from({ length: 101 }, (_, step) => step / 100);
    const rises = (name: (typeof EASING_NAMES)[number]) =>
      steps.slice(1).every((step, index) => curveOf(name)(step) >= curveOf(name)(steps[index]!) - 1e-9);
    expect(EASING_NAMES.filter((name) => !rises(name))).toEqual(['swing', 'bounce']);
  });
});

describe('firstValue', () => {
  it('is the constant, the first key, or what stands for nothing', () => {
    expect(firstValue(0.4)).toBe(0.4);
    expect(
      firstValue({
        keys: [
          { at: { tied: 'end', ms: 0 }, value: 3 },
          { at: { tied: 'end', ms: 9 }, value: 7 },
        ],
      }),
    ).toBe(3);
    expect([firstValue(undefined), firstValue(undefined, 1)]).toEqual([0, 1]);
  });
});
