'use client';

import { nanoid } from 'nanoid';
import { useRef, type PointerEvent, type RefObject } from 'react';
import { localOf, sightOf, sightsAt, type LayerSight, type ScreenPoint } from '../../core/frame/layer-sight';
import type { SlideSurroundings } from '../../core/frame/slide-moment';
import { guidedMove, guidedSize, type GuideLine } from '../../core/guides/guides';
import { withValues, type Values } from '../../core/layers/column-keys';
import { boundsOf, placedAt, sizeNow, sizeValues, valueNow } from '../../core/layers/stand';
import { topmost } from '../../core/layers/stack';
import { everyLayer, type Layer } from '../../core/show/layer';
import { unreachable } from '../../core/unreachable';
import {
  angleAbout,
  boundsOfAll,
  caughtTurn,
  cropNow,
  pulledCrop,
  pulledSize,
  turnBetween,
  type Handle,
} from './hand-drag';
import { useLoupePlan } from './use-loupe-plan';
import { useOpenSlide } from './use-slide';
import { useWideStore } from './wide-store';

export type Grip =
  | { readonly how: 'move' }
  | { readonly how: 'size'; readonly handle: Handle }
  | { readonly how: 'turn' }
  | { readonly how: 'tilt'; readonly axis: 'over' | 'aside' }
  | { readonly how: 'crop'; readonly side: 'left' | 'top' | 'right' | 'bottom' };

interface Held {
  readonly grip: Grip;
  readonly at: ScreenPoint;
  readonly around: SlideSurroundings;
  readonly offsetMs: number;
  readonly layers: readonly Layer[];
  readonly sights: readonly LayerSight[];
  readonly others: readonly LayerSight[];
  readonly joins: string;
  moved: boolean;
}

/** Nearer than this the hand has not moved, and closer than this a guide catches; in pixels of the screen. */
const STILL_PX = 3;
const CATCHES_PX = 6;
/** A whole side of the stage tilts by so much. */
const DEGREES_A_FRAME = 160;

const NAMES: { readonly [How in Grip['how']]: string } = {
  move: 'move a layer',
  size: 'size a layer',
  turn: 'turn a layer',
  tilt: 'tilt a layer',
  crop: 'crop a layer',
};

