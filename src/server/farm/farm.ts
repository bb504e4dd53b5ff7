import { createHash } from 'node:crypto';
import { mkdir, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { Queue, QueueEvents } from 'bullmq';
import { nanoid } from 'nanoid';
import type { FilmSegment } from '../../core/film/plan-film';
import type { AssetId } from '../../core/show/ids';
import type { BlobStore } from '../blobs/blob-store';
import { STORE_AWAY, StoreUnreachableError } from '../blobs/object-store';
import { MOST_TRIES, type SegmentsOrder } from '../films/draw-segments';
import { FilmFailedError } from '../films/film-failed-error';
import type { DrawnSegment } from '../films/film-work';
import type { KeptFiles } from '../films/kept-files';
import { logger } from '../logger';
import {
  farmQueue,
  stoppedKey,
  workAsText,
  type SegmentDone,
  type SegmentJob,
  type SegmentProgress,
} from './farm-jobs';
import { createRedisLines } from './redis-lines';
import { startSegmentWorker } from './segment-worker';

/** Segments to be drawn by whoever is free; their names among the kept files are said. */
export interface FarmOrder extends SegmentsOrder {
  readonly keyOf: (segment: FilmSegment) => string;
  readonly assetsOf: (segment: FilmSegment) => readonly AssetId[];
}

/** Machines that draw segments together, with a queue on Redis between them. */
export interface SegmentFarm {
  /** Resolves when each lies under its name here, and among the kept files. */
  draw(order: FarmOrder): Promise<void>;
  /** @throws when the queue does not answer */
  says(): Promise<string>;
  close(): Promise<void>;
}

interface FarmParts {
  readonly url: string;
  readonly version: string;
  readonly blobs: Pick<BlobStore, 'localFile'>;
  readonly kept: KeptFiles;
  /** How many this machine draws itself; none: it only joins. */
  readonly own: number;
  readonly folder: string;
}

/** What is missed of what the queue tells, and what it forgot, is found by asking this often. */
const ASK_EVERY_MS = 5000;
/** So many are asked after at once. */
const ASKED = 200;
/** Ended work is kept for so long, in seconds, in case its end was not heard. */
const KEPT_S = 3600;
/** A queue that has not answered for so long is away. */
const AWAY_MS = 3000;
const NO_WORK: DrawnSegment = { drawMs: 0, readMs: 0, encodeMs: 0, stillFrames: 0 };

const away = (error: Error) => logger().warn({ err: error }, 'the queue of segments does not answer');

export async function openFarm({ url, version, blobs, kept, own, folder }: FarmParts): Promise<SegmentFarm> {
  // What an earlier server was drawing is of no use.
  await rm(folder, { recursive: true, force: true });
  await mkdir(folder, { recursive: true });
  const lines = createRedisLines(url);
  // What waits for news, or for work, needs a line of its own.
  const redis = lines.open();
  const queue = new Queue<SegmentJob, SegmentDone>(farmQueue(version), { connection: redis });
  const news = new QueueEvents(farmQueue(version), { connection: lines.open() });
  queue.on('error', away);
  news.on('error', away);
  const worker =
    own > 0 ? await startSegmentWorker({ redis: lines.open(), version, blobs, kept, count: own, folder }) : null;
  /** Going on now, by their names. */
  const runs = new Map<string, FarmRun>();
  const runOf = (jobId: string) => runs.get(jobId.slice(0, jobId.lastIndexOf('.')));
  news.on('active', ({ jobId }) => runOf(jobId)?.begun(jobId));
  news.on('progress', ({ jobId, data }) => runOf(jobId)?.progressed(jobId, data as SegmentProgress));
  news.on('completed', ({ jobId, returnvalue }) => runOf(jobId)?.done(jobId, returnvalue as unknown as SegmentDone));
  news.on('failed', ({ jobId, failedReason }) => runOf(jobId)?.failed(failedReason));

  async function keepWork(order: FarmOrder): Promise<string> {
    const text = workAsText(order.work);
    const name = `${createHash('sha256').update(text).digest('hex').slice(0, 40)}.json`;
    const file = path.join(folder, `${nanoid(10)}.work`);
    await writeFile(file, text);
    try {
      await kept.put(name, file);
    } finally {
      await rm(file, { force: true });
    }
    return name;
  }

  return {
    async draw(order) {
      if (order.segments.length === 0) return;
      order.signal?.throwIfAborted();
      const name = nanoid(12);
      const run = createRun(name, order, await keepWork(order), queue, kept);
      runs.set(name, run);
      try {
        await run.finished();
      } catch (error) {
        // A queue that is away has nobody at work; it is not waited for.
        await withinMs(AWAY_MS, Promise.all([redis.set(stoppedKey(name), '1', 'EX', KEPT_S), run.takeBack()])).catch(
          () => {},
        );
        throw error;
      } finally {
        runs.delete(name);
      }
    },
    async says() {
      const [workers, counts] = await withinMs(AWAY_MS, Promise.all([queue.getWorkers(), queue.getJobCounts()]));
      return `${workers.length} ${workers.length === 1 ? 'process takes' : 'processes take'} segments; ${counts.active ?? 0} at work, ${counts.waiting ?? 0} waiting`;
    },
    async close() {
      const closing = Promise.all([worker?.close('leave'), news.close(), queue.close()]);
      await withinMs(AWAY_MS, closing).catch(() => {});
      lines.close();
    },
  };
}

interface FarmRun {
  finished(): Promise<void>;
  begun(jobId: string): void;
  progressed(jobId: string, progress: SegmentProgress): void;
  done(jobId: string, value: SegmentDone): void;
  failed(reason: string): void;
  /** Nobody needs to draw what still waits. */
  takeBack(): Promise<void>;
}

/** One going at a film's segments, from the first order to the last news. */
function createRun(
  name: string,
  order: FarmOrder,
  work: string,
  queue: Queue<SegmentJob, SegmentDone>,
  kept: KeptFiles,
): FarmRun {
  const idOf = (segment: FilmSegment) => `${name}.${segment.index}`;
  const open = new Map(order.segments.map((segment) => [idOf(segment), segment]));
  const told = new Map<string, number>();
  const settling = new Set<string>();
  let end: (error: unknown) => void = () => {};

  const add = (segments: readonly FilmSegment[]) =>
    queue.addBulk(
      segments.map((segment) => {
        const whole = order.keyOf(segment);
        const lacking = `${createHash('sha256').update(`${name} ${whole}`).digest('hex').slice(0, 40)}${path.extname(whole)}`;
        return {
          name: 'segment',
          data: { run: name, work, segment, whole, lacking, assets: order.assetsOf(segment) },
          opts: {
            jobId: idOf(segment),
            attempts: MOST_TRIES,
            backoff: { type: 'exponential', delay: 1000 },
            removeOnComplete: { age: KEPT_S },
            removeOnFail: { age: KEPT_S },
          },
        };
      }),
    );

  /** It is fetched here; what was let go again meanwhile is drawn anew. */
  async function settle(jobId: string, value: SegmentDone): Promise<void> {
    const segment = open.get(jobId);
    if (!segment || settling.has(jobId)) return;
    settling.add(jobId);
    try {
      if (!(await kept.lend(value.kept, order.fileOf(segment)))) {
        await queue.remove(jobId);
        await add([segment]);
        return;
      }
      const frames = segment.endFrame - segment.firstFrame;
      order.onFrames(frames - (told.get(jobId) ?? 0));
      told.set(jobId, frames);
      await order.onDrawn(segment, value.drawn ?? NO_WORK, value.problems);
      open.delete(jobId);
      if (open.size === 0) end(null);
    } catch (error) {
      end(error);
    } finally {
      settling.delete(jobId);
    }
  }

  /** News may be missed, and a queue that was started anew may have forgotten. */
  async function ask(): Promise<void> {
    for (const [jobId, segment] of [...open].slice(0, ASKED)) {
      const job = await queue.getJob(jobId);
      if (!job) {
        if (await kept.lend(order.keyOf(segment), order.fileOf(segment)))
          await settle(jobId, { kept: order.keyOf(segment), drawn: null, problems: [] });
        else if (open.has(jobId)) await add([segment]);
      } else if (await job.isCompleted()) await settle(jobId, job.returnvalue);
      else if (await job.isFailed()) end(faultOf(job.failedReason ?? ''));
    }
  }

  return {
    async finished() {
      const ended = new Promise<void>((resolve, reject) => {
        end = (error) => (error === null ? resolve() : reject(error as Error));
      });
      ended.catch(() => {});
      const stop = () => end(order.signal!.reason);
      order.signal?.addEventListener('abort', stop, { once: true });
      let asking: Promise<void> | null = null;
      const timer = setInterval(() => {
        asking ??= ask()
          .catch((error: unknown) => logger().warn({ err: error }, 'the queue could not be asked'))
          .finally(() => (asking = null));
      }, ASK_EVERY_MS);
      try {
        // Where the queue is away this waits until it comes, or until the film is stopped.
        add(order.segments).catch((error: unknown) => end(error));
        await ended;
      } finally {
        clearInterval(timer);
        order.signal?.removeEventListener('abort', stop);
      }
    },
    begun(jobId) {
      const segment = open.get(jobId);
      if (segment) order.onBegun?.(segment);
    },
    progressed(jobId, { frames, glimpse }) {
      if (!open.has(jobId) || settling.has(jobId)) return;
      order.onFrames(frames - (told.get(jobId) ?? 0));
      told.set(jobId, frames);
      if (glimpse) order.onGlimpse?.(Buffer.from(glimpse, 'base64'));
    },
    done: (jobId, value) => void settle(jobId, value),
    failed: (reason) => end(faultOf(reason)),
    async takeBack() {
      await Promise.all([...open.keys()].map((jobId) => queue.remove(jobId)));
    },
  };
}

/** A worker whose store is away may have one again: the film is tried later. */
function faultOf(reason: string): Error {
  return reason === STORE_AWAY ? new StoreUnreachableError() : new FilmFailedError(reason, 'on a worker');
}

function withinMs<Result>(ms: number, wanted: Promise<Result>): Promise<Result> {
  return Promise.race([
    wanted,
    new Promise<never>((_, reject) => {
      setTimeout(() => reject(new Error('Redis does not answer')), ms).unref();
    }),
  ]);
}
