import type { PreparedShow } from '../frame/plan-frame';
import { framesPerSecond } from '../timing/frame-rate';
import { frameCount, frameSeen } from '../timing/frames';
import type { FilmStretch } from './film-spec';

/** A stretch of a film's frames that is drawn and encoded by itself. Frames are counted from the show's start. */
export interface FilmSegment {
  readonly index: number;
  readonly firstFrame: number;
  readonly endFrame: number;
  /** Frames of the film right after it, as many as an encoder may want to see, at most `MOST_LOOKED_AT`. */
  readonly followedBy: number;
  /** Frames of the segment right before it; 0 when the film begins with it. */
  readonly follows: number;
}

export interface FilmPlan {
  readonly firstFrame: number;
  readonly endFrame: number;
  readonly frameCount: number;
  readonly segments: readonly FilmSegment[];
}

/** Shorter ones would cost the encoder too much: each begins with a whole picture. */
const SHORTEST_SEGMENT_SECONDS = 2;
/** Frames after a segment that its encoder may look at. */
export const MOST_LOOKED_AT = 7;
/** Slides are put together until a segment lasts so long, or sooner where the slide's id says so. */
const FULL_SEGMENT_SECONDS = 4;
/** A slide that stays longer is cut, so that little is lost when the power goes and every worker has something to do. */
const LONGEST_SEGMENT_SECONDS = 8;

/**
 * How a film is cut for making: at slides, so that a slide that is moved takes its segments along. Where slides are short several are one segment; which ones is
 * decided by the slides themselves, so that after a change the cuts fall where they fell before a few slides further on (content-defined chunking).
 *
 * @param stretch the part of the show the film is of; all of it when it is not said
 */
export function planFilm({ show, lengthMs, seenFromMs }: PreparedShow, stretch?: FilmStretch): FilmPlan {
  const { rate } = show.frame;
  const showEnd = frameCount(lengthMs, rate);
  const firstFrame = stretch ? Math.min(frameSeen(stretch.fromMs, rate), showEnd - 1) : 0;
  const endFrame = stretch
    ? Math.max(firstFrame + 1, Math.min(showEnd, frameSeen(Math.min(stretch.toMs, lengthMs), rate)))
    : showEnd;
  const each = framesPerSecond(rate);
  const cuts = [firstFrame];
  const cutAt = (frame: number) => {
    const since = cuts.at(-1)!;
    const pieces = Math.ceil((frame - since) / (LONGEST_SEGMENT_SECONDS * each));
    const length = Math.ceil((frame - since) / pieces);
    for (let piece = 1; piece < pieces; piece += 1) cuts.push(since + piece * length);
    cuts.push(frame);
  };
  show.slides.forEach((slide, index) => {
    const frame = frameSeen(seenFromMs[index]!, rate);
    if (frame <= firstFrame || frame >= endFrame) return;
    const seconds = (frame - cuts.at(-1)!) / each;
    if (seconds >= FULL_SEGMENT_SECONDS || (seconds >= SHORTEST_SEGMENT_SECONDS && marksCut(slide.id))) cutAt(frame);
  });
  cutAt(endFrame);
  return {
    firstFrame,
    endFrame,
    frameCount: endFrame - firstFrame,
    segments: cuts.slice(1).map((end, index) => ({
      index,
      firstFrame: cuts[index]!,
      endFrame: end,
      followedBy: Math.min(MOST_LOOKED_AT, endFrame - end),
      follows: index === 0 ? 0 : cuts[index]! - cuts[index - 1]!,
    })),
  };
}

/** A segment with those frames after it that its encoder looks at. @param looksAhead how many it would like to see */
export function withFramesAfter(segment: FilmSegment, looksAhead: number): FilmSegment {
  const after = Math.min(looksAhead, segment.followedBy);
  return { ...segment, endFrame: segment.endFrame + after, followedBy: segment.followedBy - after };
}

/** Half of all slides, decided by their ids. */
function marksCut(id: string): boolean {
  let mixed = 0;
  for (let at = 0; at < id.length; at += 1) mixed = (Math.imul(mixed, 31) + id.charCodeAt(at)) | 0;
  return ((mixed ^ (mixed >>> 15)) & 1) === 1;
}
