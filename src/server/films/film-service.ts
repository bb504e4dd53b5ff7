import { createHash } from 'node:crypto';
import { readdir, readFile, rm } from 'node:fs/promises';
import path from 'node:path';
import { and, desc, eq, inArray } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import PQueue from 'p-queue';
import { formatOf } from '../../core/film/film-formats';
import { showForFilm, type FilmSpec } from '../../core/film/film-spec';
import { planFilm } from '../../core/film/plan-film';
import { prepareShow } from '../../core/frame/plan-frame';
import type { AssetFacts, FactsById } from '../../core/show/asset-facts';
import { showId, type AssetId, type ShowId } from '../../core/show/ids';
import { everyLayer } from '../../core/show/layer';
import { assetIdsOf, type Show } from '../../core/show/show';
import type { FrameRate } from '../../core/timing/frame-rate';
import type { ContactSheet } from '../assets/contact-sheet';
import type { BlobStore } from '../blobs/blob-store';
import type { OpenDatabase, Writing } from '../database/open-database';
import { filmDocuments, films, screeningFilms, sheetEntries, shows } from '../database/schema';
import type { Events } from '../events';
import type { JobStore, TakenJob } from '../jobs/job';
import { NotYetError, type JobKindOfWork } from '../jobs/job-runner';
import { parseStoredShow } from '../schema/show-schema';
import { FilmFailedError } from './film-failed-error';
import { failureSentence, filmRow, missingSentence, specOf, type FilmProgressKept, type FilmRow } from './film-row';
import type { SegmentFarm } from '../farm/farm';
import type { FilmFiles } from './film-files';
import type { KeptFiles } from './kept-files';
import { makeFilm } from './make-film';
import { stillOf } from './still';
import { tryFilm, type FilmTrial } from './try-film';

export interface FilmService {
  order(show: Show, spec: FilmSpec): Promise<string>;
  list(show: ShowId): Promise<FilmRow[]>;
  /** Stops a film being made or waiting. @returns false when it is neither */
  cancel(filmId: string): Promise<boolean>;
  remove(filmId: string): Promise<boolean>;
  /** Makes a film that failed or was cancelled, of the show as it was then; what was made of it is not made again. @returns false when it is neither */
  again(filmId: string): Promise<boolean>;
  /** Makes a waiting film before the others that wait. @returns false when it does not wait */
  next(filmId: string): Promise<boolean>;
  /** For programs that need a path. */
  localFile(film: Pick<FilmRow, 'id' | 'spec'>): Promise<string>;
  /** A film that lies elsewhere only; null when it lies here. */
  elsewhere(film: Pick<FilmRow, 'id' | 'spec'>): ReturnType<FilmFiles['elsewhere']>;
  /** A picture of it: a frame of a finished film, the frame just made of one in the making; null when there is none. */
  pictureOf(filmId: string): Promise<Uint8Array | null>;
  /** What a film of the show would come to; one at a time, and what was tried is remembered. */
  try(show: Show, spec: FilmSpec): Promise<FilmTrial>;
  /** One frame of the show as the film would show it, as PNG. */
  still(show: Show, spec: FilmSpec, atMs: number): Promise<Uint8Array>;
  /** A show's own files and what is known of them. @param when `looked-at`: @throws {NotYetError} before they were all looked at */
  sourceOf(show: Show, when: 'looked-at' | 'now'): Promise<FilmSource>;
  /** Removes a film's files, whatever it is. */
  removeFiles(filmId: string): Promise<void>;
  find(filmId: string): Promise<FilmRow | null>;
  /** Orders anew what waits or was being made and has no work waiting for it, and clears away what earlier servers left. */
  resume(): Promise<void>;
}

/** What a film of a show is made of. */
export interface FilmSource {
  readonly facts: ReadonlyMap<AssetId, AssetFacts>;
  readonly files: ReadonlyMap<AssetId, string>;
  readonly missingCount: number;
}

/** What making a film needs to know: the work can be done wherever the files are. */
interface FilmData {
  readonly filmId: string;
  readonly showId: string;
  /** As it was when the film was ordered. */
  readonly document: unknown;
  /** Work that was ordered by earlier versions says a height and a rate instead, or its frames a second. */
  readonly spec?: unknown;
  readonly heightPx?: number;
  readonly rate?: FrameRate;
  readonly framesPerSecond?: number;
}

interface FilmServiceParts {
  readonly database: OpenDatabase;
  readonly blobs: BlobStore;
  readonly sheet: Pick<ContactSheet, 'factsOf'>;
  readonly jobs: JobStore;
  readonly events: Events;
  readonly folder: string;
  readonly filmFiles: FilmFiles;
  /** Other machines that draw as well. */
  readonly farm?: SegmentFarm | null;
  readonly kept: KeptFiles;
  /** Something was added to the jobs. */
  readonly wake: () => void;
  /** Stops what is at work on a film. */
  readonly stop: (filmId: string) => Promise<void>;
  readonly now?: () => number;
}

