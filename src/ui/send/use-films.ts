'use client';

import { useCallback, useEffect, useState } from 'react';
import { toast } from 'sonner';
import type { FilmRow } from '../../server/films/film-row';
import type { ScreeningRow } from '../../server/screenings/screening-service';
import { callServer } from '../show/call-server';

/** Says what went wrong, in the server’s own words where it gave some. */
export function told(error: unknown): void {
  toast(error instanceof Error ? error.message : 'The server cannot be reached.');
}

interface Lists {
  readonly films: FilmRow;
  readonly screenings: ScreeningRow;
}

interface Listed<Row> {
  /** Null until the first answer. */
  readonly rows: readonly Row[] | null;
  refresh(): Promise<void>;
}

/** The films of a show. */
export const useFilms = (showId: string): Listed<FilmRow> => useListed('films', showId);

/** The screenings of a show, with how often each was watched. */
export const useScreenings = (showId: string): Listed<ScreeningRow> => useListed('screenings', showId);

/** A list of the show’s, asked for anew whenever the server tells that something about its films has changed, and when the window is looked at again. */
function useListed<Name extends keyof Lists>(name: Name, showId: string): Listed<Lists[Name]> {
  const [rows, setRows] = useState<readonly Lists[Name][] | null>(null);
  const refresh = useCallback(
    () =>
      callServer<Record<Name, Lists[Name][]>>('GET', `/api/v1/shows/${showId}/${name}`).then(
        (answer) => setRows(answer[name]),
        told,
      ),
    [name, showId],
  );
  useEffect(() => {
    // The first list comes from the server, as every later one does.
    void refresh();
    const hear = () => void refresh();
    window.addEventListener('tanager-films', hear);
    window.addEventListener('focus', hear);
    return () => {
      window.removeEventListener('tanager-films', hear);
      window.removeEventListener('focus', hear);
    };
  }, [refresh]);
  return { rows, refresh };
}
