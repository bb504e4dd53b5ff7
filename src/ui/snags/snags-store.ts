import { createStore, type StoreApi } from 'zustand';
import type { FactsById } from '../../core/show/asset-facts';
import type { LayerId, ShowId, SlideId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { Snag, SnagFix, SnagLook } from '../../core/snags/snag';
import { changeOf } from '../viewer/show-change';
import type { FromChecker, ToChecker } from './check-messages';

interface SnagsState {
  /** Those that are left as they are among them. */
  readonly snags: readonly Snag[];
  /** Slides that were drawn and looked at, of all; null until the first answer. */
  readonly measured: { readonly done: number; readonly of: number } | null;
}

/** Looks a show over in a worker and keeps what it finds. */
export interface SnagsStore extends StoreApi<SnagsState> {
  /** The show as it is now. */
  follow(show: Show, facts: FactsById): void;
  around(files: SnagLook['files'], films: SnagLook['films']): void;
  rest(rest: boolean): void;
  /** Rejects, with a sentence, when trying failed. */
  fixesOf(key: string): Promise<readonly SnagFix[]>;
  /** The edit that lets words of a slide read best; null when nothing is better than what is there. */
  whatReadsBest(slideId: SlideId, layerId: LayerId): Promise<SnagFix | null>;
  close(): void;
}

/** Who edits sees the edit first. */
const FOLLOWS_AFTER_MS = 150;

export function createSnagsStore(showId: ShowId): SnagsStore {
  const store = createStore<SnagsState>(() => ({ snags: [], measured: null }));
  const worker = new Worker(`/drawing/check-worker.js?show=${showId}`, { type: 'module' });
  let waiting: ToChecker[] | null = [];
  let sent: { readonly show: Show; readonly facts: FactsById } | null = null;
  let next: { readonly show: Show; readonly facts: FactsById } | null = null;
  let following: ReturnType<typeof setTimeout> | null = null;
  let counted = 0;
  const asked = new Map<number, (fixes: readonly SnagFix[] | null) => void>();
  const post = (message: ToChecker) => {
    // A worker loses what is sent before its modules are loaded.
    if (waiting) waiting.push(message);
    else worker.postMessage(message);
  };
  const send = () => {
    if (following) clearTimeout(following);
    following = null;
    if (!next || (sent?.show === next.show && sent.facts === next.facts)) return;
    const { show, facts } = next;
    if (!sent) post({ kind: 'show', show, facts });
    else {
      const { facts: known, show: before } = sent;
      post({
        kind: 'change',
        change: changeOf(before, show),
        facts: new Map([...facts].filter(([id, one]) => known.get(id) !== one)),
      });
    }
    sent = next;
  };
  const ask = (message: (id: number) => ToChecker): Promise<readonly SnagFix[]> =>
    new Promise((resolve, reject) => {
      // What is asked is asked of the show as it is.
      send();
      counted += 1;
      asked.set(counted, (fixes) =>
        fixes ? resolve(fixes) : reject(new Error('What would help could not be tried. See to it by hand.')),
      );
      post(message(counted));
    });
  worker.onmessage = ({ data }: MessageEvent<FromChecker>) => {
    if (data.kind === 'ready') {
      const queued = waiting ?? [];
      waiting = null;
      for (const message of queued) worker.postMessage(message);
    }
    if (data.kind === 'found')
      store.setState({ snags: data.snags, measured: { done: data.measured, of: data.slideCount } });
    if (data.kind === 'fixes') {
      asked.get(data.id)?.(data.fixes);
      asked.delete(data.id);
    }
  };
  return Object.assign(store, {
    follow(show: Show, facts: FactsById) {
      next = { show, facts };
      following ??= setTimeout(send, FOLLOWS_AFTER_MS);
    },
    around: (files: SnagLook['files'], films: SnagLook['films']) => post({ kind: 'around', files, films }),
    rest: (rest: boolean) => post({ kind: 'rest', rest }),
    fixesOf: (key: string) => ask((id) => ({ kind: 'fixes', id, key })),
    whatReadsBest: (slideId: SlideId, layerId: LayerId) =>
      ask((id) => ({ kind: 'best', id, slideId, layerId })).then(([best]) => best ?? null),
    close() {
      if (following) clearTimeout(following);
      worker.terminate();
      for (const answer of asked.values()) answer([]);
    },
  });
}
