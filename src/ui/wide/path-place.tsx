'use client';

import { useRef, type PointerEvent } from 'react';
import type { ScreenPoint } from '../../core/frame/layer-sight';

interface PathPlaceProps {
  readonly number: number;
  readonly ms: number;
  /** On the stage, in pixels. */
  readonly spot: { readonly x: number; readonly y: number };
  /** The layer stands there now: a hand there takes the layer, which has a key of its own at this moment afterwards. */
  readonly underLayer?: boolean;
  readonly onGo: () => void;
  readonly onHold: () => void;
  /** To a point of the frame, in shares of it. */
  readonly onDrag: (to: ScreenPoint) => void;
}

/** Nearer than this the hand has not moved. */
const STILL_PX = 3;

/** A numbered place of a way: a click goes there, a drag moves it. */
export function PathPlace({ number, ms, spot, underLayer = false, onGo, onHold, onDrag }: PathPlaceProps) {
  const held = useRef<{ x: number; y: number; moved: boolean } | null>(null);
  const move = (event: PointerEvent<SVGCircleElement>) => {
    const now = held.current;
    if (!now || (!now.moved && Math.hypot(event.clientX - now.x, event.clientY - now.y) < STILL_PX)) return;
    now.moved = true;
    const box = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
    onDrag({ x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height });
  };
  return (
    <g className={underLayer ? 'pointer-events-none' : undefined}>
      <circle
        cx={spot.x}
        cy={spot.y}
        r={10}
        className="cursor-move fill-black/60 stroke-lamp"
        data-part="path-place"
        data-ms={Math.round(ms)}
        onPointerDown={(event) => {
          event.stopPropagation();
          event.currentTarget.setPointerCapture(event.pointerId);
          held.current = { x: event.clientX, y: event.clientY, moved: false };
          onHold();
        }}
        onPointerMove={move}
        onPointerUp={() => {
          if (held.current && !held.current.moved) onGo();
          held.current = null;
        }}
      >
        <title>{`Place ${number}: click to go there, drag to move it`}</title>
      </circle>
      <text x={spot.x} y={spot.y + 4} textAnchor="middle" className="tabular pointer-events-none fill-lamp text-xs">
        {number}
      </text>
    </g>
  );
}
