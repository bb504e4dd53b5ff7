import { nanoid } from 'nanoid';
import { createStore, type StoreApi } from 'zustand';
import { withItsLoupes } from '../../core/builds/relaid';
import { withItsPlumage } from '../../core/plumage/entailed-dress';
import { withItsLengths } from '../../core/timing/follow-music';
import { applyEdit, type ShowEdit } from '../../core/show/edit';
import { editSentence } from '../../core/show/edit-sentence';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId, SlideId } from '../../core/show/ids';
import { contentOf, type Show } from '../../core/show/show';
import { touched } from '../../core/show/touched';
import type { SheetEntry } from '../../server/assets/contact-sheet';
import type { FolderProgress } from '../../server/assets/folder-intake';
import type { AppliedEdits, SentEdit } from '../../server/shows/show-service';
import { callServer, ServerRefusal } from './call-server';
import { createUndoNotes } from './undo-notes';
import { createUnsent } from './unsent';

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
  /** A folder of the server's disk that is being taken in. */
  readonly folder: FolderProgress | null;
  readonly saving: Saving;
  /** What is wrong with what is stored of the show; it cannot be changed then. */
  readonly damage: string | null;
  readonly undoSteps: readonly UndoStep[];
  readonly redoSteps: readonly UndoStep[];
  readonly selection: ReadonlySet<SlideId>;
  /** Where a selection with Shift starts, and what the bench shows. */
  readonly anchor: SlideId | null;
  /** Does it and keeps it to be undone; false when it was refused, which is told. */
  edit(edit: ShowEdit, joins?: string): boolean;
  /** Does what follows from other things by itself: no step that could be undone. */
  follow(edit: ShowEdit): void;
  undo(): void;
  redo(): void;
  select(ids: readonly SlideId[], anchor: SlideId | null): void;
  /** The whole sheet. */
  setEntries(entries: readonly SheetEntry[], folder?: FolderProgress | null): void;
  /** Entries that came or changed; without `folder` that stays as it is. */
  mergeEntries(changed: readonly SheetEntry[], folder?: FolderProgress | null): void;
  /** Does again what a closed page had not sent, and takes up what it could undo. Once, after the first drawing: the server, which draws first, knows nothing of it. */
  takeUpUnsent(): void;
  /** Asks for what others changed. */
  pull(): void;
  /** Once the server has everything that was done here; false when it cannot be reached. */
  whenSaved(): Promise<boolean>;
  /** The server cannot be heard any more; said at once, not only when the next edit fails. */
  lost(): void;
  /** Sends what waits, at once, and notes what can be undone; for when the page goes away. */
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
  /** What is stored is damaged: the show can be looked at, not changed. */
  readonly damage?: string | null;
  readonly entries: readonly SheetEntry[];
  /** Where edits wait that the server has not confirmed, so that a closed page loses nothing. */
  readonly storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'> | null;
  /** The window's own, where undo steps outlive the page. */
  readonly session?: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'> | null;
  readonly tell: (sentence: string) => void;
}

