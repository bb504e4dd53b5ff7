import { createHash } from 'node:crypto';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { and, eq } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { FilmSpec } from '../../core/film/film-spec';
import { specFor, type PurposeName } from '../../core/film/purposes/purposes';
import { placesOf, type Place } from '../../core/series/places';
import { listingOf, readRow, type RowWants } from '../../core/series/row';
import { showOfRow } from '../../core/series/show-of-row';
import type { SeriesPlan } from '../../core/series/series';
import { showId, type AssetId, type ShowId } from '../../core/show/ids';
import { assetIdsOf, contentOf, emptyShow, type Show } from '../../core/show/show';
import { stableText } from '../../core/stable-text';
import { hashOfFile } from '../blobs/content-hash';
import { isDiskFull } from '../http/refusal';
import { logger } from '../logger';
import { filmDocuments, series as seriesTable, seriesRows } from '../database/schema';
import type { JobAtWork, JobKindOfWork } from '../jobs/job-runner';
import type { TakenJob } from '../jobs/job';
import { parseStoredShow } from '../schema/show-schema';
import type { Bills } from '../screenings/bills';
import type { ScreeningService } from '../screenings/screening-service';
import type { SeriesParts } from './series-service';

interface MakeSeriesParts extends SeriesParts {
  readonly screenings: ScreeningService;
  readonly bills: Bills;
}

interface SeriesData {
  readonly id: string;
  readonly numbers: readonly number[];
  /** False: shows are built, to be looked at. */
  readonly films: boolean;
}

/** All rows go by these. */
interface Ground {
  readonly id: string;
  readonly studioId: string;
  readonly title: string;
  readonly plan: SeriesPlan;
  readonly purpose: PurposeName;
  readonly folder: string | null;
  readonly screened: boolean;
  readonly pattern: Show;
  readonly patternId: ShowId;
  readonly places: readonly Place[];
  readonly paths: readonly string[];
}

type Row = typeof seriesRows.$inferSelect;

/** A row that is at work. */
interface AtWork {
  readonly number: number;
  readonly wants: RowWants;
  readonly ids: ReadonlyMap<string, AssetId>;
  readonly show: ShowId;
}

/** So many rows are at work at a time: while one film is made, the files of the next are looked at. */
const AT_ONCE = 3;
const LOOK_EVERY_MS = 300;

const UNKNOWN = 'Something went wrong on the server with this row. Have it made again; what is done stays.';

/** Why no film comes of a row; for the person. */
class RowFailedError extends Error {
  override readonly name = 'RowFailedError';
}

