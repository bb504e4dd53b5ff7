import { fork } from 'node:child_process';
import { giveWay } from '../give-way';
import { filmWorkerFile } from '../paths';
import { FilmFailedError } from './film-failed-error';
import type { DrawnSegment, FilmWork, SegmentOrder, UnreadFile, WorkerReport } from './film-work';

export interface DrawnAndLacking {
  readonly drawn: DrawnSegment;
  /** Files that are missing from what was drawn by this process so far. */
  readonly problems: readonly UnreadFile[];
}

export interface HearsDrawing {
  /** Frames made since it was told last; fewer than none when it comes to nothing. */
  frames(count: number): void;
  glimpse?(jpeg: Uint8Array): void;
}

/** A process that draws and encodes segments of one film, one at a time: what reads strangers' pictures and clips must not take the server along. */
export interface SegmentDrawer {
  /** @throws what went wrong, or why it was stopped; it is of no use any more then */
  draw(order: SegmentOrder, hears: HearsDrawing): Promise<DrawnAndLacking>;
  close(): Promise<void>;
}

/** It reports every frame; one that says nothing for so long is lost in a picture. */
const LONGEST_SILENCE_MS = 180_000;

/** Pictures are read one after the other for as long as a film takes: what the C library's allocator has from one goes back to the system before the next (mallopt(3)). */
const FRUGAL = { MALLOC_ARENA_MAX: '1', MALLOC_TRIM_THRESHOLD_: '4000000', MALLOC_MMAP_THRESHOLD_: '1000000' };

/** @param signal ends it at once */
export function openSegmentDrawer(work: FilmWork, signal: AbortSignal): SegmentDrawer {
  const child = fork(filmWorkerFile(), {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    serialization: 'advanced',
    execArgv: [],
    env: { ...FRUGAL, ...process.env },
  });
  giveWay(child, 'making');
  const gone = new Promise<void>((resolve) => {
    child.once('exit', () => resolve());
    child.once('error', () => resolve());
  });
  /** What is being drawn. */
  let under: { hear(report: WorkerReport): void; fail(error: Error): void } | null = null;
  let ended: Error | null = null;

  const end = (why: Error) => {
    if (ended) return;
    ended = why;
    signal.removeEventListener('abort', stop);
    child.kill('SIGKILL');
    void gone.then(() => under?.fail(why));
  };
  const stop = () => end(signal.reason as Error);
  signal.addEventListener('abort', stop, { once: true });
  if (signal.aborted) stop();
  child.on('error', (error) => end(error));
  child.on('exit', (code, by) =>
    end(new FilmFailedError('The program that draws the film ended.', `with ${by ?? code}`)),
  );
  child.on('message', (report: WorkerReport) => {
    if (!ended) under?.hear(report);
  });
  child.send({ work }, () => {});

  return {
    draw: (order, hears) =>
      new Promise((resolve, reject) => {
        if (ended) return reject(ended);
        let framesTold = 0;
        let heardMs = performance.now();
        const watch = setInterval(() => {
          if (performance.now() - heardMs > LONGEST_SILENCE_MS)
            end(
              new FilmFailedError(
                'One of the pictures or clips takes too long to read.',
                `frame ${order.segment.firstFrame} and on`,
              ),
            );
        }, 1000);
        const settle = () => {
          clearInterval(watch);
          under = null;
        };
        under = {
          hear(report) {
            heardMs = performance.now();
            switch (report.kind) {
              case 'frames':
                framesTold += report.done;
                return hears.frames(report.done);
              case 'glimpse':
                return hears.glimpse?.(report.jpeg);
              case 'failed':
                return end(
                  Object.assign(
                    new FilmFailedError(report.message, report.details),
                    report.diskFull && { code: 'ENOSPC' },
                  ),
                );
              case 'segment':
                settle();
                resolve(report);
            }
          },
          fail(error) {
            settle();
            hears.frames(-framesTold);
            reject(error);
          },
        };
        child.send(order, () => {});
      }),
    close() {
      end(new Error('nothing is drawn any more'));
      return gone;
    },
  };
}
