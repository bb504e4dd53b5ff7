'use client';

import { useRef, useState } from 'react';
import { pathOfHand } from '../../core/show/edge-shapes';
import type { AssetId } from '../../core/show/ids';
import { CroppedPrint } from '../kit/cropped-print';
import type { Framing } from '../../core/motion/framing';

interface HandDrawnEdgeProps {
  readonly assetId: AssetId;
  readonly picture: { readonly widthPx: number; readonly heightPx: number };
  readonly shown: { readonly widthPx: number; readonly heightPx: number };
  readonly crop: Framing | undefined;
  readonly path: string | null;
  readonly onDraw: (path: string) => void;
}

const MOST = { widthPx: 240, heightPx: 170 };

/** The picture, and a pencil to draw around what is to be left of it. */
export function HandDrawnEdge({ assetId, picture, shown, crop, path, onDraw }: HandDrawnEdgeProps) {
  const [line, setLine] = useState<readonly { x: number; y: number }[]>([]);
  const drawing = useRef(false);
  const scale = Math.min(MOST.widthPx / shown.widthPx, MOST.heightPx / shown.heightPx);
  const [widthPx, heightPx] = [shown.widthPx * scale, shown.heightPx * scale];
  return (
    <div>
      <div
        className="relative touch-none bg-surround select-none"
        style={{ width: widthPx, height: heightPx, cursor: 'crosshair' }}
        data-part="hand-drawn-edge"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drawing.current = true;
          setLine([]);
        }}
        onPointerMove={(event) => {
          if (!drawing.current) return;
          const box = event.currentTarget.getBoundingClientRect();
          const point = {
            x: (100 * (event.clientX - box.left)) / box.width,
            y: (100 * (event.clientY - box.top)) / box.height,
          };
          setLine((before) => [...before, point]);
        }}
        onPointerUp={() => {
          drawing.current = false;
          const drawn = pathOfHand(line);
          setLine([]);
          if (drawn) onDraw(drawn);
        }}
      >
        <CroppedPrint assetId={assetId} picture={picture} crop={crop} widthPx={widthPx} heightPx={heightPx} />
        <svg
          aria-hidden="true"
          className="pointer-events-none absolute inset-0"
          width={widthPx}
          height={heightPx}
          viewBox="0 0 100 100"
          preserveAspectRatio="none"
          fill="none"
        >
          {path && line.length === 0 && (
            <path d={path} stroke="var(--color-red)" strokeWidth={2.5} vectorEffect="non-scaling-stroke" />
          )}
          {line.length > 0 && (
            <polyline
              points={line.map(({ x, y }) => `${x},${y}`).join(' ')}
              stroke="var(--color-red)"
              strokeWidth={3}
              strokeLinecap="round"
              strokeLinejoin="round"
              vectorEffect="non-scaling-stroke"
            />
          )}
        </svg>
      </div>
      <p className="mt-1 text-soft">Draw around what is to be left.</p>
    </div>
  );
}
