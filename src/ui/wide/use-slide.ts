'use client';

import { createContext, useCallback, useContext, useMemo } from 'react';
import { toast } from 'sonner';
import type { PreparedShow } from '../../core/frame/plan-frame';
import { surroundingsOf } from '../../core/frame/plan-frame';
import type { SlideSurroundings } from '../../core/frame/slide-moment';
import { layerName } from '../../core/layers/layer-name';
import type { ShowEdit } from '../../core/show/edit';
import type { AssetId, LayerId } from '../../core/show/ids';
import type { Layer } from '../../core/show/layer';
import { layerIn } from '../../core/show/pile';
import type { Slide } from '../../core/show/show';
import { usePrepared, useShow } from '../show/show-provider';
import { useWide } from './wide-store';

/** The slide that is worked on and everything hands on it ask. */
export interface OpenSlide {
  readonly prepared: PreparedShow;
  readonly index: number;
  readonly slide: Slide;
  /** How long it is seen, its leaving transition included. */
  readonly seenMs: number;
  readonly around: SlideSurroundings;
  edit(edit: ShowEdit, joins?: string): boolean;
  /** Layers as they are to be, as one step of that name; in a row that joins they are one step. */
  put(name: string, layers: Layer | readonly Layer[], joins?: string): boolean;
  nameOf(layer: Layer | LayerId): string;
}

export const SlideContext = createContext<OpenSlide | null>(null);

export function useOpenSlide(): OpenSlide {
  const slide = useContext(SlideContext);
  if (!slide) throw new Error('useOpenSlide needs a wide bench above it');
  return slide;
}

/** The open slide, worked out anew when the show changes; null when it is gone. */
export function useSlideOpened(index: number): OpenSlide | null {
  const prepared = usePrepared();
  const edit = useShow((state) => state.edit);
  const entries = useShow((state) => state.entries);
  const names = useMemo(() => new Map(entries.map((entry) => [entry.assetId, entry.fileName])), [entries]);
  const slide = prepared.show.slides[index];
  const nameOf = useCallback(
    (layer: Layer | LayerId) => {
      const found = typeof layer === 'string' ? (slide ? layerIn(slide.layers, layer) : null) : layer;
      return found ? layerName(found, (asset: AssetId) => names.get(asset)) : 'a layer that is gone';
    },
    [slide, names],
  );
  return useMemo(() => {
    if (!slide) return null;
    const span = prepared.spans[index]!;
    return {
      prepared,
      index,
      slide,
      seenMs: span.leavesMs - span.startMs,
      around: surroundingsOf(prepared, index, prepared.show.frame),
      edit,
      put: (name, layers, joins) => {
        const all = [layers].flat();
        const locked = all.find(({ id }) => layerIn(slide.layers, id)?.locked);
        if (locked) {
          say(`“${nameOf(locked)}” is locked: L unlocks it.`);
          return false;
        }
        return edit(
          { kind: 'together', name, edits: all.map((layer) => ({ kind: 'put-layer', slideId: slide.id, layer })) },
          joins,
        );
      },
      nameOf,
    };
  }, [prepared, index, slide, edit, nameOf]);
}

/** The one layer that is worked on; null when none or several are chosen. */
export function useChosenLayer(): Layer | null {
  const { slide } = useOpenSlide();
  const anchor = useWide((state) => state.anchor);
  const count = useWide((state) => state.chosen.size);
  return anchor !== null && count === 1 ? layerIn(slide.layers, anchor) : null;
}

/** Says why something cannot be done. */
export const say = (sentence: string): void => void toast(sentence);
