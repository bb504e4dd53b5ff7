import { SHORTEST_SLIDE_MS } from '../show/limits';
import { CLIP_FRAME_MS, clipMoment, clipRuns, onceThroughClipMs, usedPart, type ClipTimes } from './clip-time';

/** Which part of a clip a slide shows, in the clip’s own time. */
export interface ClipPart {
  readonly fromMs: number;
  readonly toMs: number;
  /** So long the last frame is held, since the slide lasts longer than the clip, in the show’s time. */
  readonly heldMs: number;
}

/** What trimming changes: where in the clip its part begins and ends, and how long the slide is. */
export interface Trimmed {
  readonly trimStartMs: number;
  /** Only where the layer says an end. */
  readonly trimEndMs?: number | undefined;
  readonly lengthMs: number;
}

const speedOf = ({ speed = 1 }: Pick<ClipTimes, 'speed'>) => speed;

export function clipPart(times: ClipTimes, slideLengthMs: number, clipLengthMs: number): ClipPart {
  const used = usedPart(times, clipLengthMs);
  const runs = clipRuns(times, clipLengthMs, slideLengthMs);
  const heldMs = runs.reduce((sum, run) => sum + (run.isOver ? run.lengthMs : 0), 0);
  if (heldMs > 0 || times.after === 'again' || times.trimEndMs !== undefined) return { ...used, heldMs };
  const { momentMs } = clipMoment(times, clipLengthMs, slideLengthMs, slideLengthMs);
  return times.backwards
    ? { fromMs: momentMs, toMs: used.toMs, heldMs }
    : { fromMs: used.fromMs, toMs: momentMs, heldMs };
}

/** Another beginning; the end stays the same frame. Frames that stand before it go with what is cut away. */
export function trimmedFrom(layer: ClipTimes, slideLengthMs: number, clipLengthMs: number, fromMs: number): Trimmed {
  const part = clipPart(layer, slideLengthMs, clipLengthMs);
  const latest = part.toMs - SHORTEST_SLIDE_MS * speedOf(layer);
  const trimStartMs = Math.max(0, Math.round(onFrame(Math.min(latest, Math.max(0, fromMs)))));
  return trimmed(layer, { fromMs: trimStartMs, toMs: part.toMs }, slideLengthMs, clipLengthMs);
}

/** Another end; the beginning stays. */
export function trimmedTo(layer: ClipTimes, slideLengthMs: number, clipLengthMs: number, toMs: number): Trimmed {
  const part = clipPart(layer, slideLengthMs, clipLengthMs);
  const earliest = part.fromMs + SHORTEST_SLIDE_MS * speedOf(layer);
  const end = Math.max(earliest, Math.min(clipLengthMs, onFrame(toMs)));
  return trimmed(layer, { fromMs: part.fromMs, toMs: end }, slideLengthMs, clipLengthMs);
}

/** The slide is as long as the part, unless the clip comes again or its last frame is held: then it stays. */
function trimmed(
  layer: ClipTimes,
  { fromMs, toMs }: { readonly fromMs: number; readonly toMs: number },
  slideLengthMs: number,
  clipLengthMs: number,
): Trimmed {
  const trimStartMs = Math.round(fromMs);
  const saysEnd = layer.trimEndMs !== undefined || layer.backwards === true || layer.after === 'again';
  const trimEndMs = Math.round(toMs);
  const lengthMs = Math.round(onceThroughClipMs({ ...layer, trimStartMs, trimEndMs: toMs }, clipLengthMs));
  if (!saysEnd) return { trimStartMs, lengthMs };
  const goesOn = layer.after === 'again' || slideLengthMs > onceThroughClipMs(layer, clipLengthMs) + 1;
  return { trimStartMs, trimEndMs, lengthMs: goesOn ? slideLengthMs : lengthMs };
}

/** What comes when a clip is over: the slide is over too, its last frame stays, or it comes again. */
export type Ending = 'slide' | 'held' | 'again';

/** So much longer than the clip a slide is in which its last frame stays, to begin with. */
const HELD_MS = 2000;

/** Another ending, of the part that is shown now. */
export function endingBy(
  layer: ClipTimes,
  slideLengthMs: number,
  clipLengthMs: number,
  ending: Ending,
): Trimmed & { readonly after: 'again' | undefined } {
  const part = clipPart(layer, slideLengthMs, clipLengthMs);
  const ends = { trimStartMs: Math.round(part.fromMs), trimEndMs: Math.round(part.toMs) };
  const onceMs = Math.round(onceThroughClipMs({ ...layer, ...ends }, clipLengthMs));
  // A part that ends with the slide needs no end of its own, unless it runs backwards from there.
  if (ending === 'slide')
    return { ...ends, ...(!layer.backwards && { trimEndMs: undefined }), lengthMs: onceMs, after: undefined };
  const lengthMs = slideLengthMs > onceMs + 1 ? slideLengthMs : ending === 'again' ? 2 * onceMs : onceMs + HELD_MS;
  return { ...ends, lengthMs, after: ending === 'again' ? 'again' : undefined };
}

/** The same part of the clip at another speed: how long the slide then is. */
export function atSpeed(layer: ClipTimes, slideLengthMs: number, clipLengthMs: number, speed: number): number {
  if (layer.after === 'again') return slideLengthMs;
  const { fromMs, toMs } = clipPart(layer, slideLengthMs, clipLengthMs);
  const times = { ...layer, speed, trimStartMs: fromMs, trimEndMs: toMs };
  return Math.max(SHORTEST_SLIDE_MS, Math.round(onceThroughClipMs(times, clipLengthMs)));
}

function onFrame(ms: number): number {
  return Math.round(ms / CLIP_FRAME_MS) * CLIP_FRAME_MS;
}
