import { fork } from 'node:child_process';
import { rm } from 'node:fs/promises';
import type { FilmSegment } from '../../core/film/plan-film';
import { isDiskFull } from '../http/refusal';
import { logger } from '../logger';
import { filmWorkerFile } from '../paths';
import type { DrawnSegment, FilmWork, SegmentOrder, UnreadFile, WorkerReport } from './film-work';

/** The film could not be made; `message` is a sentence for the person. */
export class FilmFailedError extends Error {
  override readonly name = 'FilmFailedError';
  constructor(
    message: string,
    readonly details: string,
  ) {
    super(message);
  }
}

interface SegmentsOrder {
  readonly work: FilmWork;
  /** Those that are not there yet. */
  readonly segments: readonly FilmSegment[];
  readonly fileOf: (segment: FilmSegment) => string;
  readonly workerCount: number;
  readonly signal?: AbortSignal | undefined;
  /** Frames made since it was told last; fewer than none when a segment is begun again. */
  onFrames(count: number): void;
  onGlimpse?(jpeg: Uint8Array): void;
  onBegun?(segment: FilmSegment): void;
  /** It lies under its name. @param problems files that are missing from what this worker has drawn so far */
  onDrawn(segment: FilmSegment, drawn: DrawnSegment, problems: readonly UnreadFile[]): Promise<void>;
}

/** A worker reports every frame; one that says nothing for so long is lost in a picture. */
const LONGEST_SILENCE_MS = 180_000;
/** So often a segment is tried, each time by a new worker. */
const MOST_TRIES = 3;

/** Draws and encodes segments in processes of their own: what reads strangers' pictures and clips must not take the server along. */
export async function drawSegments(order: SegmentsOrder): Promise<void> {
  const { signal, workerCount } = order;
  const waiting = [...order.segments];
  const tries = new Map<FilmSegment, number>();
  const failed = new AbortController();
  signal?.throwIfAborted();
  const stopping = AbortSignal.any([failed.signal, ...(signal ? [signal] : [])]);

  // Half of the workers go forward from the start, half back from the end: neighbouring segments share pictures, which are then read by one of them only.
  const runOne = async (workerIndex: number): Promise<void> => {
    const take = () => (workerIndex % 2 === 0 ? waiting.shift() : waiting.pop());
    for (let segment = take(); segment; segment = take()) {
      try {
        await performBy(order, segment, take, stopping);
      } catch (error) {
        if (stopping.aborted) throw error;
        const { unfinished, cause } = error as WorkerEndedError;
        const times = (tries.get(unfinished) ?? 0) + 1;
        tries.set(unfinished, times);
        await rm(`${order.fileOf(unfinished)}.part`, { force: true });
        if (times >= MOST_TRIES || isDiskFull(cause)) {
          failed.abort(cause);
          throw cause;
        }
        logger().warn({ err: cause, segment: unfinished, times }, 'a segment is drawn again');
        waiting.unshift(unfinished);
      }
    }
  };
  const count = Math.min(workerCount, waiting.length);
  const ended = await Promise.allSettled(Array.from({ length: count }, (_, workerIndex) => runOne(workerIndex)));
  if (stopping.aborted)
    for (const segment of order.segments) await rm(`${order.fileOf(segment)}.part`, { force: true });
  signal?.throwIfAborted();
  for (const end of ended) if (end.status === 'rejected') throw end.reason as Error;
}

/** A worker is gone; what it was at is not finished. */
class WorkerEndedError extends Error {
  override readonly name = 'WorkerEndedError';
  constructor(
    readonly unfinished: FilmSegment,
    override readonly cause: Error,
  ) {
    super('a film worker ended', { cause });
  }
}

/** One worker from its start to its end: the first segment, then whatever is left to take. @throws {WorkerEndedError} */
function performBy(
  order: SegmentsOrder,
  first: FilmSegment,
  take: () => FilmSegment | undefined,
  signal: AbortSignal,
): Promise<void> {
  return new Promise((resolve, reject) => {
    const worker = fork(filmWorkerFile(), {
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      serialization: 'advanced',
      execArgv: [],
    });
    let segment = first;
    let framesTold = 0;
    let ended = false;
    let heardMs = performance.now();
    const end = (settle: () => void) => {
      if (ended) return;
      ended = true;
      clearInterval(watch);
      signal.removeEventListener('abort', stop);
      if (worker.exitCode !== null || worker.signalCode !== null || worker.pid === undefined) return settle();
      worker.once('exit', settle);
      worker.kill('SIGKILL');
    };
    const fail = (cause: Error) =>
      end(() => {
        order.onFrames(-framesTold);
        reject(new WorkerEndedError(segment, cause));
      });
    const watch = setInterval(() => {
      if (performance.now() - heardMs > LONGEST_SILENCE_MS)
        fail(
          new FilmFailedError(
            'One of the pictures or clips takes too long to read.',
            `frame ${segment.firstFrame} and on`,
          ),
        );
    }, 1000);
    const stop = () => end(() => reject(signal.reason as Error));
    const send = (next: FilmSegment) => {
      segment = next;
      framesTold = 0;
      order.onBegun?.(segment);
      worker.send({ segment, outFile: order.fileOf(segment) } satisfies SegmentOrder, () => {});
    };
    worker.on('error', (error) => fail(error));
    worker.on('exit', (code, by) =>
      fail(new FilmFailedError('The program that draws the film ended.', `with ${by ?? code}`)),
    );
    worker.on('message', (report: WorkerReport) => {
      heardMs = performance.now();
      if (ended) return;
      if (report.kind === 'frames') {
        framesTold += report.done;
        order.onFrames(report.done);
      } else if (report.kind === 'glimpse') order.onGlimpse?.(report.jpeg);
      else if (report.kind === 'failed')
        fail(Object.assign(new FilmFailedError(report.message, report.details), report.diskFull && { code: 'ENOSPC' }));
      else
        order.onDrawn(segment, report.drawn, report.problems).then(
          () => {
            const next = signal.aborted ? undefined : take();
            if (next) send(next);
            else end(resolve);
          },
          (error: unknown) => fail(error as Error),
        );
    });
    if (signal.aborted) return stop();
    signal.addEventListener('abort', stop, { once: true });
    worker.send({ work: order.work }, () => {});
    send(first);
  });
}
