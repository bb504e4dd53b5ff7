import { EventEmitter } from 'node:events';
import type { ShowId } from '../core/show/ids';
import type { SheetEntry } from './assets/contact-sheet';
import type { FolderProgress } from './assets/folder-intake';

/** What open pages of a show are told: what to ask for anew, or, of what comes by the hundred, what it is now. */
export type ShowEvent =
  | { readonly kind: 'edits'; readonly revision: number }
  /** First of all, once for each page that listens: by these counts it knows whether its sheet is still right. */
  | { readonly kind: 'hello'; readonly entryCount: number; readonly waitingCount: number }
  | { readonly kind: 'sheet' }
  | { readonly kind: 'entry'; readonly entry: SheetEntry }
  | { readonly kind: 'folder'; readonly folder: FolderProgress | null }
  /** Something was written into the guest book, or done about it. */
  | { readonly kind: 'notes' }
  /** A client marked pictures of a proof, or sent the choice. */
  | { readonly kind: 'proofs' }
  /** Something that was handed over is further, there, or not taken. */
  | { readonly kind: 'publications' }
  /** Films are further, more or fewer than they were; one of them may have ended, whichever way. */
  | { readonly kind: 'films'; readonly ended?: EndedFilm };

export interface EndedFilm {
  readonly id: string;
  /** What it was for. */
  readonly purpose: string;
  readonly ready: boolean;
}

export interface Events {
  tell(show: ShowId, event: ShowEvent): void;
  /** @returns stops listening */
  listenToAll(hear: (show: ShowId, event: ShowEvent) => void): () => void;
  /** @returns stops listening */
  listen(show: ShowId, hear: (event: ShowEvent) => void): () => void;
}

/** No show is called so. */
const ALL = Symbol('all shows');

export function createEvents(): Events {
  const emitter = new EventEmitter();
  emitter.setMaxListeners(0);
  return {
    tell(show, event) {
      emitter.emit(show, event);
      emitter.emit(ALL, show, event);
    },
    listenToAll(hear) {
      emitter.on(ALL, hear);
      return () => void emitter.off(ALL, hear);
    },
    listen(show, hear) {
      emitter.on(show, hear);
      return () => void emitter.off(show, hear);
    },
  };
}
