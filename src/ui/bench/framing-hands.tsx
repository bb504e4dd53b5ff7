'use client';

import { useRef, type PointerEvent } from 'react';
import type { Framing } from '../../core/motion/framing';
import { framingBox, type FramedView } from '../arrange/framed-view';
import { cornerOf, sizedFraming, type Corner } from './framing-drag';

interface FramingHandsProps {
  readonly view: FramedView;
  readonly picture: { readonly widthPx: number; readonly heightPx: number };
  readonly first: Framing;
  readonly last: Framing;
  /** The view must not follow the framings while one is dragged. */
  readonly onHold: (held: boolean) => void;
  readonly onChange: (which: 'first' | 'last', part: Partial<Framing>) => void;
}

/** Closer than this, a framing's side is laid onto the picture's. In pixels of the screen. */
const CATCHES_PX = 4;

interface Held {
  readonly which: 'first' | 'last';
  /** Null: all of it is moved. */
  readonly corner: Corner | null;
  readonly x: number;
  readonly y: number;
  readonly start: Framing;
}

/**
 * What a hand on a framing does: move it from inside or by its sides, size it by a corner while the opposite one stays – with Alt about its middle. For the
 * pointer; the same is typed in the fields beside it.
 */
export function FramingHands({ view, picture, first, last, onHold, onChange }: FramingHandsProps) {
  const held = useRef<Held | null>(null);
  const framings = { first, last };
  const hold = (which: 'first' | 'last', corner: Corner | null) => ({
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      event.preventDefault();
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = { which, corner, x: event.clientX, y: event.clientY, start: framings[which] };
      onHold(true);
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      const drag = held.current;
      if (!drag || drag.which !== which || drag.corner !== corner) return;
      const { start } = drag;
      const [dx, dy] = [(event.clientX - drag.x) / view.scale, (event.clientY - drag.y) / view.scale];
      if (corner === null) {
        onChange(which, {
          x: caught(start.x + dx / picture.widthPx, start.width, picture.widthPx),
          y: caught(start.y + dy / picture.heightPx, start.height, picture.heightPx),
        });
        return;
      }
      const from = cornerOf(start, picture, corner);
      onChange(which, sizedFraming(start, picture, corner, { x: from.x + dx, y: from.y + dy }, event.altKey));
    },
    onPointerUp: () => {
      held.current = null;
      onHold(false);
    },
  });
  /** The larger lies below, so that the smaller can always be taken. */
  const order =
    first.width * first.height >= last.width * last.height
      ? (['first', 'last'] as const)
      : (['last', 'first'] as const);
  return (
    <svg
      aria-hidden="true"
      className="absolute inset-0 touch-none"
      width={view.widthPx}
      height={view.heightPx}
      data-part="framing-hands"
    >
      {order.map((which) => {
        const framing = framings[which];
        const { x, y, width, height } = framingBox(view, framing, picture);
        const turn =
          framing.turnDegrees === 0 ? undefined : `rotate(${framing.turnDegrees} ${x + width / 2} ${y + height / 2})`;
        return (
          <g key={which} transform={turn}>
            <rect
              x={x}
              y={y}
              width={width}
              height={height}
              fill="transparent"
              stroke="transparent"
              strokeWidth={10}
              className="cursor-move"
              data-framing={which}
              {...hold(which, null)}
            >
              <title>{which === 'first' ? 'First framing: drag to move it' : 'Last framing: drag to move it'}</title>
            </rect>
            {(
              [
                [x, y],
                [x + width, y],
                [x + width, y + height],
                [x, y + height],
              ] as const
            ).map(([cx, cy], corner) => (
              <circle
                key={corner}
                cx={Math.min(view.widthPx - 3, Math.max(3, cx))}
                cy={Math.min(view.heightPx - 3, Math.max(3, cy))}
                r={which === 'last' ? 4 : 3.5}
                className={
                  corner % 2 === 0
                    ? 'cursor-nwse-resize fill-white stroke-ink'
                    : 'cursor-nesw-resize fill-white stroke-ink'
                }
                strokeWidth={1}
                data-corner={which}
                {...hold(which, corner as Corner)}
              >
                <title>Drag to size it; with Alt about its middle</title>
              </circle>
            ))}
          </g>
        );
      })}
    </svg>
  );

  function caught(centre: number, size: number, pixels: number): number {
    const near = CATCHES_PX / view.scale / pixels;
    if (Math.abs(centre - size / 2) < near) return size / 2;
    if (Math.abs(centre + size / 2 - 1) < near) return 1 - size / 2;
    return Math.abs(centre - 0.5) < near ? 0.5 : centre;
  }
}
