import { CLIP_FRAMES_PER_SECOND } from '../frame/frame-plan';
import type { ClipLayer } from '../show/layer';
import { framesPerSecond, type FrameRate } from './frame-rate';

/** All that says when a clip shows what. */
export type ClipTimes = {
  readonly [Name in keyof Pick<ClipLayer, 'trimStartMs' | 'trimEndMs' | 'speed' | 'backwards' | 'after' | 'freezes'>]:
    ClipLayer[Name] | undefined;
} & Pick<ClipLayer, 'trimStartMs'>;

/** A stretch of a slide over which a clip runs evenly. */
export interface ClipRun {
  /** Since the slide’s start. */
  readonly startMs: number;
  readonly lengthMs: number;
  /** The clip’s own time at its start. */
  readonly fromMs: number;
  /** Clip time by show time: 1 as filmed, negative backwards, 0 where a frame stands. */
  readonly rate: number;
  /** It stands because the clip is over. */
  readonly isOver?: true;
}

/** So often a clip comes again; then its last frame is held. */
export const MOST_PASSES = 2000;
export const CLIP_FRAME_MS = 1000 / CLIP_FRAMES_PER_SECOND;
/** What lies closer together than this is one moment. */
const SLACK_MS = 1e-6;
/** Moments come from frames of other rates: rounding is forgiven, in frames. */
const FRAME_SLACK = 1e-4;

/** The part of a clip that is used, in its own time. */
export function usedPart(times: ClipTimes, clipLengthMs: number): { readonly fromMs: number; readonly toMs: number } {
  const fromMs = Math.min(times.trimStartMs, clipLengthMs);
  return { fromMs, toMs: Math.max(fromMs, Math.min(times.trimEndMs ?? clipLengthMs, clipLengthMs)) };
}

/** How long the part that is used lasts in the show, once through, frames that stand counted in. */
export function onceThroughClipMs(times: ClipTimes, clipLengthMs: number): number {
  return passOf(times, clipLengthMs).reduce((sum, run) => sum + run.lengthMs, 0);
}

/**
 * What a clip does over a slide, in order and without gaps: once through and its last frame held, or again and again. A clip of which nothing is used has one
 * run in which its first frame stands.
 */
export function clipRuns(times: ClipTimes, clipLengthMs: number, slideLengthMs: number): ClipRun[] {
  const pass = passOf(times, clipLengthMs);
  const passMs = pass.reduce((sum, run) => sum + run.lengthMs, 0);
  const runs: ClipRun[] = [];
  let at = 0;
  for (let turn = 0; at < slideLengthMs - SLACK_MS && passMs >= CLIP_FRAME_MS && turn < MOST_PASSES; turn += 1) {
    for (const run of pass) {
      const startMs = at + run.startMs;
      if (startMs >= slideLengthMs - SLACK_MS) break;
      runs.push({ ...run, startMs, lengthMs: Math.min(run.lengthMs, slideLengthMs - startMs) });
    }
    at += passMs;
    if (times.after !== 'again') break;
  }
  if (at < slideLengthMs - SLACK_MS) {
    const { fromMs, toMs } = usedPart(times, clipLengthMs);
    const standing = { fromMs: times.backwards ? fromMs : toMs, rate: 0 };
    runs.push({ startMs: at, lengthMs: slideLengthMs - at, ...standing, isOver: true });
  }
  return runs;
}

/** Once through: running between the frames that stand. */
function passOf(times: ClipTimes, clipLengthMs: number): ClipRun[] {
  const { fromMs, toMs } = usedPart(times, clipLengthMs);
  const speed = times.speed ?? 1;
  const rate = times.backwards ? -speed : speed;
  const [begin, end] = times.backwards ? [toMs, fromMs] : [fromMs, toMs];
  const within = (times.freezes ?? []).filter(({ atMs }) => atMs >= fromMs && atMs <= toMs);
  const inOrder = times.backwards ? within.toReversed() : within;
  const runs: ClipRun[] = [];
  let [startMs, clipMs] = [0, begin];
  const runTo = (next: number) => {
    const lengthMs = Math.abs(next - clipMs) / speed;
    if (lengthMs > SLACK_MS) runs.push({ startMs, lengthMs, fromMs: clipMs, rate });
    startMs += lengthMs;
    clipMs = next;
  };
  for (const { atMs, lengthMs } of inOrder) {
    runTo(atMs);
    runs.push({ startMs, lengthMs, fromMs: atMs, rate: 0 });
    startMs += lengthMs;
  }
  runTo(end);
  return runs;
}

const lastRuns = new WeakMap<ClipTimes, { clipLengthMs: number; slideLengthMs: number; runs: ClipRun[] }>();

