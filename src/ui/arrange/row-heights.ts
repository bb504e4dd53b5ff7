import type { SlideSpan } from '../../core/timing/slide-span';

export type Scale = 'even' | 'true';

export const EVEN_ROW_PX = 132;
/** Room above the first slide, where the playhead's label stands at the start. */
export const ORDER_PAD_PX = 10;
const TRUE_PX_PER_SECOND = 24;
const LEAST_TRUE_ROW_PX = 34;

export interface RowPlaces {
  readonly heights: readonly number[];
  readonly tops: readonly number[];
  readonly totalPx: number;
}

/** Where each slide's row lies. *Even*: all alike; *true*: height is time, but never too small to take hold of. */
export function rowPlaces(spans: readonly SlideSpan[], scale: Scale): RowPlaces {
  const heights = spans.map((span) =>
    scale === 'even'
      ? EVEN_ROW_PX
      : Math.max(LEAST_TRUE_ROW_PX, Math.round(((span.endMs - span.startMs) / 1000) * TRUE_PX_PER_SECOND)),
  );
  const tops: number[] = [];
  let totalPx = ORDER_PAD_PX;
  for (const height of heights) {
    tops.push(totalPx);
    totalPx += height;
  }
  return { heights, tops, totalPx };
}

/** Where a moment lies in the order, in pixels from its top. */
export function momentToPx(spans: readonly SlideSpan[], places: RowPlaces, index: number, momentMs: number): number {
  const span = spans[index]!;
  const share = Math.min(1, Math.max(0, (momentMs - span.startMs) / (span.endMs - span.startMs)));
  return places.tops[index]! + share * places.heights[index]!;
}
