import { rm } from 'node:fs/promises';
import type { FilmSegment } from '../../core/film/plan-film';
import { isDiskFull } from '../http/refusal';
import { logger } from '../logger';
import type { DrawnSegment, FilmWork, UnreadFile } from './film-work';
import { openSegmentDrawer, type SegmentDrawer } from './segment-drawer';

/** Segments to be drawn, and who hears of it. */
export interface SegmentsOrder {
  readonly work: FilmWork;
  /** Those that are not there yet. */
  readonly segments: readonly FilmSegment[];
  readonly fileOf: (segment: FilmSegment) => string;
  readonly signal?: AbortSignal | undefined;
  /** Frames made since it was told last; fewer than none when a segment is begun again. */
  onFrames(count: number): void;
  onGlimpse?(jpeg: Uint8Array): void;
  onBegun?(segment: FilmSegment): void;
  /** It lies under its name. @param problems files that are missing from what was drawn so far */
  onDrawn(segment: FilmSegment, drawn: DrawnSegment, problems: readonly UnreadFile[]): Promise<void>;
}

/** So often a segment is tried, each time by a new process. */
export const MOST_TRIES = 3;

/** Draws and encodes segments in processes of their own on this machine. @param workerCount how many */
export async function drawSegments(order: SegmentsOrder & { readonly workerCount: number }): Promise<void> {
  const { signal, workerCount } = order;
  const waiting = [...order.segments];
  const tries = new Map<FilmSegment, number>();
  const failed = new AbortController();
  signal?.throwIfAborted();
  const stopping = AbortSignal.any([failed.signal, ...(signal ? [signal] : [])]);
  const hears = { frames: (count: number) => order.onFrames(count), glimpse: order.onGlimpse?.bind(order) };

  // Half of the workers go forward from the start, half back from the end: neighbouring segments share pictures, which are then read by one of them only.
  const runOne = async (workerIndex: number): Promise<void> => {
    const take = () => (workerIndex % 2 === 0 ? waiting.shift() : waiting.pop());
    let drawer: SegmentDrawer | null = null;
    try {
      for (let segment = take(); segment; segment = take()) {
        stopping.throwIfAborted();
        drawer ??= openSegmentDrawer(order.work, stopping);
        try {
          order.onBegun?.(segment);
          const { drawn, problems } = await drawer.draw({ segment, outFile: order.fileOf(segment) }, hears);
          await order.onDrawn(segment, drawn, problems);
        } catch (cause) {
          await drawer.close();
          drawer = null;
          stopping.throwIfAborted();
          const times = (tries.get(segment) ?? 0) + 1;
          tries.set(segment, times);
          await rm(`${order.fileOf(segment)}.part`, { force: true });
          if (times >= MOST_TRIES || isDiskFull(cause)) {
            failed.abort(cause);
            throw cause;
          }
          logger().warn({ err: cause, segment, times }, 'a segment is drawn again');
          waiting.unshift(segment);
        }
      }
    } finally {
      await drawer?.close();
    }
  };
  const count = Math.min(workerCount, waiting.length);
  const ended = await Promise.allSettled(Array.from({ length: count }, (_, workerIndex) => runOne(workerIndex)));
  if (stopping.aborted)
    for (const segment of order.segments) await rm(`${order.fileOf(segment)}.part`, { force: true });
  signal?.throwIfAborted();
  for (const end of ended) if (end.status === 'rejected') throw end.reason as Error;
}
