'use client';

import { createContext, useContext } from 'react';
import { createStore, useStore, type StoreApi } from 'zustand';
import type { Values } from '../../core/layers/column-keys';
import type { LayerId } from '../../core/show/ids';

/** What hands on the stage do: place, size and turn; tilt in space; crop. */
export type Tool = 'place' | 'tilt' | 'crop';
export const TOOLS: readonly Tool[] = ['place', 'tilt', 'crop'];

/** A key that is chosen: its column and its moment, which stays the same while others change. */
export interface ChosenKey {
  readonly layerId: LayerId;
  readonly columnId: string;
  readonly ms: number;
}

/** What the next click on a layer is for. */
export type Asking = { readonly for: 'leader' | 'cut'; readonly layerId: LayerId } | null;

/** What is chosen and held on the wide bench; gone when it is folded. */
interface WideState {
  /** Offset from the slide's start. */
  readonly offsetMs: number;
  readonly playing: boolean;
  readonly chosen: ReadonlySet<LayerId>;
  readonly anchor: LayerId | null;
  readonly tool: Tool;
  readonly key: ChosenKey | null;
  readonly asking: Asking;
  /** A mask that is looked at by itself. */
  readonly maskSeen: LayerId | null;
  /** Values of a key that was copied. */
  readonly copied: Values | null;
  readonly unit: 'shares' | 'pixels';
  /** Whether both sides of a box change together. */
  readonly linked: boolean;
  /** Whether guides catch. */
  readonly guided: boolean;
  /** Goes to an offset; what the stage does. */
  seek(offsetMs: number): void;
  /** Plays the slide, or stops. */
  toggle(): void;
  choose(ids: readonly LayerId[], anchor: LayerId | null): void;
  set(part: Partial<Omit<WideState, 'choose' | 'set'>>): void;
}

export type WideStore = StoreApi<WideState>;

export function createWideStore(offsetMs: number, chosen: readonly LayerId[]): WideStore {
  return createStore<WideState>((set) => ({
    offsetMs,
    playing: false,
    chosen: new Set(chosen),
    anchor: chosen[0] ?? null,
    tool: 'place',
    key: null,
    asking: null,
    maskSeen: null,
    copied: null,
    unit: 'shares',
    linked: true,
    guided: true,
    seek: () => undefined,
    toggle: () => undefined,
    choose: (ids, anchor) => set({ chosen: new Set(ids), anchor, key: null }),
    set: (part) => set(part),
  }));
}

export const WideContext = createContext<WideStore | null>(null);

export function useWideStore(): WideStore {
  const store = useContext(WideContext);
  if (!store) throw new Error('useWideStore needs a wide bench above it');
  return store;
}

export function useWide<Value>(pick: (state: WideState) => Value): Value {
  return useStore(useWideStore(), pick);
}
