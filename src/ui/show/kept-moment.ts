'use client';

import { createContext, useContext } from 'react';
import { createStore, type StoreApi } from 'zustand';

/** The moment of the open show that people are at: every station and the room for watching begin there and leave it where they were. */
export interface KeptMoment {
  readonly momentMs: number;
  /** Which viewer it was left by; null when somebody asked to go there. */
  readonly by: object | null;
  /** Goes there: whichever viewer is open follows. */
  go(momentMs: number): void;
  /** A stretch that somebody asked to see played; another each time it is asked for. */
  readonly asked: { readonly fromMs: number; readonly untilMs: number } | null;
  /** Plays a stretch in whichever viewer is open. */
  play(fromMs: number, untilMs: number): void;
  /** Notes where a viewer stands, for the others. */
  leave(momentMs: number, by: object): void;
}

export function createKeptMoment(): StoreApi<KeptMoment> {
  return createStore<KeptMoment>((set) => ({
    momentMs: 0,
    by: null,
    asked: null,
    play: (fromMs, untilMs) => set({ asked: { fromMs, untilMs } }),
    go: (momentMs) => set({ momentMs, by: null }),
    leave: (momentMs, by) => set({ momentMs, by }),
  }));
}

export const KeptMomentContext = createContext<StoreApi<KeptMoment> | null>(null);

export function useKeptMoment(): StoreApi<KeptMoment> {
  const store = useContext(KeptMomentContext);
  if (!store) throw new Error('useKeptMoment needs a ShowProvider above it');
  return store;
}
