import { FILM_SPEC, faultOfSpec, type FilmSpec } from '../../core/film/film-spec';
import { shapeName, widthFor } from '../../core/show/shape';
import type { Show } from '../../core/show/show';
import { wholeRate, type FrameRate } from '../../core/timing/frame-rate';
import { momentOfFrame } from '../../core/timing/frames';
import type { films } from '../database/schema';
import { FfmpegError } from '../ffmpeg/run-ffmpeg';
import { isStoreUnreachable } from '../blobs/object-store';
import { DISK_FULL, isDiskFull } from '../http/refusal';
import { parse } from '../schema/parse';
import { FilmFailedError } from './film-failed-error';
import type { FilmProgress, FilmStage } from './film-telling';

export interface FilmRow {
  readonly id: string;
  readonly title: string;
  readonly spec: FilmSpec;
  readonly lengthMs: number;
  readonly state: 'waiting' | 'making' | 'ready' | 'failed' | 'cancelled';
  readonly stage: FilmStage | null;
  readonly framesDone: number;
  readonly frameCount: number;
  /** That were there already: while it is made, and afterwards. */
  readonly framesKept: number;
  readonly leftMs: number | null;
  /** See `FilmProgress`. */
  readonly pieces: string;
  readonly problem: string | null;
  readonly byteCount: number | null;
  /** SSIM of its frames with what was drawn; null where it was not measured. */
  readonly likeness: number | null;
  readonly orderedAt: number;
  readonly startedAt: number | null;
  readonly finishedAt: number | null;
}

export type FilmProgressKept = Pick<FilmProgress, 'stage' | 'framesDone' | 'framesKept' | 'leftMs' | 'pieces'>;

export function filmRow(row: typeof films.$inferSelect, progress: FilmProgressKept | null): FilmRow {
  const { id, title, state, problem, byteCount, orderedAt, startedAt, finishedAt, frameCount } = row;
  const spec = specOf(row, null);
  return {
    id,
    title,
    spec,
    state,
    stage: progress?.stage ?? null,
    framesDone: state === 'ready' ? frameCount : (progress?.framesDone ?? 0),
    framesKept: row.keptFrames ?? progress?.framesKept ?? 0,
    leftMs: progress?.leftMs ?? null,
    pieces: progress?.pieces ?? '',
    problem,
    byteCount,
    likeness: row.likeness,
    orderedAt,
    startedAt,
    finishedAt,
    frameCount,
    lengthMs: Math.round(momentOfFrame(frameCount, spec.rate)),
  };
}

/** What was asked for. Films of earlier versions were MP4s of the show's own shape, by their height; their shows were 16:9 but for those written by hand. */
export function specOf(
  from: {
    readonly spec?: unknown;
    readonly heightPx?: number;
    readonly rate?: FrameRate | undefined;
    readonly framesPerSecond?: number;
    readonly rateFrames?: number;
    readonly rateSeconds?: number;
  },
  document: Show | null,
): FilmSpec {
  const parsed = parse<FilmSpec>(FILM_SPEC, from.spec, faultOfSpec);
  if (parsed.ok) return parsed.value;
  const { heightPx = 1080, rateFrames, rateSeconds, rate, framesPerSecond = 30 } = from;
  const frame = document?.frame ?? { widthPx: 16, heightPx: 9 };
  return {
    purpose: heightPx === 720 ? 'web' : 'screen',
    format: 'mp4',
    shape: shapeName(frame),
    widthPx: widthFor(frame, heightPx),
    heightPx,
    rate:
      rate ??
      (rateFrames === undefined ? wholeRate(framesPerSecond) : { frames: rateFrames, seconds: rateSeconds ?? 1 }),
    quality: 'good',
  };
}

/** What is said of a film that was made without some of its files. */
export function missingSentence(count: number): string | null {
  if (count === 0) return null;
  return count === 1
    ? 'One file could not be read and is missing from this film.'
    : `${count} files could not be read and are missing from this film.`;
}

/** Why a film was not made, for the person. */
export function failureSentence(error: unknown): string {
  if (isDiskFull(error)) return DISK_FULL;
  if (isStoreUnreachable(error)) return error.message;
  if (error instanceof FfmpegError || error instanceof FilmFailedError)
    return error.details ? `${error.message} It said: ${error.details.split('\n').at(-1)}` : error.message;
  return error instanceof Error ? error.message : String(error);
}
