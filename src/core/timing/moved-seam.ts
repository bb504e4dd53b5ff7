import type { SlideId } from '../show/ids';
import { LONGEST_SLIDE_MS, SHORTEST_SLIDE_MS } from '../show/limits';
import { type Slide } from '../show/show';

/** `ripple`: what comes after moves along. `roll`: the next slide gives or takes the time, and nothing after it moves. */
export type SeamWay = 'ripple' | 'roll';

export interface SlideLength {
  readonly slideId: SlideId;
  readonly lengthMs: number;
}

/**
 * Lengths after the seam at a slide's end was moved. Neither slide gets shorter than the shortest there is; the last slide has no next and always ripples.
 *
 * @param index of the slide whose end is moved
 * @param byMs later when positive
 */
export function movedSeam(slides: readonly Slide[], index: number, byMs: number, way: SeamWay): SlideLength[] {
  const slide = slides[index];
  if (!slide) throw new RangeError(`there is no slide ${index} among ${slides.length}`);
  const next = slides[index + 1];
  const rolls = way === 'roll' && next !== undefined;
  const most = rolls ? slide.lengthMs + next.lengthMs - SHORTEST_SLIDE_MS : LONGEST_SLIDE_MS;
  const lengthMs = Math.round(Math.min(most, Math.max(SHORTEST_SLIDE_MS, slide.lengthMs + byMs)));
  const own = { slideId: slide.id, lengthMs };
  return rolls ? [own, { slideId: next.id, lengthMs: next.lengthMs + slide.lengthMs - lengthMs }] : [own];
}
