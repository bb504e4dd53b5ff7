import { describe, expect, it } from '@jest/globals';
import type { Stack } from '../../core/choosing/stacks';
import { assetId } from '../../core/show/ids';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { laid } from './use-stacks';

const entry = (id: string): SheetEntry => ({
  id,
  assetId: assetId(id.padEnd(64, '0')),
  fileName: `${id}.jpg`,
  byteCount: 1,
  addedAt: 0,
  state: 'ready',
  problem: null,
  made: null,
  facts: null,
});
const shown = ['a', 'b', 'c', 'd', 'e'].map(entry);
/** The best of b, c and e is e. */
const stack = ['e', 'b', 'c'].map((id) => ({ id, takenAt: null, facts: {} })) as unknown as Stack<string>;
const ids = (open: readonly string[]) => laid(shown, [stack], new Set(open)).entries.map(({ id }) => id);

describe('prints in stacks', () => {
  it('show the best of a closed stack where its first print lies', () => {
    expect(ids([])).toEqual(['a', 'e', 'd']);
    expect(laid(shown, [stack], new Set()).places.get('e')).toEqual({ count: 3, as: 'front' });
  });
  it('show all of an open one side by side, whichever of it was opened', () => {
    expect(ids(['b'])).toEqual(['a', 'e', 'b', 'c', 'd']);
    expect(laid(shown, [stack], new Set(['b'])).places.get('c')).toEqual({ count: 3, as: 'back' });
  });
  it('lie as they do when nothing is stacked', () => {
    expect(laid(shown, [], new Set()).entries).toBe(shown);
  });
});
