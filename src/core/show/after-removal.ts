import type { SlideId } from './ids';

/**
 * The slide that is chosen once others have been removed: the one after them, so that removing can go on, or the last when nothing comes after. Null when
 * nothing is left.
 *
 * @param order before the removal
 */
export function chosenAfterRemoval(order: readonly SlideId[], removed: readonly SlideId[]): SlideId | null {
  const gone = new Set(removed);
  const last = order.findLastIndex((id) => gone.has(id));
  return order.slice(last + 1).find((id) => !gone.has(id)) ?? order.findLast((id) => !gone.has(id)) ?? null;
}
