'use client';

import { useRef, type KeyboardEvent, type PointerEvent } from 'react';
import { curveOf, type BezierEasing, type Easing } from '../../core/keys/easing';

const SIDE = 96;
const ROOM = 26;
const LOOKS = 48;

/** Béziers that are near the named curves, to begin pulling from. */
const NEAR: Readonly<Record<string, BezierEasing['bezier']>> = {
  linear: [0.33, 0.33, 0.67, 0.67],
  settle: [0.4, 0, 0.6, 1],
  'set-off': [0.5, 0, 0.9, 0.6],
  arrive: [0.1, 0.4, 0.5, 1],
  swing: [0.3, 0, 0.3, 1.5],
  bounce: [0.3, 0, 0.6, 1],
  rush: [0.85, 0, 0.15, 1],
  hold: [0.33, 0.33, 0.67, 0.67],
};

/** How a key goes on to the next, as a curve: time to the right, the way upwards. Its two points are pulled, or stepped with the arrow keys. */
export function EasingSquare({ easing, onChange }: { easing: Easing; onChange: (easing: Easing) => void }) {
  const root = useRef<SVGSVGElement>(null);
  const curve = curveOf(easing);
  const points = bezierOf(easing);
  const px = (x: number) => ROOM / 2 + x * SIDE;
  const py = (y: number) => ROOM / 2 + SIDE / 6 + (1 - y) * SIDE * (2 / 3);
  const pull = (which: 0 | 1, x: number, y: number) => {
    const next = [...points] as [number, number, number, number];
    next[2 * which] = round(Math.min(1, Math.max(0, x)));
    next[2 * which + 1] = round(Math.min(2, Math.max(-1, y)));
    onChange({ bezier: next });
  };
  const drag = (which: 0 | 1) => (event: PointerEvent<SVGCircleElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const box = root.current!.getBoundingClientRect();
    const scale = (SIDE + ROOM) / box.width;
    const [sx, sy] = [(event.clientX - box.left) * scale, (event.clientY - box.top) * scale];
    pull(which, (sx - ROOM / 2) / SIDE, 1 - (sy - ROOM / 2 - SIDE / 6) / (SIDE * (2 / 3)));
  };
  const step = (which: 0 | 1) => (event: KeyboardEvent) => {
    const by = { ArrowLeft: [-0.02, 0], ArrowRight: [0.02, 0], ArrowUp: [0, 0.02], ArrowDown: [0, -0.02] }[event.key];
    if (!by) return;
    event.preventDefault();
    event.stopPropagation();
    pull(which, points[2 * which]! + by[0]!, points[2 * which + 1]! + by[1]!);
  };
  return (
    <svg
      ref={root}
      viewBox={`0 0 ${SIDE + ROOM} ${SIDE + ROOM}`}
      className="size-[122px] shrink-0 touch-none rounded-md border border-rule bg-field"
      data-part="easing-square"
    >
      <path d={`M${px(0)} ${py(0)}H${px(1)}M${px(0)} ${py(1)}H${px(1)}`} className="stroke-rule" />
      <path
        d={`M${px(0)} ${py(0)}L${px(points[0])} ${py(points[1])}M${px(1)} ${py(1)}L${px(points[2])} ${py(points[3])}`}
        className="stroke-soft"
      />
      <polyline
        points={Array.from({ length: LOOKS + 1 }, (_, at) => `${px(at / LOOKS)},${py(curve(at / LOOKS))}`).join(' ')}
        fill="none"
        className="stroke-slate"
        strokeWidth={2.5}
      />
      {([0, 1] as const).map((which) => (
        <circle
          key={which}
          cx={px(points[2 * which]!)}
          cy={py(points[2 * which + 1]!)}
          r={6}
          role="slider"
          tabIndex={0}
          aria-label={which === 0 ? 'How it leaves the key' : 'How it comes to the next key'}
          aria-valuenow={Math.round(100 * points[2 * which + 1]!)}
          aria-valuetext={`${points[2 * which]!.toFixed(2)} of the time, ${points[2 * which + 1]!.toFixed(2)} of the way`}
          className="cursor-move fill-card stroke-ink"
          strokeWidth={1.5}
          data-part="easing-point"
          onPointerDown={(event) => event.currentTarget.setPointerCapture(event.pointerId)}
          onPointerMove={drag(which)}
          onKeyDown={step(which)}
        />
      ))}
    </svg>
  );
}

function bezierOf(easing: Easing): BezierEasing['bezier'] {
  if (typeof easing === 'string') return NEAR[easing]!;
  return 'bezier' in easing ? easing.bezier : bezierOf(easing.of);
}

const round = (value: number) => Math.round(value * 100) / 100;
