import { createStore, useStore } from 'zustand';
import type { LayerId, SlideId } from '../../core/show/ids';
import { withChanged } from '../../core/show/pile';
import type { Show } from '../../core/show/show';

/** The words that are being typed in the viewer: they are not drawn there, since the field that they are typed in shows them. */
export interface TypedWords {
  readonly slideId: SlideId;
  readonly layerId: LayerId;
}

export const typedWords = createStore<{ readonly typed: TypedWords | null }>(() => ({ typed: null }));

export function useTypedWords(): TypedWords | null {
  return useStore(typedWords, ({ typed }) => typed);
}

export function withoutTyped(show: Show, { slideId, layerId }: TypedWords): Show {
  return {
    ...show,
    slides: show.slides.map((slide) =>
      slide.id === slideId
        ? {
            ...slide,
            layers: withChanged(slide.layers, new Map([[layerId, true]]), (layer) => ({ ...layer, hidden: true })),
          }
        : slide,
    ),
  };
}