/** Ordering films and looking after them; the making is `making`. */
export function createFilmService(parts: FilmServiceParts): FilmService & { readonly making: JobKindOfWork } {
  const {
    database,
    blobs,
    sheet,
    jobs,
    events,
    folder,
    filmFiles,
    farm = null,
    kept,
    wake,
    stop,
    now = Date.now,
  } = parts;
  const { db, write } = database;
  const nameOf = ({ id, spec }: Pick<FilmRow, 'id' | 'spec'>) => `${safeName(id)}.${formatOf(spec.format).extension}`;
  const posterName = (filmId: string) => `${safeName(filmId)}.jpg`;
  /** Of films in the making. */
  const glimpses = new Map<string, Uint8Array>();
  /** By show and what is asked for, the latest last. */
  const trials = new Map<string, Promise<FilmTrial>>();
  const trying = new PQueue({ concurrency: 1 });
  const workFolder = (filmId: string) => path.join(folder, `${safeName(filmId)}${WORK}`);
  const dataOf = (job: TakenJob) => job.data as FilmData;

  return {
    async order(show, spec) {
      const id = nanoid(12);
      const { rate } = spec;
      const { frameCount } = planFilm(prepareShow(showForFilm(show, spec), NO_FACTS), spec.span);
      await write((one) =>
        one.transaction(async (transaction) => {
          const [own] = await transaction.select({ studioId: shows.studioId }).from(shows).where(eq(shows.id, show.id));
          await transaction.insert(films).values({
            id,
            studioId: own!.studioId,
            showId: show.id,
            title: show.title,
            heightPx: spec.heightPx,
            spec,
            rateFrames: rate.frames,
            rateSeconds: rate.seconds,
            state: 'waiting',
            frameCount,
            orderedAt: now(),
          });
          await transaction.insert(filmDocuments).values({ filmId: id, document: show });
          const [film] = await transaction.select().from(films).where(eq(films.id, id));
          await jobs.addWithin(transaction, jobFor(film!, show));
        }),
      );
      events.tell(show.id, { kind: 'films' });
      wake();
      return id;
    },
    list: async (show) =>
      withProgress(await db.select().from(films).where(eq(films.showId, show)).orderBy(desc(films.orderedAt))),
    async cancel(filmId) {
      const changed = await write((one) =>
        one
          .update(films)
          .set({ state: 'cancelled', finishedAt: now() })
          .where(and(eq(films.id, filmId), inArray(films.state, ['waiting', 'making']))),
      );
      if (changed.rowsAffected === 0) return false;
      await clearWork(filmId);
      // It may have been whole in the moment it was cancelled.
      await removeFiles(filmId);
      await tellOf(filmId);
      return true;
    },
    async remove(filmId) {
      const film = await find(filmId);
      if (!film || film.state === 'making' || film.state === 'waiting') return false;
      const show = await showOf(filmId);
      await write((one) =>
        one.transaction(async (transaction) => {
          await transaction.delete(screeningFilms).where(eq(screeningFilms.filmId, filmId));
          await transaction.delete(filmDocuments).where(eq(filmDocuments.filmId, filmId));
          await transaction.delete(films).where(eq(films.id, filmId));
        }),
      );
      await removeFiles(filmId);
      await clearWork(filmId);
      if (show) events.tell(show, { kind: 'films' });
      return true;
    },
    async again(filmId) {
      const [stored] = await db.select().from(filmDocuments).where(eq(filmDocuments.filmId, filmId));
      const parsed = parseStoredShow(stored?.document);
      if (!parsed.ok) return false;
      const begun = await write((one) =>
        one.transaction(async (transaction) => {
          const changed = await transaction
            .update(films)
            .set({ state: 'waiting', problem: null, startedAt: null, finishedAt: null, orderedAt: now() })
            .where(and(eq(films.id, filmId), inArray(films.state, ['failed', 'cancelled'])));
          if (changed.rowsAffected === 0) return false;
          const [film] = await transaction.select().from(films).where(eq(films.id, filmId));
          await jobs.addWithin(transaction, jobFor(film!, parsed.value));
          return true;
        }),
      );
      if (!begun) return false;
      await tellOf(filmId);
      wake();
      return true;
    },
    async next(filmId) {
      if (!(await jobs.first('film', filmId))) return false;
      await tellOf(filmId);
      return true;
    },
    try(show, spec) {
      // Shows are large: what is remembered of them is a hash.
      const key = createHash('sha256')
        .update(JSON.stringify([show, spec]))
        .digest('hex');
      const known = trials.get(key);
      if (known) return known;
      const tried = trying.add(async () => tryFilm({ show, spec, ...(await allOf(show)), workFolder: spareFolder() }));
      trials.set(key, tried);
      tried.catch(() => trials.delete(key));
      if (trials.size > MOST_TRIALS) trials.delete(trials.keys().next().value!);
      return tried;
    },
    still: (show, spec, atMs) =>
      trying.add(async () => stillOf({ show, spec, atMs, ...(await allOf(show)), workFolder: spareFolder() })),
    async sourceOf(show, when) {
      if (when === 'looked-at') await assertLookedAt(show);
      const source = await allOf(show);
      return { ...source, missingCount: assetIdsOf(show).length - source.files.size };
    },
    localFile: (film) => filmFiles.local(nameOf(film)),
    elsewhere: (film) => filmFiles.elsewhere(nameOf(film)),
    removeFiles,
    pictureOf: async (filmId) =>
      glimpses.get(filmId) ?? (await readFile(await filmFiles.local(posterName(filmId))).catch(() => null)),
    find,
    async resume() {
      const unended = await db
        .select()
        .from(films)
        .where(inArray(films.state, ['waiting', 'making']));
      for (const film of unended) {
        if (await jobs.isUnended('film', film.id)) continue;
        const [stored] = await db.select().from(filmDocuments).where(eq(filmDocuments.filmId, film.id));
        const parsed = parseStoredShow(stored?.document);
        if (parsed.ok) await jobs.add(jobFor(film, parsed.value));
        else await fail(film.id, `What was kept of the show for this film is damaged: ${parsed.problem}.`, db);
      }
      const wanted = new Set(unended.map((film) => `${film.id}${WORK}`));
      for (const name of await readdir(folder))
        if (name.endsWith(WORK) && !wanted.has(name))
          await rm(path.join(folder, name), { recursive: true, force: true });
      wake();
    },
    making: {
      kind: 'film',
      // Its workers fill the machine; other machines are not filled by one film.
      atOnce: farm ? MOST_AT_ONCE : 1,
      mostTries: MOST_TRIES,
      work: async ({ job, signal, progress }) => {
        const { filmId } = dataOf(job);
        // It may have waited since before an update.
        const parsed = parseStoredShow(dataOf(job).document);
        if (!parsed.ok)
          throw new FilmFailedError('What was kept of the show for this film is damaged.', parsed.problem);
        const document = parsed.value;
        const spec = specOf(dataOf(job), document);
        const show = showId(dataOf(job).showId);
        await assertLookedAt(document);
        const { ids, files } = await filesFor(show, document);
        const missing = assetIdsOf(document).length - ids.length;
        await write((one) =>
          one
            .update(films)
            .set({ state: 'making', startedAt: now() })
            .where(and(eq(films.id, filmId), eq(films.state, 'waiting'))),
        );
        events.tell(show, { kind: 'films' });
        const name = nameOf({ id: filmId, spec });
        const made = await makeFilm({
          show: document,
          facts: await sheet.factsOf(ids, document.methods),
          files,
          spec,
          outFile: filmFiles.place(name),
          posterFile: filmFiles.place(posterName(filmId)),
          measured: true,
          workFolder: workFolder(filmId),
          kept,
          farm,
          signal,
          onProgress: ({ kept: finished, stage, framesDone, framesKept, leftMs, pieces }) =>
            progress({ stage, framesDone, framesKept, leftMs, pieces } satisfies FilmProgressKept, finished),
          onGlimpse: (jpeg) => void glimpses.set(filmId, jpeg),
        }).finally(() => glimpses.delete(filmId));
        await filmFiles.keep(name);
        if (formatOf(spec.format).holds !== 'sound') await filmFiles.keep(posterName(filmId));
        return async (transaction) => {
          await transaction
            .update(films)
            .set({
              state: 'ready',
              byteCount: made.byteCount,
              keptFrames: made.keptFrames,
              likeness: made.likeness,
              problem: missingSentence(made.problems.length + missing),
              finishedAt: now(),
            })
            .where(and(eq(films.id, filmId), eq(films.state, 'making')));
        };
      },
      progressed: (job) => events.tell(showId(dataOf(job).showId), { kind: 'films' }),
      ended: (job) => {
        const { filmId, showId: show } = dataOf(job);
        void find(filmId).then((film) => {
          const ended = film && { id: filmId, purpose: film.spec.purpose, ready: film.state === 'ready' };
          events.tell(showId(show), { kind: 'films', ...(ended && { ended }) });
        });
      },
      failed: (job, error) => {
        const problem =
          error === null
            ? `Making this film ended the server ${MOST_TRIES} times without getting any further, so it is not tried again.`
            : failureSentence(error);
        return {
          problem,
          commit: (transaction) => fail(dataOf(job).filmId, problem, transaction),
        };
      },
    },
  };

  function jobFor(film: typeof films.$inferSelect, document: Show) {
    const { id, studioId } = film;
    const data: FilmData = { filmId: id, showId: film.showId, document, spec: specOf(film, document) };
    return { kind: 'film', studioId, key: id, data } as const;
  }

  async function fail(filmId: string, problem: string, one: Writing): Promise<void> {
    await one
      .update(films)
      .set({ state: 'failed', problem, finishedAt: now() })
      .where(and(eq(films.id, filmId), inArray(films.state, ['waiting', 'making'])));
  }

  async function clearWork(filmId: string): Promise<void> {
    await jobs.cancel('film', filmId);
    await stop(filmId);
    await rm(workFolder(filmId), { recursive: true, force: true });
  }

  async function filesFor(show: ShowId, document: Show) {
    const ids = await ownFiles(show, document);
    const files = new Map<AssetId, string>();
    for (const id of ids) files.set(id, await blobs.localFile(id));
    return { ids, files };
  }

  /** What is known of a show’s own files, and where they are. */
  async function allOf(show: Show) {
    const { ids, files } = await filesFor(show.id, show);
    return { files, facts: await sheet.factsOf(ids, show.methods) };
  }

  function spareFolder(): string {
    return path.join(folder, `spare-${nanoid(8)}${WORK}`);
  }

  async function removeFiles(filmId: string): Promise<void> {
    await filmFiles.remove(`${safeName(filmId)}.`, WORK);
  }

  async function find(filmId: string): Promise<FilmRow | null> {
    return (await withProgress(await db.select().from(films).where(eq(films.id, filmId))))[0] ?? null;
  }

  async function showOf(filmId: string): Promise<ShowId | null> {
    const [row] = await db.select({ showId: films.showId }).from(films).where(eq(films.id, filmId));
    return row ? showId(row.showId) : null;
  }

  async function tellOf(filmId: string): Promise<void> {
    const show = await showOf(filmId);
    if (show) events.tell(show, { kind: 'films' });
  }

  async function withProgress(rows: readonly (typeof films.$inferSelect)[]): Promise<FilmRow[]> {
    const unended = rows.filter((row) => row.state === 'making').map((row) => row.id);
    const progress = await jobs.progressOf('film', unended);
    return rows.map((row) => filmRow(row, (progress.get(row.id) as FilmProgressKept | undefined) ?? null));
  }

  /** A film waits until everything in it has been looked at. */
  async function assertLookedAt(show: Show): Promise<void> {
    const ids = new Set<string>(assetIdsOf(show));
    const waiting = await db
      .select({ assetId: sheetEntries.assetId })
      .from(sheetEntries)
      .where(and(eq(sheetEntries.showId, show.id), eq(sheetEntries.state, 'arrived')));
    if (waiting.some((entry) => ids.has(entry.assetId))) throw new NotYetError('files are still being looked at');
    for (const id of movedByThemselves(show))
      if (await jobs.isUnended('focus', id)) throw new NotYetError('what pictures show is still being found out');
    for (const id of ids)
      if (await jobs.isUnended('hear', id)) throw new NotYetError('songs are still being listened to');
  }

  /** Only files on the show’s own contact sheet: a document that names others does not get at them. */
  async function ownFiles(show: ShowId, document: Show): Promise<AssetId[]> {
    const there = await db
      .select({ assetId: sheetEntries.assetId })
      .from(sheetEntries)
      .where(eq(sheetEntries.showId, show));
    const own = new Set(there.map((entry) => entry.assetId));
    return assetIdsOf(document).filter((id) => own.has(id));
  }
}

/** Segments of films in the making lie in folders with this ending. */
const WORK = '.work';
/** Of shows as they were when something was tried with them. */
const MOST_TRIALS = 60;
/** Films whose segments wait in the queue together; each is mixed and joined here. */
const MOST_AT_ONCE = 6;
/** Tries in a row with no segment finished. */
const MOST_TRIES = 4;

/** Pictures and clips whose framing follows what they show. */
function movedByThemselves(show: Show): ReadonlySet<AssetId> {
  const ids = new Set<AssetId>();
  for (const slide of show.slides)
    for (const layer of everyLayer(slide.layers))
      if ((layer.kind === 'picture' || layer.kind === 'clip') && layer.move?.kind !== 'set') ids.add(layer.assetId);
  return ids;
}

const NO_FACTS: FactsById = new Map();

/** Film ids are our own; this keeps a wrong one from ever leaving the folder. */
function safeName(filmId: string): string {
  if (!/^[\w-]{1,40}$/.test(filmId))
    throw new RangeError(`a film id must be letters, digits, _ and -, got ${JSON.stringify(filmId)}`);
  return filmId;
}
