'use client';

import type { FilmRow } from '../../server/films/film-row';
import type { ScreeningRow } from '../../server/screenings/screening-service';
import { useIsGuest } from '../people/me';
import { useAnswer } from '../show/use-answer';

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
  // What is sent is the studio’s own business: guests are not told, and do not ask.
  const isGuest = useIsGuest();
  const { answer, refresh } = useAnswer<Record<Name, Lists[Name][]>>(
    isGuest ? null : `/api/v1/shows/${showId}/${name}`,
    { hears: 'tanager-films focus' },
  );
  return { rows: answer && answer[name], refresh };
}
