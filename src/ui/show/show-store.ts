import { nanoid } from 'nanoid';
import { createStore, type StoreApi } from 'zustand';
import { applyEdit, type ShowEdit } from '../../core/show/edit';
import { refusalSentence } from '../../core/show/edit-sentence';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId, SlideId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import type { AppliedEdits, SentEdit } from '../../server/shows/show-service';
import { callServer, ServerRefusal } from './call-server';

export type Saving = 'saved' | 'saving' | 'offline';

export interface UndoStep {
  readonly edit: ShowEdit;
  /** Undoes `edit`. */
  readonly inverse: ShowEdit;
  /** Edits in a row with the same name are one step: typing a title, dragging a slider. */
  readonly joins: string | null;
}

export interface ShowState {
  /** As seen here: what the server has confirmed and what is on its way to it. */
  readonly show: Show;
  readonly entries: readonly SheetEntry[];
  readonly facts: ReadonlyMap<AssetId, AssetFacts>;
  readonly saving: Saving;
  readonly undoSteps: readonly UndoStep[];
  readonly redoSteps: readonly UndoStep[];
  readonly selection: ReadonlySet<SlideId>;
  /** Where a selection with Shift starts, and what the bench shows. */
  readonly anchor: SlideId | null;
  edit(edit: ShowEdit, joins?: string): void;
  undo(): void;
  redo(): void;
  select(ids: readonly SlideId[], anchor: SlideId | null): void;
  setEntries(entries: readonly SheetEntry[]): void;
  /** Does again what a closed page had not sent. Once, after the first drawing: the server, which draws first, knows nothing of it. */
  takeUpUnsent(): void;
  /** Asks for what others changed. */
  pull(): void;
  /** Sends what waits, at once; for when the page goes away. */
  flushNow(): void;
}

export type ShowStore = StoreApi<ShowState>;

/** Short enough that at most the last second can be lost, long enough to send typing in pieces. */
const SEND_AFTER_MS = 200;
const RETRY_MS = 2000;
const MOST_EDITS_A_REQUEST = 500;

interface ShowStoreOptions {
  readonly show: Show;
  readonly revision: number;
  readonly entries: readonly SheetEntry[];
  /** Where edits wait that the server has not confirmed, so that a closed page loses nothing. */
  readonly storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'> | null;
  readonly tell: (sentence: string) => void;
}

