import { eq } from 'drizzle-orm';
import { asVtt } from '../../core/captions/caption-files';
import { captionLanguages } from '../../core/captions/show-captions';
import { filmCaptions } from '../../core/film/film-captions';
import { showForFilm } from '../../core/film/film-spec';
import { formatOf } from '../../core/film/film-formats';
import { assetIdsOf, type Show } from '../../core/show/show';
import { momentSeen } from '../../core/timing/frames';
import type { ContactSheet } from '../assets/contact-sheet';
import type { Database } from '../database/open-database';
import { filmDocuments, films } from '../database/schema';
import { filmRow, type FilmRow } from '../films/film-row';
import { parseStoredShow } from '../schema/show-schema';

/** What a stranger with the link may know of a film: nothing of its making, nor of the show and studio behind it. */
export interface Screening {
  /** The file behind it. */
  readonly film: Pick<FilmRow, 'id' | 'spec' | 'lengthMs'>;
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
      const show = await documentOf(film.film.id);
      return { ...film, languages: show && !show.captionLook ? captionLanguages(show) : [] };
    },
    async captions(token, language) {
      const film = await ready(token);
      const show = film && (await documentOf(film.film.id));
      if (!film || !show) return null;
      const facts = await sheet.factsOf(assetIdsOf(show), show.methods);
      const { spec, lengthMs } = film.film;
      const fromMs = spec.span ? momentSeen(spec.span.fromMs, spec.rate) : 0;
      const captions = filmCaptions(showForFilm(show, spec), facts, language, fromMs, fromMs + lengthMs);
      return captions.length === 0 ? null : asVtt(captions, language);
    },
  };

  async function ready(token: string): Promise<Pick<Screening, 'film' | 'title'> | null> {
    const [film] = await db.select().from(films).where(eq(films.screeningToken, token));
    if (film?.state !== 'ready') return null;
    const { id, spec, lengthMs } = filmRow(film, null);
    // What browsers do not play is taken home.
    return formatOf(spec.format).plays ? { film: { id, spec, lengthMs }, title: film.title } : null;
  }

  /** The show as it was when the film was ordered; null when it cannot be read any more. */
  async function documentOf(filmId: string): Promise<Show | null> {
    const [kept] = await db.select().from(filmDocuments).where(eq(filmDocuments.filmId, filmId));
    const parsed = parseStoredShow(kept?.document);
    return parsed.ok ? parsed.value : null;
  }
}
