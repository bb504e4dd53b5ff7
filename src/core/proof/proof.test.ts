import { describe, expect, it } from '@jest/globals';
import { assetId } from '../show/ids';
import { marksToTakeOver, proofTally, tallySentence, type ClientMark } from './proof';

const [a, b, c] = ['a', 'b', 'c'].map((letter) => assetId(letter.repeat(64))) as [
  ClientMark['assetId'],
  ClientMark['assetId'],
  ClientMark['assetId'],
];

describe('a proof', () => {
  it('counts what is marked, what is not, and what was written', () => {
    const marks: ClientMark[] = [
      { assetId: a, mark: 'keep', note: '' },
      { assetId: b, mark: 'leave-out', note: 'eyes shut' },
      { assetId: c, mark: null, note: 'who is that?' },
    ];
    const tally = proofTally(marks, 10);
    expect(tally).toEqual({ keep: 1, linger: 0, leaveOut: 1, unmarked: 8, notes: 2 });
    expect(tallySentence(tally)).toBe('1 kept, 1 left out, 8 not marked');
  });
  it('hands on only marks that differ from one’s own, and wipes none off', () => {
    const marks: ClientMark[] = [
      { assetId: a, mark: 'keep', note: '' },
      { assetId: b, mark: 'linger', note: '' },
      { assetId: c, mark: null, note: 'nice' },
    ];
    expect(marksToTakeOver(marks, { [a]: 'keep', [c]: 'leave-out' })).toEqual([{ assetId: b, mark: 'linger' }]);
  });
});
