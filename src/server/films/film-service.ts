import { rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { and, asc, desc, eq, inArray, lt, or } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import { frameCount } from '../../core/timing/frames';
import { showLengthMs } from '../../core/timing/slide-span';
import { assetIdsOf, type Show } from '../../core/show/show';
import { showId, type ShowId } from '../../core/show/ids';
import type { ContactSheet } from '../assets/contact-sheet';
import type { BlobStore } from '../blobs/blob-store';
import type { OpenDatabase } from '../database/open-database';
import { films, jobs } from '../database/schema';
import type { Events } from '../events';
import { FfmpegError } from '../ffmpeg/run-ffmpeg';
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
  findByToken(token: string): Promise<FilmRow | null>;
  /** Takes up waiting work now and from then on, until stopped. */
  start(): () => void;
}

/** Who holds a lease says so again this often; a lease that was not renewed for its whole length is free to take. */
const HEARTBEAT_MS = 2000;
const LEASE_MS = 8000;
const LOOK_AGAIN_MS = 1000;
/** Work that ended the server this often is not tried again. */
const MOST_ATTEMPTS = 4;
const PROGRESS_EVERY_MS = 500;

class FilmCancelled extends Error {
  override readonly name = 'FilmCancelled';
}

interface FilmServiceParts {
  readonly database: OpenDatabase;
  readonly blobs: BlobStore;
  readonly sheet: ContactSheet;
  readonly events: Events;
  readonly folder: string;
  readonly now?: () => number;
}

