import path from 'node:path';
import { and, asc, count, desc, eq, inArray } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { PurposeName } from '../../core/film/purposes/purposes';
import { guessedMatches, placesOf, type Place } from '../../core/series/places';
import { filmNameOf } from '../../core/series/film-name';
import { columnOfFolders, faultsOfSeries, listingOf, titleOfRow, type RowFault } from '../../core/series/row';
import { sameRows } from '../../core/series/same-rows';
import type { SeriesChange, SeriesPlan, SeriesRow, SeriesState } from '../../core/series/series';
import { showId, type ShowId } from '../../core/show/ids';
import { assetIdsOf, type Show } from '../../core/show/show';
import type { ContactSheet } from '../assets/contact-sheet';
import type { OpenDatabase } from '../database/open-database';
import {
  bills as billTable,
  films as filmTable,
  series as seriesTable,
  seriesRows,
  shows as showTable,
} from '../database/schema';
import type { FilmService } from '../films/film-service';
import type { JobStore } from '../jobs/job';
import type { ShowService } from '../shows/show-service';
import type { SeriesFiles } from './series-files';

/** A series as the shelf tells of it. */
export interface SeriesLine {
  readonly id: string;
  readonly title: string;
  readonly showId: string;
  readonly rowCount: number;
  readonly doneCount: number;
  readonly failedCount: number;
  readonly state: SeriesState;
}

/** How far a series is. */
export interface SeriesFar {
  readonly state: SeriesState;
  readonly rows: readonly SeriesRow[];
  /** Of its page for all. */
  readonly billToken: string | null;
  /** Until the rows whose films are asked for are done; null while it is not known. */
  readonly leftMs: number | null;
}

/** A series as its page shows it. */
export interface SeriesSeen extends SeriesFar {
  readonly id: string;
  readonly title: string;
  readonly show: { readonly id: ShowId; readonly title: string };
  readonly plan: SeriesPlan;
  readonly purpose: PurposeName;
  readonly folder: string | null;
  readonly screened: boolean;
  /** None when the pattern is not there any more. */
  readonly places: readonly Place[];
  readonly faults: readonly RowFault[];
  readonly fileCount: number;
}

/** Many films of one pattern. What is another studio's is not there. */
export interface SeriesService {
  list(studioId: string): Promise<SeriesLine[]>;
  /** @returns null when there is no such show */
  create(studioId: string, show: ShowId): Promise<string | null>;
  find(studioId: string, id: string): Promise<SeriesSeen | null>;
  /** How far it is, as can be asked often. */
  far(studioId: string, id: string): Promise<SeriesFar | null>;
  /** Its films that are made, by what they may be called as files; null when it is not there. */
  filmFiles(
    studioId: string,
    id: string,
  ): Promise<{ readonly title: string; readonly files: ReadonlyMap<string, string> } | null>;
  /** @returns a sentence when it cannot be; false when it is not there */
  change(studioId: string, id: string, change: SeriesChange): Promise<true | false | string>;
  /** Has the show of a row built, to be looked at. */
  prepare(studioId: string, id: string, number: number): Promise<true | false | string>;
  /** Has films made: of all rows that have none of the pattern as it is, or of some. */
  start(studioId: string, id: string, numbers: readonly number[] | null): Promise<true | false | string>;
  stop(studioId: string, id: string): Promise<boolean>;
  /** Its shows are taken off the shelf, from where they can be brought back. */
  remove(studioId: string, id: string): Promise<boolean>;
  /** Whether a file may come for it. */
  takes(studioId: string, id: string): Promise<boolean>;
}

export interface SeriesParts {
  readonly database: OpenDatabase;
  readonly shows: ShowService;
  readonly sheet: ContactSheet;
  readonly films: FilmService;
  readonly files: SeriesFiles;
  readonly jobs: JobStore;
  readonly wake: () => void;
  readonly stop: (key: string) => Promise<void>;
  readonly now?: () => number;
}

export const MAKING_NOW = 'Its films are being made. Stop that first.';
const NO_PATTERN = 'The show it goes by is not there any more, or cannot be read.';

type Stored = typeof seriesTable.$inferSelect;

