import { describe, expect, it } from '@jest/globals';
import { chosenAfterRemoval } from './after-removal';
import { slideId } from './ids';

const ids = (text: string) => [...text].map(slideId);

describe('after slides were removed', () => {
  it.each<[string, string, string, string | null]>([
    ['the next one is chosen', 'abcd', 'b', 'c'],
    ['the one after the last of several', 'abcde', 'bd', 'e'],
    ['the new last one, when the last was removed', 'abcd', 'd', 'c'],
    ['the new last one, when the last several were', 'abcd', 'bcd', 'a'],
    ['none, when nothing is left', 'ab', 'ab', null],
    ['the next one, in whatever order they were named', 'abcd', 'cb', 'd'],
  ])('%s', (_name, order, removed, chosen) => {
    expect(chosenAfterRemoval(ids(order), ids(removed))).toBe(chosen);
  });
});