/** A drag on the stage from press to release: one step to undo, worked out each time from where the layers stood when it began. */
export function useStageDrag(root: RefObject<SVGSVGElement | null>, onLines: (lines: readonly GuideLine[]) => void) {
  const store = useWideStore();
  const { slide, around, prepared, seenMs, put } = useOpenSlide();
  const loupe = useLoupePlan();
  const held = useRef<Held | null>(null);
  const { frame } = prepared.show;
  const aspect = frame.widthPx / frame.heightPx;

  const pointOf = (event: PointerEvent): ScreenPoint => {
    const box = root.current!.getBoundingClientRect();
    return { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height };
  };

  return { begin, move, end };

  function begin(event: PointerEvent<SVGElement>, grip: Grip): void {
    if (grip.how !== 'move') event.stopPropagation();
    const { offsetMs, chosen } = store.getState();
    const layers = topmost(slide, chosen).filter((layer) => !layer.locked);
    if (layers.length === 0) return;
    root.current?.setPointerCapture(event.pointerId);
    const sights = sightsAt(around, offsetMs);
    const own = new Set([...everyLayer(layers)].map((layer) => layer.id));
    const above = new Set(sights.flatMap((sight) => (own.has(sight.layer.id) && sight.group ? [sight.group.id] : [])));
    held.current = {
      grip,
      at: pointOf(event),
      around,
      offsetMs,
      layers,
      sights: sights.filter(({ layer }) => layers.some((one) => one.id === layer.id)),
      others: sights.filter(({ layer }) => !own.has(layer.id) && !above.has(layer.id) && !layer.hidden),
      joins: `${grip.how} ${nanoid(6)}`,
      moved: false,
    };
  }

  function move(event: PointerEvent<SVGElement>): void {
    const now = held.current;
    if (!now) return;
    const to = pointOf(event);
    const box = root.current!.getBoundingClientRect();
    const away = Math.hypot((to.x - now.at.x) * box.width, (to.y - now.at.y) * box.height);
    if (!now.moved && away < STILL_PX) return;
    now.moved = true;
    const reach =
      store.getState().guided && !event.altKey
        ? { x: CATCHES_PX / box.width, y: CATCHES_PX / box.height }
        : { x: 0, y: 0 };
    if (now.grip.how === 'move' && loupe?.group.id === now.layers[0]?.id) {
      const rim = sightOf(now.around, loupe!.group.layers[0]!.id, now.offsetMs);
      if (!rim) return;
      const point = { x: rim.centre.x + to.x - now.at.x, y: rim.centre.y + to.y - now.at.y };
      loupe!.movePlace(loupe!.placeAt(now.offsetMs), now.offsetMs, point, now.joins);
      return;
    }
    const changed =
      now.grip.how === 'move'
        ? moved(now, to, reach)
        : now.layers.slice(0, 1).flatMap((layer) => pulled(now, layer, to, reach));
    if (changed.length > 0) put(NAMES[now.grip.how], changed, now.joins);
  }

  /** @returns whether anything was moved */
  function end(event: PointerEvent<SVGElement>): boolean {
    const was = held.current;
    held.current = null;
    onLines([]);
    if (root.current?.hasPointerCapture(event.pointerId)) root.current.releasePointerCapture(event.pointerId);
    return was?.moved ?? false;
  }

  function moved(now: Held, to: ScreenPoint, reach: { x: number; y: number }): Layer[] {
    let [dx, dy] = [to.x - now.at.x, to.y - now.at.y];
    const box = boundsOfAll(now.sights);
    if (box && reach.x > 0) {
      const there = { left: box.left + dx, right: box.right + dx, top: box.top + dy, bottom: box.bottom + dy };
      const guided = guidedMove(there, now.others.map(boundsOf), reach);
      [dx, dy] = [dx + guided.dx, dy + guided.dy];
      onLines(guided.lines);
    } else onLines([]);
    return now.sights.flatMap(({ layer, centre }) => {
      const place = placedAt(now.around, layer.id, now.offsetMs, { x: centre.x + dx, y: centre.y + dy });
      return place ? [set(layer, { 'channels/x': held6(place.x), 'channels/y': held6(place.y) }, now)] : [];
    });
  }

  function pulled(now: Held, layer: Layer, to: ScreenPoint, reach: { x: number; y: number }): Layer[] {
    const sight = now.sights[0];
    if (!sight) return [];
    const { grip, offsetMs } = now;
    switch (grip.how) {
      case 'size': {
        const local = localOf(sight, to);
        if (!local) return [];
        const size = sizeNow(layer, prepared.facts, frame, offsetMs, seenMs);
        const { linked } = store.getState();
        const wanted = pulledSize(size, grip.handle, local, linked);
        const bounds = boundsOf(sight);
        const shown = ((bounds.right - bounds.left) * wanted.width) / size.width;
        const like = guidedSize(
          shown,
          now.others.map(boundsOf).map((other) => other.right - other.left),
          reach.x,
        );
        const scale = like.caught && grip.handle.u !== 0.5 ? like.size / shown : 1;
        onLines(like.caught && grip.handle.u !== 0.5 ? [{ along: 'x', at: bounds.right, why: 'same size' }] : []);
        const both = linked && grip.handle.v !== 0.5 ? scale : 1;
        return [set(layer, rounded(sizeValues(size, wanted.width * scale, wanted.height * both)), now)];
      }
      case 'turn': {
        const turned = turnBetween(angleAbout(sight.centre, now.at, aspect), angleAbout(sight.centre, to, aspect));
        const degrees = valueNow(layer, 'turnDegrees', offsetMs, seenMs) + turned;
        return [set(layer, { 'channels/turnDegrees': tenth(reach.x > 0 ? caughtTurn(degrees) : degrees) }, now)];
      }
      case 'tilt': {
        const over = grip.axis === 'over';
        const by = over ? now.at.y - to.y : to.x - now.at.x;
        const path = over ? 'tiltXDegrees' : 'tiltYDegrees';
        const degrees = valueNow(layer, path, offsetMs, seenMs) + by * DEGREES_A_FRAME;
        return [set(layer, { [`channels/${path}`]: tenth(reach.x > 0 ? caughtTurn(degrees) : degrees) }, now)];
      }
      case 'crop': {
        const local = localOf(sight, to);
        if (!local) return [];
        const cut = pulledCrop(cropNow(layer, offsetMs, seenMs), grip.side, local);
        const name = { left: 'cropLeft', top: 'cropTop', right: 'cropRight', bottom: 'cropBottom' }[grip.side];
        return [set(layer, { [`channels/${name}`]: held6(cut) }, now)];
      }
      case 'move':
        return [];
      default:
        return unreachable(grip);
    }
  }

  function set(layer: Layer, values: Values, { offsetMs }: Held): Layer {
    return withValues(layer, values, offsetMs, seenMs);
  }
}

/** A millionth of the frame is finer than any film. */
const held6 = (value: number) => Math.round(value * 1e6) / 1e6;
const tenth = (value: number) => Math.round(value * 10) / 10;
const rounded = (values: Values): Values =>
  Object.fromEntries(Object.entries(values).map(([path, value]) => [path, held6(Number(value))]));
