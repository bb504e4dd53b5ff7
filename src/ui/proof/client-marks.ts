import { createStore } from 'zustand/vanilla';
import type { ClientMark } from '../../core/proof/proof';
import type { Mark } from '../../core/show/mark';
import { ServerRefusal } from '../show/call-server';

export interface MarkSaid {
  readonly mark: Mark | null;
  readonly note: string;
}

export interface ClientMarks {
  readonly said: ReadonlyMap<string, MarkSaid>;
  /** `kept`: it is safe at the studio; `unsent`: it is not, and is tried again. */
  readonly state: 'kept' | 'sending' | 'unsent';
  /** Why the studio takes nothing more; null as long as it does. */
  readonly refusal: string | null;
  say(id: string, change: Partial<MarkSaid>): void;
  /** Once all of it is at the studio. @returns whether it is */
  settled(): Promise<boolean>;
}

const NOTHING: MarkSaid = { mark: null, note: '' };
const RETRY_MS = 2000;
const OVER = 'The time to choose is over. What you marked before has reached the studio; the last mark has not.';

/**
 * What a client says of pictures: seen at once, sent one after the other, the latest of each picture only, and tried again for as long as the page is open.
 *
 * @param send one picture’s mark
 */
export function createClientMarks(
  first: readonly ClientMark[],
  send: (id: string, said: MarkSaid) => Promise<unknown>,
  rest: (ms: number) => Promise<unknown> = (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
) {
  const waiting = new Map<string, MarkSaid>();
  let going: Promise<void> | null = null;

  const store = createStore<ClientMarks>((set, get) => ({
    said: new Map(first.map(({ assetId, mark, note }) => [assetId, { mark, note }])),
    state: 'kept',
    refusal: null,
    say(id, change) {
      if (get().refusal !== null) return;
      const next = { ...(get().said.get(id) ?? NOTHING), ...change };
      waiting.set(id, next);
      set({ said: new Map(get().said).set(id, next), state: get().state === 'unsent' ? 'unsent' : 'sending' });
      go();
    },
    async settled() {
      while (going) await going;
      return get().state === 'kept' && get().refusal === null;
    },
  }));
  return store;

  function go(): void {
    going ??= sendAll().finally(() => {
      going = null;
    });
  }

  async function sendAll(): Promise<void> {
    for (let [next] = waiting; next; [next] = waiting) {
      const [id, said] = next;
      try {
        await send(id, said);
        // Unless something else was said meanwhile.
        if (waiting.get(id) === said) waiting.delete(id);
        store.setState({ state: waiting.size > 0 ? 'sending' : 'kept' });
      } catch (error) {
        if (error instanceof ServerRefusal && [404, 409, 422].includes(error.status)) {
          waiting.clear();
          store.setState({ state: 'unsent', refusal: error.status === 404 ? OVER : error.message });
          return;
        }
        store.setState({ state: 'unsent' });
        await rest(RETRY_MS);
      }
    }
  }
}
