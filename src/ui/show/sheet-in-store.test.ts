import { beforeEach, describe, expect, it } from '@jest/globals';
import { assetId, showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { createShowStore, type ShowStore } from './show-store';

let store: ShowStore;
beforeEach(() => {
  store = createShowStore({
    show: emptyShow(showId('s'), 'Evening'),
    revision: 0,
    entries: [],
    storage: null,
    tell: () => {},
  });
});

describe('the contact sheet in the store', () => {
  const entry = (id: string, state: SheetEntry['state'], facts: SheetEntry['facts'] = null): SheetEntry => ({
    id,
    assetId: assetId(id),
    fileName: `${id}.jpg`,
    byteCount: 1,
    addedAt: 0,
    state,
    problem: null,
    made: null,
    facts,
  });
  const song = { kind: 'sound', lengthMs: 1000, title: null, artist: null } as const;

  it('takes up what changed in its place, and what is new at the end', () => {
    store.getState().setEntries([entry('a', 'arrived'), entry('b', 'ready', song)]);
    store.getState().mergeEntries([entry('c', 'arrived'), entry('a', 'ready', song)]);
    expect(store.getState().entries.map(({ id, state }) => `${id} ${state}`)).toEqual([
      'a ready',
      'b ready',
      'c arrived',
    ]);
    expect([...store.getState().facts.keys()].sort()).toEqual(['a', 'b']);
  });
  it('knows better what pictures are about once that is found out, and then lets it be', () => {
    const plain = {
      kind: 'picture',
      widthPx: 30,
      heightPx: 20,
      hasTransparency: false,
      takenAt: null,
      camera: null,
      brightness: 0.5,
    } as const;
    const focus = { faces: [], subjects: [], salient: null, sharpness: 0.5 };
    store.getState().mergeEntries([entry('late', 'ready', plain)]);
    store.getState().mergeEntries([entry('late', 'ready', { ...plain, focus })]);
    const { facts } = store.getState();
    expect(facts.get(entry('late', 'ready').assetId)).toEqual({ ...plain, focus });
    store.getState().mergeEntries([entry('late', 'ready', { ...plain, focus: { ...focus, sharpness: 0.9 } })]);
    expect(store.getState().facts).toBe(facts);
  });
  it('leaves the sheet and the facts as they are when nothing is new', () => {
    store.getState().setEntries([entry('a', 'ready', song)]);
    const { entries, facts } = store.getState();
    store.getState().setEntries([entry('a', 'ready', song)]);
    store.getState().mergeEntries([], { folder: 'wedding', filesDone: 1, fileCount: 3, already: 0 });
    expect([store.getState().entries === entries, store.getState().facts === facts]).toEqual([true, true]);
    expect(store.getState().folder?.filesDone).toBe(1);
    store.getState().mergeEntries([entry('b', 'arrived')]);
    expect([store.getState().folder?.filesDone, store.getState().facts === facts]).toEqual([1, true]);
  });
});
