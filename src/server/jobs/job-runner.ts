import { setTimeout as sleep } from 'node:timers/promises';
import { nanoid } from 'nanoid';
import type { Writing } from '../database/open-database';
import { logger } from '../logger';
import { isStoreUnreachable } from '../blobs/object-store';
import { isDiskFull } from '../http/refusal';

import type { JobKind, JobStore, TakenJob } from './job';

/** What a kind of work can use while it is done. */
export interface JobAtWork {
  readonly job: TakenJob;
  /** Aborted when the lease is lost, the work is cancelled or the server ends. */
  readonly signal: AbortSignal;
  /**
   * Tells how far it is; may be told often, and is written now and then.
   *
   * @param finished something of it is done for good: written at once
   */
  progress(value: unknown, finished?: boolean): void;
}

/** How a kind of work is done. */
export interface JobKindOfWork {
  readonly kind: JobKind;
  /** How many at the same time. */
  readonly atOnce: number;
  /** Tries in a row with nothing finished after which it is given up. */
  readonly mostTries: number;
  /** Whether its time has come; asked before any is taken. */
  ready?(): boolean | Promise<boolean>;
  /** @returns what is committed when it is done; nothing of it is written when the lease was lost meanwhile */
  work(at: JobAtWork): Promise<(transaction: Writing) => Promise<void>>;
  /** After how far it is was written: a few times a second at most. */
  progressed?(job: TakenJob): void;
  /** After something was committed or given up, whichever way it ended. */
  ended?(job: TakenJob): void;
  /**
   * When it cannot be done: a sentence for the person.
   *
   * @param error null when it ended the server again and again
   * @returns what is committed with that
   */
  failed(job: TakenJob, error: unknown): { readonly problem: string; commit(transaction: Writing): Promise<void> };
}

/** What it needs is not there yet: it is tried again soon, and this try does not count. */
export class NotYetError extends Error {
  override readonly name = 'NotYetError';
}

/** An error that may pass: the work is tried again after a pause. */
export class PassingError extends Error {
  override readonly name = 'PassingError';
}

/** Why a signal was aborted. */
class LeaseLostError extends Error {
  override readonly name = 'LeaseLostError';
}
class DrainingError extends Error {
  override readonly name = 'DrainingError';
}

export interface JobRunner {
  /** Looks for work now: something was added. */
  look(): void;
  /** Takes work up now and from then on, of all kinds unless some are named. */
  start(only?: readonly JobKind[]): void;
  /** Stops what is at work on a key, for work that was cancelled. Resolves when it has stopped. */
  stop(kind: JobKind, key: string): Promise<void>;
  /** Takes nothing up any more, stops what is at work and gives it back. */
  drain(): Promise<void>;
  /** Resolves when nothing of a kind is at work or waits. */
  idle(kind: JobKind): Promise<void>;
}

const HEARTBEAT_MS = 2500;
const LOOK_AGAIN_MS = 1000;
const TELL_EVERY_MS = 500;
const CLEAN_UP_EVERY_MS = 3600_000;
const IDLE_LOOK_MS = 50;

