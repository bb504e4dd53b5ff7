import { describe, expect, it } from '@jest/globals';
import { MOST_WRONG_EDITS, sortedEdits } from './sorted-edits';

const right = (index: number) => ({ editId: `right-${index}`, edit: { kind: 'rename-show', title: 'Dusk' } });
const wrong = (index: number) => ({ editId: `wrong-${index}`, edit: { kind: 'rename-show', title: '' } });

describe('edits from outside', () => {
  it('are looked at one by one: what is wrong is told, what is right goes on', () => {
    const sorted = sortedEdits([right(1), wrong(2), right(3)]);
    expect(sorted.right.map((entry) => entry.editId)).toEqual(['right-1', 'right-3']);
    expect(sorted.refused).toEqual([
      { editId: 'wrong-2', reason: 'unsound', sentence: expect.stringMatching(/^That cannot be done: title .+\.$/) },
    ]);
  });
  it('are looked at no further once too many are wrong to be a slip', () => {
    const flood = [...Array.from({ length: 500 }, (_, index) => wrong(index)), right(1)];
    expect(sortedEdits(flood)).toMatchObject({ right: [], refused: { length: MOST_WRONG_EDITS + 1 } });
  });
});