export function createSeriesService(parts: SeriesParts): SeriesService {
  const { database, shows, sheet, films, files, jobs, wake, stop, now = Date.now } = parts;
  const { db, write } = database;

  return {
    async list(studioId) {
      const rows = await db
        .select()
        .from(seriesTable)
        .where(eq(seriesTable.studioId, studioId))
        .orderBy(desc(seriesTable.createdAt));
      const counts = await db
        .select({ id: seriesRows.seriesId, state: seriesRows.state, many: count() })
        .from(seriesRows)
        .groupBy(seriesRows.seriesId, seriesRows.state);
      const many = (id: string, state: SeriesRow['state']) =>
        counts.find((one) => one.id === id && one.state === state)?.many ?? 0;
      return rows.map(({ id, title, showId: of, plan, state }) => ({
        ...{ id, title, showId: of, state },
        rowCount: plan.rows.length,
        doneCount: many(id, 'done'),
        failedCount: many(id, 'failed'),
      }));
    },
    async create(studioId, show) {
      const opened = await shows.load(show);
      if (!opened) return null;
      const id = nanoid(12);
      await write((one) =>
        one.insert(seriesTable).values({
          ...{ id, studioId, title: opened.show.title.slice(0, 300) || 'A series', showId: show },
          plan: { columns: [], rows: [], matches: {}, folderColumn: null, spare: 'slides' },
          ...{ purpose: 'web', folder: null, screened: false, state: 'open', createdAt: now() },
        }),
      );
      return id;
    },
    async find(studioId, id) {
      const row = await rowOf(studioId, id);
      if (!row) return null;
      const pattern = (await shows.load(showId(row.showId)))?.show ?? null;
      const places = pattern ? await placesIn(pattern) : [];
      const paths = await files.paths(id, row.folder);
      const told = pattern
        ? paths === null
          ? [{ row: 0, grave: true, says: 'The folder on the server’s disk is not there any more.' }]
          : row.plan.columns.length === 0
            ? []
            : faultsOfSeries(row.plan, places, pattern, paths)
        : [{ row: 0, grave: true, says: NO_PATTERN }];
      const { rows, leftMs: left } = await rowsOf(row, pattern);
      return {
        ...{ id, title: row.title, plan: row.plan, purpose: row.purpose, folder: row.folder },
        ...{ screened: row.screened, state: row.state, places, faults: told, rows },
        show: { id: showId(row.showId), title: pattern?.title ?? '' },
        fileCount: paths?.length ?? 0,
        billToken: await billToken(row),
        leftMs: left,
      };
    },
    async far(studioId, id) {
      const row = await rowOf(studioId, id);
      if (!row) return null;
      const pattern = (await shows.load(showId(row.showId)))?.show ?? null;
      return { state: row.state, billToken: await billToken(row), ...(await rowsOf(row, pattern)) };
    },
    async filmFiles(studioId, id) {
      const row = await rowOf(studioId, id);
      if (!row) return null;
      const pattern = (await shows.load(showId(row.showId)))?.show ?? null;
      const { rows } = await rowsOf(row, pattern);
      const named = new Map<string, string>();
      for (const { number, title, state, filmId } of rows) {
        const film = state === 'done' && filmId ? await films.find(filmId) : null;
        if (film?.state !== 'ready') continue;
        const file = await films.localFile(film);
        named.set(filmNameOf(number, title, path.extname(file).slice(1)), file);
      }
      return { title: row.title, files: named };
    },
    async change(studioId, id, { title, columns, rows, matches, folderColumn, spare, purpose, folder, screened }) {
      const row = await rowOf(studioId, id);
      if (!row) return false;
      const isPlan = [columns, rows, matches, folderColumn, spare, purpose, folder].some((part) => part !== undefined);
      if (row.state === 'making' && isPlan) return MAKING_NOW;
      if ((rows === undefined) !== (columns === undefined)) return 'A table has heads and rows: give both.';
      const wide = rows?.findIndex((cells) => cells.length > columns!.length) ?? -1;
      if (wide >= 0) return `Row ${wide + 1} has more cells than the table has columns.`;
      let plan: SeriesPlan = row.plan;
      if (columns) {
        const opened = await shows.load(showId(row.showId));
        if (!opened) return NO_PATTERN;
        const known = new Set(columns);
        if (known.size !== columns.length) return 'Two columns are called the same.';
        plan = { ...plan, columns, rows: rows!.map((cells) => columns.map((_, at) => cells[at] ?? '')) };
        // What was matched by hand stays as long as its columns are there.
        const lost =
          Object.keys(plan.matches).length === 0 ||
          Object.values(plan.matches).some((fill) => fill.by === 'column' && !known.has(fill.column)) ||
          (plan.folderColumn !== null && !known.has(plan.folderColumn));
        const there = columnOfFolders(plan, listingOf((await files.paths(id, row.folder)) ?? []));
        if (lost) plan = { ...plan, ...guessedMatches(opened.show, await placesIn(opened.show), columns, there) };
      }
      plan = {
        ...plan,
        ...(matches && { matches }),
        ...(folderColumn !== undefined && { folderColumn: folderColumn === '' ? null : folderColumn }),
        ...(spare && { spare }),
      };
      if (folder !== undefined && folder !== '' && (await files.paths(id, folder)) === null)
        return 'There is no such folder on the server’s disk.';
      const changed = {
        plan,
        ...(title !== undefined && { title }),
        ...(purpose && { purpose }),
        ...(folder !== undefined && { folder: folder === '' ? null : folder }),
        ...(screened !== undefined && { screened }),
        ...(isPlan && row.state === 'done' && { state: 'open' as const }),
      };
      const pattern = columns ? (await shows.load(showId(row.showId)))?.show : undefined;
      const same = pattern ? sameRows(row.plan, plan, pattern) : null;
      await write((one) =>
        one.transaction(async (transaction) => {
          await transaction.update(seriesTable).set(changed).where(eq(seriesTable.id, id));
          if (!same) return;
          // What was made for a row goes where that row stands now; shows of rows that are gone stand on the shelf from now on.
          const made = await transaction.select().from(seriesRows).where(eq(seriesRows.seriesId, id));
          await transaction.delete(seriesRows).where(eq(seriesRows.seriesId, id));
          for (const one of made) {
            const number = same.get(one.number);
            if (number !== undefined) await transaction.insert(seriesRows).values({ ...one, number });
          }
        }),
      );
      return true;
    },
    prepare: (studioId, id, number) => begin(studioId, id, [number], false),
    start: (studioId, id, numbers) => begin(studioId, id, numbers, true),
    async stop(studioId, id) {
      const row = await rowOf(studioId, id);
      if (!row) return false;
      await stopWork(id, row.plan.rows.length);
      return true;
    },
    async remove(studioId, id) {
      const row = await rowOf(studioId, id);
      if (!row) return false;
      await stopWork(id, row.plan.rows.length);
      const made = await db.select().from(seriesRows).where(eq(seriesRows.seriesId, id));
      for (const { showId: of } of made) if (of) await shows.setRemoved(showId(of), true);
      await write((one) =>
        one.transaction(async (transaction) => {
          await transaction.delete(seriesRows).where(eq(seriesRows.seriesId, id));
          await transaction.delete(seriesTable).where(eq(seriesTable.id, id));
        }),
      );
      await files.remove(id);
      return true;
    },
    takes: async (studioId, id) => (await rowOf(studioId, id)) !== null,
  };

  async function rowOf(studioId: string, id: string) {
    const own = and(eq(seriesTable.id, id), eq(seriesTable.studioId, studioId));
    const [row] = await db.select().from(seriesTable).where(own);
    return row ?? null;
  }

  async function placesIn(pattern: Show): Promise<Place[]> {
    return placesOf(pattern, await sheet.factsOf(assetIdsOf(pattern), pattern.methods));
  }

  async function billToken({ billId }: Pick<Stored, 'billId'>): Promise<string | null> {
    const [bill] = billId ? await db.select().from(billTable).where(eq(billTable.id, billId)) : [];
    return bill?.token ?? null;
  }

  async function rowsOf(series: Stored, pattern: Show | null) {
    const { id, plan } = series;
    const kept = await db
      .select({ row: seriesRows, revision: showTable.revision, removedAt: showTable.removedAt })
      .from(seriesRows)
      .leftJoin(showTable, eq(showTable.id, seriesRows.showId))
      .where(eq(seriesRows.seriesId, id))
      .orderBy(asc(seriesRows.number));
    const known = new Map(kept.map((one) => [one.row.number, one]));
    const shares = new Map<number, number>();
    for (const { row } of kept) {
      const film = row.state === 'making' && row.filmId ? await films.find(row.filmId) : null;
      if (film) shares.set(row.number, film.framesDone / Math.max(1, film.frameCount));
    }
    const rows = plan.rows.map((_, index): SeriesRow => {
      const number = index + 1;
      const title = pattern ? titleOfRow(plan, pattern, number) : '';
      const one = known.get(number);
      const share = shares.get(number) ?? 0;
      if (!one)
        return {
          number,
          title,
          share,
          state: 'new',
          problem: null,
          told: [],
          showId: null,
          filmId: null,
          byHand: false,
        };
      const { state, problem, told, showId: of, filmId, builtRevision } = one.row;
      const isThere = of !== null && one.revision !== null && one.removedAt === null;
      const byHand = isThere && builtRevision !== null && one.revision! > builtRevision;
      return { ...{ number, title, share, state, problem, told, filmId, byHand }, showId: isThere ? of : null };
    });
    return {
      rows,
      leftMs: leftMsOf(
        series,
        rows,
        kept.map(({ row }) => row),
      ),
    };
  }

  /** By how long the rows took that have ended since it was begun. */
  function leftMsOf(
    { state, begunAt }: Stored,
    rows: readonly SeriesRow[],
    kept: readonly (typeof seriesRows.$inferSelect)[],
  ) {
    if (state !== 'making' || begunAt === null) return null;
    const since = kept.filter(({ endedAt }) => endedAt !== null && endedAt >= begunAt).length;
    const left = rows.filter(({ state: of }) => of === 'preparing' || of === 'making').length;
    return since === 0 ? null : Math.round(((now() - begunAt) / since) * left);
  }

  async function begin(studioId: string, id: string, numbers: readonly number[] | null, wantsFilms: boolean) {
    const row = await rowOf(studioId, id);
    if (!row) return false;
    if (row.state === 'making') return MAKING_NOW;
    const opened = await shows.load(showId(row.showId));
    if (!opened || opened.damage !== null) return NO_PATTERN;
    const paths = await files.paths(id, row.folder);
    if (paths === null) return 'The folder on the server’s disk is not there any more.';
    const grave = faultsOfSeries(row.plan, await placesIn(opened.show), opened.show, paths).filter((one) => one.grave);
    const whole = grave.find((one) => one.row === 0);
    if (whole) return whole.says;
    const all = row.plan.rows.map((_, index) => index + 1);
    const faulty = new Set(grave.map((one) => one.row));
    const wanted = (numbers ?? all).filter((number) => number <= all.length && !faulty.has(number));
    if (wanted.length === 0)
      return numbers?.length === 1
        ? grave.find((one) => one.row === numbers[0])!.says
        : 'Every row has a fault. Put right what is said of them first.';
    // A row that is just got ready to be looked at is taken over.
    const preparing = await db
      .select({ number: seriesRows.number })
      .from(seriesRows)
      .where(and(eq(seriesRows.seriesId, id), eq(seriesRows.state, 'preparing')));
    for (const { number } of preparing)
      if (wanted.includes(number) && (await jobs.cancel('series', `${id}:${number}`))) await stop(`${id}:${number}`);
    const key = wantsFilms ? id : `${id}:${wanted.join(',')}`;
    await write((one) =>
      one.transaction(async (transaction) => {
        await transaction
          .update(seriesTable)
          .set({ pattern: opened.show, ...(wantsFilms && { state: 'making', begunAt: now() }) })
          .where(eq(seriesTable.id, id));
        // What failed before is tried anew; rows that are done are looked at again, and made again where they changed.
        for (const number of wanted)
          await transaction
            .insert(seriesRows)
            .values({ seriesId: id, number, state: 'preparing', told: [] })
            .onConflictDoUpdate({
              target: [seriesRows.seriesId, seriesRows.number],
              set: { state: 'preparing', problem: null, endedAt: null },
            });
        await jobs.addWithin(transaction, {
          kind: 'series',
          studioId,
          key,
          data: { id, numbers: wanted, films: wantsFilms },
        });
      }),
    );
    wake();
    return true as const;
  }

  async function stopWork(id: string, rowCount: number): Promise<void> {
    const keys = [id, ...Array.from({ length: rowCount }, (_, index) => `${id}:${index + 1}`)];
    for (const key of keys) if (await jobs.cancel('series', key)) await stop(key);
    const making = await db
      .select({ filmId: seriesRows.filmId })
      .from(seriesRows)
      .innerJoin(filmTable, eq(filmTable.id, seriesRows.filmId))
      .where(and(eq(seriesRows.seriesId, id), inArray(filmTable.state, ['waiting', 'making'])));
    for (const { filmId } of making) await films.cancel(filmId!);
    await write((one) =>
      one.transaction(async (transaction) => {
        await transaction
          .update(seriesRows)
          .set({ state: 'new', filmId: null })
          .where(and(eq(seriesRows.seriesId, id), inArray(seriesRows.state, ['preparing', 'making'])));
        await transaction
          .update(seriesTable)
          .set({ state: 'stopped' })
          .where(and(eq(seriesTable.id, id), eq(seriesTable.state, 'making')));
      }),
    );
  }
}
