'use client';

import { useCallback, useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { FilmRow } from '../../server/films/film-row';
import { callServer } from '../show/call-server';

/** Says what went wrong, in the server’s own words where it gave some. */
export function told(error: unknown): void {
  toast(error instanceof Error ? error.message : 'The server cannot be reached.');
}

/** The films of a show, asked for anew whenever the server tells that something about them has changed. Null until the first answer. */
export function useFilms(showId: string): { readonly films: readonly FilmRow[] | null; refresh(): Promise<void> } {
  const [films, setFilms] = useState<readonly FilmRow[] | null>(null);
  const refresh = useCallback(
    () =>
      callServer<{ films: FilmRow[] }>('GET', `/api/v1/shows/${showId}/films`).then(
        (answer) => setFilms(answer.films),
        told,
      ),
    [showId],
  );
  useEffect(() => {
    // The first list comes from the server, as every later one does.
    void refresh();
    const hear = () => void refresh();
    window.addEventListener('tanager-films', hear);
    return () => window.removeEventListener('tanager-films', hear);
  }, [refresh]);
  return { films, refresh };
}