/** The clip’s own time at a moment of the slide, and the run it lies in. @param offsetMs since the slide’s start; before it the first moment, behind it the last run goes on */
export function clipMoment(
  times: ClipTimes,
  clipLengthMs: number,
  slideLengthMs: number,
  offsetMs: number,
): { readonly momentMs: number; readonly run: ClipRun } {
  const kept = lastRuns.get(times);
  const runs =
    kept?.clipLengthMs === clipLengthMs && kept.slideLengthMs === slideLengthMs
      ? kept.runs
      : clipRuns(times, clipLengthMs, slideLengthMs);
  if (runs !== kept?.runs) lastRuns.set(times, { clipLengthMs, slideLengthMs, runs });
  let [low, high] = [0, runs.length];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (runs[middle]!.startMs <= offsetMs + SLACK_MS) low = middle;
    else high = middle;
  }
  const run = runs[low]!;
  return { momentMs: run.fromMs + run.rate * Math.max(0, offsetMs - run.startMs), run };
}

/**
 * The frame that is seen at a moment of the slide, counted at `CLIP_FRAMES_PER_SECOND` from the clip’s start. Never one before or behind the part that is used:
 * its last frame is the one before the end.
 *
 * @param rate the clip’s own where it is read by that (`ownClipRate`): what comes back then stands for one of its own frames and may lie between two of the usual ones
 */
export function clipFrameAt(
  times: ClipTimes,
  clipLengthMs: number,
  slideLengthMs: number,
  offsetMs: number,
  rate: FrameRate | null = null,
): number {
  if (rate) return ownFrameAt(times, clipLengthMs, slideLengthMs, offsetMs, rate);
  const { fromMs, toMs } = usedPart(times, clipLengthMs);
  const { momentMs, run } = clipMoment(times, clipLengthMs, slideLengthMs, offsetMs);
  const first = frameBefore(fromMs);
  const last = Math.max(first, Math.min(frameBefore(clipLengthMs), frameUpTo(toMs) + 1) - 1);
  // What runs backwards comes to a moment from behind; so does what has run backwards to its end.
  const frame = run.rate < 0 ? frameUpTo(momentMs) : frameBefore(momentMs);
  return Math.min(last, Math.max(first, frame));
}

function ownFrameAt(
  times: ClipTimes,
  clipLengthMs: number,
  slideLengthMs: number,
  offsetMs: number,
  rate: FrameRate,
): number {
  const perMs = framesPerSecond(rate) / 1000;
  const stepMs = Math.min(CLIP_FRAME_MS, 1 / perMs);
  // Half a usual frame early: so it is one of those that stand where the usual frames are counted, as viewers show them.
  const at = (ms: number) => Math.max(0, Math.ceil((ms + CLIP_FRAME_MS / 2) * perMs - FRAME_SLACK) - 1);
  const { fromMs, toMs } = usedPart(times, clipLengthMs);
  const { momentMs, run } = clipMoment(times, clipLengthMs, slideLengthMs, offsetMs);
  const first = at(fromMs);
  const begunBefore = Math.max(0, Math.ceil(toMs * perMs - FRAME_SLACK) - 1);
  const last = Math.max(first, Math.min(at(toMs - stepMs), begunBefore));
  const frame = at(run.rate < 0 ? momentMs - stepMs : momentMs);
  return usualFrame(Math.min(last, Math.max(first, frame)), rate);
}

/** A clip’s own frame, counted at `CLIP_FRAMES_PER_SECOND`. */
const usualFrame = (own: number, rate: FrameRate) => (own * CLIP_FRAMES_PER_SECOND) / framesPerSecond(rate);

/** Which of a clip’s own frames a counted one stands for. */
export const ownFrame = (clipFrame: number, rate: FrameRate): number =>
  Math.round((clipFrame * framesPerSecond(rate)) / CLIP_FRAMES_PER_SECOND);

/** When on the slide a moment of the clip is seen first, counted from the slide's start; null when it is not seen on it. */
export function momentOfClip(
  times: ClipTimes,
  clipLengthMs: number,
  slideLengthMs: number,
  clipMs: number,
): number | null {
  const { fromMs, toMs } = usedPart(times, clipLengthMs);
  if (clipMs < fromMs - SLACK_MS || clipMs >= toMs - SLACK_MS) return null;
  for (const { startMs, lengthMs, fromMs: begin, rate } of clipRuns(times, clipLengthMs, slideLengthMs)) {
    const offsetMs = rate === 0 ? (Math.abs(clipMs - begin) < CLIP_FRAME_MS / 2 ? 0 : -1) : (clipMs - begin) / rate;
    if (offsetMs >= -SLACK_MS && offsetMs < lengthMs - SLACK_MS) return startMs + Math.max(0, offsetMs);
  }
  return null;
}

/** The frame that has begun at a moment. */
const frameBefore = (momentMs: number) => Math.floor(momentMs / CLIP_FRAME_MS + FRAME_SLACK);
/** The last frame that begins before a moment. */
const frameUpTo = (momentMs: number) => Math.max(0, Math.ceil(momentMs / CLIP_FRAME_MS - FRAME_SLACK) - 1);
