import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import { layerId, showId, slideId } from '../../core/show/ids';
import { blankSlide } from '../../core/show/new-slide';
import { emptyShow, type Show } from '../../core/show/show';
import type { FromChecker, ToChecker } from './check-messages';
import { createSnagsStore, type SnagsStore } from './snags-store';

/** A worker that only notes what it is told. */
class NotingWorker {
  static latest: NotingWorker;
  readonly told: ToChecker[] = [];
  ended = false;
  onmessage: ((event: { readonly data: FromChecker }) => void) | null = null;
  constructor(readonly address: string) {
    NotingWorker.latest = this;
  }
  postMessage(message: ToChecker): void {
    this.told.push(message);
  }
  terminate(): void {
    this.ended = true;
  }
  says(data: FromChecker): void {
    this.onmessage!({ data });
  }
  kinds(): string[] {
    return this.told.map(({ kind }) => kind);
  }
}

const show = (title: string, count = 1): Show => ({
  ...emptyShow(showId('x'), title),
  slides: Array.from({ length: count }, (_, at) => blankSlide(4000, '#000000', () => `s${at}`)),
});
const NO_FACTS = new Map();

describe('looking over from the page', () => {
  let store: SnagsStore;
  let worker: NotingWorker;
  const before = (globalThis as { Worker?: unknown }).Worker;
  beforeEach(() => {
    jest.useFakeTimers();
    (globalThis as { Worker?: unknown }).Worker = NotingWorker;
    store = createSnagsStore(showId('x'));
    worker = NotingWorker.latest;
  });
  afterEach(() => {
    store.close();
    (globalThis as { Worker?: unknown }).Worker = before;
    jest.useRealTimers();
  });

  it('tells a worker of its own show, once that is ready, and loses nothing that was said before', () => {
    expect(worker.address).toContain('show=x');
    store.follow(show('One'), NO_FACTS);
    store.around(new Map(), []);
    jest.advanceTimersByTime(200);
    expect(worker.told).toEqual([]);
    worker.says({ kind: 'ready' });
    expect(worker.kinds().sort()).toEqual(['around', 'show']);
  });
  it('follows edits a little later, a row of them as one, so that who edits sees them first', () => {
    worker.says({ kind: 'ready' });
    const first = show('One', 3);
    store.follow(first, NO_FACTS);
    jest.advanceTimersByTime(200);
    expect(worker.kinds()).toEqual(['show']);
    for (const title of ['Two', 'Three', 'Four']) store.follow({ ...first, title }, NO_FACTS);
    expect(worker.kinds()).toEqual(['show']);
    jest.advanceTimersByTime(200);
    expect(worker.kinds()).toEqual(['show', 'change']);
    // What is as it was is not told again.
    store.follow({ ...first, title: 'Four' }, NO_FACTS);
    const last = worker.told.at(-1);
    jest.advanceTimersByTime(200);
    expect(last!.kind).toBe('change');
  });
  it('is asked about the show as it is, not as it was told last', async () => {
    worker.says({ kind: 'ready' });
    store.follow(show('One'), NO_FACTS);
    const asked = store.fixesOf('some key');
    expect(worker.kinds()).toEqual(['show', 'fixes']);
    const { id } = worker.told[1] as Extract<ToChecker, { kind: 'fixes' }>;
    worker.says({ kind: 'fixes', id, fixes: [{ name: 'Do it', edit: { kind: 'rename-show', title: 'Two' } }] });
    expect((await asked).map(({ name }) => name)).toEqual(['Do it']);
  });
  it('says so when what would help could not be tried, and knows when nothing is better', async () => {
    worker.says({ kind: 'ready' });
    const idOf = (at: number) => (worker.told[at] as { readonly id: number }).id;
    const asked = store.fixesOf('some key');
    worker.says({ kind: 'fixes', id: idOf(0), fixes: null });
    await expect(asked).rejects.toThrow(/could not be tried/);
    const best = store.whatReadsBest(slideId('s0'), layerId('w'));
    worker.says({ kind: 'fixes', id: idOf(1), fixes: [] });
    expect(await best).toBeNull();
  });
  it('keeps what was found, with how much was drawn', () => {
    worker.says({ kind: 'found', snags: [], measured: 2, slideCount: 5 });
    expect(store.getState().measured).toEqual({ done: 2, of: 5 });
  });
  it('ends with the page, and whoever still waits is answered', async () => {
    const asked = store.fixesOf('some key');
    store.follow(show('One'), NO_FACTS);
    store.close();
    expect(worker.ended).toBe(true);
    expect(await asked).toEqual([]);
    jest.advanceTimersByTime(1000);
    expect(worker.told).toEqual([]);
  });
});
