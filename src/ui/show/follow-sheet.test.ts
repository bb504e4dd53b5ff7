import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { assetId } from '../../core/show/ids';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { followSheet, type SheetFollower, type WholeSheet } from './follow-sheet';

const entry = (id: string, state: SheetEntry['state'] = 'ready'): SheetEntry => ({
  id,
  assetId: assetId(id),
  fileName: `${id}.jpg`,
  byteCount: 1,
  addedAt: 0,
  state,
  problem: null,
  made: null,
  facts: null,
});

let answers: ((sheet: WholeSheet | null) => void)[];
let seen: unknown[];
let follower: SheetFollower;
const states = (entries: readonly SheetEntry[]) => entries.map(({ id, state }) => `${id} ${state}`);
const settled = () => jest.advanceTimersByTimeAsync(1000);

beforeEach(() => {
  jest.useFakeTimers();
  answers = [];
  seen = [];
  follower = followSheet({
    ask: () =>
      new Promise((resolve, reject) => {
        answers.push((sheet) => (sheet ? resolve(sheet) : reject(new Error('not reached'))));
      }),
    whole: ({ entries, folder }) => void seen.push(['whole', states(entries), folder]),
    changed: (entries, folder) => void seen.push(['changed', states(entries), folder]),
  });
});
afterEach(() => {
  follower.close();
  jest.useRealTimers();
});

describe('followSheet', () => {
  it('hands on what is heard in a burst at once, each entry as it was last', async () => {
    follower.hear({ entry: entry('a', 'arrived') });
    follower.hear({ entry: entry('b', 'arrived') });
    follower.hear({ entry: entry('a') });
    expect(seen).toEqual([]);
    await settled();
    expect(seen).toEqual([['changed', ['a ready', 'b arrived'], undefined]]);
  });
  it('tells how far a folder has got, and that it is done', async () => {
    const progress = { folder: 'wedding', filesDone: 1, fileCount: 2, already: 0 };
    follower.hear({ folder: progress });
    await settled();
    follower.hear({ folder: null });
    await settled();
    expect(seen).toEqual([
      ['changed', [], progress],
      ['changed', [], null],
    ]);
  });
  it('hands on what was heard while it asked after the answer, which may be older', async () => {
    follower.askAnew();
    follower.hear({ entry: entry('a', 'ready') });
    await settled();
    expect(seen).toEqual([]);
    answers[0]!({ entries: [entry('a', 'arrived')], folder: null });
    await settled();
    expect(seen).toEqual([
      ['whole', ['a arrived'], null],
      ['changed', ['a ready'], undefined],
    ]);
  });
  it('forgets what was heard before it asks: the whole is newer', async () => {
    follower.hear({ entry: entry('refused', 'refused') });
    follower.askAnew();
    answers[0]!({ entries: [], folder: null });
    await settled();
    expect(seen).toEqual([['whole', [], null]]);
  });
  it('asks once more when it was to ask while it asked, and not for each time', async () => {
    follower.askAnew();
    follower.askAnew();
    follower.askAnew();
    answers[0]!({ entries: [], folder: null });
    await settled();
    expect(answers).toHaveLength(2);
    answers[1]!({ entries: [entry('a')], folder: null });
    await settled();
    expect(answers).toHaveLength(2);
    expect(seen.at(-1)).toEqual(['whole', ['a ready'], null]);
  });
  it('goes on hearing when the server cannot be asked, and says nothing once it is closed', async () => {
    follower.askAnew();
    answers[0]!(null);
    follower.hear({ entry: entry('a') });
    await settled();
    expect(seen).toEqual([['changed', ['a ready'], undefined]]);
    follower.hear({ entry: entry('b') });
    follower.close();
    await settled();
    expect(seen).toHaveLength(1);
  });
});
