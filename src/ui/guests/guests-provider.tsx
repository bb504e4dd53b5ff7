'use client';

import { createContext, useContext, useMemo, type ReactNode } from 'react';
import { placesOfNotes, type KeptNote, type NotePlaces } from '../../core/screening/guest-note';
import type { SlideId } from '../../core/show/ids';
import { useIsGuest } from '../people/me';
import { useAnswer } from '../show/use-answer';
import { useShow } from '../show/show-provider';

interface Guests {
  /** Of all of the show’s screenings; null until the first answer. */
  readonly notes: readonly KeptNote[] | null;
  refresh(): Promise<void>;
}

const GuestsContext = createContext<Guests>({ notes: null, refresh: async () => {} });

/** What viewers wrote at the show’s screenings, asked for anew whenever the server tells that something came. */
export function GuestsProvider({ children }: { children: ReactNode }) {
  const showId = useShow((state) => state.show.id);
  const isGuest = useIsGuest();
  // The header says when the server cannot be reached.
  const { answer, refresh } = useAnswer<{ notes: KeptNote[] }>(isGuest ? null : `/api/v1/shows/${showId}/notes`, {
    hears: 'tanager-notes',
    quiet: true,
  });
  const notes = answer?.notes ?? null;
  const guests = useMemo(() => ({ notes, refresh }), [notes, refresh]);
  return <GuestsContext value={guests}>{children}</GuestsContext>;
}

export const useGuests = (): Guests => useContext(GuestsContext);

/** What was written at a slide, and what stands after it since its own slide is gone. */
export interface RowOfNotes {
  readonly here: readonly KeptNote[];
  readonly gone: readonly KeptNote[];
}

/** Notes by the slide they stand at; those at the beginning of a show whose first slides are gone stand at its first. Hidden ones are not among them. */
export function useNotesBySlide(slides: readonly { readonly id: SlideId }[]): ReadonlyMap<SlideId, RowOfNotes> {
  const { notes } = useGuests();
  return useMemo(() => {
    const shown = (notes ?? []).filter(({ state }) => state !== 'hidden');
    return rowsOf(slides, placesOfNotes(slides, shown));
  }, [notes, slides]);
}

function rowsOf(slides: readonly { readonly id: SlideId }[], { on, after }: NotePlaces) {
  const rows = new Map<SlideId, RowOfNotes>();
  slides.forEach(({ id }, index) => {
    const here = on.get(id) ?? [];
    const gone = [...(index === 0 ? (after.get(null) ?? []) : []), ...(after.get(id) ?? [])];
    if (here.length + gone.length > 0) rows.set(id, { here, gone });
  });
  return rows;
}