export function createShowStore({
  show,
  revision,
  damage = null,
  entries,
  storage,
  session = null,
  tell,
}: ShowStoreOptions): ShowStore {
  const undoNotes = createUndoNotes(show.id, session);
  const unsent = createUnsent(show.id, nanoid(8), storage);
  let confirmed = show;
  let known = revision;
  let pending: readonly SentEdit[] = [];
  /** The oldest revision that what waits was made on: another window's edits since then were made without knowing of it. */
  let basedOn: number | null = null;
  /** Fewer for a while after the server would not take a batch. */
  let mostEdits = MOST_EDITS_A_REQUEST;
  let sending = false;
  /** Ids of edits that are on their way; they must not change any more. */
  let inFlight: ReadonlySet<string> = new Set();
  let toldOfFullStorage = false;
  let again = false;
  let timer: ReturnType<typeof setTimeout> | null = null;

  const store = createStore<ShowState>((set, get) => ({
    show: confirmed,
    entries,
    facts: factsOf(entries),
    folder: null,
    saving: 'saved',
    damage,
    undoSteps: [],
    redoSteps: [],
    selection: new Set(),
    anchor: null,
    edit(asked, joins) {
      // Where the pictures follow the music, lengths are worked out anew with every edit, and undone with it.
      const laid = withItsLoupes(get().show, get().facts, withItsPlumage(get().show, asked));
      const { edit, unmet } = withItsLengths(get().show, get().facts, laid);
      const last = get().undoSteps.at(-1);
      const goesOn = joins !== undefined && last?.joins === joins && sameTargets(last.edit, edit);
      const inverse = perform(edit, goesOn ? last.edit : null);
      if (!inverse) return false;
      if (unmet) tell(unmet);
      const step: UndoStep = goesOn ? { ...last, edit } : { edit, inverse, joins: joins ?? null };
      set({ undoSteps: goesOn ? [...get().undoSteps.slice(0, -1), step] : [...get().undoSteps, step], redoSteps: [] });
      return true;
    },
    follow(edit) {
      perform(edit);
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
    setEntries(next, folder = null) {
      const before = get().facts;
      set({
        entries: isSameSheet(get().entries, next) ? get().entries : next,
        facts: mergedFacts(before, next),
        folder,
      });
      followWhatWasHeard(before);
    },
    mergeEntries(changed, folder = get().folder) {
      const news = new Map(changed.map((entry) => [entry.id, entry]));
      const kept = get().entries.map((entry) => news.get(entry.id) ?? entry);
      for (const entry of kept) news.delete(entry.id);
      const before = get().facts;
      set({
        entries: changed.length === 0 ? get().entries : [...kept, ...news.values()],
        facts: mergedFacts(before, changed),
        folder,
      });
      followWhatWasHeard(before);
    },
    takeUpUnsent() {
      if (damage !== null) return;
      if (get().undoSteps.length === 0 && get().redoSteps.length === 0) set(undoNotes.left(confirmed));
      const left = unsent.left(confirmed);
      const kept = left.edits.filter((entry) => !pending.some((other) => other.editId === entry.editId));
      if (kept.length === 0) return;
      pending = [...kept, ...pending];
      basedOn = Math.min(left.basedOn ?? known, known);
      if (unsent.keep(pending, basedOn)) unsent.takeOver();
      set({ show: replay(confirmed, pending), saving: 'saving' });
      schedule(0);
    },
    pull: () => void send(),
    whenSaved() {
      if (pending.length === 0) return Promise.resolve(true);
      if (timer !== null) clearTimeout(timer);
      timer = null;
      const sent = send();
      return new Promise((resolve) => {
        const unsubscribe = store.subscribe((now) => {
          if (now.saving === 'saving') return;
          unsubscribe();
          resolve(now.saving === 'saved');
        });
        // Unplugged before already: nothing changes when it cannot be reached again.
        void sent.then(() => {
          if (store.getState().saving === 'offline') {
            unsubscribe();
            resolve(false);
          }
        });
      });
    },
    lost: () => set({ saving: 'offline' }),
    flushNow() {
      undoNotes.keep(get().undoSteps, get().redoSteps);
      if (pending.length > 0) void post(pending, true).catch(() => {});
    },
  }));
  return store;

  /**
   * Applies an edit here and puts it on its way.
   *
   * @param instead the last edit, when this one goes on with it and takes its place as long as it has not been sent
   * @returns the edit that undoes it, or null when it was refused
   */
  function perform(edit: ShowEdit, instead: ShowEdit | null = null): ShowEdit | null {
    if (damage !== null) {
      tell('This show is damaged and cannot be changed. Go on in a copy of it.');
      return null;
    }
    const result = applyEdit(store.getState().show, edit);
    if (!result.ok) {
      tell(result.sentence);
      return null;
    }
    const fresh = { editId: nanoid(16), edit };
    const waiting = pending.at(-1);
    if (waiting && waiting.edit === instead && !inFlight.has(waiting.editId))
      pending = [...pending.slice(0, -1), fresh];
    else pending = [...pending, fresh];
    keepUnsent();
    store.setState({
      show: result.show,
      saving: store.getState().saving === 'offline' ? 'offline' : 'saving',
      ...stillThere(result.show),
    });
    schedule(SEND_AFTER_MS);
    return result.inverse;
  }

  /** A song that somebody at work here laid under the show was listened to meanwhile: the pictures that follow the music do so now. */
  function followWhatWasHeard(before: ReadonlyMap<AssetId, AssetFacts>): void {
    const { show: now, facts, undoSteps, edit } = store.getState();
    if (!now.pace || undoSteps.length === 0 || facts === before) return;
    const heard = now.cues.some(({ assetId }) => {
      const [was, known] = [before.get(assetId), facts.get(assetId)];
      return isHeard(known) && !isHeard(was);
    });
    if (heard) edit({ kind: 'set-pace', pace: now.pace });
  }

  /** A timer that runs is left alone: a storm of edits must not put off saving. */
  function schedule(afterMs: number): void {
    if (timer !== null) return;
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
    const batch = pending.slice(0, mostEdits);
    inFlight = new Set(batch.map((entry) => entry.editId));
    try {
      const applied = await post(batch, false);
      if (applied.collided)
        tell(
          'Another window had changed the same thing. What you did stands; how the other left it is kept under Versions.',
        );
      if (applied.refused.length > 0)
        void keepOwn(
          applied.refused.map(({ editId, sentence }) => {
            const refused = batch.find((entry) => entry.editId === editId);
            return `Could not ${refused ? editSentence(refused.edit) : 'save a change'}. ${sentence}`;
          }),
        );
      confirmed = replay(confirmed, applied.since);
      known = applied.revision;
      mostEdits = Math.min(MOST_EDITS_A_REQUEST, 2 * mostEdits);
      basedOn = null;
      const sent = new Set(batch.map((entry) => entry.editId));
      pending = pending.filter((entry) => !sent.has(entry.editId));
      keepUnsent();
      // When only our own edits came back the show here is already right, and every slide keeps its identity.
      const onlyOurs = applied.refused.length === 0 && applied.since.every((entry) => sent.has(entry.editId));
      const next = onlyOurs ? store.getState().show : replay(confirmed, pending);
      store.setState({ show: next, saving: pending.length > 0 ? 'saving' : 'saved', ...stillThere(next) });
      if (pending.length > 0) again = true;
    } catch (error) {
      if (error instanceof ServerRefusal && error.status === 401) {
        // The page asks who one is; then it goes on.
        store.setState({ saving: 'offline' });
      } else if (error instanceof ServerRefusal && error.status === 404) {
        // It may come back on the shelf, and then wants what was done here.
        if (store.getState().saving !== 'offline')
          tell('This show was taken off the shelf. Bring it back there, and what you did here is saved.');
        store.setState({ saving: 'offline' });
        schedule(RETRY_MS);
      } else if (error instanceof ServerRefusal && error.status < 500) {
        if (batch.length > 1) {
          // One of them is the trouble; the others must not go with it.
          mostEdits = Math.ceil(batch.length / 2);
          again = true;
        } else {
          // The server will never take this one. It goes, so that later work can be saved; how this window had it is kept, and the person is told.
          void keepOwn([`Could not ${editSentence(batch[0]!.edit)}: ${error.message}`]);
          pending = pending.filter((entry) => entry.editId !== batch[0]!.editId);
          keepUnsent();
          const next = replay(confirmed, pending);
          store.setState({ show: next, saving: pending.length > 0 ? 'saving' : 'saved', ...stillThere(next) });
          if (pending.length > 0) again = true;
        }
      } else {
        store.setState({ saving: 'offline' });
        schedule(RETRY_MS);
      }
    } finally {
      sending = false;
      inFlight = new Set();
      if (again && timer === null) void send();
    }
  }

  function post(batch: readonly SentEdit[], keepalive: boolean): Promise<AppliedEdits> {
    return callServer<AppliedEdits>(
      'POST',
      `/api/v1/shows/${show.id}/edits`,
      { knownRevision: known, ...(basedOn !== null && { basedOn }), edits: batch },
      { keepalive },
    );
  }

  /**
   * Keeps the show as it is seen here as a version, before work that could not be joined with another window's goes, and tells both.
   *
   * @param sentences what could not be done
   */
  async function keepOwn(sentences: readonly string[]): Promise<void> {
    const content = contentOf(store.getState().show);
    const kept = await callServer('POST', `/api/v1/shows/${show.id}/versions`, {
      name: 'As this window had it',
      content,
    }).then(
      () => 'How this window had it is kept under Versions.',
      (error: unknown) =>
        `How this window had it could not be kept: ${error instanceof ServerRefusal ? error.message : 'the server cannot be reached.'}`,
    );
    for (const sentence of sentences) tell(`${sentence} ${kept}`);
  }

  function keepUnsent(): void {
    if (unsent.keep(pending, basedOn ?? known) || toldOfFullStorage) return;
    toldOfFullStorage = true;
    tell('This browser has no room to keep what is not saved yet. Leave the page open until it says “saved”.');
  }

  function stillThere(next: Show): Pick<ShowState, 'selection' | 'anchor'> {
    const { selection, anchor } = store.getState();
    const present = new Set(next.slides.map((slide) => slide.id));
    const kept = [...selection].filter((id) => present.has(id));
    return {
      selection: kept.length === selection.size ? selection : new Set(kept),
      anchor: anchor && present.has(anchor) ? anchor : null,
    };
  }
}

/** Whether two edits write to the very same places, so that the later one can take the earlier one's place. */
function sameTargets(one: ShowEdit, other: ShowEdit): boolean {
  return one.kind === other.kind && touched(one).join() === touched(other).join();
}

function replay(show: Show, edits: readonly SentEdit[]): Show {
  return edits.reduce((before, { edit }) => {
    const result = applyEdit(before, edit);
    return result.ok ? result.show : before;
  }, show);
}

/** A sheet that is the same keeps its identity, so that nothing is drawn again. */
function isSameSheet(before: readonly SheetEntry[], next: readonly SheetEntry[]): boolean {
  return (
    before.length === next.length &&
    before.every(({ id, state, rating }, index) => {
      const other = next[index]!;
      return id === other.id && state === other.state && rating === other.rating;
    })
  );
}

function factsOf(entries: readonly SheetEntry[]): ReadonlyMap<AssetId, AssetFacts> {
  return new Map(entries.flatMap((entry) => (entry.facts ? [[entry.assetId, entry.facts] as const] : [])));
}

/** What is known of a file only grows: what is heard in it comes later than the rest. The map keeps its identity when nothing is new, so that plans are not made again. */
function mergedFacts(
  before: ReadonlyMap<AssetId, AssetFacts>,
  entries: readonly SheetEntry[],
): ReadonlyMap<AssetId, AssetFacts> {
  const fresh = entries.filter(({ assetId, facts }) => {
    const known = before.get(assetId);
    return facts && (!known || foundLaterOf(facts) > foundLaterOf(known));
  });
  return fresh.length === 0
    ? before
    : new Map([...before, ...fresh.map((entry) => [entry.assetId, entry.facts!] as const)]);
}

const isHeard = (facts: AssetFacts | undefined) => facts?.kind !== 'picture' && facts?.listening !== undefined;

/** How much is known of what is found out some time after the rest: what a picture is about, what is heard. */
const foundLaterOf = (facts: AssetFacts | undefined): number =>
  [facts && facts.kind !== 'sound' && facts.focus, facts && facts.kind !== 'picture' && facts.listening].filter(Boolean)
    .length;