/** Takes work from a store and does it, so many of each kind at a time. */
export function createJobRunner(store: JobStore, known: readonly JobKindOfWork[]): JobRunner {
  const holder = nanoid(12);
  const atWork = new Map<
    string,
    { readonly kind: JobKind; readonly key: string; readonly controller: AbortController; readonly done: Promise<void> }
  >();
  const timers: ReturnType<typeof setInterval>[] = [];
  /** Nothing is taken up before it is started. */
  let kinds: readonly JobKindOfWork[] = [];
  let draining = false;
  let looking: Promise<void> | null = null;
  let lookAgain = false;

  const busyWith = (kind: JobKind) => [...atWork.values()].filter((one) => one.kind === kind).length;

  return {
    look,
    start(only) {
      kinds = known.filter((kind) => !only || only.includes(kind.kind));
      timers.push(setInterval(look, LOOK_AGAIN_MS));
      timers.push(
        setInterval(() => void store.cleanUp().catch(told('ended work could not be cleared away')), CLEAN_UP_EVERY_MS),
      );
      for (const timer of timers) timer.unref();
      look();
    },
    async drain() {
      draining = true;
      for (const timer of timers) clearInterval(timer);
      await looking;
      for (const { controller } of atWork.values()) controller.abort(new DrainingError('the server is ending'));
      await Promise.all([...atWork.values()].map((one) => one.done));
    },
    async stop(kind, key) {
      const found = [...atWork.values()].find((one) => one.kind === kind && one.key === key);
      found?.controller.abort(new LeaseLostError('this work was cancelled'));
      await found?.done;
    },
    async idle(kind) {
      for (;;) {
        const isWaiting = await store.hasWaiting(kind);
        // What does not wait any more may just be taken up.
        await looking;
        const busy = [...atWork.values()].filter((one) => one.kind === kind);
        if (busy.length === 0 && !isWaiting) return;
        look();
        await Promise.race([sleep(IDLE_LOOK_MS), ...busy.map((one) => one.done)]);
      }
    },
  };

  function look(): void {
    if (draining) return;
    if (looking) {
      lookAgain = true;
      return;
    }
    looking = takeAll()
      .catch(told('work could not be taken up'))
      .finally(() => {
        looking = null;
        if (lookAgain) {
          lookAgain = false;
          look();
        }
      });
  }

  async function takeAll(): Promise<void> {
    for (;;) {
      const free: JobKind[] = [];
      for (const kind of kinds)
        if (busyWith(kind.kind) < kind.atOnce && (!kind.ready || (await kind.ready()))) free.push(kind.kind);
      if (free.length === 0 || draining) return;
      const job = await store.take(free, holder);
      if (!job) return;
      begin(
        job,
        known.find((kind) => kind.kind === job.kind)!,
      );
    }
  }

  function begin(job: TakenJob, kind: JobKindOfWork): void {
    const controller = new AbortController();
    const done = perform(job, kind, controller)
      .catch(told('work ended otherwise than it should', job))
      .finally(() => {
        atWork.delete(job.id);
        look();
      });
    atWork.set(job.id, { kind: job.kind, key: job.key, controller, done });
  }

  async function perform(job: TakenJob, kind: JobKindOfWork, controller: AbortController): Promise<void> {
    const giveUp = async (error: unknown) => {
      const { problem, commit } = kind.failed(job, error);
      await store.fail(job, problem, commit);
      kind.ended?.(job);
    };
    if (job.tries > kind.mostTries) return giveUp(null);
    const { signal } = controller;
    const lost = () => controller.abort(new LeaseLostError('somebody else does this work now'));
    const heartbeat = setInterval(() => {
      store.renew(job).then((mine) => mine || lost(), told('a lease could not be renewed', job));
    }, HEARTBEAT_MS);
    const telling = createTelling(store, job, lost, () => kind.progressed?.(job));
    try {
      const commit = await kind.work({ job, signal, progress: telling.tell });
      await telling.settled();
      signal.throwIfAborted();
      if (await store.finish(job, commit)) kind.ended?.(job);
    } catch (error) {
      await telling.settled();
      if (signal.aborted) {
        if (signal.reason instanceof DrainingError) await store.giveBack(job);
        return;
      }
      if (error instanceof NotYetError) return store.postpone(job, error.message, false);
      logger().warn({ err: error, job: job.id, kind: job.kind, key: job.key }, 'work failed');
      const passes = error instanceof PassingError || isDiskFull(error) || isStoreUnreachable(error);
      if (passes && job.tries < kind.mostTries)
        await store.postpone(job, error instanceof Error ? error.message : String(error), true);
      else await giveUp(error);
    } finally {
      clearInterval(heartbeat);
    }
  }
}

/** Writes how far work is now and then, and at once when something of it is finished. */
function createTelling(store: JobStore, job: TakenJob, lost: () => void, written: () => void) {
  let toldMs = -Infinity;
  let last: Promise<void> = Promise.resolve();
  return {
    tell(value: unknown, finished = false): void {
      const nowMs = performance.now();
      if (!finished && nowMs - toldMs < TELL_EVERY_MS) return;
      toldMs = nowMs;
      last = last.then(() =>
        store.progress(job, value, finished).then(
          (mine) => {
            if (mine) written();
            else lost();
          },
          told('progress could not be written', job),
        ),
      );
    },
    settled: () => last,
  };
}

/** The work goes on without; the next look or the next heartbeat tries again. */
function told(what: string, job?: TakenJob): (error: unknown) => void {
  return (error) => logger().error({ err: error, ...(job && { job: job.id, kind: job.kind, key: job.key }) }, what);
}
