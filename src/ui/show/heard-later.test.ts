import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { songAdded } from '../../core/show/edits/add-sounds';
import { assetId, cueId, showId } from '../../core/show/ids';
import { blankSlide } from '../../core/show/new-slide';
import { songAfter } from '../../core/show/placed-sound';
import { emptyShow, type Show } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import { createShowStore } from './show-store';

let counted = 0;
const newId = () => `n${(counted += 1)}`;
const start: Show = {
  ...emptyShow(showId('s'), 'Evening'),
  slides: [blankSlide(2000, '#102030', newId), blankSlide(2000, '#102030', newId)],
};
const SONG = assetId('5'.repeat(64));
const entry = (facts: SheetEntry['facts']): SheetEntry => ({
  id: 'q',
  assetId: SONG,
  fileName: 'q.mp3',
  byteCount: 1,
  addedAt: 0,
  state: 'ready',
  problem: null,
  made: null,
  facts,
});
const opened = (show: Show) => createShowStore({ show, revision: 0, entries: [], storage: null, tell: () => {} });

beforeEach(() => {
  jest.useFakeTimers();
  globalThis.fetch = (() => Promise.reject(new TypeError('Failed to fetch'))) as unknown as typeof fetch;
});
afterEach(() => {
  jest.useRealTimers();
});

describe('a song that is listened to after it was laid under the show', () => {
  it('fits pictures that follow the music once a song that was laid under them has been listened to', () => {
    const store = opened(start);
    const sound = { kind: 'sound', lengthMs: 20_000, title: null, artist: null } as const;
    const heard = {
      ...sound,
      listening: {
        loudness: { integratedLufs: -14, truePeakDb: -1, curve: [] },
        heardFromMs: 0,
        heardToMs: 20_000,
        beats: {
          tempoBpm: 120,
          beatsMs: Array.from({ length: 39 }, (_, beat) => 300 + 500 * beat),
          beatsABar: 4,
          firsts: Array.from({ length: 10 }, (_, bar) => 4 * bar),
          confidence: 1,
        },
        sections: [],
        energy: [],
        accentsMs: [],
      },
    };
    const lengths = () => store.getState().show.slides.map(({ lengthMs }) => lengthMs);
    store.getState().mergeEntries([entry(sound)]);
    store.getState().edit({ kind: 'set-pace', pace: { by: 'music' } });
    store.getState().edit(songAdded([], songAfter(cueId('q'), SONG, 0)));
    const [first] = lengths();
    store.getState().mergeEntries([entry(heard)]);
    expect((lengths()[0]! - 300) % 500).toBe(0);
    expect(lengths()[0]! + lengths()[1]!).toBe(20_000);
    store.getState().undo();
    expect(lengths()[0]).toBe(first);
    // What a page that only looks on hears changes nothing.
    const looking = opened(store.getState().show);
    looking.getState().mergeEntries([entry(sound)]);
    looking.getState().mergeEntries([entry(heard)]);
    expect(looking.getState().undoSteps).toEqual([]);
  });
});
