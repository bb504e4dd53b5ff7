'use client';

import { useEffect, type RefObject } from 'react';

/** So near an edge the order begins to scroll, the faster the nearer. */
const REACH_PX = 56;
const FASTEST_PX_A_FRAME = 22;

/**
 * Scrolls a list while something is dragged near its upper or lower edge.
 *
 * @param onScroll told after each step, since what lies under a hand that rests has changed
 */
export function useEdgeScroll(
  active: boolean,
  list: RefObject<HTMLElement | null>,
  hand: RefObject<{ x: number; y: number }>,
  onScroll: () => void,
): void {
  useEffect(() => {
    if (!active) return;
    let asked = requestAnimationFrame(function step() {
      asked = requestAnimationFrame(step);
      const box = list.current?.getBoundingClientRect();
      if (!box || hand.current.x < box.left || hand.current.x > box.right) return;
      const { y } = hand.current;
      const push =
        y < box.top + REACH_PX
          ? -Math.min(1, (box.top + REACH_PX - y) / REACH_PX)
          : y > box.bottom - REACH_PX && y < box.bottom + REACH_PX
            ? Math.min(1, (y - box.bottom + REACH_PX) / REACH_PX)
            : 0;
      if (push === 0) return;
      list.current!.scrollTop += Math.round(push * FASTEST_PX_A_FRAME);
      onScroll();
    });
    return () => cancelAnimationFrame(asked);
  }, [active, list, hand, onScroll]);
}
