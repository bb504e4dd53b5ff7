import { and, asc, count, desc, eq, inArray, lt, lte, or, sql } from 'drizzle-orm';
import { nanoid } from 'nanoid';
import type { OpenDatabase, Writing } from '../database/open-database';
import { jobProgress, jobs } from '../database/schema';
import type { JobKind, JobStore, NewJob, TakenJob } from './job';

/** A lease that was not renewed for so long is free to take. */
export const LEASE_MS = 10_000;
/** Ended work is kept for so long, to be looked at when something went wrong. */
const KEPT_MS = 3 * 24 * 3600 * 1000;
const FIRST_PAUSE_MS = 1000;
const LONGEST_PAUSE_MS = 5 * 60_000;

const UNENDED = ['waiting', 'running'] as const;

/** Work in the database. */
export function createJobStore({ db, write }: OpenDatabase, now: () => number = Date.now): JobStore {
  const held = (job: TakenJob) => and(eq(jobs.id, job.id), eq(jobs.state, 'running'), eq(jobs.fence, job.fence));

  /** What ends a job is written with what came of it, and only by whoever took it last. */
  const end = (
    job: TakenJob,
    state: 'done' | 'failed',
    problem: string | null,
    commit: (transaction: Writing) => Promise<void>,
  ) =>
    write((database) =>
      database.transaction(async (transaction) => {
        const ended = await transaction
          .update(jobs)
          .set({ state, problem, holder: null, leaseUntil: null, endedAt: now() })
          .where(held(job));
        if (ended.rowsAffected === 0) return false;
        await transaction.delete(jobProgress).where(eq(jobProgress.jobId, job.id));
        await commit(transaction);
        return true;
      }),
    );

  async function addWithin(
    database: Writing,
    { kind, studioId, key, data, priority = 0, notBefore = 0 }: NewJob,
  ): Promise<boolean> {
    const [there] = await database
      .select({ id: jobs.id })
      .from(jobs)
      .where(and(eq(jobs.kind, kind), eq(jobs.key, key), inArray(jobs.state, [...UNENDED])))
      .limit(1);
    if (there) return false;
    await database.insert(jobs).values({
      id: nanoid(12),
      studioId,
      kind,
      key,
      data,
      priority,
      state: 'waiting',
      fence: 0,
      tries: 0,
      notBefore,
      createdAt: now(),
    });
    return true;
  }

  return {
    add: (job) => write((database) => addWithin(database, job)),
    addWithin,
    take: (kinds, holder) =>
      write(async (database) => {
        const free = or(
          and(eq(jobs.state, 'waiting'), lte(jobs.notBefore, now())),
          and(eq(jobs.state, 'running'), lt(jobs.leaseUntil, now())),
        );
        const [job] = await database
          .select()
          .from(jobs)
          .where(and(inArray(jobs.kind, [...kinds]), free))
          .orderBy(desc(jobs.priority), asc(jobs.createdAt), asc(sql`rowid`))
          .limit(1);
        if (!job) return null;
        const taken = { fence: job.fence + 1, tries: job.tries + 1 };
        await database
          .update(jobs)
          .set({ ...taken, state: 'running', holder, leaseUntil: now() + LEASE_MS })
          .where(eq(jobs.id, job.id));
        const { id, studioId, key, data } = job;
        return { id, studioId, key, data, kind: job.kind as JobKind, ...taken };
      }),
    async renew(job) {
      const renewed = await write((database) =>
        database
          .update(jobs)
          .set({ leaseUntil: now() + LEASE_MS })
          .where(held(job)),
      );
      return renewed.rowsAffected > 0;
    },
    progress: (job, value, finished) =>
      write(async (database) => {
        const [mine] = await database.select({ id: jobs.id }).from(jobs).where(held(job));
        if (!mine) return false;
        if (finished) await database.update(jobs).set({ tries: 0 }).where(held(job));
        await database
          .insert(jobProgress)
          .values({ jobId: job.id, value, at: now() })
          .onConflictDoUpdate({ target: jobProgress.jobId, set: { value, at: now() } });
        return true;
      }),
    finish: (job, commit) => end(job, 'done', null, commit),
    fail: (job, problem, commit) => end(job, 'failed', problem, commit),
    async postpone(job, problem, counts) {
      const pauseMs = counts ? Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** job.tries) : FIRST_PAUSE_MS;
      const tries = counts ? job.tries : job.tries - 1;
      await write((database) =>
        database
          .update(jobs)
          .set({ state: 'waiting', holder: null, leaseUntil: null, notBefore: now() + pauseMs, problem, tries })
          .where(held(job)),
      );
    },
    async giveBack(job) {
      await write((database) =>
        database
          .update(jobs)
          .set({ state: 'waiting', holder: null, leaseUntil: null, tries: sql`max(0, ${jobs.tries} - 1)` })
          .where(held(job)),
      );
    },
    async cancel(kind, key) {
      const ended = await write((database) =>
        database
          .update(jobs)
          .set({ state: 'cancelled', holder: null, leaseUntil: null, endedAt: now() })
          .where(and(eq(jobs.kind, kind), eq(jobs.key, key), inArray(jobs.state, [...UNENDED]))),
      );
      return ended.rowsAffected > 0;
    },
    first: (kind, key) =>
      write(async (database) => {
        const waiting = and(eq(jobs.kind, kind), eq(jobs.state, 'waiting'));
        const [highest] = await database
          .select({ priority: jobs.priority })
          .from(jobs)
          .where(waiting)
          .orderBy(desc(jobs.priority))
          .limit(1);
        const changed = await database
          .update(jobs)
          .set({ priority: (highest?.priority ?? 0) + 1 })
          .where(and(waiting, eq(jobs.key, key)));
        return changed.rowsAffected > 0;
      }),
    async freeAll() {
      await write((database) => database.update(jobs).set({ leaseUntil: 0 }).where(eq(jobs.state, 'running')));
    },
    async progressOf(kind, keys) {
      if (keys.length === 0) return new Map();
      const rows = await db
        .select({ key: jobs.key, value: jobProgress.value })
        .from(jobs)
        .innerJoin(jobProgress, eq(jobProgress.jobId, jobs.id))
        .where(and(eq(jobs.kind, kind), inArray(jobs.key, [...keys]), inArray(jobs.state, [...UNENDED])));
      return new Map(rows.map((row) => [row.key, row.value]));
    },
    async waitingOf(kind, keys) {
      if (keys.length === 0) return new Map();
      const rows = await db
        .select({ key: jobs.key, tries: jobs.tries, problem: jobs.problem, notBefore: jobs.notBefore })
        .from(jobs)
        .where(and(eq(jobs.kind, kind), inArray(jobs.key, [...keys]), eq(jobs.state, 'waiting')));
      return new Map(rows.map(({ key, ...row }) => [key, row]));
    },
    async isUnended(kind, key) {
      const [there] = await db
        .select({ id: jobs.id })
        .from(jobs)
        .where(and(eq(jobs.kind, kind), eq(jobs.key, key), inArray(jobs.state, [...UNENDED])))
        .limit(1);
      return there !== undefined;
    },
    async hasWaiting(kind) {
      const [there] = await db
        .select({ id: jobs.id })
        .from(jobs)
        .where(and(eq(jobs.kind, kind), eq(jobs.state, 'waiting')))
        .limit(1);
      return there !== undefined;
    },
    async cleanUp() {
      const old = lt(jobs.endedAt, now() - KEPT_MS);
      await write(async (database) => {
        await database
          .delete(jobProgress)
          .where(inArray(jobProgress.jobId, database.select({ id: jobs.id }).from(jobs).where(old)));
        await database.delete(jobs).where(old);
      });
    },
    async tally() {
      const rows = await db
        .select({ state: jobs.state, count: count() })
        .from(jobs)
        .where(inArray(jobs.state, [...UNENDED]))
        .groupBy(jobs.state);
      const of = (state: string) => rows.find((row) => row.state === state)?.count ?? 0;
      return { waiting: of('waiting'), running: of('running') };
    },
  };
}
