'use client';

import { createContext, useContext, useEffect, useMemo, useState, type ReactNode } from 'react';
import { useStore } from 'zustand';
import type { AssetId, SlideId } from '../../core/show/ids';
import { kindOf } from '../../core/snags/look-over';
import type { LookedOverFile, Snag } from '../../core/snags/snag';
import { slideIndexAt, type SlideSpan } from '../../core/timing/slide-span';
import type { FilmRow } from '../../server/films/film-row';
import { usePrepared, useShow } from '../show/show-provider';
import { hearPlaying } from '../viewer/playing-now';
import { useFilms } from '../send/use-films';
import { hearHands } from './busy-hands';
import { createSnagsStore, type SnagsStore } from './snags-store';

const SnagsContext = createContext<SnagsStore | null>(null);

/** The page is drawn first. */
const BEGIN_AFTER_MS = 1500;

/** Has the open show looked over in the background, from a while after it was opened on. */
export function SnagsProvider({ children }: { children: ReactNode }) {
  const showId = useShow((state) => state.show.id);
  const [store, setStore] = useState<SnagsStore | null>(null);
  useEffect(() => {
    let opened: SnagsStore | null = null;
    let ended = () => {};
    const timer = setTimeout(() => {
      opened = createSnagsStore(showId);
      const mine = opened;
      const why = { plays: false, hands: false };
      const rests = (reason: Partial<typeof why>) => {
        Object.assign(why, reason);
        mine.rest(why.plays || why.hands);
      };
      const ends = [
        hearPlaying((plays) => rests({ plays })),
        // What is looked over must cost those who work nothing.
        hearHands(window, (hands) => rests({ hands })),
      ];
      ended = () => ends.forEach((end) => end());
      setStore(opened);
    }, BEGIN_AFTER_MS);
    return () => {
      clearTimeout(timer);
      ended();
      opened?.close();
      setStore(null);
    };
  }, [showId]);
  return (
    <SnagsContext value={store}>
      {store && <Feeding store={store} />}
      {children}
    </SnagsContext>
  );
}

/** Tells the worker what the show has become. */
function Feeding({ store }: { store: SnagsStore }) {
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts);
  const entries = useShow((state) => state.entries);
  const films = useFilms(show.id).rows ?? NO_FILMS;
  useEffect(() => store.follow(show, facts), [store, show, facts]);
  const files = useMemo(
    () =>
      new Map(
        entries.map((entry): [AssetId, LookedOverFile] => [
          entry.assetId,
          {
            name: entry.fileName,
            state: entry.state === 'refused' ? 'missing' : entry.state === 'arrived' ? 'coming' : 'ready',
            madeHere: entry.made !== null,
          },
        ]),
      ),
    [entries],
  );
  useEffect(
    () =>
      store.around(
        files,
        films.map(({ spec }) => ({
          shape: spec.shape,
          purpose: spec.purpose,
          ...(spec.mostBytes !== undefined && { mostBytes: spec.mostBytes }),
        })),
      ),
    [store, files, films],
  );
  return null;
}

const NO_FILMS: readonly FilmRow[] = [];

export function useSnagsStore(): SnagsStore | null {
  return useContext(SnagsContext);
}

const NOTHING: readonly Snag[] = [];

/** What was found, without what a person left as it is; empty until something is. */
export function useSnags(): {
  readonly open: readonly Snag[];
  readonly left: readonly Snag[];
  readonly isLooking: boolean;
} {
  const store = useSnagsStore();
  const found = useFound(store);
  const letBe = useShow((state) => state.show.letBe);
  return useMemo(() => {
    const isLeft = ({ key }: Snag) => letBe !== undefined && Object.hasOwn(letBe, key);
    return {
      open: found.snags.filter((snag) => !isLeft(snag)),
      left: found.snags.filter(isLeft),
      isLooking: found.measured === null || found.measured.done < found.measured.of,
    };
  }, [found, letBe]);
}

const NO_STORE = { snags: NOTHING, measured: null };

function useFound(store: SnagsStore | null) {
  const [empty] = useState(() => ({
    getState: () => NO_STORE,
    getInitialState: () => NO_STORE,
    subscribe: () => () => {},
  }));
  return useStore(store ?? empty);
}

/** The snags of each slide. */
export function useSnagsBySlide(): ReadonlyMap<SlideId, readonly Snag[]> {
  const { open } = useSnags();
  const { spans } = usePrepared();
  return useMemo(() => {
    const bySlide = new Map<SlideId, Snag[]>();
    for (const snag of open) {
      const id = snag.slideId ?? heardOn(snag, spans);
      if (id !== null) bySlide.set(id, [...(bySlide.get(id) ?? []), snag]);
    }
    return bySlide;
  }, [open, spans]);
}

/** The slide over which a snag of the music is heard; null for what is of the show as a whole. */
function heardOn({ kind, fromMs, toMs }: Snag, spans: readonly SlideSpan[]): SlideId | null {
  if (kindOf(kind).place !== 'sound' || kind === 'no-licence') return null;
  const index = slideIndexAt(spans, (fromMs + toMs) / 2);
  return index === null ? null : spans[index]!.slideId;
}

/** How far looking over is; null when it has not begun. */
export function useMeasured() {
  return useFound(useSnagsStore()).measured;
}
