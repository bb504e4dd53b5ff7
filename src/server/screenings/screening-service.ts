import { eq } from 'drizzle-orm';
import type { Database } from '../database/open-database';
import { films } from '../database/schema';

/** What a stranger with the link may know of a film: nothing of its making, nor of the show and studio behind it. */
export interface Screening {
  readonly filmId: string;
  readonly title: string;
}

export interface ScreeningService {
  /** The screening behind a link; null when there is none, or its film is not ready. @param token the unguessable part of the link */
  find(token: string): Promise<Screening | null>;
}

export function createScreeningService(db: Database): ScreeningService {
  return {
    async find(token) {
      const [film] = await db
        .select({ filmId: films.id, title: films.title, state: films.state })
        .from(films)
        .where(eq(films.screeningToken, token));
      return film?.state === 'ready' ? { filmId: film.filmId, title: film.title } : null;
    },
  };
}
