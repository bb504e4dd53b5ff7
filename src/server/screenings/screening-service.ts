import { eq } from 'drizzle-orm';
import { asVtt } from '../../core/captions/caption-files';
import { captionLanguages, captionsOfShow } from '../../core/captions/show-captions';
import { assetIdsOf, type Show } from '../../core/show/show';
import type { ContactSheet } from '../assets/contact-sheet';
import type { Database } from '../database/open-database';
import { filmDocuments, films } from '../database/schema';
import { parseStoredShow } from '../schema/show-schema';

/** What a stranger with the link may know of a film: nothing of its making, nor of the show and studio behind it. */
export interface Screening {
  readonly filmId: string;
  readonly title: string;
  /** In which there are captions beside the picture; none when they are part of it. */
  readonly languages: readonly string[];
}

export interface ScreeningService {
  /** The screening behind a link; null when there is none, or its film is not ready. @param token the unguessable part of the link */
  find(token: string): Promise<Screening | null>;
  /** WebVTT; null when there are none. */
  captions(token: string, language: string): Promise<string | null>;
}

export function createScreeningService(db: Database, sheet: Pick<ContactSheet, 'factsOf'>): ScreeningService {
  return {
    async find(token) {
      const film = await ready(token);
      if (!film) return null;
      const show = await documentOf(film.filmId);
      return { ...film, languages: show && !show.captionLook ? captionLanguages(show) : [] };
    },
    async captions(token, language) {
      const film = await ready(token);
      const show = film && (await documentOf(film.filmId));
      if (!show) return null;
      const facts = await sheet.factsOf(assetIdsOf(show), show.methods);
      const captions = captionsOfShow(show, facts, language);
      return captions.length === 0 ? null : asVtt(captions, language);
    },
  };

  async function ready(token: string): Promise<Pick<Screening, 'filmId' | 'title'> | null> {
    const [film] = await db
      .select({ filmId: films.id, title: films.title, state: films.state })
      .from(films)
      .where(eq(films.screeningToken, token));
    return film?.state === 'ready' ? { filmId: film.filmId, title: film.title } : null;
  }

  /** The show as it was when the film was ordered; null when it cannot be read any more. */
  async function documentOf(filmId: string): Promise<Show | null> {
    const [kept] = await db.select().from(filmDocuments).where(eq(filmDocuments.filmId, filmId));
    const parsed = parseStoredShow(kept?.document);
    return parsed.ok ? parsed.value : null;
  }
}
