'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import type { FocusRing } from '../../core/focus/focus-facts';
import { cropOn, placeOnCrop, placeOnPicture, type Crop } from '../../core/motion/crop';
import type { FramedView } from '../arrange/framed-view';

interface FocusRingsProps {
  readonly view: FramedView;
  /** The whole picture, upright. */
  readonly whole: { readonly widthPx: number; readonly heightPx: number };
  /** What its crop leaves. */
  readonly picture: { readonly widthPx: number; readonly heightPx: number };
  readonly crop: Crop | undefined;
  readonly rings: readonly FocusRing[];
  /** They were found out, not said. */
  readonly found: boolean;
  /** @param joins with the changes of the same drag */
  readonly onChange: (rings: readonly FocusRing[], joins: string) => void;
}

const LEAST = 0.02;
const MOST = 0.5;
const STEP = 0.01;

/** Rings on a picture around what it is about. Dragged by their rim, sized by the dot on it; by keyboard with arrows, + and −, and Delete. */
export function FocusRings({ view, whole, picture, crop, rings, found, onChange }: FocusRingsProps) {
  const held = useRef<{ index: number; how: 'move' | 'size'; ring: FocusRing; x: number; y: number } | null>(null);
  const [drag, setDrag] = useState(0);
  const cut: Crop = crop ? cropOn(whole, crop) : { x: 0.5, y: 0.5, width: 1, height: 1, turnDegrees: 0 };
  const replace = (index: number, ring: FocusRing, joins: string) =>
    onChange(
      rings.map((other, at) => (at === index ? ring : other)),
      joins,
    );
  const onScreen = (ring: FocusRing) => {
    const place = placeOnCrop(cut, ring, whole);
    return {
      cx: (place.x * picture.widthPx - view.left) * view.scale,
      cy: (place.y * picture.heightPx - view.top) * view.scale,
      r: ring.radius * whole.widthPx * view.scale,
    };
  };
  const hands = (index: number, how: 'move' | 'size') => ({
    onPointerDown: (event: PointerEvent<SVGElement>) => {
      event.preventDefault();
      event.stopPropagation();
      event.currentTarget.setPointerCapture(event.pointerId);
      held.current = { index, how, ring: rings[index]!, x: event.clientX, y: event.clientY };
    },
    onPointerMove: (event: PointerEvent<SVGElement>) => {
      const start = held.current;
      if (!start || start.index !== index || start.how !== how) return;
      const [dx, dy] = [event.clientX - start.x, event.clientY - start.y];
      if (how === 'size') {
        const { cx, cy } = onScreen(start.ring);
        const bounds = event.currentTarget.ownerSVGElement!.getBoundingClientRect();
        const away = Math.hypot(event.clientX - bounds.left - cx, event.clientY - bounds.top - cy);
        replace(index, { ...start.ring, radius: bounded(away / (whole.widthPx * view.scale)) }, `focus ${drag}`);
        return;
      }
      const place = placeOnCrop(cut, start.ring, whole);
      const moved = placeOnPicture(
        cut,
        { x: place.x + dx / view.scale / picture.widthPx, y: place.y + dy / view.scale / picture.heightPx },
        whole,
      );
      replace(index, { ...start.ring, x: share(moved.x), y: share(moved.y) }, `focus ${drag}`);
    },
    onPointerUp: () => {
      held.current = null;
      setDrag(drag + 1);
    },
  });
  const keyed = (index: number) => (event: KeyboardEvent) => {
    const ring = rings[index]!;
    const by = event.shiftKey ? 5 * STEP : STEP;
    const next: Record<string, () => readonly FocusRing[]> = {
      ArrowLeft: () => put({ ...ring, x: share(ring.x - by) }),
      ArrowRight: () => put({ ...ring, x: share(ring.x + by) }),
      ArrowUp: () => put({ ...ring, y: share(ring.y - by) }),
      ArrowDown: () => put({ ...ring, y: share(ring.y + by) }),
      '+': () => put({ ...ring, radius: bounded(ring.radius * 1.1) }),
      '-': () => put({ ...ring, radius: bounded(ring.radius / 1.1) }),
      Delete: () => rings.filter((_, at) => at !== index),
    };
    const put = (changed: FocusRing) => rings.map((other, at) => (at === index ? changed : other));
    const change = next[event.key === '=' ? '+' : event.key];
    if (!change) return;
    event.preventDefault();
    event.stopPropagation();
    onChange(change(), `focus keys ${index}`);
  };
  return (
    <svg
      className="pointer-events-none absolute inset-0 touch-none overflow-hidden"
      width={view.widthPx}
      height={view.heightPx}
      data-part="focus-rings"
      role="group"
      aria-label="What the picture is about"
    >
      {rings.map((ring, index) => {
        const { cx, cy, r } = onScreen(ring);
        return (
          <g
            key={index}
            tabIndex={0}
            role="button"
            aria-label={`Ring ${index + 1}: ${Math.round(100 * ring.x)} percent across, ${Math.round(100 * ring.y)} down. Arrows move it, plus and minus size it, Delete removes it.`}
            className="pointer-events-auto outline-none [&:focus-visible>circle:first-child]:stroke-white"
            data-ring={index}
            onKeyDown={keyed(index)}
          >
            <circle cx={cx} cy={cy} r={r} fill="none" stroke="rgb(0 0 0 / 0.55)" strokeWidth={4.5} />
            <circle
              cx={cx}
              cy={cy}
              r={r}
              fill="none"
              strokeWidth={2.5}
              strokeDasharray={found ? '5 4' : undefined}
              className="stroke-saffron"
            />
            <circle cx={cx} cy={cy} r={2.5} className="pointer-events-none fill-saffron" stroke="rgb(0 0 0 / 0.5)" />
            <circle
              cx={cx}
              cy={cy}
              r={r}
              fill="none"
              stroke="transparent"
              strokeWidth={11}
              pointerEvents="stroke"
              className="cursor-move"
              data-part="ring-rim"
              {...hands(index, 'move')}
            >
              <title>
                {found ? 'Found by itself: drag it by its rim to what the picture is about' : 'Drag the rim to move it'}
              </title>
            </circle>
            <circle
              cx={cx + r * Math.SQRT1_2}
              cy={cy + r * Math.SQRT1_2}
              r={4.5}
              className="cursor-nwse-resize fill-saffron"
              stroke="rgb(0 0 0 / 0.6)"
              {...hands(index, 'size')}
            />
          </g>
        );
      })}
    </svg>
  );
}

const share = (value: number) => Math.min(1, Math.max(0, Math.round(value * 10_000) / 10_000));
const bounded = (radius: number) => Math.min(MOST, Math.max(LEAST, Math.round(radius * 10_000) / 10_000));
