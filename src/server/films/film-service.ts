import { readdir, rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { and, desc, eq, inArray } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { showId, type AssetId, type ShowId } from '../../core/show/ids';
import { everyLayer } from '../../core/show/layer';
import { assetIdsOf, type Show } from '../../core/show/show';
import { framesPerSecond, wholeRate, type FrameRate } from '../../core/timing/frame-rate';
import { frameCount, momentOfFrame } from '../../core/timing/frames';
import { showLengthMs } from '../../core/timing/slide-span';
import type { ContactSheet } from '../assets/contact-sheet';
import type { BlobStore } from '../blobs/blob-store';
import type { OpenDatabase, Writing } from '../database/open-database';
import { filmDocuments, films, sheetEntries } from '../database/schema';
import type { Events } from '../events';
import { FfmpegError } from '../ffmpeg/run-ffmpeg';
import { DISK_FULL, isDiskFull } from '../http/refusal';
import type { JobStore, TakenJob } from '../jobs/job';
import { NotYetError, type JobKindOfWork } from '../jobs/job-runner';
import { parseStoredShow } from '../schema/show-schema';
import { FilmFailedError, makeFilm, type FilmProgress, type FilmStage } from './make-film';

export interface FilmRow {
  readonly id: string;
  readonly title: string;
  readonly heightPx: number;
  readonly framesPerSecond: number;
  readonly lengthMs: number;
  readonly state: 'waiting' | 'making' | 'ready' | 'failed' | 'cancelled';
  readonly stage: FilmStage | null;
  readonly framesDone: number;
  readonly frameCount: number;
  readonly problem: string | null;
  readonly byteCount: number | null;
  readonly screeningToken: string;
  readonly orderedAt: number;
  readonly startedAt: number | null;
  readonly finishedAt: number | null;
}

export interface FilmService {
  order(show: Show, heightPx: number): Promise<string>;
  list(show: ShowId): Promise<FilmRow[]>;
  /** Stops a film being made or waiting. @returns false when it is neither */
  cancel(filmId: string): Promise<boolean>;
  remove(filmId: string): Promise<boolean>;
  fileOf(filmId: string): string;
  find(filmId: string): Promise<FilmRow | null>;
  /** Orders anew what waits or was being made and has no work waiting for it, and clears away what earlier servers left. */
  resume(): Promise<void>;
}

/** What making a film needs to know: the work can be done wherever the files are. */
interface FilmData {
  readonly filmId: string;
  readonly showId: string;
  /** As it was when the film was ordered. */
  readonly document: unknown;
  readonly heightPx: number;
  /** Work that was ordered before there were rates that are not whole says its frames a second. */
  readonly rate: FrameRate | undefined;
  readonly framesPerSecond?: number;
}

type FilmProgressKept = Pick<FilmProgress, 'stage' | 'framesDone'>;

interface FilmServiceParts {
  readonly database: OpenDatabase;
  readonly blobs: BlobStore;
  readonly sheet: Pick<ContactSheet, 'factsOf'>;
  readonly jobs: JobStore;
  readonly events: Events;
  readonly folder: string;
  /** Something was added to the jobs. */
  readonly wake: () => void;
  /** Stops what is at work on a film. */
  readonly stop: (filmId: string) => Promise<void>;
  readonly now?: () => number;
}

/** Ordering films and looking after them; the making is `making`. */
export function createFilmService(parts: FilmServiceParts): FilmService & { readonly making: JobKindOfWork } {
  const { database, blobs, sheet, jobs, events, folder, wake, stop, now = Date.now } = parts;
  const { db, write } = database;
  const fileOf = (filmId: string) => path.join(folder, `${safeName(filmId)}.mp4`);
  const workFolder = (filmId: string) => path.join(folder, `${safeName(filmId)}${WORK}`);
  const dataOf = (job: TakenJob) => job.data as FilmData;

  return {
    async order(show, heightPx) {
      const id = nanoid(12);
      const { rate } = show.frame;
      await write((one) =>
        one.transaction(async (transaction) => {
          await transaction.insert(films).values({
            id,
            showId: show.id,
            title: show.title,
            heightPx,
            rateFrames: rate.frames,
            rateSeconds: rate.seconds,
            state: 'waiting',
            frameCount: frameCount(showLengthMs(show), rate),
            screeningToken: nanoid(24),
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
      await rm(fileOf(filmId), { force: true });
      await tellOf(filmId);
      return true;
    },
    async remove(filmId) {
      const film = await find(filmId);
      if (!film || film.state === 'making' || film.state === 'waiting') return false;
      const show = await showOf(filmId);
      await write((one) =>
        one.transaction(async (transaction) => {
          await transaction.delete(filmDocuments).where(eq(filmDocuments.filmId, filmId));
          await transaction.delete(films).where(eq(films.id, filmId));
        }),
      );
      await rm(fileOf(filmId), { force: true });
      await clearWork(filmId);
      if (show) events.tell(show, { kind: 'films' });
      return true;
    },
    fileOf,
    find,
    async resume() {
      const unended = await db
        .select()
        .from(films)
        .where(inArray(films.state, ['waiting', 'making']));
      for (const film of unended) {
        if (await jobs.isUnended('film', film.id)) continue;
        const [kept] = await db.select().from(filmDocuments).where(eq(filmDocuments.filmId, film.id));
        const parsed = parseStoredShow(kept?.document);
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
      // Its workers fill the machine.
      atOnce: 1,
      mostTries: MOST_TRIES,
      work: async ({ job, signal, progress }) => {
        const { filmId, heightPx } = dataOf(job);
        const rate = dataOf(job).rate ?? wholeRate(dataOf(job).framesPerSecond!);
        // It may have waited since before an update.
        const parsed = parseStoredShow(dataOf(job).document);
        if (!parsed.ok)
          throw new FilmFailedError('What was kept of the show for this film is damaged.', parsed.problem);
        const document = parsed.value;
        const show = showId(dataOf(job).showId);
        await assertLookedAt(document);
        const ids = await ownFiles(show, document);
        const missing = assetIdsOf(document).length - ids.length;
        await write((one) =>
          one
            .update(films)
            .set({ state: 'making', startedAt: now() })
            .where(and(eq(films.id, filmId), eq(films.state, 'waiting'))),
        );
        events.tell(show, { kind: 'films' });
        const files = new Map<AssetId, string>();
        for (const id of ids) files.set(id, await blobs.localFile(id));
        const made = await makeFilm({
          show: document,
          facts: await sheet.factsOf(ids, document.methods),
          files,
          heightPx,
          rate,
          outFile: fileOf(filmId),
          workFolder: workFolder(filmId),
          keepsWork: true,
          signal,
          onProgress: ({ stage, framesDone, kept }) => progress({ stage, framesDone } satisfies FilmProgressKept, kept),
        });
        const { size } = await stat(fileOf(filmId));
        return async (transaction) => {
          await transaction
            .update(films)
            .set({
              state: 'ready',
              byteCount: size,
              problem: missingSentence(made.problems.length + missing),
              finishedAt: now(),
            })
            .where(and(eq(films.id, filmId), eq(films.state, 'making')));
        };
      },
      progressed: (job) => events.tell(showId(dataOf(job).showId), { kind: 'films' }),
      ended: (job) => {
        events.tell(showId(dataOf(job).showId), { kind: 'films' });
        void rm(workFolder(dataOf(job).filmId), { recursive: true, force: true });
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
    const { id, studioId, heightPx } = film;
    const data: FilmData = { filmId: id, showId: film.showId, document, heightPx, rate: rateOf(film) };
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
/** Tries in a row with no segment finished. */
const MOST_TRIES = 4;

/** Pictures whose moves follow what they show. */
function movedByThemselves(show: Show): ReadonlySet<AssetId> {
  const ids = new Set<AssetId>();
  for (const slide of show.slides)
    for (const layer of everyLayer(slide.layers))
      if (layer.kind === 'picture' && layer.move.kind !== 'set') ids.add(layer.assetId);
  return ids;
}

function missingSentence(count: number): string | null {
  if (count === 0) return null;
  return count === 1
    ? 'One file could not be read and is missing from this film.'
    : `${count} files could not be read and are missing from this film.`;
}

function failureSentence(error: unknown): string {
  if (isDiskFull(error)) return DISK_FULL;
  if (error instanceof FfmpegError || error instanceof FilmFailedError)
    return error.details ? `${error.message} It said: ${error.details.split('\n').at(-1)}` : error.message;
  return error instanceof Error ? error.message : String(error);
}

function filmRow(row: typeof films.$inferSelect, progress: FilmProgressKept | null): FilmRow {
  const { id, title, heightPx, state, problem, byteCount, screeningToken, orderedAt } = row;
  return {
    id,
    title,
    heightPx,
    framesPerSecond: framesPerSecond(rateOf(row)),
    state,
    stage: progress?.stage ?? null,
    framesDone: state === 'ready' ? row.frameCount : (progress?.framesDone ?? 0),
    problem,
    byteCount,
    screeningToken,
    orderedAt,
    startedAt: row.startedAt,
    finishedAt: row.finishedAt,
    frameCount: row.frameCount,
    lengthMs: Math.round(momentOfFrame(row.frameCount, rateOf(row))),
  };
}

function rateOf({ rateFrames, rateSeconds }: typeof films.$inferSelect): FrameRate {
  return { frames: rateFrames, seconds: rateSeconds };
}

/** Film ids are our own; this keeps a wrong one from ever leaving the folder. */
function safeName(filmId: string): string {
  if (!/^[\w-]{1,40}$/.test(filmId))
    throw new RangeError(`a film id must be letters, digits, _ and -, got ${JSON.stringify(filmId)}`);
  return filmId;
}
