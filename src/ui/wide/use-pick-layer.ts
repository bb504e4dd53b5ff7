'use client';

import { useCallback } from 'react';
import { faultOfTie } from '../../core/layers/ties';
import type { LayerId } from '../../core/show/ids';
import type { Mask, Tether } from '../../core/show/layer';
import { layerIn } from '../../core/show/pile';
import { say, useOpenSlide } from './use-slide';
import { useWideStore } from './wide-store';

/** What a follower follows when nothing else is said. */
export const USUAL_TETHER: Omit<Tether, 'to'> = { position: true, size: true, turn: true };

/** Takes the layer that was asked for, as the leader of a tether or as something a mask cuts. A ring is refused with its names. */
export function usePickLayer(): (id: LayerId) => void {
  const store = useWideStore();
  const { slide, edit, nameOf } = useOpenSlide();
  return useCallback(
    (id) => {
      const { asking, set } = store.getState();
      if (!asking) return;
      const own = layerIn(slide.layers, asking.layerId);
      if (!own) return set({ asking: null });
      if (own.id === id) return say('A layer cannot be tied to itself.');
      const properties =
        asking.for === 'leader'
          ? { tether: { ...USUAL_TETHER, ...own.tether, to: id } }
          : { mask: cutting(own.mask, id) };
      const fault = faultOfTie(slide.layers, own.id, properties, nameOf);
      if (fault) return say(fault);
      edit({ kind: 'set-layer-properties', slideId: slide.id, layerId: own.id, properties });
      if (asking.for === 'leader') set({ asking: null });
    },
    [store, slide, edit, nameOf],
  );
}

function cutting(mask: Mask | undefined, id: LayerId): Mask {
  const cuts = mask && mask.cuts !== 'below' ? mask.cuts : [];
  const next = cuts.includes(id) ? cuts.filter((other) => other !== id) : [...cuts, id];
  return { by: 'transparency', ...mask, cuts: next };
}
