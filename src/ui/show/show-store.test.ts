import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import type { ShowEdit } from '../../core/show/edit';
import { applyEdit } from '../../core/show/edit';
import { blankSlide } from '../../core/show/new-slide';
import { layerId, showId } from '../../core/show/ids';
import { emptyShow, type Show, type ShowContent } from '../../core/show/show';
import type { AppliedEdits, SentEdit } from '../../server/shows/show-service';
import { createShowStore, type ShowStore } from './show-store';

const start = emptyShow(showId('s'), 'Evening');
let counted = 0;
const newId = () => `n${(counted += 1)}`;
const addSlide = (afterId: Show['slides'][number]['id'] | null = null): ShowEdit => ({
  kind: 'add-slides',
  runs: [{ afterId, slides: [blankSlide(2000, '#102030', newId)] }],
});

/** A server in miniature: applies edits as the real one does; can be unplugged. */
function miniature() {
  const kept: SentEdit[] = [];
  const server = {
    show: start as Show,
    plugged: true,
    kept,
    basedOn: [] as number[],
    versions: [] as { name: string; content: ShowContent }[],
    take(edit: ShowEdit) {
      const result = applyEdit(server.show, edit);
      if (result.ok) server.show = result.show;
      return result.ok;
    },
    other(edit: ShowEdit) {
      if (server.take(edit)) kept.push({ editId: `other-${newId()}`, edit });
    },
  };
  globalThis.fetch = (async (_url: string, init: { body: string }) => {
    if (!server.plugged) throw new TypeError('Failed to fetch');
    if (_url.endsWith('/versions')) {
      server.versions.push(JSON.parse(init.body) as { name: string; content: ShowContent });
      return { ok: true, status: 200, json: async () => ({}) };
    }
    const { knownRevision, basedOn, edits } = JSON.parse(init.body) as {
      knownRevision: number;
      basedOn?: number;
      edits: SentEdit[];
    };
    if (basedOn !== undefined) server.basedOn.push(basedOn);
    const refused: AppliedEdits['refused'][number][] = [];
    for (const entry of edits) {
      if (kept.some((before) => before.editId === entry.editId)) continue;
      if (server.take(entry.edit)) kept.push(entry);
      else
        refused.push({
          editId: entry.editId,
          reason: 'slide-not-found',
          sentence: 'That slide is no longer in the show; it may have been removed in another tab.',
        });
    }
    return {
      ok: true,
      status: 200,
      json: async () => ({ revision: kept.length, since: kept.slice(knownRevision), refused, collided: false }),
    };
  }) as unknown as typeof fetch;
  return server;
}

const memory = () => {
  const kept = new Map<string, string>();
  return {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => void kept.set(key, value),
    removeItem: (key: string) => void kept.delete(key),
    key: (index: number) => [...kept.keys()][index] ?? null,
    get length() {
      return kept.size;
    },
    kept,
  };
};
const settle = async () => {
  for (let round = 0; round < 30; round += 1) await jest.advanceTimersByTimeAsync(100);
};

let server: ReturnType<typeof miniature>;
let storage: ReturnType<typeof memory>;
let told: string[];
let store: ShowStore;
const open = () => {
  const store = createShowStore({
    show: server.show,
    revision: server.kept.length,
    entries: [],
    storage,
    tell: (sentence) => told.push(sentence),
  });
  store.getState().takeUpUnsent();
  return store;
};
const realFetch = globalThis.fetch;

beforeEach(() => {
  jest.useFakeTimers();
  server = miniature();
  storage = memory();
  told = [];
  store = open();
});
afterEach(() => {
  jest.useRealTimers();
  globalThis.fetch = realFetch;
});