export function createFilmService({
  database: { db, write },
  blobs,
  sheet,
  events,
  folder,
  now = Date.now,
}: FilmServiceParts): FilmService {
  const holder = nanoid(12);
  const running = new Map<string, AbortController>();
  const fileOf = (filmId: string) => path.join(folder, `${safeName(filmId)}.mp4`);
  const workFolder = (filmId: string) => path.join(folder, `${safeName(filmId)}.work`);

  return {
    async order(show, heightPx) {
      const id = nanoid(12);
      await write(async (database) =>
        database.transaction(async (transaction) => {
          await transaction.insert(films).values({
            id,
            showId: show.id,
            document: show,
            title: show.title,
            heightPx,
            framesPerSecond: show.frame.framesPerSecond,
            state: 'waiting',
            stage: null,
            framesDone: 0,
            frameCount: frameCount(showLengthMs(show), show.frame.framesPerSecond),
            screeningToken: nanoid(24),
            orderedAt: now(),
          });
          await transaction
            .insert(jobs)
            .values({ id: nanoid(12), kind: 'film', subjectId: id, state: 'waiting', attempts: 0, createdAt: now() });
        }),
      );
      events.tell(show.id, { kind: 'films' });
      look();
      return id;
    },
    async list(show) {
      return (await db.select().from(films).where(eq(films.showId, show)).orderBy(desc(films.orderedAt))).map(filmRow);
    },
    async cancel(filmId) {
      const result = await write(async (database) => {
        const changed = await database
          .update(films)
          .set({ state: 'cancelled', finishedAt: now() })
          .where(and(eq(films.id, filmId), inArray(films.state, ['waiting', 'making'])));
        if (changed.rowsAffected > 0)
          await database.update(jobs).set({ state: 'done' }).where(eq(jobs.subjectId, filmId));
        return changed.rowsAffected > 0;
      });
      if (!result) return false;
      const controller = running.get(filmId);
      if (controller) controller.abort(new FilmCancelled('cancelled'));
      else await rm(workFolder(filmId), { recursive: true, force: true });
      await tellOf(filmId);
      return true;
    },
    async remove(filmId) {
      const film = await find(filmId);
      if (!film || film.state === 'making' || film.state === 'waiting') return false;
      const show = await showOf(filmId);
      await write(async (database) => {
        await database.delete(jobs).where(eq(jobs.subjectId, filmId));
        await database.delete(films).where(eq(films.id, filmId));
      });
      await rm(fileOf(filmId), { force: true });
      if (show) events.tell(show, { kind: 'films' });
      return true;
    },
    fileOf,
    find,
    async findByToken(token) {
      const [row] = await db.select().from(films).where(eq(films.screeningToken, token));
      return row ? filmRow(row) : null;
    },
    start() {
      const timer = setInterval(look, LOOK_AGAIN_MS);
      look();
      return () => {
        clearInterval(timer);
        for (const controller of running.values()) controller.abort(new Error('the server is ending'));
      };
    },
  };

  async function find(filmId: string): Promise<FilmRow | null> {
    const [row] = await db.select().from(films).where(eq(films.id, filmId));
    return row ? filmRow(row) : null;
  }

  async function showOf(filmId: string): Promise<ShowId | null> {
    const [row] = await db.select({ showId: films.showId }).from(films).where(eq(films.id, filmId));
    return row ? showId(row.showId) : null;
  }

  async function tellOf(filmId: string): Promise<void> {
    const show = await showOf(filmId);
    if (show) events.tell(show, { kind: 'films' });
  }

  /** One film at a time: its workers fill the machine. */
  async function takeUp(): Promise<void> {
    if (running.size > 0) return;
    const job = await claim();
    if (!job || running.size > 0) return;
    const controller = new AbortController();
    running.set(job.subjectId, controller);
    const heartbeat = setInterval(() => void renew(job.id), HEARTBEAT_MS);
    try {
      await make(job.subjectId, controller.signal);
      await write((database) => database.update(jobs).set({ state: 'done' }).where(eq(jobs.id, job.id)));
    } finally {
      clearInterval(heartbeat);
      running.delete(job.subjectId);
    }
    look();
  }

  /** A database that is busy for a moment must not end the server: the next look comes in a second. */
  function look(): void {
    takeUp().catch((error: unknown) => console.error('films:', error));
  }

  async function claim(): Promise<typeof jobs.$inferSelect | null> {
    return write(async (database) => {
      if (running.size > 0) return null;
      const [job] = await database
        .select()
        .from(jobs)
        .where(or(eq(jobs.state, 'waiting'), and(eq(jobs.state, 'running'), lt(jobs.leaseUntil, now()))))
        .orderBy(asc(jobs.createdAt))
        .limit(1);
      if (!job) return null;
      if (job.attempts >= MOST_ATTEMPTS) {
        await database.update(jobs).set({ state: 'done' }).where(eq(jobs.id, job.id));
        await database
          .update(films)
          .set({
            state: 'failed',
            problem: `Making this film ended the server ${job.attempts} times, so it is not tried again.`,
            finishedAt: now(),
          })
          .where(eq(films.id, job.subjectId));
        return null;
      }
      const claimed = { state: 'running' as const, holder, leaseUntil: now() + LEASE_MS, attempts: job.attempts + 1 };
      await database.update(jobs).set(claimed).where(eq(jobs.id, job.id));
      return { ...job, ...claimed };
    });
  }

  async function renew(jobId: string): Promise<void> {
    await write((database) =>
      database
        .update(jobs)
        .set({ leaseUntil: now() + LEASE_MS })
        .where(and(eq(jobs.id, jobId), eq(jobs.holder, holder))),
    );
  }

  async function make(filmId: string, signal: AbortSignal): Promise<void> {
    const [film] = await db.select().from(films).where(eq(films.id, filmId));
    if (!film || film.state === 'cancelled') return;
    const show = showId(film.showId);
    await change(filmId, show, { state: 'making', startedAt: film.startedAt ?? now() });
    let toldAt = 0;
    let saving: Promise<unknown> = Promise.resolve();
    const onProgress = (progress: FilmProgress) => {
      if (now() - toldAt < PROGRESS_EVERY_MS) return;
      toldAt = now();
      saving = changeUnlessCancelled(filmId, show, {
        stage: progress.stage,
        framesDone: progress.framesDone,
        frameCount: progress.frameCount,
      });
    };
    try {
      const ids = assetIdsOf(film.document);
      const made = await makeFilm({
        show: film.document,
        facts: await sheet.factsOf(ids),
        files: new Map(ids.map((id) => [id, blobs.fileOf(id)])),
        heightPx: film.heightPx,
        framesPerSecond: film.framesPerSecond,
        outFile: fileOf(filmId),
        workFolder: workFolder(filmId),
        signal,
        onProgress,
      });
      await saving;
      const { size } = await stat(fileOf(filmId));
      const missing =
        made.problems.length > 0
          ? `${made.problems.length === 1 ? 'One file' : `${made.problems.length} files`} could not be read and ${made.problems.length === 1 ? 'is' : 'are'} missing from this film.`
          : null;
      await changeUnlessCancelled(filmId, show, {
        state: 'ready',
        stage: null,
        framesDone: made.plan.frameCount,
        byteCount: size,
        problem: missing,
        finishedAt: now(),
      });
    } catch (error) {
      await saving;
      if (error instanceof FilmCancelled) {
        await rm(workFolder(filmId), { recursive: true, force: true });
        return;
      }
      // The server is ending: the lease runs out and whoever comes next goes on.
      if (signal.aborted) throw error;
      await changeUnlessCancelled(filmId, show, {
        state: 'failed',
        problem: failureSentence(error),
        finishedAt: now(),
      });
    }
  }

  async function change(filmId: string, show: ShowId, values: Partial<typeof films.$inferInsert>): Promise<void> {
    await write((database) => database.update(films).set(values).where(eq(films.id, filmId)));
    events.tell(show, { kind: 'films' });
  }

  async function changeUnlessCancelled(
    filmId: string,
    show: ShowId,
    values: Partial<typeof films.$inferInsert>,
  ): Promise<void> {
    await write((database) =>
      database
        .update(films)
        .set(values)
        .where(and(eq(films.id, filmId), eq(films.state, 'making'))),
    );
    events.tell(show, { kind: 'films' });
  }
}

function failureSentence(error: unknown): string {
  if ((error as NodeJS.ErrnoException).code === 'ENOSPC') return 'The disk is full. Make room and make the film again.';
  if (error instanceof FfmpegError || error instanceof FilmFailedError)
    return error.details ? `${error.message} It said: ${error.details.split('\n').at(-1)}` : error.message;
  return error instanceof Error ? error.message : String(error);
}

function filmRow(row: typeof films.$inferSelect): FilmRow {
  const {
    id,
    title,
    heightPx,
    framesPerSecond,
    state,
    stage,
    framesDone,
    problem,
    byteCount,
    screeningToken,
    orderedAt,
    startedAt,
    finishedAt,
  } = row;
  return {
    id,
    title,
    heightPx,
    framesPerSecond,
    state,
    stage,
    framesDone,
    problem,
    byteCount,
    screeningToken,
    orderedAt,
    startedAt,
    finishedAt,
    frameCount: row.frameCount,
    lengthMs: (row.frameCount * 1000) / row.framesPerSecond,
  };
}

/** Film ids are our own; this keeps a wrong one from ever leaving the folder. */
function safeName(filmId: string): string {
  if (!/^[\w-]{1,40}$/.test(filmId))
    throw new RangeError(`a film id must be letters, digits, _ and -, got ${JSON.stringify(filmId)}`);
  return filmId;
}
