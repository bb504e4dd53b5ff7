'use client';

import { clsx } from 'clsx';
import { useRef, useState } from 'react';

/** From one lane to the next. */
export const LANE_PX = 13;

interface CueBracketProps {
  readonly name: string;
  readonly startPx: number;
  readonly endPx: number;
  readonly chosen: boolean;
  readonly lane: number;
  readonly kind: 'song' | 'effect';
  /** Says where an end would lie, while it is dragged. */
  readonly said: (end: 'start' | 'end', px: number) => string;
  readonly onChoose: () => void;
  readonly onMove: (end: 'start' | 'end', px: number) => void;
  /** To the seam before or after. */
  readonly onStep: (end: 'start' | 'end', by: -1 | 1) => void;
}

/** A song as a bracket down the side of the strip: from where it begins to where it ends, both to be taken hold of. */
export function CueBracket({
  name,
  startPx,
  endPx,
  chosen,
  lane,
  kind,
  said,
  onChoose,
  onMove,
  onStep,
}: CueBracketProps) {
  const [drag, setDrag] = useState<{ end: 'start' | 'end'; px: number } | null>(null);
  const from = useRef(0);
  const top = drag?.end === 'start' ? drag.px : startPx;
  const bottom = drag?.end === 'end' ? drag.px : endPx;
  const colour = kind === 'song' ? 'border-saffron-deep text-saffron-deep' : 'border-slate text-slate';
  return (
    <div
      className={clsx('absolute', chosen ? 'z-20' : 'z-10')}
      style={{ top, height: Math.max(6, bottom - top), left: lane * LANE_PX, width: 22 }}
      data-part="cue-bracket"
    >
      <button
        type="button"
        aria-label={`${name}: choose it`}
        aria-pressed={chosen}
        onClick={onChoose}
        className={clsx('absolute inset-0 border-y-[3px] border-l-[3px] text-left', colour, chosen && 'bg-saffron/15')}
      >
        <span
          className="absolute top-2 left-[3px] max-h-[calc(100%-16px)] overflow-hidden text-xs font-semibold text-ellipsis whitespace-nowrap [writing-mode:vertical-rl]"
          style={{ transform: 'rotate(180deg)' }}
        >
          {name}
        </span>
      </button>
      {(['start', 'end'] as const).map((end) => (
        <button
          key={end}
          type="button"
          aria-label={`${name}: where it ${end === 'start' ? 'begins' : 'ends'}; arrow keys move it from slide to slide`}
          className={clsx(
            'absolute -left-1 z-10 h-[14px] w-7 cursor-row-resize touch-none rounded-sm',
            end === 'start' ? '-top-[6px]' : '-bottom-[6px]',
          )}
          onPointerDown={(event) => {
            event.currentTarget.setPointerCapture(event.pointerId);
            from.current = event.clientY - (end === 'start' ? startPx : endPx);
            onChoose();
            setDrag({ end, px: end === 'start' ? startPx : endPx });
          }}
          onPointerMove={(event) => {
            if (drag) setDrag({ end, px: Math.max(0, event.clientY - from.current) });
          }}
          onPointerUp={() => {
            if (drag && drag.px !== (end === 'start' ? startPx : endPx)) onMove(end, drag.px);
            setDrag(null);
          }}
          onPointerCancel={() => setDrag(null)}
          onKeyDown={(event) => {
            if (event.key !== 'ArrowUp' && event.key !== 'ArrowDown') return;
            event.preventDefault();
            event.stopPropagation();
            onStep(end, event.key === 'ArrowUp' ? -1 : 1);
          }}
        />
      ))}
      {drag && (
        <span
          className="tabular pointer-events-none absolute left-8 z-30 rounded-md bg-black px-2 py-1 text-xs whitespace-nowrap text-lamp shadow-raised"
          style={drag.end === 'start' ? { top: -10 } : { bottom: -10 }}
        >
          {drag.end === 'start' ? 'begins with' : 'ends with'} {said(drag.end, drag.px)}
        </span>
      )}
    </div>
  );
}
