'use client';

import { useCallback, useEffect, useState, type RefObject } from 'react';

/** What is in sight moves in steps, so that scrolling does not draw anew at every pixel. */
const STEP_PX = 240;

export interface Sight {
  readonly fromPx: number;
  readonly toPx: number;
  readonly widthPx: number;
}

/** Which part of a long column is in sight, with some room on both sides. */
export function useSight(scroller: RefObject<HTMLElement | null>): { sight: Sight; look: () => void } {
  const [sight, setSight] = useState<Sight>({ fromPx: 0, toPx: 1200, widthPx: 620 });
  const look = useCallback(() => {
    const element = scroller.current;
    if (!element) return;
    const fromPx = STEP_PX * Math.floor(element.scrollTop / STEP_PX) - STEP_PX;
    const toPx = STEP_PX * Math.ceil((element.scrollTop + element.clientHeight) / STEP_PX) + STEP_PX;
    const widthPx = element.clientWidth;
    setSight((before) =>
      before.fromPx === fromPx && before.toPx === toPx && before.widthPx === widthPx
        ? before
        : { fromPx, toPx, widthPx },
    );
  }, [scroller]);
  useEffect(() => {
    look();
    const watcher = new ResizeObserver(look);
    watcher.observe(scroller.current!);
    return () => watcher.disconnect();
  }, [look, scroller]);
  return { sight, look };
}