describe('the show store', () => {
  it('shows an edit at once and saves it within a second', async () => {
    store.getState().edit(addSlide());
    expect([store.getState().show.slides.length, store.getState().saving]).toEqual([1, 'saving']);
    await jest.advanceTimersByTimeAsync(900);
    expect([server.show.slides.length, store.getState().saving]).toEqual([1, 'saved']);
    expect(store.getState().show).toEqual(server.show);
  });
  it('undoes and does again without limit, and forgets what could be done again once something else is done', async () => {
    for (let step = 0; step < 50; step += 1) store.getState().edit(addSlide());
    const full = store.getState().show;
    for (let step = 0; step < 50; step += 1) store.getState().undo();
    expect(store.getState().show).toEqual(start);
    store.getState().undo();
    for (let step = 0; step < 50; step += 1) store.getState().redo();
    expect(store.getState().show).toEqual(full);
    store.getState().undo();
    store.getState().edit({ kind: 'rename-show', title: 'Regatta' });
    expect(store.getState().redoSteps).toEqual([]);
    await settle();
    expect(server.show).toEqual(store.getState().show);
  });
  it('can undo and do again after the page was loaded anew, for as long as the window is open', async () => {
    const session = memory();
    const inWindow = () => {
      const opened = createShowStore({
        show: server.show,
        revision: server.kept.length,
        entries: [],
        storage,
        session,
        tell: (sentence) => told.push(sentence),
      });
      opened.getState().takeUpUnsent();
      return opened;
    };
    const before = inWindow();
    before.getState().edit(addSlide());
    before.getState().edit({ kind: 'rename-show', title: 'Regatta' }, 'title');
    before.getState().edit({ kind: 'set-default-length', lengthMs: 3000 });
    before.getState().undo();
    await settle();
    before.getState().flushNow();
    const after = inWindow();
    expect([after.getState().undoSteps.length, after.getState().redoSteps.length]).toEqual([2, 1]);
    after.getState().redo();
    expect(after.getState().show.defaultLengthMs).toBe(3000);
    for (let step = 0; step < 3; step += 1) after.getState().undo();
    expect(after.getState().show).toEqual(start);
    // Typing on is a step of its own now.
    after.getState().redo();
    after.getState().redo();
    after.getState().edit({ kind: 'rename-show', title: 'Regattas' }, 'title');
    after.getState().undo();
    expect(after.getState().show.title).toBe('Regatta');
    expect(told).toEqual([]);
  });
  it('is not misled by a broken note of what could be undone, nor by one too large to keep', () => {
    const session = memory();
    for (const note of ['{', '{"undoSteps":[1]}', '{"undoSteps":[{"edit":{},"inverse":{}}]}']) {
      session.setItem('tanager-undo-s', note);
      const opened = createShowStore({
        show: server.show,
        revision: 0,
        entries: [],
        storage,
        session,
        tell: (sentence) => told.push(sentence),
      });
      opened.getState().takeUpUnsent();
      expect(opened.getState().undoSteps).toEqual([]);
    }
    const full = createShowStore({
      show: server.show,
      revision: 0,
      entries: [],
      storage,
      session: {
        ...session,
        setItem: () => {
          throw new Error('full');
        },
      },
      tell: (sentence) => told.push(sentence),
    });
    full.getState().edit(addSlide());
    expect(() => full.getState().flushNow()).not.toThrow();
    const wordy = (letter: string): ShowEdit => ({
      kind: 'add-slides',
      runs: [
        {
          afterId: null,
          slides: [
            {
              ...blankSlide(2000, '#102030', newId),
              layers: Array.from({ length: 10 }, () => ({
                kind: 'words' as const,
                id: layerId(newId()),
                title: '',
                subtitle: letter.repeat(10_000),
                place: 'top' as const,
              })),
            },
          ],
        },
      ],
    });
    for (let step = 0; step < 40; step += 1) store.getState().edit(wordy('x'));
    const large = createShowStore({
      show: store.getState().show,
      revision: 0,
      entries: [],
      storage,
      session,
      tell: (sentence) => told.push(sentence),
    });
    for (let step = 0; step < 40; step += 1) large.getState().edit(wordy('y'));
    large.getState().flushNow();
    expect(session.getItem('tanager-undo-s')!.length).toBeLessThan(2_000_000);
  });
  it('takes typing as one step', () => {
    for (const title of ['R', 'Re', 'Reg']) store.getState().edit({ kind: 'rename-show', title }, 'title');
    store.getState().edit({ kind: 'set-default-length', lengthMs: 3000 });
    store.getState().undo();
    expect(store.getState().show.title).toBe('Reg');
    store.getState().undo();
    expect([store.getState().show.title, store.getState().undoSteps.length]).toEqual(['Evening', 0]);
    store.getState().redo();
    expect(store.getState().show.title).toBe('Reg');
  });
  it('goes on without the server, says so, and delivers later', async () => {
    server.plugged = false;
    store.getState().edit(addSlide());
    await settle();
    store.getState().edit({ kind: 'rename-show', title: 'Offline' });
    expect([store.getState().saving, store.getState().show.title]).toEqual(['offline', 'Offline']);
    server.plugged = true;
    await settle();
    expect([store.getState().saving, server.show.title, server.show.slides.length]).toEqual(['saved', 'Offline', 1]);
    expect(storage.kept.size).toBe(0);
  });
  it('loses nothing when the page is closed before the server was told', async () => {
    server.plugged = false;
    store.getState().edit(addSlide());
    await settle();
    server.plugged = true;
    server.other({ kind: 'set-default-length', lengthMs: 4444 });
    const reopened = open();
    expect(reopened.getState().show.slides).toHaveLength(1);
    await settle();
    expect(server.show.slides).toHaveLength(1);
    await settle();
    expect([server.kept.length, server.basedOn]).toEqual([2, [0]]);
  });
  it('takes in what another tab did, keeping its own unsent work', async () => {
    server.other({ kind: 'rename-show', title: 'From the other tab' });
    server.plugged = false;
    store.getState().edit({ kind: 'set-default-length', lengthMs: 3000 });
    await settle();
    server.plugged = true;
    await settle();
    expect(store.getState().show).toMatchObject({ title: 'From the other tab', defaultLengthMs: 3000 });
    server.other(addSlide());
    store.getState().pull();
    await settle();
    expect(store.getState().show).toEqual(server.show);
  });
  it('keeps the identity of slides when its own edits are confirmed', async () => {
    store.getState().edit(addSlide());
    const [slide] = store.getState().show.slides;
    await settle();
    expect(store.getState().show.slides[0]).toBe(slide);
  });
  it('drops the selection of a slide that another tab removed', async () => {
    store.getState().edit(addSlide());
    const { id } = store.getState().show.slides[0]!;
    store.getState().select([id], id);
    await settle();
    server.other({ kind: 'remove-slides', slideIds: [id] });
    store.getState().pull();
    await settle();
    expect([store.getState().selection.size, store.getState().anchor]).toEqual([0, null]);
  });
  it('says what it could not do', () => {
    store.getState().edit({ kind: 'remove-slides', slideIds: [blankSlide(1000, '#000000', newId).id] });
    expect(told).toEqual([expect.stringContaining('no longer in the show')]);
  });
  it('saves in the middle of a storm of edits, not only after it', async () => {
    for (let step = 0; step < 20; step += 1) {
      store.getState().edit(addSlide());
      await jest.advanceTimersByTimeAsync(50);
    }
    expect(server.kept.length).toBeGreaterThan(10);
    await settle();
    expect(server.show).toEqual(store.getState().show);
  });
  it('sends a drag as its latest value, and what is on its way is never changed', async () => {
    for (let lengthMs = 1000; lengthMs < 1100; lengthMs += 1) {
      store.getState().edit({ kind: 'set-default-length', lengthMs }, 'drag');
      await jest.advanceTimersByTimeAsync(10);
    }
    await settle();
    expect(server.show.defaultLengthMs).toBe(1099);
    expect(server.kept.length).toBeLessThan(9);
    store.getState().undo();
    await settle();
    expect(server.show.defaultLengthMs).toBe(start.defaultLengthMs);
  });
  it('does not join a change of other slides to the step before', () => {
    store.getState().edit(addSlide());
    store.getState().edit(addSlide());
    const [one, other] = store.getState().show.slides.map((slide) => slide.id) as [
      Show['slides'][number]['id'],
      Show['slides'][number]['id'],
    ];
    store.getState().edit({ kind: 'set-lengths', lengths: [{ slideId: one, lengthMs: 900 }] }, 'lengths');
    store.getState().edit(
      {
        kind: 'set-lengths',
        lengths: [
          { slideId: one, lengthMs: 800 },
          { slideId: other, lengthMs: 800 },
        ],
      },
      'lengths',
    );
    store.getState().undo();
    store.getState().undo();
    expect(store.getState().show.slides.map((slide) => slide.lengthMs)).toEqual([2000, 2000]);
  });
  it('keeps what each of two unplugged windows did, whichever is closed first', async () => {
    const second = open();
    server.plugged = false;
    store.getState().edit({ kind: 'rename-show', title: 'By the first' });
    second.getState().edit({ kind: 'set-default-length', lengthMs: 3000 });
    await settle();
    server.plugged = true;
    open();
    await settle();
    expect(server.show).toMatchObject({ title: 'By the first', defaultLengthMs: 3000 });
    expect(storage.kept.size).toBe(0);
  });
  it('keeps how this window had it as a version when another removed what was changed here', async () => {
    store.getState().edit(addSlide());
    await settle();
    const { id } = store.getState().show.slides[0]!;
    server.other({ kind: 'remove-slides', slideIds: [id] });
    store.getState().edit({ kind: 'set-lengths', lengths: [{ slideId: id, lengthMs: 4321 }] });
    await settle();
    expect(server.versions.map((version) => [version.name, version.content.slides[0]!.lengthMs])).toEqual([
      ['As this window had it', 4321],
    ]);
    expect(told.join()).toMatch(/Could not change the length of a slide.*kept under Versions/);
    expect(store.getState().show.slides).toEqual([]);
  });
  it('says at once that the server cannot be heard, and that it can again', async () => {
    store.getState().lost();
    expect(store.getState().saving).toBe('offline');
    store.getState().pull();
    await settle();
    expect(store.getState().saving).toBe('saved');
  });
  it('keeps what was done to a show that another window took off the shelf, and saves it when that is back', async () => {
    const working = globalThis.fetch;
    globalThis.fetch = (async () => ({
      ok: false,
      status: 404,
      json: async () => ({ problem: 'There is no such show.' }),
    })) as unknown as typeof fetch;
    store.getState().edit({ kind: 'rename-show', title: 'Still here' });
    await settle();
    expect([store.getState().saving, store.getState().show.title, told.length]).toEqual(['offline', 'Still here', 1]);
    globalThis.fetch = working;
    await settle();
    expect([store.getState().saving, server.show.title]).toEqual(['saved', 'Still here']);
  });
  it('loses only the one edit that the server will not read, however many were sent with it, and keeps how it was', async () => {
    const working = globalThis.fetch;
    globalThis.fetch = (async (path: string, init: { body: string }) => {
      if (init.body.includes('Unreadable') && path.endsWith('/edits'))
        return { ok: false, status: 413, json: async () => ({ problem: 'That is more than can be sent at once.' }) };
      return working(path, init as unknown as RequestInit);
    }) as unknown as typeof fetch;
    for (let step = 0; step < 5; step += 1) store.getState().edit(addSlide());
    store.getState().edit({ kind: 'rename-show', title: 'Unreadable' });
    for (let step = 0; step < 5; step += 1) store.getState().edit(addSlide());
    await settle();
    globalThis.fetch = working;
    expect([server.show.slides.length, server.show.title, store.getState().saving]).toEqual([10, 'Evening', 'saved']);
    expect(store.getState().show).toEqual(server.show);
    expect(server.versions.map((version) => version.content.title)).toEqual(['Unreadable']);
    expect(told.join()).toMatch(
      /Could not rename the show: That is more than can be sent at once.*kept under Versions/,
    );
  });
  it('says when everything is saved, at once, and when it cannot be', async () => {
    expect(await store.getState().whenSaved()).toBe(true);
    store.getState().edit(addSlide());
    store.getState().edit({ kind: 'rename-show', title: 'Last word' });
    const saved = store.getState().whenSaved();
    await settle();
    expect([await saved, server.show.title]).toEqual([true, 'Last word']);
    server.plugged = false;
    store.getState().edit({ kind: 'rename-show', title: 'Too late' });
    const unplugged = store.getState().whenSaved();
    await settle();
    expect([await unplugged, server.show.title]).toEqual([false, 'Last word']);
  });
  it('sends nothing that a show cannot hold, and says how much it can', async () => {
    expect(store.getState().edit({ kind: 'rename-show', title: 'x'.repeat(301) })).toBe(false);
    expect(told).toEqual(['That cannot be done: a show’s title can have 300 letters at most.']);
    expect([store.getState().saving, store.getState().undoSteps.length]).toEqual(['saved', 0]);
    expect(store.getState().edit({ kind: 'rename-show', title: 'x'.repeat(300) })).toBe(true);
  });
  it('says why how this window had it could not be kept, and not that it was', async () => {
    const working = globalThis.fetch;
    globalThis.fetch = (async (path: string) => ({
      ok: false,
      status: path.endsWith('/versions') ? 422 : 413,
      json: async () => ({ problem: path.endsWith('/versions') ? 'It is too large.' : 'That is too much.' }),
    })) as unknown as typeof fetch;
    store.getState().edit({ kind: 'rename-show', title: 'Unreadable' });
    await settle();
    globalThis.fetch = working;
    expect(told).toEqual([
      'Could not rename the show: That is too much. How this window had it could not be kept: It is too large.',
    ]);
  });
  it('says once that the browser has no room, and saves all the same', async () => {
    storage.setItem = () => {
      throw new Error('QuotaExceededError');
    };
    store.getState().edit(addSlide());
    store.getState().edit(addSlide());
    expect(told.filter((sentence) => sentence.includes('no room'))).toHaveLength(1);
    await settle();
    expect(server.show.slides).toHaveLength(2);
  });
});
