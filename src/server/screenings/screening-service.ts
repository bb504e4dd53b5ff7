import { and, desc, eq, inArray } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { asVtt } from '../../core/captions/caption-files';
import { captionLanguages } from '../../core/captions/show-captions';
import { filmChapters, type FilmChapter } from '../../core/film/chapters';
import { filmCaptions } from '../../core/film/film-captions';
import { formatOf } from '../../core/film/film-formats';
import { showForFilm } from '../../core/film/film-spec';
import { prepareShow } from '../../core/frame/plan-frame';
import { isSameFilm } from '../../core/screening/shown-film';
import type { ScreeningChange, ScreeningSettings } from '../../core/screening/screening-settings';
import { showId, type ShowId } from '../../core/show/ids';
import { assetIdsOf, type Show } from '../../core/show/show';
import { momentSeen } from '../../core/timing/frames';
import type { ContactSheet } from '../assets/contact-sheet';
import type { OpenDatabase } from '../database/open-database';
import {
  filmDocuments,
  films,
  guestNotes,
  screeningFilms,
  screeningPasses,
  screenings,
  viewings,
} from '../database/schema';
import type { Events } from '../events';
import { filmRow, type FilmRow } from '../films/film-row';
import { parseStoredShow } from '../schema/show-schema';
import { createGuestBook, slideThen, type GuestBook, type SlideThen } from './guest-book';
import { doorOf, hashed, passFor, type Door } from './passes';
import { createViewings, type Viewings } from './viewings';

export const NO_SCREENING = 'There is no such screening.';
export const NOT_SCREENED =
  'Only finished films that browsers play can be screened; several must be of one shape and one length.';

/** A film at a screening. */
export type ScreenedFilm = Pick<FilmRow, 'id' | 'title' | 'spec' | 'lengthMs' | 'byteCount'>;

/** What whoever may watch may know: nothing of the film’s making, nor of the show behind it. */
export interface Screening {
  readonly id: string;
  readonly studioId: string;
  readonly show: ShowId;
  readonly title: string;
  /** The finest first; never none. */
  readonly films: readonly ScreenedFilm[];
  readonly settings: Pick<ScreeningSettings, 'mayTake' | 'guestBook' | 'counts' | 'call'>;
}

/** What its page says beside the film: it takes reading the show it was made of. */
export interface Programme {
  readonly chapters: readonly FilmChapter[];
  /** In which there are captions beside the picture; none when they are part of it. */
  readonly languages: readonly string[];
}

/** A screening as the studio sees it. */
export interface ScreeningRow extends ScreeningSettings {
  readonly id: string;
  readonly token: string;
  readonly films: readonly string[];
  readonly asksPassword: boolean;
  readonly createdAt: number;
  readonly viewings: number;
}

export interface ScreeningService {
  readonly book: GuestBook;
  readonly viewings: Viewings;
  door(token: string, pass: string | null): Promise<Door>;
  /** @returns a pass to keep in the browser; null for a wrong password */
  enter(token: string, password: string): Promise<string | null>;
  /** The screening behind a link; null when there is none that could be watched. It does not ask who watches: `mayDo` does. */
  find(token: string): Promise<Screening | null>;
  programme(screening: Screening): Promise<Programme>;
  /** WebVTT; null when there are none. */
  captions(token: string, language: string): Promise<string | null>;
  /** What a screening’s film shows at a moment. */
  slideAt(screening: Screening, atMs: number): Promise<SlideThen>;
  list(show: ShowId): Promise<ScreeningRow[]>;
  row(show: ShowId, id: string): Promise<ScreeningRow | null>;
  /** @returns its id; null when one of the films is not a finished one of the show that browsers play */
  open(studioId: string, show: ShowId, filmIds: readonly string[]): Promise<string | null>;
  /** @returns false when it is not there; or `films` when those are not right */
  change(show: ShowId, id: string, change: ScreeningChange): Promise<boolean | 'films'>;
  /** The old link leads nowhere any more. */
  renew(show: ShowId, id: string): Promise<boolean>;
  /** With its guest book and what was counted. */
  remove(show: ShowId, id: string): Promise<boolean>;
}

