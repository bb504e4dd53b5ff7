import { LONGEST_FILM_MS } from '../show/limits';
import { framesPerSecond, type FrameRate } from '../timing/frame-rate';
import type { FrameShape, Show } from '../show/show';
import { frameCount } from '../timing/frames';
import { showLengthMs } from '../timing/slide-span';

/** A stretch of a film's frames that is drawn and encoded by itself. */
export interface FilmSegment {
  readonly index: number;
  readonly firstFrame: number;
  readonly endFrame: number;
}

export interface FilmPlan {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly rate: FrameRate;
  readonly frameCount: number;
  readonly segments: readonly FilmSegment[];
}

export const FILM_HEIGHTS = [720, 1080] as const;
export type FilmHeight = (typeof FILM_HEIGHTS)[number];

/** Why no film can be made of a show, as a sentence; null when one can. */
export function faultOfFilm(show: Show): string | null {
  if (show.slides.length === 0) return 'The show has no slides yet. Lay some pictures into the order first.';
  const hours = LONGEST_FILM_MS / 3_600_000;
  return showLengthMs(show) > LONGEST_FILM_MS
    ? `A film can last ${hours} hours at most, and this show lasts longer. Make it in parts: copy the show and keep some of its slides in each.`
    : null;
}

/** Ten seconds: long enough for the encoder to work well, short enough that little is lost when the power goes. */
const LONGEST_SEGMENT_SECONDS = 10;
const SHORTEST_SEGMENT_SECONDS = 2;
/** So many frames last whole microseconds at every rate of the trade, which is how exactly joining can say how long a segment is. */
const WHOLE_MICROSECONDS = 3;

/**
 * How a film is cut for making: whole frames, segments without gaps.
 *
 * @param workerCount segments are kept short enough that every worker has some
 */
export function planFilm(
  shape: FrameShape,
  heightPx: number,
  rate: FrameRate,
  lengthMs: number,
  workerCount: number,
): FilmPlan {
  const count = frameCount(lengthMs, rate);
  const fair = Math.ceil(count / (workerCount * 3));
  const each = framesPerSecond(rate);
  const wanted = Math.max(SHORTEST_SEGMENT_SECONDS * each, Math.min(fair, LONGEST_SEGMENT_SECONDS * each));
  const length = WHOLE_MICROSECONDS * Math.ceil(wanted / WHOLE_MICROSECONDS);
  const segments: FilmSegment[] = [];
  for (let firstFrame = 0; firstFrame < count; firstFrame += length) {
    segments.push({ index: segments.length, firstFrame, endFrame: Math.min(count, firstFrame + length) });
  }
  return { widthPx: widthFor(shape, heightPx), heightPx, rate, frameCount: count, segments };
}

/** The even width of a frame of the show's shape at a height. */
export function widthFor(shape: Pick<FrameShape, 'widthPx' | 'heightPx'>, heightPx: number): number {
  return 2 * Math.round((heightPx * shape.widthPx) / shape.heightPx / 2);
}