export function createShowStore({ show, revision, entries, storage, tell }: ShowStoreOptions): ShowStore {
  const storageKey = `tanager-unsent-${show.id}`;
  let confirmed = show;
  let known = revision;
  let pending: readonly SentEdit[] = [];
  let sending = false;
  let again = false;
  let timer: ReturnType<typeof setTimeout> | null = null;

  const store = createStore<ShowState>((set, get) => ({
    show: confirmed,
    entries,
    facts: factsOf(entries),
    saving: 'saved',
    undoSteps: [],
    redoSteps: [],
    selection: new Set(),
    anchor: null,
    edit(edit, joins) {
      const inverse = perform(edit);
      if (!inverse) return;
      const last = get().undoSteps.at(-1);
      const step: UndoStep = joins && last?.joins === joins ? { ...last, edit } : { edit, inverse, joins: joins ?? null };
      set({ undoSteps: joins && last?.joins === joins ? [...get().undoSteps.slice(0, -1), step] : [...get().undoSteps, step], redoSteps: [] });
    },
    undo() {
      const step = get().undoSteps.at(-1);
      if (!step) return;
      set({ undoSteps: get().undoSteps.slice(0, -1) });
      const back = perform(step.inverse);
      if (back) set({ redoSteps: [...get().redoSteps, { edit: step.edit, inverse: back, joins: null }] });
    },
    redo() {
      const step = get().redoSteps.at(-1);
      if (!step) return;
      set({ redoSteps: get().redoSteps.slice(0, -1) });
      // `inverse` of an undone step does again what was undone.
      const back = perform(step.inverse);
      if (back) set({ undoSteps: [...get().undoSteps, { edit: step.edit, inverse: back, joins: null }] });
    },
    select: (ids, anchor) => set({ selection: new Set(ids), anchor }),
    setEntries: (next) => set({ entries: next, facts: mergedFacts(get().facts, next) }),
    takeUpUnsent() {
      const kept = readUnsent().filter((entry) => !pending.some((other) => other.editId === entry.editId));
      if (kept.length === 0) return;
      pending = [...kept, ...pending];
      set({ show: replay(confirmed, pending), saving: 'saving' });
      schedule(0);
    },
    pull: () => void send(),
    flushNow: () => { if (pending.length > 0) void post(pending, true).catch(() => {}); },
  }));
  return store;

  /** Applies an edit here and puts it on its way. @returns the edit that undoes it, or null when it was refused */
  function perform(edit: ShowEdit): ShowEdit | null {
    const result = applyEdit(store.getState().show, edit);
    if (!result.ok) {
      tell(refusalSentence(result.reason));
      return null;
    }
    pending = [...pending, { editId: nanoid(16), edit }];
    keepUnsent();
    store.setState({ show: result.show, saving: store.getState().saving === 'offline' ? 'offline' : 'saving', ...stillThere(result.show) });
    schedule(SEND_AFTER_MS);
    return result.inverse;
  }

  function schedule(afterMs: number): void {
    if (timer !== null) clearTimeout(timer);
    timer = setTimeout(() => {
      timer = null;
      void send();
    }, afterMs);
  }

  async function send(): Promise<void> {
    if (sending) {
      again = true;
      return;
    }
    sending = true;
    again = false;
    const batch = pending.slice(0, MOST_EDITS_A_REQUEST);
    try {
      const applied = await post(batch, false);
      confirmed = replay(confirmed, applied.since);
      known = applied.revision;
      const sent = new Set(batch.map((entry) => entry.editId));
      pending = pending.filter((entry) => !sent.has(entry.editId));
      keepUnsent();
      for (const { reason } of applied.refused) tell(refusalSentence(reason));
      // When only our own edits came back the show here is already right, and every slide keeps its identity.
      const onlyOurs = applied.refused.length === 0 && applied.since.every((entry) => sent.has(entry.editId));
      const next = onlyOurs ? store.getState().show : replay(confirmed, pending);
      store.setState({ show: next, saving: pending.length > 0 ? 'saving' : 'saved', ...stillThere(next) });
      if (pending.length > 0) again = true;
    } catch (error) {
      if (error instanceof ServerRefusal && error.status < 500) {
        // The server will never take these; they are dropped so that later work can be saved, and the person is told.
        const sent = new Set(batch.map((entry) => entry.editId));
        pending = pending.filter((entry) => !sent.has(entry.editId));
        keepUnsent();
        tell(`A change could not be saved: ${error.message}`);
        const next = replay(confirmed, pending);
        store.setState({ show: next, saving: pending.length > 0 ? 'saving' : 'saved', ...stillThere(next) });
      } else {
        store.setState({ saving: 'offline' });
        schedule(RETRY_MS);
      }
    } finally {
      sending = false;
      if (again && timer === null) void send();
    }
  }

  function post(batch: readonly SentEdit[], keepalive: boolean): Promise<AppliedEdits> {
    return callServer<AppliedEdits>('POST', `/api/shows/${show.id}/edits`, { knownRevision: known, edits: batch }, { keepalive });
  }

  function readUnsent(): readonly SentEdit[] {
    try {
      const kept: unknown = JSON.parse(storage?.getItem(storageKey) ?? '[]');
      return Array.isArray(kept) ? (kept as SentEdit[]) : [];
    } catch {
      // A broken note is of no use to anybody.
      return [];
    }
  }

  function keepUnsent(): void {
    if (pending.length === 0) storage?.removeItem(storageKey);
    else storage?.setItem(storageKey, JSON.stringify(pending));
  }

  function stillThere(next: Show): Pick<ShowState, 'selection' | 'anchor'> {
    const { selection, anchor } = store.getState();
    const present = new Set(next.slides.map((slide) => slide.id));
    const kept = [...selection].filter((id) => present.has(id));
    return { selection: kept.length === selection.size ? selection : new Set(kept), anchor: anchor && present.has(anchor) ? anchor : null };
  }
}

function replay(show: Show, edits: readonly SentEdit[]): Show {
  return edits.reduce((before, { edit }) => {
    const result = applyEdit(before, edit);
    return result.ok ? result.show : before;
  }, show);
}

function factsOf(entries: readonly SheetEntry[]): ReadonlyMap<AssetId, AssetFacts> {
  return new Map(entries.flatMap((entry) => (entry.facts ? [[entry.assetId, entry.facts] as const] : [])));
}

/** Facts never change for a hash; the map keeps its identity when nothing is new, so that plans are not made again. */
function mergedFacts(before: ReadonlyMap<AssetId, AssetFacts>, entries: readonly SheetEntry[]): ReadonlyMap<AssetId, AssetFacts> {
  const fresh = entries.filter((entry) => entry.facts && !before.has(entry.assetId));
  return fresh.length === 0 ? before : new Map([...before, ...fresh.map((entry) => [entry.assetId, entry.facts!] as const)]);
}