interface ScreeningParts {
  readonly database: OpenDatabase;
  readonly sheet: Pick<ContactSheet, 'factsOf'>;
  readonly events: Events;
  readonly now?: () => number;
}

export function createScreeningService({ database, sheet, events, now = Date.now }: ScreeningParts): ScreeningService {
  const { db, write } = database;
  const views = createViewings(database, now);

  return {
    book: createGuestBook(database, events, now),
    viewings: views,
    door: (token, pass) => doorOf(db, token, pass, now()),
    enter: (token, password) => passFor(database, token, password, now()),
    async find(token) {
      const [row] = await db.select().from(screenings).where(eq(screenings.token, token));
      if (!row) return null;
      const shown = await filmsOf(row.id);
      const [first] = shown;
      if (!first) return null;
      const { mayTake, guestBook, counts, call } = row;
      return {
        id: row.id,
        studioId: row.studioId,
        show: showId(row.showId),
        title: row.title ?? first.title,
        films: shown,
        settings: { mayTake, guestBook, counts, call },
      };
    },
    async programme({ films: [film] }) {
      const show = await documentOf(film!.id);
      return {
        chapters: show ? chaptersOf(show, film!) : [],
        languages: show && !show.captionLook ? captionLanguages(show) : [],
      };
    },
    async captions(token, language) {
      const [row] = await db.select().from(screenings).where(eq(screenings.token, token));
      const film = row && (await filmsOf(row.id))[0];
      const show = film && (await documentOf(film.id));
      if (!film || !show) return null;
      const facts = await sheet.factsOf(assetIdsOf(show), show.methods);
      const { spec, lengthMs } = film;
      const fromMs = beginningOf(film);
      const captions = filmCaptions(showForFilm(show, spec), facts, language, fromMs, fromMs + lengthMs);
      return captions.length === 0 ? null : asVtt(captions, language);
    },
    async slideAt({ films: [film] }, atMs) {
      return slideThen(await documentOf(film!.id), film!.spec, atMs);
    },
    list: async (show) =>
      rowsFrom(
        await db.select().from(screenings).where(eq(screenings.showId, show)).orderBy(desc(screenings.createdAt)),
      ),
    row: async (show, id) => (await rowsFrom(await own(show, id)))[0] ?? null,
    async open(studioId, show, filmIds) {
      if (!(await areOf(show, filmIds))) return null;
      const id = nanoid(12);
      await write((one) =>
        one.transaction(async (transaction) => {
          await transaction
            .insert(screenings)
            .values({ id, studioId, showId: show, token: nanoid(24), createdAt: now() });
          await transaction
            .insert(screeningFilms)
            .values([...new Set(filmIds)].map((filmId) => ({ screeningId: id, filmId })));
        }),
      );
      events.tell(show, { kind: 'films' });
      return id;
    },
    async change(show, id, { password, films: filmIds, ...settings }) {
      if ((await own(show, id)).length === 0) return false;
      if (filmIds && !(await areOf(show, filmIds))) return 'films';
      const passwordHash = typeof password === 'string' ? await hashed(password) : password;
      await write((one) =>
        one.transaction(async (transaction) => {
          const set = { ...settings, ...(passwordHash !== undefined && { passwordHash }) };
          if (Object.keys(set).length > 0) await transaction.update(screenings).set(set).where(eq(screenings.id, id));
          // Who came in by the old password says the new one.
          if (passwordHash !== undefined)
            await transaction.delete(screeningPasses).where(eq(screeningPasses.screeningId, id));
          if (filmIds) {
            await transaction.delete(screeningFilms).where(eq(screeningFilms.screeningId, id));
            await transaction
              .insert(screeningFilms)
              .values([...new Set(filmIds)].map((filmId) => ({ screeningId: id, filmId })));
          }
        }),
      );
      events.tell(show, { kind: 'films' });
      return true;
    },
    async renew(show, id) {
      if ((await own(show, id)).length === 0) return false;
      await write((one) =>
        one
          .update(screenings)
          .set({ token: nanoid(24) })
          .where(eq(screenings.id, id)),
      );
      events.tell(show, { kind: 'films' });
      return true;
    },
    async remove(show, id) {
      if ((await own(show, id)).length === 0) return false;
      await write((one) =>
        one.transaction(async (transaction) => {
          for (const table of [screeningFilms, screeningPasses, guestNotes, viewings])
            await transaction.delete(table).where(eq(table.screeningId, id));
          await transaction.delete(screenings).where(eq(screenings.id, id));
        }),
      );
      events.tell(show, { kind: 'films' });
      events.tell(show, { kind: 'notes' });
      return true;
    },
  };

  /** None, or the one. */
  function own(show: ShowId, id: string) {
    return db
      .select()
      .from(screenings)
      .where(and(eq(screenings.id, id), eq(screenings.showId, show)));
  }

  async function rowsFrom(rows: readonly (typeof screenings.$inferSelect)[]): Promise<ScreeningRow[]> {
    const ids = rows.map(({ id }) => id);
    const counted = await views.counts(ids);
    const shown = await db.select().from(screeningFilms).where(inArray(screeningFilms.screeningId, ids));
    return rows.map(({ studioId: _studio, showId: _show, passwordHash, ...row }) => ({
      ...row,
      films: shown.filter(({ screeningId }) => screeningId === row.id).map(({ filmId }) => filmId),
      asksPassword: passwordHash !== null,
      viewings: counted.get(row.id) ?? 0,
    }));
  }

  /** Whether all are finished films of the show that browsers play – others are taken home –, of one shape and length: qualities of one film. */
  async function areOf(show: ShowId, filmIds: readonly string[]): Promise<boolean> {
    const rows = await db
      .select()
      .from(films)
      .where(and(inArray(films.id, [...filmIds]), eq(films.showId, show), eq(films.state, 'ready')));
    const all = rows.map((row) => filmRow(row, null));
    return (
      all.length === new Set(filmIds).size &&
      all.every((film) => formatOf(film.spec.format).plays && isSameFilm(film, all[0]!))
    );
  }

  async function filmsOf(screeningId: string): Promise<ScreenedFilm[]> {
    const rows = await db
      .select({ film: films })
      .from(screeningFilms)
      .innerJoin(films, eq(films.id, screeningFilms.filmId))
      .where(and(eq(screeningFilms.screeningId, screeningId), eq(films.state, 'ready')));
    return rows
      .map(({ film }) => filmRow(film, null))
      .filter(({ spec }) => formatOf(spec.format).plays)
      .map(({ id, title, spec, lengthMs, byteCount }) => ({ id, title, spec, lengthMs, byteCount }))
      .toSorted((one, other) => bitsASecond(other) - bitsASecond(one));
  }

  /** The show as it was when the film was ordered; null when it cannot be read any more. */
  async function documentOf(filmId: string): Promise<Show | null> {
    const [kept] = await db.select().from(filmDocuments).where(eq(filmDocuments.filmId, filmId));
    const parsed = parseStoredShow(kept?.document);
    return parsed.ok ? parsed.value : null;
  }
}

/** What a line has to carry. */
export function bitsASecond({ byteCount, lengthMs }: Pick<ScreenedFilm, 'byteCount' | 'lengthMs'>): number {
  return lengthMs === 0 ? 0 : Math.round(((byteCount ?? 0) * 8000) / lengthMs);
}

/** Of the show, where the film begins. */
function beginningOf({ spec }: ScreenedFilm): number {
  return spec.span ? momentSeen(spec.span.fromMs, spec.rate) : 0;
}

function chaptersOf(show: Show, film: ScreenedFilm): FilmChapter[] {
  const fromMs = beginningOf(film);
  return filmChapters(prepareShow(showForFilm(show, film.spec), new Map()), fromMs, fromMs + film.lengthMs);
}
