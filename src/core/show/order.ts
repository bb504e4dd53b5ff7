import type { SlideId } from './ids';
import type { Slide } from './show';

/** Slides that stand together after a named slide; null stands for the start of the show. */
export interface PlacedSlides {
  readonly afterId: SlideId | null;
  readonly slides: readonly Slide[];
}

/** Things of a list that stand together after a named one; null stands for the list’s beginning. */
interface Run<Item extends { readonly id: string }> {
  readonly afterId: Item['id'] | null;
  readonly items: readonly Item[];
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
  const taken = runsTakenOut(slides, ids);
  return taken && { rest: taken.rest, runs: taken.runs.map(({ afterId, items }) => ({ afterId, slides: items })) };
}

/** Puts runs of slides into the order. A run whose anchor has gone (removed in another tab) goes to the end, so that nothing is lost. */
export function putIn(slides: readonly Slide[], runs: readonly PlacedSlides[]): readonly Slide[] {
  return runsPutIn(
    slides,
    runs.map((run) => ({ afterId: run.afterId, items: run.slides })),
  );
}

/** As `takeOut`, for any list of things with ids. */
export function runsTakenOut<Item extends { readonly id: string }>(
  items: readonly Item[],
  ids: readonly Item['id'][],
): { rest: readonly Item[]; runs: readonly Run<Item>[] } | null {
  const leaving = new Set<string>(ids);
  const rest: Item[] = [];
  const runs: { afterId: Item['id'] | null; items: Item[] }[] = [];
  let open = false;
  for (const item of items) {
    if (!leaving.has(item.id)) {
      rest.push(item);
      open = false;
      continue;
    }
    if (!open) runs.push({ afterId: rest.at(-1)?.id ?? null, items: [] });
    runs.at(-1)!.items.push(item);
    open = true;
  }
  return runs.length > 0 ? { rest, runs } : null;
}

/** As `putIn`. */
export function runsPutIn<Item extends { readonly id: string }>(
  items: readonly Item[],
  runs: readonly Run<Item>[],
): readonly Item[] {
  let order: readonly Item[] = items;
  for (const run of runs) {
    const at = run.afterId === null ? 0 : order.findIndex((item) => item.id === run.afterId) + 1;
    const index = run.afterId !== null && at === 0 ? order.length : at;
    order = [...order.slice(0, index), ...run.items, ...order.slice(index)];
  }
  return order;
}
