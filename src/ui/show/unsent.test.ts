import { beforeEach, describe, expect, it } from '@jest/globals';
import { FORMAT_VERSION } from '../../core/show/format/version';
import { showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import type { SentEdit } from '../../server/shows/show-service';
import { createUndoNotes } from './undo-notes';
import { createUnsent } from './unsent';

/** What a browser keeps; it is full from so many characters on. */
function keeper(most = Infinity) {
  const kept = new Map<string, string>();
  return {
    kept,
    get length() {
      return kept.size;
    },
    key: (at: number) => [...kept.keys()][at] ?? null,
    getItem: (key: string) => kept.get(key) ?? null,
    setItem(key: string, value: string) {
      if (value.length > most) throw new Error('the quota is exceeded');
      kept.set(key, value);
    },
    removeItem: (key: string) => void kept.delete(key),
  };
}
const show = emptyShow(showId('x'), 'An evening');
const renamed = (id: string, title = id): SentEdit => ({ editId: id, edit: { kind: 'rename-show', title } });
const idsOf = (edits: readonly SentEdit[]) => edits.map(({ editId }) => editId);

describe('edits that the server has not confirmed', () => {
  let storage: ReturnType<typeof keeper>;
  beforeEach(() => {
    storage = keeper();
  });

  it('are found by the next window, with the oldest revision that any of them was made on', () => {
    createUnsent('x', 'one', storage).keep([renamed('a'), renamed('b')], 12);
    createUnsent('x', 'two', storage).keep([renamed('c')], 9);
    const left = createUnsent('x', 'three', storage).left(show);
    expect([idsOf(left.edits), left.basedOn]).toEqual([['a', 'b', 'c'], 9]);
  });
  it('are of one show, and not a window’s own', () => {
    createUnsent('y', 'one', storage).keep([renamed('a')], 1);
    const mine = createUnsent('x', 'me', storage);
    mine.keep([renamed('b')], 1);
    expect(mine.left(show)).toEqual({ edits: [], basedOn: null });
  });
  it('are forgotten once there are none, or once another window has taken them over', () => {
    const gone = createUnsent('x', 'gone', storage);
    gone.keep([renamed('a')], 3);
    const mine = createUnsent('x', 'me', storage);
    mine.keep(mine.left(show).edits, 3);
    mine.takeOver();
    expect(idsOf(createUnsent('x', 'next', storage).left(show).edits)).toEqual(['a']);
    mine.keep([], 4);
    expect(storage.length).toBe(0);
  });
  it('say so where the browser has no room for them, and are kept as they were', () => {
    const small = keeper(400);
    const mine = createUnsent('x', 'me', small);
    expect(mine.keep([renamed('a')], 1)).toBe(true);
    expect(mine.keep([renamed('a'), renamed('b', 'x'.repeat(500))], 1)).toBe(false);
    expect(idsOf(createUnsent('x', 'next', small).left(show).edits)).toEqual(['a']);
  });
  it('do not end the page where there is no storage at all', () => {
    const mine = createUnsent('x', 'me', null);
    expect(mine.keep([renamed('a')], 1)).toBe(true);
    expect(mine.left(show)).toEqual({ edits: [], basedOn: null });
    mine.takeOver();
  });
  it('pass over notes that are broken', () => {
    storage.setItem('tanager-unsent-x-bad', '{"edits": [');
    storage.setItem('tanager-unsent-x-odd', '{"edits": 7, "basedOn": "no"}');
    createUnsent('x', 'good', storage).keep([renamed('a')], 5);
    expect(idsOf(createUnsent('x', 'me', storage).left(show).edits)).toEqual(['a']);
  });
  it('of an earlier version are brought up to this one’s', () => {
    const old = { version: 3, basedOn: 2, edits: [renamed('a', 'Older')] };
    storage.setItem('tanager-unsent-x-old', JSON.stringify(old));
    expect(createUnsent('x', 'me', storage).left(show).edits).toEqual([renamed('a', 'Older')]);
  });
  it('of a newer version wait for that, whatever else is taken over', () => {
    const newer = JSON.stringify({ version: FORMAT_VERSION + 1, basedOn: 2, edits: [renamed('later')] });
    storage.setItem('tanager-unsent-x-newer', newer);
    createUnsent('x', 'old', storage).keep([renamed('a')], 5);
    const mine = createUnsent('x', 'me', storage);
    const left = mine.left(show);
    expect(idsOf(left.edits)).toEqual(['a']);
    mine.keep(left.edits, 5);
    mine.takeOver();
    expect(storage.getItem('tanager-unsent-x-newer')).toBe(newer);
    expect(storage.getItem('tanager-unsent-x-old')).toBeNull();
  });
});

describe('what can be undone after the page was loaded again', () => {
  const step = (title: string) => ({
    ...{ edit: { kind: 'rename-show' as const, title }, inverse: { kind: 'rename-show' as const, title: 'before' } },
    joins: 'typing',
  });
  type Steps = Parameters<ReturnType<typeof createUndoNotes>['keep']>[0];
  const steps = (...titles: string[]) => titles.map(step) as unknown as Steps;
  const titles = (found: Steps) => found.map(({ edit }) => (edit as { readonly title: string }).title);

  it('is what could be before, in its order; nothing goes on with a step that was under way', () => {
    const storage = keeper();
    createUndoNotes('x', storage).keep(steps('one', 'two'), steps('three'));
    const { undoSteps, redoSteps } = createUndoNotes('x', storage).left(show);
    expect([titles(undoSteps), titles(redoSteps)]).toEqual([['one', 'two'], ['three']]);
    expect(undoSteps.every(({ joins }) => joins === null)).toBe(true);
    expect(createUndoNotes('y', storage).left(show)).toEqual({ undoSteps: [], redoSteps: [] });
  });
  it('is the latest of it where there is much', () => {
    const storage = keeper();
    const long = Array.from({ length: 40 }, (_, at) => `${at} ${'x'.repeat(100_000)}`);
    createUndoNotes('x', storage).keep(steps(...long), []);
    const kept = titles(createUndoNotes('x', storage).left(show).undoSteps);
    expect(kept.length).toBeGreaterThan(5);
    expect(kept).toEqual(long.slice(-kept.length));
  });
  it('is nothing where the browser has no room, or the notes are no steps', () => {
    const small = keeper(50);
    createUndoNotes('x', small).keep(steps('one'), []);
    expect(createUndoNotes('x', small).left(show)).toEqual({ undoSteps: [], redoSteps: [] });
    const storage = keeper();
    for (const text of [
      '{"undoSteps": [1, 2]}',
      '{"undoSteps": [{"edit": {}}]}',
      'null',
      '{',
      '{"version": 99, "undoSteps": []}',
    ]) {
      storage.setItem('tanager-undo-x', text);
      expect(createUndoNotes('x', storage).left(show)).toEqual({ undoSteps: [], redoSteps: [] });
    }
  });
});
