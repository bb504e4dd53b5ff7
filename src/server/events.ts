import { EventEmitter } from 'node:events';
import type { ShowId } from '../core/show/ids';

/** What open pages of a show are told; each says only what to ask for anew. */
export type ShowEvent =
  | { readonly kind: 'edits'; readonly revision: number }
  | { readonly kind: 'sheet' }
  | { readonly kind: 'films' };

export interface Events {
  tell(show: ShowId, event: ShowEvent): void;
  /** @returns stops listening */
  listen(show: ShowId, hear: (event: ShowEvent) => void): () => void;
}

export function createEvents(): Events {
  const emitter = new EventEmitter();
  emitter.setMaxListeners(0);
  return {
    tell: (show, event) => void emitter.emit(show, event),
    listen(show, hear) {
      emitter.on(show, hear);
      return () => void emitter.off(show, hear);
    },
  };
}
