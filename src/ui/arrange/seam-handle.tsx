'use client';

import { useRef } from 'react';
import type { CaughtSeam } from '../../core/timing/caught-seam';
import type { SeamWay } from '../../core/timing/moved-seam';

/** As fast as the true scale's own time, in either scale. */
const MS_PER_PX = 1000 / 24;
const STEP_MS = 100;

export interface SeamDrag {
  readonly index: number;
  readonly byMs: number;
  readonly way: SeamWay;
  /** What it was caught by. */
  readonly by?: CaughtSeam['by'];
}

interface SeamHandleProps {
  readonly index: number;
  /** The drag as it goes; null when it is given up. */
  readonly onDrag: (drag: SeamDrag | null) => void;
  readonly onDone: (drag: SeamDrag) => void;
}

/** The place under a slide's clock and sound where its end is taken hold of. What follows moves along; with Alt the next slide gives or takes the time. */
export function SeamHandle({ index, onDrag, onDone }: SeamHandleProps) {
  const from = useRef<number | null>(null);
  const dragOf = (event: { clientY: number; altKey: boolean }): SeamDrag => ({
    index,
    byMs: Math.round(((event.clientY - from.current!) * MS_PER_PX) / STEP_MS) * STEP_MS,
    way: event.altKey ? 'roll' : 'ripple',
  });
  return (
    <div
      aria-hidden="true"
      data-part="seam-handle"
      title="Drag to change how long the slide lasts; with Alt only the next one gives or takes the time"
      className="group/seam absolute -bottom-[6px] left-0 z-10 h-[12px] w-[152px] cursor-row-resize touch-none"
      onClick={(event) => event.stopPropagation()}
      onPointerDown={(event) => {
        if (event.button !== 0) return;
        event.stopPropagation();
        event.preventDefault();
        event.currentTarget.setPointerCapture(event.pointerId);
        from.current = event.clientY;
        onDrag(dragOf(event));
      }}
      onPointerMove={(event) => {
        if (from.current !== null) onDrag(dragOf(event));
      }}
      onPointerUp={(event) => {
        if (from.current === null) return;
        const drag = dragOf(event);
        from.current = null;
        onDone(drag);
      }}
      onPointerCancel={() => {
        from.current = null;
        onDrag(null);
      }}
    >
      <span className="absolute inset-x-3 top-[5px] h-[2px] rounded-full bg-transparent group-hover/seam:bg-slate" />
    </div>
  );
}
