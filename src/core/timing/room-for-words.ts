import { seenLayers } from '../show/layer';
import type { Slide } from '../show/show';
import { readableSpan } from '../words/passage';
import { shortestReadMs } from '../words/reading-speed';

/** A transition gives way to words no further: less is seen as a cut that failed. */
export const LEAST_TRANSITION_MS = 400;
/** So exactly is found how long a transition may be. */
const STEP_MS = 20;

const known = new WeakMap<Slide, number>();

/**
 * How long a slide may take to come in so that its words can still be read at all, at most `mostMs` (of the slide’s own length, its half); never less than
 * `LEAST_TRANSITION_MS`, where that is not more than `mostMs`. Fields count as they are typed.
 */
export function roomBesideWordsMs(slide: Slide, mostMs: number): number {
  if (mostMs <= LEAST_TRANSITION_MS) return mostMs;
  let room = known.get(slide);
  if (room === undefined) known.set(slide, (room = roomOf(slide)));
  return Math.min(mostMs, room);
}

/** Found by halving: the longer the transition, the less time to read. */
function roomOf(slide: Slide): number {
  if (canBeRead(slide, slide.lengthMs / 2)) return Infinity;
  let [fits, tooLong] = [LEAST_TRANSITION_MS, slide.lengthMs / 2];
  while (tooLong - fits > STEP_MS) {
    const middle = (fits + tooLong) / 2;
    if (canBeRead(slide, middle)) fits = middle;
    else tooLong = middle;
  }
  return Math.floor(fits);
}

function canBeRead(slide: Slide, transitionMs: number): boolean {
  const { lengthMs } = slide;
  const span = {
    ...{ slideId: slide.id, slideIndex: 0, startMs: 0, endMs: lengthMs },
    ...{ transitionMs, leavesMs: lengthMs },
  };
  for (const layer of seenLayers(slide.layers)) {
    if (layer.kind !== 'words' || layer.travel) continue;
    const readMs = shortestReadMs(`${layer.title}\n${layer.subtitle}`);
    const { startMs, endMs } = readableSpan(layer, span);
    if (readMs > 0 && endMs - startMs < readMs) return false;
  }
  return true;
}
