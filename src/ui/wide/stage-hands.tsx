'use client';

import { useEffect, useMemo, useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { sightsAt, type LayerSight, type ScreenPoint } from '../../core/frame/layer-sight';
import type { GuideLine } from '../../core/guides/guides';
import { topmost } from '../../core/layers/stack';
import { Guide } from '../kit/guide';
import { useNudge } from './use-nudge';
import { useOpenSlide } from './use-slide';
import { useStageDrag } from './use-stage-drag';
import { usePickLayer } from './use-pick-layer';
import { CORNERS, cropNow, nextUnderHand, SIDES, seenAt, underHand, type Handle } from './hand-drag';
import { LayerPath } from './layer-path';
import { LoupePath } from './loupe-path';
import { useLoupePlan } from './use-loupe-plan';
import { useWide, useWideStore } from './wide-store';

interface Size {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** What hands do on the stage: choose what is under them, move it, and by its handles size, turn, tilt and crop it. The same is typed in the fields at the right. */
export function StageHands() {
  const store = useWideStore();
  const { slide, around, nameOf } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  const chosen = useWide((state) => state.chosen);
  const tool = useWide((state) => state.tool);
  const asking = useWide((state) => state.asking);
  const root = useRef<SVGSVGElement>(null);
  const [size, setSize] = useState<Size>({ widthPx: 1, heightPx: 1 });
  const [lines, setLines] = useState<readonly GuideLine[]>([]);
  const sights = useMemo(() => sightsAt(around, offsetMs), [around, offsetMs]);
  const drag = useStageDrag(root, setLines);
  const loupe = useLoupePlan();
  const nudge = useNudge();
  const pick = usePickLayer();
  /** What a press without a drag would choose. */
  const pressed = useRef<{ at: ScreenPoint; wasChosen: boolean } | null>(null);
  useEffect(() => {
    const holder = root.current;
    if (!holder) return;
    const watch = new ResizeObserver(() =>
      setSize({ widthPx: holder.clientWidth || 1, heightPx: holder.clientHeight || 1 }),
    );
    watch.observe(holder);
    return () => watch.disconnect();
  }, []);
  const at = (point: ScreenPoint) => ({ x: point.x * size.widthPx, y: point.y * size.heightPx });
  const pointOf = (event: PointerEvent): ScreenPoint => {
    const box = root.current!.getBoundingClientRect();
    return { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height };
  };
  const found = (point: ScreenPoint) => underHand(sights, point, ({ layer }) => !layer.hidden && !layer.locked);
  const press = (event: PointerEvent<SVGElement>) => {
    if (event.button !== 0) return;
    root.current?.focus({ preventScroll: true });
    const point = pointOf(event);
    const under = found(point);
    if (asking) {
      const id = under[0];
      if (id) pick(id);
      return;
    }
    const { chosen: before, choose } = store.getState();
    const wasChosen = under.some((id) => before.has(id));
    if (event.shiftKey || event.ctrlKey || event.metaKey) {
      const id = under[0];
      if (id) choose(before.has(id) ? [...before].filter((other) => other !== id) : [...before, id], id);
      return;
    }
    if (!wasChosen) choose(under.slice(0, 1), under[0] ?? null);
    pressed.current = { at: point, wasChosen };
    if (under.length > 0) drag.begin(event, { how: 'move' });
  };
  const release = (event: PointerEvent<SVGElement>) => {
    const moved = drag.end(event);
    const was = pressed.current;
    pressed.current = null;
    if (!was || moved || !was.wasChosen || asking) return;
    const next = nextUnderHand(found(was.at), store.getState().chosen);
    store.getState().choose(next ? [next] : [], next);
  };
  const own = sights.filter(({ layer }) => chosen.has(layer.id));
  const single = own.length === 1 && chosen.size === 1 ? own[0]! : null;
  const held = topmost(slide, chosen);
  const isLoupe = loupe !== null && single?.layer.id === loupe.group.id;
  return (
    <svg
      ref={root}
      role="application"
      aria-label={`Stage: ${held.length === 0 ? 'nothing is chosen' : held.map(nameOf).join(', ')}. Arrow keys nudge, with Shift ten times as far`}
      tabIndex={0}
      data-part="stage-hands"
      className="absolute inset-0 h-full w-full touch-none overflow-visible outline-offset-4"
      onPointerDown={press}
      onPointerMove={drag.move}
      onPointerUp={release}
      onPointerCancel={release}
      onKeyDown={(event: KeyboardEvent) => nudge(event)}
    >
      <rect width={size.widthPx} height={size.heightPx} fill="transparent" />
      {lines.map((line, index) => (
        <Guide key={index} line={line} size={size} />
      ))}
      {(isLoupe ? sights.filter(({ layer }) => layer.id === loupe.group.layers[0]!.id) : own).map((sight) => (
        <Outline key={sight.layer.id} sight={sight} at={at} />
      ))}
      {single && !isLoupe && !single.layer.locked && tool === 'place' && (
        <PlaceHandles sight={single} at={at} onBegin={drag.begin} size={size} />
      )}
      {single && !single.layer.locked && tool === 'tilt' && <TiltHandles sight={single} at={at} onBegin={drag.begin} />}
      {single && !single.layer.locked && tool === 'crop' && <CropHandles sight={single} at={at} onBegin={drag.begin} />}
      {isLoupe ? <LoupePath loupe={loupe} at={at} /> : single && <LayerPath sight={single} at={at} />}
    </svg>
  );
}

type At = (point: ScreenPoint) => { x: number; y: number };
type Begin = ReturnType<typeof useStageDrag>['begin'];

/** A crop mark at each corner and a thin line between: the picture under them stays to be seen. */
function Outline({ sight, at }: { sight: LayerSight; at: At }) {
  const corners = sight.corners.map(at);
  const points = corners.map(({ x, y }) => `${x},${y}`).join(' ');
  const marks = corners.map((corner, index) => {
    const [before, after] = [corners[(index + 3) % 4]!, corners[(index + 1) % 4]!];
    const towards = (other: { x: number; y: number }) => {
      const length = Math.hypot(other.x - corner.x, other.y - corner.y) || 1;
      const by = Math.min(12, length / 3) / length;
      return `${corner.x + (other.x - corner.x) * by} ${corner.y + (other.y - corner.y) * by}`;
    };
    return `M${towards(before)}L${corner.x} ${corner.y}L${towards(after)}`;
  });
  return (
    <g className="pointer-events-none" data-part="outline" data-layer={sight.layer.id}>
      <polygon points={points} fill="none" stroke="#171513" strokeOpacity={0.5} strokeWidth={3} />
      <polygon
        points={points}
        fill="none"
        stroke="#fcfaf5"
        strokeOpacity={0.75}
        strokeDasharray={sight.layer.mask ? '4 3' : undefined}
      />
      <path d={marks.join('')} fill="none" className="stroke-red" strokeWidth={3} />
    </g>
  );
}

function PlaceHandles({ sight, at, onBegin, size }: { sight: LayerSight; at: At; onBegin: Begin; size: Size }) {
  const name = (handle: Handle) =>
    `${handle.v === 0 ? 'top' : handle.v === 1 ? 'bottom' : ''} ${handle.u === 0 ? 'left' : handle.u === 1 ? 'right' : ''}`.trim();
  const pivot = at(sight.centre);
  const knob = turnKnob(sight, at, size);
  return (
    <g>
      {[...SIDES, ...CORNERS].map((handle) => {
        const { x, y } = at(seenAt(sight, handle.u, handle.v));
        const corner = handle.u !== 0.5 && handle.v !== 0.5;
        return (
          <rect
            key={name(handle)}
            x={x - (corner ? 9 : 6)}
            y={y - (corner ? 9 : 6)}
            width={corner ? 18 : 12}
            height={corner ? 18 : 12}
            fill="transparent"
            className={corner ? 'cursor-nwse-resize' : handle.u === 0.5 ? 'cursor-ns-resize' : 'cursor-ew-resize'}
            data-part="size-handle"
            data-handle={name(handle)}
            onPointerDown={(event) => onBegin(event, { how: 'size', handle })}
          >
            <title>{corner ? 'Drag to size it about its middle' : 'Drag to make it wider or higher'}</title>
          </rect>
        );
      })}
      {SIDES.map((handle) => {
        const { x, y } = at(seenAt(sight, handle.u, handle.v));
        return <circle key={name(handle)} cx={x} cy={y} r={3} className="pointer-events-none fill-lamp stroke-black" />;
      })}
      <g className="pointer-events-none stroke-lamp" data-part="pivot">
        <path d={`M${pivot.x - 6} ${pivot.y}h12M${pivot.x} ${pivot.y - 6}v12`} stroke="#171513" strokeWidth={3} />
        <path d={`M${pivot.x - 6} ${pivot.y}h12M${pivot.x} ${pivot.y - 6}v12`} />
      </g>
      <circle
        cx={knob.x}
        cy={knob.y}
        r={8}
        className="cursor-grab fill-black/70 stroke-lamp"
        data-part="turn-handle"
        onPointerDown={(event) => onBegin(event, { how: 'turn' })}
      >
        <title>Drag around the cross to turn it</title>
      </circle>
      <path
        d={`M${knob.x - 3.5} ${knob.y + 2}a4 4 0 1 1 6.5 -0.5l1.4 -1.6m-1.4 1.6l-2 -0.7`}
        className="pointer-events-none stroke-lamp"
        fill="none"
      />
    </g>
  );
}

/** Beyond the right side, or within it where that would lie off the stage. */
function turnKnob(sight: LayerSight, at: At, size: Size): { x: number; y: number } {
  const side = at(seenAt(sight, 1, 0.5));
  const centre = at(sight.centre);
  const length = Math.hypot(side.x - centre.x, side.y - centre.y) || 1;
  const [ux, uy] = [(side.x - centre.x) / length, (side.y - centre.y) / length];
  const fits = side.x + ux * 24 < size.widthPx + 18 && side.y + uy * 24 > -18 && side.y + uy * 24 < size.heightPx + 18;
  const by = fits ? 24 : -24;
  return { x: side.x + ux * by, y: side.y + uy * by };
}

function TiltHandles({ sight, at, onBegin }: { sight: LayerSight; at: At; onBegin: Begin }) {
  const [top, right] = [at(seenAt(sight, 0.5, 0.16)), at(seenAt(sight, 0.84, 0.5))];
  const bar = (part: 'over' | 'aside', spot: { x: number; y: number }) => (
    <g key={part}>
      <rect
        x={spot.x - (part === 'over' ? 26 : 7)}
        y={spot.y - (part === 'over' ? 7 : 26)}
        width={part === 'over' ? 52 : 14}
        height={part === 'over' ? 14 : 52}
        rx={7}
        className={`fill-slate stroke-lamp ${part === 'over' ? 'cursor-ns-resize' : 'cursor-ew-resize'}`}
        data-part="tilt-handle"
        data-handle={part}
        onPointerDown={(event) => onBegin(event, { how: 'tilt', axis: part })}
      >
        <title>{part === 'over' ? 'Drag up: the top leans away' : 'Drag right: the right side leans away'}</title>
      </rect>
    </g>
  );
  return (
    <>
      {bar('over', top)}
      {bar('aside', right)}
    </>
  );
}

function CropHandles({ sight, at, onBegin }: { sight: LayerSight; at: At; onBegin: Begin }) {
  const { around } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  const crop = cropNow(sight.layer, offsetMs, around.seenMs);
  const [l, t, r, b] = [crop.left, crop.top, 1 - crop.right, 1 - crop.bottom];
  const sides = [
    ['left', seenAt(sight, l, t), seenAt(sight, l, b)],
    ['top', seenAt(sight, l, t), seenAt(sight, r, t)],
    ['right', seenAt(sight, r, t), seenAt(sight, r, b)],
    ['bottom', seenAt(sight, l, b), seenAt(sight, r, b)],
  ] as const;
  return (
    <>
      {sides.map(([side, from, to]) => {
        const [a, z] = [at(from), at(to)];
        const cursor = side === 'left' || side === 'right' ? 'cursor-ew-resize' : 'cursor-ns-resize';
        return (
          <g key={side}>
            <line x1={a.x} y1={a.y} x2={z.x} y2={z.y} className="stroke-saffron" strokeWidth={3} />
            <line
              x1={a.x}
              y1={a.y}
              x2={z.x}
              y2={z.y}
              stroke="transparent"
              strokeWidth={16}
              className={cursor}
              data-part="crop-side"
              data-handle={side}
              onPointerDown={(event) => onBegin(event, { how: 'crop', side })}
            >
              <title>Drag to cut away from this side</title>
            </line>
          </g>
        );
      })}
    </>
  );
}
