import { mkdir, readFile, rm } from 'node:fs/promises';
import path from 'node:path';
import { UnrecoverableError, Worker, type Job } from 'bullmq';
import type { Redis } from 'ioredis';
import { nanoid } from 'nanoid';
import type { AssetId } from '../../core/show/ids';
import type { BlobStore } from '../blobs/blob-store';
import type { FilmWork } from '../films/film-work';
import type { KeptFiles } from '../films/kept-files';
import { openSegmentDrawer, type SegmentDrawer } from '../films/segment-drawer';
import { logger } from '../logger';
import {
  farmQueue,
  LOCK_MS,
  LOOK_FOR_LOST_MS,
  MOST_LOST,
  stoppedKey,
  workFromText,
  type SegmentDone,
  type SegmentJob,
  type SegmentProgress,
} from './farm-jobs';

const TELL_EVERY_MS = 500;
/** A process with its pictures is kept for the next segment of the film for so long. */
const IDLE_MS = 15_000;

interface SegmentWorkerParts {
  readonly redis: Redis;
  /** What draws here; only segments for the very same are taken. */
  readonly version: string;
  readonly blobs: Pick<BlobStore, 'localFile'>;
  readonly kept: KeptFiles;
  /** Segments at the same time. */
  readonly count: number;
  /** For what is being drawn. */
  readonly folder: string;
}

export interface SegmentWorker {
  /** Takes nothing more. What is being drawn is finished first, or left to others at once. */
  close(how: 'finish' | 'leave'): Promise<void>;
}

/** Draws segments that wait in the queue, on whatever machine this is. */
export async function startSegmentWorker(parts: SegmentWorkerParts): Promise<SegmentWorker> {
  const { redis, version, count, folder } = parts;
  await mkdir(folder, { recursive: true });
  const leaving = new AbortController();
  const drawers = createDrawers(parts, leaving.signal);
  const worker = new Worker<SegmentJob, SegmentDone>(
    farmQueue(version),
    (job) => drawn(parts, drawers, job, leaving.signal),
    {
      connection: redis,
      concurrency: count,
      lockDuration: LOCK_MS,
      stalledInterval: LOOK_FOR_LOST_MS,
      maxStalledCount: MOST_LOST,
    },
  );
  worker.on('error', (error) => logger().warn({ err: error }, 'the queue of segments does not answer'));
  return {
    async close(how) {
      if (how === 'leave') leaving.abort(new Error('this worker is ending'));
      await worker.close(how === 'leave');
      leaving.abort(new Error('this worker is ending'));
      await drawers.close();
    },
  };
}

async function drawn(
  { redis, blobs, kept, folder }: SegmentWorkerParts,
  drawers: ReturnType<typeof createDrawers>,
  job: Job<SegmentJob, SegmentDone>,
  leaving: AbortSignal,
): Promise<SegmentDone> {
  const { run, segment, whole, lacking, assets, work: workName } = job.data;
  const outFile = path.join(folder, `${nanoid(10)}.segment`);
  if (await kept.lend(whole, outFile)) {
    await rm(outFile, { force: true });
    return { kept: whole, drawn: null, problems: [] };
  }
  const stopped = new AbortController();
  const signal = AbortSignal.any([stopped.signal, leaving]);
  const state: { frames: number; glimpse?: string } = { frames: 0 };
  const tell = async () => {
    await job.updateProgress({ ...state } satisfies SegmentProgress);
    delete state.glimpse;
    if (await redis.exists(stoppedKey(run))) stopped.abort(new UnrecoverableError('the film was stopped'));
  };
  const drawer = await drawers.take(workName);
  const telling = setInterval(() => void tell().catch(() => {}), TELL_EVERY_MS);
  const stop = () => void drawer.close();
  signal.addEventListener('abort', stop, { once: true });
  try {
    const files = new Map<AssetId, string>();
    for (const id of assets) files.set(id, await blobs.localFile(id));
    signal.throwIfAborted();
    const result = await drawer.draw(
      { segment, outFile, files },
      {
        frames: (made) => void (state.frames += made),
        glimpse: (jpeg) => void (state.glimpse = Buffer.from(jpeg).toString('base64')),
      },
    );
    const seen = new Set<string>(assets);
    const problems = result.problems.filter(({ assetId }) => seen.has(assetId));
    const name = problems.length === 0 ? whole : lacking;
    await kept.put(name, outFile);
    drawers.giveBack(workName, drawer);
    return { kept: name, drawn: result.drawn, problems };
  } catch (error) {
    await drawer.close();
    if (signal.aborted) throw signal.reason;
    throw error;
  } finally {
    clearInterval(telling);
    signal.removeEventListener('abort', stop);
    for (const left of [outFile, `${outFile}.part`]) await rm(left, { force: true });
  }
}

/** Processes that draw, by the film they know; one that has nothing to do is kept a while for the film’s next segment, as long as no other film needs its room. */
function createDrawers({ kept, folder }: SegmentWorkerParts, signal: AbortSignal) {
  const idle: { work: string; drawer: SegmentDrawer; timer: ReturnType<typeof setTimeout> }[] = [];
  const works = new Map<string, Promise<FilmWork>>();
  const end = (at: number) => {
    const [gone] = idle.splice(at, 1);
    clearTimeout(gone!.timer);
    return gone!.drawer.close();
  };

  async function workOf(name: string): Promise<FilmWork> {
    const file = path.join(folder, `${nanoid(10)}.work`);
    try {
      if (!(await kept.lend(name, file))) throw new Error('What is to be drawn is not there any more.');
      return workFromText(await readFile(file, 'utf8'));
    } finally {
      await rm(file, { force: true });
    }
  }

  return {
    async take(work: string): Promise<SegmentDrawer> {
      const at = idle.findIndex((one) => one.work === work);
      if (at >= 0) {
        const [found] = idle.splice(at, 1);
        clearTimeout(found!.timer);
        return found!.drawer;
      }
      if (idle.length > 0) await end(0);
      const known = works.get(work) ?? workOf(work);
      // The one film at hand; shows are large.
      works.clear();
      works.set(work, known);
      known.catch(() => works.delete(work));
      return openSegmentDrawer(await known, signal);
    },
    giveBack(work: string, drawer: SegmentDrawer): void {
      const entry = {
        work,
        drawer,
        timer: setTimeout(() => {
          const at = idle.indexOf(entry);
          if (at >= 0) void end(at);
        }, IDLE_MS),
      };
      idle.push(entry);
    },
    async close() {
      while (idle.length > 0) await end(0);
    },
  };
}
