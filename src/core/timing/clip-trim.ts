import { CLIP_FRAMES_PER_SECOND } from '../frame/frame-plan';
import type { ClipLayer } from '../show/layer';
import { SHORTEST_SLIDE_MS } from '../show/limits';

/** Which part of a clip a slide shows, in the clip’s own time. */
export interface ClipPart {
  readonly fromMs: number;
  readonly toMs: number;
  /** So long the last frame is held, since the slide lasts longer than the clip, in the show’s time. */
  readonly heldMs: number;
}

/** What trimming changes: where in the clip the slide begins, and how long the slide is. */
export interface Trimmed {
  readonly trimStartMs: number;
  readonly lengthMs: number;
}

export const CLIP_FRAME_MS = 1000 / CLIP_FRAMES_PER_SECOND;

const speedOf = ({ speed = 1 }: Pick<ClipLayer, 'speed'>) => speed;

export function clipPart(
  layer: Pick<ClipLayer, 'trimStartMs' | 'speed'>,
  slideLengthMs: number,
  clipLengthMs: number,
): ClipPart {
  const fromMs = Math.min(layer.trimStartMs, clipLengthMs);
  const wantedMs = slideLengthMs * speedOf(layer);
  const toMs = Math.min(clipLengthMs, fromMs + wantedMs);
  return { fromMs, toMs, heldMs: Math.max(0, (fromMs + wantedMs - clipLengthMs) / speedOf(layer)) };
}

/** Another beginning; the end stays the same frame. */
export function trimmedFrom(
  layer: Pick<ClipLayer, 'trimStartMs' | 'speed'>,
  slideLengthMs: number,
  clipLengthMs: number,
  fromMs: number,
): Trimmed {
  const { toMs } = clipPart(layer, slideLengthMs, clipLengthMs);
  const latest = toMs - SHORTEST_SLIDE_MS * speedOf(layer);
  const trimStartMs = Math.round(onFrame(Math.min(latest, Math.max(0, fromMs))));
  return { trimStartMs, lengthMs: Math.round((toMs - trimStartMs) / speedOf(layer)) };
}

/** Another end; the beginning stays. */
export function trimmedTo(
  layer: Pick<ClipLayer, 'trimStartMs' | 'speed'>,
  clipLengthMs: number,
  toMs: number,
): Trimmed {
  const earliest = layer.trimStartMs + SHORTEST_SLIDE_MS * speedOf(layer);
  const end = Math.max(earliest, Math.min(clipLengthMs, onFrame(toMs)));
  return { trimStartMs: layer.trimStartMs, lengthMs: Math.round((end - layer.trimStartMs) / speedOf(layer)) };
}

/** The same part of the clip at another speed: the slide is longer or shorter. */
export function atSpeed(
  layer: Pick<ClipLayer, 'trimStartMs' | 'speed'>,
  slideLengthMs: number,
  clipLengthMs: number,
  speed: number,
): number {
  const { fromMs, toMs } = clipPart(layer, slideLengthMs, clipLengthMs);
  return Math.max(SHORTEST_SLIDE_MS, Math.round((toMs - fromMs) / speed));
}

function onFrame(ms: number): number {
  return Math.round(ms / CLIP_FRAME_MS) * CLIP_FRAME_MS;
}
