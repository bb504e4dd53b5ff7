import { describe, expect, it } from '@jest/globals';
import { usedVersion } from './fact-kinds';

describe('the version of a fact that is used', () => {
  it.each<[string, number[], number | undefined, number | null]>([
    ['the latest without a pin', [1, 3, 2], undefined, 3],
    ['the pinned one', [1, 2, 3], 2, 2],
    ['the nearest before a pin that is not there', [1, 3], 2, 1],
    ['the nearest after it when there is nothing before', [3, 4], 2, 3],
    ['none when there is none', [], 2, null],
  ])('is %s', (_name, there, pinned, used) => {
    expect(usedVersion(there, pinned)).toBe(used);
  });
});
