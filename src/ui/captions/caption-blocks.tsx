'use client';

import { clsx } from 'clsx';
import { useState } from 'react';
import type { ShownCaption } from '../../core/captions/show-captions';

export interface CaptionBlocksProps {
  readonly captions: readonly ShownCaption[];
  readonly pxOf: (momentMs: number) => number;
  readonly momentOf: (px: number) => number;
  readonly inSight: (fromMs: number, toMs: number) => boolean;
  /** A caption comes or goes at another moment of the show. */
  readonly onMove: (caption: ShownCaption, end: 'start' | 'end', momentMs: number) => void;
  readonly onPlay: (caption: ShownCaption) => void;
}

/** One press of an arrow key. */
const STEP_MS = 40;
const LARGE_STEP_MS = 400;

/** Captions as slips of paper on the strip of sound: they are as tall as they last, and their edges are drawn to where what they say begins and ends. */
export function CaptionBlocks({ captions, pxOf, momentOf, inSight, onMove, onPlay }: CaptionBlocksProps) {
  const [drag, setDrag] = useState<{ key: string; end: 'start' | 'end'; byPx: number; fromY: number } | null>(null);
  return (
    <>
      {captions
        .filter(({ startMs, endMs }) => inSight(startMs, endMs))
        .map((caption) => {
          const key = `${caption.slideId} ${caption.index}`;
          const moved = (end: 'start' | 'end') => (drag?.key === key && drag.end === end ? drag.byPx : 0);
          const [top, bottom] = [pxOf(caption.startMs) + moved('start'), pxOf(caption.endMs) + moved('end')];
          return (
            <div
              key={key}
              data-part="caption-block"
              className="absolute right-2 left-10 rounded-sm border border-moss/70 bg-card/92 shadow-print"
              style={{ top, height: Math.max(10, bottom - top) }}
              onPointerDown={(event) => event.stopPropagation()}
            >
              <button
                type="button"
                className="h-full w-full overflow-hidden px-2 py-0.5 text-left text-xs leading-4 whitespace-pre-line"
                onClick={() => onPlay(caption)}
              >
                {caption.text}
              </button>
              {(['start', 'end'] as const).map((end) => (
                <div
                  key={end}
                  role="slider"
                  tabIndex={0}
                  aria-label={`${end === 'start' ? 'Start' : 'End'} of “${caption.text.slice(0, 40)}”`}
                  aria-orientation="vertical"
                  aria-valuenow={Math.round(end === 'start' ? caption.startMs : caption.endMs)}
                  aria-valuetext={`${((end === 'start' ? caption.startMs : caption.endMs) / 1000).toFixed(2)} seconds`}
                  className={clsx(
                    'absolute inset-x-0 h-2 cursor-ns-resize touch-none rounded-sm hover:bg-moss/40 focus-visible:bg-moss/60',
                    end === 'start' ? '-top-1' : '-bottom-1',
                  )}
                  onPointerDown={(event) => {
                    event.stopPropagation();
                    event.currentTarget.setPointerCapture(event.pointerId);
                    setDrag({ key, end, byPx: 0, fromY: event.clientY });
                  }}
                  onPointerMove={(event) => {
                    if (drag) setDrag({ ...drag, byPx: event.clientY - drag.fromY });
                  }}
                  onPointerUp={() => {
                    if (drag && drag.byPx !== 0)
                      onMove(
                        caption,
                        end,
                        momentOf(pxOf(end === 'start' ? caption.startMs : caption.endMs) + drag.byPx),
                      );
                    setDrag(null);
                  }}
                  onPointerCancel={() => setDrag(null)}
                  onKeyDown={(event) => {
                    const by = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0;
                    if (by === 0) return;
                    event.preventDefault();
                    event.stopPropagation();
                    const stepMs = event.shiftKey ? LARGE_STEP_MS : STEP_MS;
                    onMove(caption, end, (end === 'start' ? caption.startMs : caption.endMs) + by * stepMs);
                  }}
                />
              ))}
            </div>
          );
        })}
    </>
  );
}
