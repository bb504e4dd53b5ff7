'use client';

import { useCallback, type KeyboardEvent } from 'react';
import { sightsAt } from '../../core/frame/layer-sight';
import { withValues } from '../../core/layers/column-keys';
import { placedAt } from '../../core/layers/stand';
import { topmost } from '../../core/layers/stack';
import { useLoupePlan } from './use-loupe-plan';
import { say, useOpenSlide } from './use-slide';
import { useWideStore } from './wide-store';

const WAYS: Readonly<Record<string, readonly [dx: number, dy: number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};
/** Coarse steps are so many pixels of the film. */
const COARSE = 10;

/** Arrow keys on the stage move what is chosen by a pixel of the film, with Shift by ten. Presses in a row are one step to undo. */
export function useNudge(): (event: KeyboardEvent) => void {
  const store = useWideStore();
  const { slide, around, prepared, seenMs, put } = useOpenSlide();
  const loupe = useLoupePlan();
  return useCallback(
    (event) => {
      const way = WAYS[event.key];
      if (!way || event.altKey || event.ctrlKey || event.metaKey) return;
      event.preventDefault();
      event.stopPropagation();
      const { offsetMs, chosen } = store.getState();
      const { widthPx, heightPx } = prepared.show.frame;
      const by = event.shiftKey ? COARSE : 1;
      const sights = new Map(sightsAt(around, offsetMs).map((sight) => [sight.layer.id, sight]));
      const layers = topmost(slide, chosen);
      if (loupe && layers[0]?.id === loupe.group.id) {
        const rim = sights.get(loupe.group.layers[0]!.id);
        if (!rim) return;
        const to = { x: rim.centre.x + (way[0] * by) / widthPx, y: rim.centre.y + (way[1] * by) / heightPx };
        return loupe.movePlace(loupe.placeAt(offsetMs), offsetMs, to, 'nudge a place');
      }
      if (layers.some((layer) => layer.locked)) return say('That layer is locked.');
      const changed = layers.flatMap((layer) => {
        const sight = sights.get(layer.id);
        const place =
          sight &&
          placedAt(around, layer.id, offsetMs, {
            x: sight.centre.x + (way[0] * by) / widthPx,
            y: sight.centre.y + (way[1] * by) / heightPx,
          });
        if (!place) return [];
        return [withValues(layer, { 'channels/x': place.x, 'channels/y': place.y }, offsetMs, seenMs)];
      });
      if (changed.length > 0) put('nudge a layer', changed, `nudge ${layers.map((layer) => layer.id).join()}`);
    },
    [store, slide, around, prepared, seenMs, put, loupe],
  );
}
