import { raiseEdit } from '../../core/show/format/raise';
import { FORMAT_VERSION } from '../../core/show/format/version';
import type { Show } from '../../core/show/show';
import type { SentEdit } from '../../server/shows/show-service';

/** Edits of one window that the server has not confirmed, kept in the browser so that a closed or crashed page loses nothing. */
export interface Unsent {
  /** False when the browser has no room for them. */
  keep(edits: readonly SentEdit[], basedOn: number): boolean;
  /** What windows that are gone left behind, oldest window first. Handing it to the server twice does no harm: every edit has an id. */
  left(show: Show): Left;
  /** Forgets what other windows left, once it is among this one's own; what a newer version left stays for that. */
  takeOver(): void;
}

export interface Left {
  readonly edits: readonly SentEdit[];
  /** The oldest revision of the show that any of them was made on; null when there are none. */
  readonly basedOn: number | null;
}

type Store = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;

/** @param windowId every window writes under a key of its own: two windows of one show must not wipe out each other's notes */
export function createUnsent(showId: string, windowId: string, storage: Store | null): Unsent {
  const prefix = `tanager-unsent-${showId}-`;
  const own = `${prefix}${windowId}`;
  const others = () =>
    storage
      ? Array.from({ length: storage.length }, (_, index) => storage.key(index)!)
          .filter((key) => key.startsWith(prefix) && key !== own)
          .sort()
      : [];
  return {
    keep(edits, basedOn) {
      try {
        if (edits.length === 0) storage?.removeItem(own);
        else storage?.setItem(own, JSON.stringify({ version: FORMAT_VERSION, edits, basedOn }));
        return true;
      } catch {
        // The browser's room is full; the caller says so.
        return false;
      }
    },
    left(show) {
      const notes = others()
        .map((key) => read(storage!.getItem(key), show))
        .filter((note) => note.edits.length > 0);
      return {
        edits: notes.flatMap((note) => note.edits),
        basedOn: notes.length === 0 ? null : Math.min(...notes.map((note) => note.basedOn ?? 0)),
      };
    },
    takeOver() {
      for (const key of others()) if (!isNewer(storage!.getItem(key))) storage!.removeItem(key);
    },
  };
}

/** Notes of an earlier version are brought up to today’s; those of a newer one wait for it. */
function read(text: string | null, show: Show): Left {
  try {
    const kept = JSON.parse(text ?? 'null') as (Partial<Left> & { readonly version?: number }) | null;
    if (Array.isArray(kept?.edits) && typeof kept.basedOn === 'number')
      return {
        edits: kept.edits.map(({ editId, edit }) => ({ editId, edit: raiseEdit(edit, kept.version ?? 1, show) })),
        basedOn: kept.basedOn,
      };
  } catch {
    // A broken note is of no use to anybody.
  }
  return { edits: [], basedOn: null };
}

function isNewer(text: string | null): boolean {
  try {
    const kept = JSON.parse(text ?? 'null') as { readonly version?: number } | null;
    return (kept?.version ?? 1) > FORMAT_VERSION;
  } catch {
    return false;
  }
}
