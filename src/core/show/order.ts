import type { SlideId } from './ids';
import type { Slide } from './show';

/** Slides that stand together after a named slide; null stands for the start of the show. */
export interface PlacedSlides {
  readonly afterId: SlideId | null;
  readonly slides: readonly Slide[];
}

/**
 * Takes slides out of the order, remembering where each run of neighbours stood: `putIn(rest, runs)` restores the order exactly,
 * because the slide before a run is never itself taken out.
 *
 * @returns null when none of the ids is in the order; those that are not are passed over
 */
export function takeOut(
  slides: readonly Slide[],
  ids: readonly SlideId[],
): { rest: readonly Slide[]; runs: readonly PlacedSlides[] } | null {
  const leaving = new Set(ids);
  const rest: Slide[] = [];
  const runs: { afterId: SlideId | null; slides: Slide[] }[] = [];
  let taken = 0;
  let open = false;
  for (const slide of slides) {
    if (!leaving.has(slide.id)) {
      rest.push(slide);
      open = false;
      continue;
    }
    taken += 1;
    if (!open) runs.push({ afterId: rest.at(-1)?.id ?? null, slides: [] });
    runs.at(-1)!.slides.push(slide);
    open = true;
  }
  return taken > 0 ? { rest, runs } : null;
}

/** Puts runs of slides into the order. A run whose anchor has gone (removed in another tab) goes to the end, so that nothing is lost. */
export function putIn(slides: readonly Slide[], runs: readonly PlacedSlides[]): readonly Slide[] {
  let order: readonly Slide[] = slides;
  for (const run of runs) {
    const at = run.afterId === null ? 0 : order.findIndex((slide) => slide.id === run.afterId) + 1;
    const index = run.afterId !== null && at === 0 ? order.length : at;
    order = [...order.slice(0, index), ...run.slides, ...order.slice(index)];
  }
  return order;
}
