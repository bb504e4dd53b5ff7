'use client';

import { nanoid } from 'nanoid';
import { useRef, type PointerEvent } from 'react';
import { slideMoment } from '../../core/frame/slide-moment';
import { withValues } from '../../core/layers/column-keys';
import { valueNow } from '../../core/layers/stand';
import type { Layer } from '../../core/show/layer';
import { useOpenSlide } from './use-slide';
import { useWideStore } from './wide-store';

interface Held {
  readonly layer: Layer;
  readonly what: 'layer' | 'camera';
  readonly x: number;
  readonly y: number;
  /** Pixels of the map for a height of the frame. */
  readonly scale: number;
  readonly joins: string;
}

/** Drags on the map of a space: a layer or the camera to the side and nearer, as one step. */
export function useSpaceDrag() {
  const store = useWideStore();
  const { around, seenMs, prepared, put } = useOpenSlide();
  const held = useRef<Held | null>(null);
  return { begin, move, end };

  function begin(event: PointerEvent<SVGElement>, what: Held['what'], layer: Layer, scale: number): void {
    event.stopPropagation();
    event.currentTarget.setPointerCapture(event.pointerId);
    if (what === 'layer') store.getState().choose([layer.id], layer.id);
    held.current = { layer, what, x: event.clientX, y: event.clientY, scale, joins: `space ${nanoid(6)}` };
  }

  function move(event: PointerEvent<SVGElement>): void {
    const now = held.current;
    if (!now) return;
    const { offsetMs } = store.getState();
    const { widthPx, heightPx } = prepared.show.frame;
    const [dx, dz] = [
      (((event.clientX - now.x) / now.scale) * heightPx) / widthPx,
      (event.clientY - now.y) / now.scale,
    ];
    if (now.what === 'camera' && now.layer.kind === 'group') {
      const { at } = slideMoment(around, offsetMs);
      const values = { 'space/x': at(now.layer.space?.x, 0) + dx, 'space/z': at(now.layer.space?.z, 0) - dz };
      put('move the camera', withValues(now.layer, values, offsetMs, seenMs), now.joins);
      return;
    }
    const values = {
      'channels/x': valueNow(now.layer, 'x', offsetMs, seenMs) + dx,
      'channels/z': valueNow(now.layer, 'z', offsetMs, seenMs) + dz,
    };
    put('move a layer in space', withValues(now.layer, values, offsetMs, seenMs), now.joins);
  }

  function end(): void {
    held.current = null;
  }
}
