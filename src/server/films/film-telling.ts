import type { FilmFormat } from '../../core/film/film-formats';
import type { FilmSpec } from '../../core/film/film-spec';
import type { FilmPlan, FilmSegment } from '../../core/film/plan-film';

export type FilmStage = 'sound' | 'pictures' | 'joining';

/** How far a film is. */
export interface FilmProgress {
  readonly stage: FilmStage;
  /** Made or there already. */
  readonly framesDone: number;
  readonly frameCount: number;
  /** There already when it began. */
  readonly framesKept: number;
  /** Of the stage, 0…1. */
  readonly share: number;
  /** Until it is ready, as far as can be told. */
  readonly leftMs: number | null;
  /** The film in so many equal pieces, a letter each: `k` there already, `m` made, `n` being made, `-` to be made. */
  readonly pieces: string;
  /** Something is finished for good: making it again goes on from there. */
  readonly kept: boolean;
}

const PIECES = 48;
/** Before so many frames are made nothing can be said about the rest. */
const ENOUGH_FRAMES = 45;

/** What putting together costs beside drawing, as a share of it: what is joined as it is costs next to nothing, what is encoded anew does. */
export function finishingShare({ format, mostBytes }: FilmSpec): number {
  if (mostBytes !== undefined) return 1.1;
  if (format === 'gif' || format === 'webp' || format === 'pngs') return 0.8;
  if (format === 'page') return 0.15;
  if (format === 'pal' || format === 'ntsc' || format === 'jpegs') return 0.35;
  return 0.01;
}

/** Follows the making of a film and tells how far it is. */
export function createFilmTelling(
  plan: FilmPlan,
  spec: FilmSpec,
  holds: FilmFormat['holds'],
  tell: (progress: FilmProgress) => void,
  now: () => number = () => performance.now(),
) {
  const states = new Map<FilmSegment, 'k' | 'm' | 'n'>();
  let stage: FilmStage = 'sound';
  let [framesDone, framesKept, framesMade] = [0, 0, 0];
  let stageStartedMs = now();
  let drawingMs = 0;

  const enter = (next: FilmStage) => {
    if (stage === next) return;
    if (stage === 'pictures') drawingMs = now() - stageStartedMs;
    stage = next;
    stageStartedMs = now();
  };

  const leftMs = (share: number): number | null => {
    const elapsedMs = now() - stageStartedMs;
    if (stage === 'sound') return null;
    if (stage === 'joining') {
      if (share > 0.05) return (elapsedMs / share) * (1 - share);
      return Math.max(0, drawingMs * finishingShare(spec) - elapsedMs);
    }
    if (framesMade < ENOUGH_FRAMES) return null;
    const each = elapsedMs / framesMade;
    return each * (plan.frameCount - framesDone) + each * (plan.frameCount - framesKept) * finishingShare(spec);
  };

  const say = (share: number, kept = false) =>
    tell({
      stage,
      framesDone,
      frameCount: plan.frameCount,
      framesKept,
      share,
      leftMs: leftMs(share),
      pieces: holds === 'sound' ? '' : piecesOf(plan, states),
      kept,
    });
  const sayPictures = (kept = false) => say(framesDone / plan.frameCount, kept);
  const length = ({ firstFrame, endFrame }: FilmSegment) => endFrame - firstFrame;

  return {
    /** What was made comes to nothing: all is counted anew. */
    again() {
      states.clear();
      [framesDone, framesKept, framesMade] = [0, 0, 0];
    },
    sound: (share: number) => say(share),
    keptSegment(segment: FilmSegment) {
      enter('pictures');
      states.set(segment, 'k');
      framesKept += length(segment);
      framesDone += length(segment);
    },
    begun(segment: FilmSegment) {
      enter('pictures');
      states.set(segment, 'n');
      sayPictures();
    },
    frames(count: number) {
      framesDone += count;
      framesMade += count;
      sayPictures();
    },
    drawnSegment(segment: FilmSegment) {
      states.set(segment, 'm');
      sayPictures(true);
    },
    finishing(share: number) {
      enter('joining');
      say(share);
    },
  };
}

/** What most of each piece is. */
function piecesOf(plan: FilmPlan, states: ReadonlyMap<FilmSegment, 'k' | 'm' | 'n'>): string {
  const count = Math.min(PIECES, plan.frameCount);
  let at = 0;
  let pieces = '';
  for (let piece = 0; piece < count; piece += 1) {
    const frame = plan.firstFrame + Math.floor(((piece + 0.5) * plan.frameCount) / count);
    while (plan.segments[at]!.endFrame <= frame) at += 1;
    pieces += states.get(plan.segments[at]!) ?? '-';
  }
  return pieces;
}
