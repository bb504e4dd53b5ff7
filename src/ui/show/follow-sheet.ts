import type { SheetEntry } from '../../server/assets/contact-sheet';
import type { FolderProgress } from '../../server/assets/folder-intake';

export interface WholeSheet {
  readonly entries: readonly SheetEntry[];
  readonly folder: FolderProgress | null;
}

export interface SheetFollower {
  /** Something on the sheet, or the folder that is coming in, is now this. */
  hear(news: { readonly entry: SheetEntry } | { readonly folder: FolderProgress | null }): void;
  /** Asks for the whole sheet. */
  askAnew(): void;
  close(): void;
}

/** What is heard is handed on a few times a second at most: five hundred files arrive in a burst. */
const EVERY_MS = 300;

/**
 * Keeps an open page's contact sheet in step with the server's: the whole once, then what changes.
 * What is heard while the whole is asked for is handed on after it, since the answer may be older.
 *
 * @param changed gets entries that came or changed, and the folder's progress when it did; undefined when not
 */
export function followSheet({
  ask,
  whole,
  changed,
}: {
  ask(): Promise<WholeSheet>;
  whole(sheet: WholeSheet): void;
  changed(entries: readonly SheetEntry[], folder: FolderProgress | null | undefined): void;
}): SheetFollower {
  let heard = new Map<string, SheetEntry>();
  let folder: FolderProgress | null | undefined;
  let asking = false;
  let askAgain = false;
  let closed = false;
  let timer: ReturnType<typeof setTimeout> | null = null;

  const handOn = () => {
    timer = null;
    if (closed || asking || (heard.size === 0 && folder === undefined)) return;
    const entries = [...heard.values()];
    const progress = folder;
    heard = new Map();
    folder = undefined;
    changed(entries, progress);
  };
  const askNow = async () => {
    asking = true;
    heard.clear();
    folder = undefined;
    // When it cannot be had now, it is asked for again once the connection is back.
    const answer = await ask().catch(() => null);
    asking = false;
    if (closed) return;
    if (answer) whole(answer);
    if (askAgain) {
      askAgain = false;
      void askNow();
    } else handOn();
  };
  return {
    hear(news) {
      if ('entry' in news) heard.set(news.entry.id, news.entry);
      else folder = news.folder;
      timer ??= setTimeout(handOn, EVERY_MS);
    },
    askAnew() {
      if (asking) askAgain = true;
      else void askNow();
    },
    close() {
      closed = true;
      if (timer) clearTimeout(timer);
    },
  };
}
