import type { SlideId } from '../../core/show/ids';
import type { RowPlaces } from './row-heights';

/** Where what is dragged would go: between slides, or beside the picture of one. */
export interface OrderDrop {
  readonly id: SlideId;
  readonly side: 'before' | 'after' | 'beside';
}

/** Right of this, over the words, a drop means “beside this picture”. */
export const BESIDE_FROM_PX = 374;

/** The column of the pictures begins here. */
const PICTURES_FROM_PX = 164;

/**
 * @param isPrint a print is brought, not a slide moved: let go in the middle of a picture it means “beside this picture” as well
 * @param yPx from the top of the first row's place in the order, scrolled
 * @param xPx from the left edge of the order
 */
export function dropAt(
  order: readonly SlideId[],
  places: RowPlaces,
  xPx: number,
  yPx: number,
  isPrint: boolean,
): OrderDrop | null {
  if (order.length === 0) return null;
  const index = rowAt(places, yPx);
  const share = (yPx - places.tops[index]!) / places.heights[index]!;
  if (xPx > BESIDE_FROM_PX && share >= 0 && share <= 1) return { id: order[index]!, side: 'beside' };
  if (isPrint && xPx > PICTURES_FROM_PX && share > 0.25 && share < 0.75) return { id: order[index]!, side: 'beside' };
  return { id: order[index]!, side: share < 0.5 ? 'before' : 'after' };
}

/** The row at a height, held to the first and the last. */
export function rowAt(places: RowPlaces, yPx: number): number {
  let low = 0;
  let high = places.tops.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (places.tops[middle]! <= yPx) low = middle;
    else high = middle - 1;
  }
  return low;
}

/**
 * The slide after which what is let go comes to stand; null for the start.
 *
 * @param leaving ids that are on their way and so are no place to stand
 */
export function placeOfDrop(order: readonly SlideId[], drop: OrderDrop, leaving: readonly string[]): SlideId | null {
  const gone = new Set(leaving);
  const end = order.indexOf(drop.id) + (drop.side === 'after' ? 1 : 0);
  return order.slice(0, end).findLast((id) => !gone.has(id)) ?? null;
}

/** What a hand takes along when it takes one: all that is chosen, when it is among that. */
export function carriedWith<Id extends string>(id: Id, chosen: readonly Id[]): readonly Id[] {
  return chosen.includes(id) ? chosen : [id];
}
