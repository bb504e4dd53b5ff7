'use client';

import { useEffect, useState, type RefObject } from 'react';

/** What is in sight moves in steps, so that scrolling does not draw anew at every pixel. */
const STEP_PX = 240;

export interface Sight {
  readonly fromPx: number;
  readonly toPx: number;
  readonly widthPx: number;
}

/** Which part of a long column is in sight, with some room on both sides; `look` is to be told of the column as it scrolls. */
export function useSight(scroller: RefObject<HTMLElement | null>): {
  sight: Sight;
  look: (column: HTMLElement) => void;
} {
  const [sight, setSight] = useState<Sight>({ fromPx: 0, toPx: 1200, widthPx: 620 });
  useEffect(() => {
    const column = scroller.current!;
    // It is called once as soon as it watches.
    const watcher = new ResizeObserver(() => setSight((before) => seenOf(column, before)));
    watcher.observe(column);
    return () => watcher.disconnect();
  }, [scroller]);
  return { sight, look: (column) => setSight((before) => seenOf(column, before)) };
}

/** What was known before stays the same when nothing changed. */
function seenOf(column: HTMLElement, before: Sight): Sight {
  const fromPx = STEP_PX * Math.floor(column.scrollTop / STEP_PX) - STEP_PX;
  const toPx = STEP_PX * Math.ceil((column.scrollTop + column.clientHeight) / STEP_PX) + STEP_PX;
  const widthPx = column.clientWidth;
  return before.fromPx === fromPx && before.toPx === toPx && before.widthPx === widthPx
    ? before
    : { fromPx, toPx, widthPx };
}
