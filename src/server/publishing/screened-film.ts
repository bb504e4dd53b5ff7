import { and, eq } from 'drizzle-orm';
import { isOpenAt } from '../../core/screening/screening-settings';
import type { Database } from '../database/open-database';
import { films, screeningFilms, screenings } from '../database/schema';
import { filmRow, type FilmRow } from '../films/film-row';

/** A screening a link of which leads somewhere, with what it shows. */
export interface ScreenedFilm {
  readonly screening: typeof screenings.$inferSelect;
  readonly film: FilmRow;
  readonly title: string;
}

/** A screening of a show and its film; a sentence when a link to it would lead nowhere. */
export async function screenedFilm(
  db: Database,
  show: string,
  id: string,
  now: number,
): Promise<ScreenedFilm | string> {
  const [screening] = await db
    .select()
    .from(screenings)
    .where(and(eq(screenings.id, id), eq(screenings.showId, show)));
  if (!screening || !isOpenAt(screening, now)) return 'This screening is not open: a link to it leads nowhere.';
  const [shown] = await db
    .select({ film: films })
    .from(screeningFilms)
    .innerJoin(films, eq(films.id, screeningFilms.filmId))
    .where(and(eq(screeningFilms.screeningId, id), eq(films.state, 'ready')));
  if (!shown) return 'Its film was removed: this screening shows nothing.';
  const film = filmRow(shown.film, null);
  return { screening, film, title: screening.title ?? film.title };
}