/** The work on a series: row after row its files are taken in, its show is built, its film ordered and waited for. Each step is kept, so that it goes on after the server ended anyhow. */
export function makingSeries(parts: MakeSeriesParts): JobKindOfWork {
  const { database, shows, sheet, films, files, jobs, screenings, bills, now = Date.now } = parts;
  const { db, write } = database;

  return {
    kind: 'series',
    atOnce: 3,
    mostTries: 5,
    async work({ job, signal, progress }: JobAtWork) {
      const { id, numbers, films: wantsFilms } = job.data as SeriesData;
      const ground = await groundOf(id);
      const listing = listingOf(ground.paths);
      const waiting = [...numbers];
      const atWork = new Map<number, AtWork>();
      let ended = 0;
      while (waiting.length > 0 || atWork.size > 0) {
        signal.throwIfAborted();
        const next = atWork.size < AT_ONCE ? waiting.shift() : undefined;
        if (next !== undefined) {
          const row = await rowOf(id, next);
          if (!row || row.state === 'done' || row.state === 'failed') continue;
          const begun = await tried(id, next, signal, () => begin(ground, next, listing, row));
          if (begun) atWork.set(next, begun);
          continue;
        }
        for (const one of atWork.values()) {
          signal.throwIfAborted();
          const done = await tried(id, one.number, signal, () => step(ground, one, wantsFilms));
          if (done === 'goes-on') continue;
          atWork.delete(one.number);
          ended += 1;
          progress({ ended }, true);
        }
        if (atWork.size > 0) await sleep(LOOK_EVERY_MS, undefined, { signal });
      }
      return async (transaction) => {
        if (wantsFilms) await transaction.update(seriesTable).set({ state: 'done' }).where(eq(seriesTable.id, id));
      };
    },
    failed(job: TakenJob, error: unknown) {
      const { id, films: wantsFilms } = job.data as SeriesData;
      const problem =
        error === null
          ? 'Making its films ended the server again and again, so it was stopped.'
          : 'Something went wrong on the server. Have them made again; what is done stays.';
      return {
        problem,
        commit: async (transaction) => {
          await transaction
            .update(seriesRows)
            .set({ state: 'failed', problem, endedAt: now() })
            .where(and(eq(seriesRows.seriesId, id), eq(seriesRows.state, 'preparing')));
          if (wantsFilms) await transaction.update(seriesTable).set({ state: 'stopped' }).where(eq(seriesTable.id, id));
        },
      };
    },
  };

  async function groundOf(id: string): Promise<Ground> {
    const [row] = await db.select().from(seriesTable).where(eq(seriesTable.id, id));
    const parsed = parseStoredShow(row?.pattern);
    if (!row || !parsed.ok) throw new Error('the pattern of a series cannot be read');
    const pattern = parsed.value;
    const paths = await files.paths(id, row.folder);
    return {
      ...{ id, studioId: row.studioId, title: row.title, plan: row.plan, purpose: row.purpose },
      ...{ folder: row.folder, screened: row.screened, pattern, paths: paths ?? [] },
      patternId: showId(row.showId),
      places: placesOf(pattern, await sheet.factsOf(assetIdsOf(pattern), pattern.methods)),
    };
  }

  async function rowOf(id: string, number: number): Promise<Row | null> {
    const [row] = await db
      .select()
      .from(seriesRows)
      .where(and(eq(seriesRows.seriesId, id), eq(seriesRows.number, number)));
    return row ?? null;
  }

  async function note(id: string, number: number, change: Partial<Row>): Promise<void> {
    await write((one) =>
      one
        .update(seriesRows)
        .set(change)
        .where(and(eq(seriesRows.seriesId, id), eq(seriesRows.number, number))),
    );
  }

  /** What is wrong with one row stays with it, whatever it is; a full disk and the end of the server are no row’s fault. */
  async function tried<Made>(
    id: string,
    number: number,
    signal: AbortSignal,
    work: () => Promise<Made>,
  ): Promise<Made | null> {
    try {
      return await work();
    } catch (error) {
      if (signal.aborted || isDiskFull(error)) throw error;
      const known = error instanceof RowFailedError;
      if (!known) logger().error({ err: error, series: id, row: number }, 'a row of a series failed');
      await note(id, number, { state: 'failed', problem: known ? error.message : UNKNOWN, endedAt: now() });
      return null;
    }
  }

  /** Takes a row's files in, onto the sheet of a show of its own. */
  async function begin(
    { id, studioId, plan, places, pattern, patternId, folder }: Ground,
    number: number,
    listing: ReturnType<typeof listingOf>,
    row: Row,
  ): Promise<AtWork> {
    const { wants, faults } = readRow(plan, places, pattern, number, listing);
    const grave = faults.find((fault) => fault.grave);
    if (grave) throw new RowFailedError(grave.says);
    const there = row.showId ? await shows.load(showId(row.showId)) : null;
    const show = there ? there.show.id : showId(nanoid(12));
    if (!there) {
      await shows.put({ ...emptyShow(show, wants.title), frame: pattern.frame }, studioId);
      await note(id, number, { showId: show, builtFrom: null, builtRevision: null, filmId: null });
    }
    await sheet.borrow(show, patternId, assetIdsOf(pattern));
    const ids = new Map<string, AssetId>();
    for (const file of new Set([...(wants.folder ?? []), ...wants.files.values()])) {
      const place = await files.place(id, folder, file);
      if (place === null) throw new RowFailedError(`“${file}” is not there any more.`);
      const hash = await hashOfFile(place).catch((cause: unknown) => {
        throw new RowFailedError(`“${file}” could not be read from the disk.`, { cause });
      });
      ids.set(file, hash);
      await sheet.takeIn(show, place, path.basename(file), 'copy', hash);
    }
    return { number, wants, ids, show };
  }

  async function step(ground: Ground, one: AtWork, wantsFilms: boolean): Promise<'goes-on' | 'ended'> {
    const { id } = ground;
    const row = await rowOf(id, one.number);
    if (!row) return 'ended';
    if (row.state === 'making') return filmStep(ground, one, row);
    if (row.state !== 'preparing' || !(await isLookedAt(ground, one)))
      return row.state === 'preparing' ? 'goes-on' : 'ended';
    const built = await build(ground, one, row);
    const spec = specFor(built, ground.purpose);
    if (!wantsFilms) {
      const film = await filmOf(built, spec);
      await note(id, one.number, {
        state: film?.state === 'ready' ? 'done' : 'ready-to-make',
        filmId: film?.id ?? null,
      });
      return 'ended';
    }
    // It may have been made, or ordered before the server ended.
    const film = await filmOf(built, spec);
    await note(id, one.number, { state: 'making', filmId: film?.id ?? (await films.order(built, spec)) });
    return 'goes-on';
  }

  async function filmStep(
    { id, studioId, title, screened }: Ground,
    one: AtWork,
    row: Row,
  ): Promise<'goes-on' | 'ended'> {
    const film = row.filmId ? await films.find(row.filmId) : null;
    if (!film) throw new RowFailedError('Its film was removed.');
    if (film.state === 'waiting' || film.state === 'making') return 'goes-on';
    if (film.state === 'cancelled') throw new RowFailedError('Its film was stopped.');
    if (film.state === 'failed') throw new RowFailedError(film.problem ?? 'Its film could not be made.');
    // A film that was adopted has had its say before.
    const told = film.problem && !row.told.includes(film.problem) ? [...row.told, film.problem] : row.told;
    const screeningId = screened ? await screen(id, studioId, title, one, row, film.id) : row.screeningId;
    await note(id, one.number, { state: 'done', endedAt: now(), told, screeningId });
    return 'ended';
  }

  /** The newest film of a show, if it is of the show as it is, and as wanted. */
  async function filmOf(show: Show, spec: FilmSpec) {
    const [newest] = await films.list(show.id);
    if (!newest || newest.state === 'failed' || newest.state === 'cancelled') return null;
    if (stableText(newest.spec) !== stableText(spec)) return null;
    const [kept] = await db.select().from(filmDocuments).where(eq(filmDocuments.filmId, newest.id));
    const parsed = parseStoredShow(kept?.document);
    return parsed.ok && stableText(contentOf(parsed.value)) === stableText(contentOf(show)) ? newest : null;
  }

  async function isLookedAt({ places, plan }: Ground, { show, ids }: AtWork): Promise<boolean> {
    if ((await sheet.tally(show)).waitingCount > 0) return false;
    const hasSong = places.some((place) => place.kind === 'song' && plan.matches[place.id]?.by === 'column');
    if (hasSong) for (const file of ids.values()) if (await jobs.isUnended('hear', file)) return false;
    return true;
  }

  /** Builds the show of a row anew, unless it stands as it would or was changed by hand since. */
  async function build(ground: Ground, { number, wants, ids, show: of }: AtWork, row: Row): Promise<Show> {
    const { pattern, plan, places } = ground;
    const from = createHash('sha256')
      .update(
        JSON.stringify([contentOf(pattern), plan.spare, plan.matches, [...wants.words], wants.title, [...wants.cells]]),
      )
      .update(JSON.stringify([wants.folder, [...wants.files], [...ids]]))
      .digest('hex');
    const opened = await shows.load(of);
    if (!opened) throw new RowFailedError('Its show was taken off the shelf.');
    const byHand = row.builtRevision !== null && opened.revision > row.builtRevision;
    if (row.builtFrom === from || byHand) return opened.show;
    const entries = await sheet.entries(of, pattern.methods);
    const facts = new Map(
      entries.flatMap(({ assetId: file, facts: known }) => (known ? [[file, known] as const] : [])),
    );
    const idOf = (file: string): AssetId | null => {
      const hash = ids.get(file);
      return hash && facts.has(hash) ? hash : null;
    };
    const made = madeOf(() =>
      showOfRow(pattern, plan, places, wants, idOf, facts, { id: of, newId: () => nanoid(10) }),
    );
    // Kept first: a show that is one further than what is noted was changed by a hand, and this is none, whenever the server ends.
    await note(ground.id, number, { builtFrom: null, builtRevision: opened.revision + 1 });
    const edit = { kind: 'set-content' as const, content: contentOf(made.show) };
    const applied = await shows.applyEdits(of, { right: [{ editId: nanoid(16), edit }], refused: [] }, opened.revision);
    if (!applied || 'problem' in applied)
      throw new RowFailedError(applied?.problem ?? 'Its show was taken off the shelf.');
    if (applied.refused[0]) throw new RowFailedError(applied.refused[0].sentence);
    await note(ground.id, number, { told: made.told, builtFrom: from, builtRevision: applied.revision });
    return made.show;
  }

  function madeOf<Made>(make: () => Made): Made {
    try {
      return make();
    } catch (error) {
      // What it says itself is for the person; anything else is a fault of ours.
      if (error instanceof TypeError || error instanceof RangeError) throw error;
      throw new RowFailedError((error as Error).message);
    }
  }

  /** Opens a screening for a row's film, on the page for all of them. */
  async function screen(id: string, studioId: string, title: string, { show }: AtWork, row: Row, filmId: string) {
    const own = row.screeningId ? await screenings.row(show, row.screeningId) : null;
    const screeningId = own ? own.id : await screenings.open(studioId, show, [filmId]);
    if (screeningId === null) return null;
    if (own) await screenings.change(show, own.id, { films: [filmId] });
    const [of] = await db.select({ billId: seriesTable.billId }).from(seriesTable).where(eq(seriesTable.id, id));
    const bill = (await bills.list(studioId)).find((one) => one.id === of?.billId);
    if (bill) {
      if (!bill.screenings.includes(screeningId))
        await bills.change(studioId, bill.id, { screenings: [...bill.screenings, screeningId] });
    } else {
      const billId = await bills.open(studioId, { title, words: '', screenings: [screeningId] });
      await write((one) => one.update(seriesTable).set({ billId }).where(eq(seriesTable.id, id)));
    }
    return screeningId;
  }
}
