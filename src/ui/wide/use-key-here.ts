'use client';

import { useCallback } from 'react';
import { hasRoom, withColumnKey } from '../../core/layers/column-keys';
import type { Column } from '../../core/layers/columns';
import { withHeldMove } from '../../core/motion/held-move';
import type { Layer } from '../../core/show/layer';
import { say, useOpenSlide } from './use-slide';
import { useWideStore } from './wide-store';

/** Puts a key into columns of a layer at an offset, and chooses the first of them. Nothing is seen to change. */
export function useKeyHere(): (layer: Layer, columns: readonly Column[], offsetMs: number) => void {
  const store = useWideStore();
  const { prepared, slide, seenMs, put } = useOpenSlide();
  return useCallback(
    (layer, columns, offsetMs) => {
      const [first] = columns;
      if (!first) return;
      if (!columns.every((column) => hasRoom(layer, column))) return say('This channel has as many keys as it can.');
      // A picture that is given a size of its own would be framed anew: it goes on as it is seen.
      const sized = columns.some(({ id }) => id === 'size');
      const held = sized ? withHeldMove(layer, prepared.moves.get(slide.id)?.get(layer.id)) : layer;
      const keyed = columns.reduce<Layer>((before, column) => withColumnKey(before, column, offsetMs, seenMs), held);
      if (put(columns.length > 1 ? 'key all that moves' : `key ${first.name}`, keyed))
        store.getState().set({ key: { layerId: layer.id, columnId: first.id, ms: offsetMs } });
    },
    [store, prepared, slide, seenMs, put],
  );
}
