'use client';

import { useCallback } from 'react';
import type { LayerId, SlideId } from '../../core/show/ids';
import { layerIn } from '../../core/show/pile';
import { standingSpan } from '../../core/words/passage';
import { preparedOnce } from './prepared-once';
import { useKeptMoment } from './kept-moment';
import { useShowStore } from './show-provider';

/** Goes to a moment at which a slide’s words are seen, unless they are seen where the viewer stands. */
export function useGoToWords(): (slideId: SlideId, layerId: LayerId) => void {
  const store = useShowStore();
  const kept = useKeptMoment();
  return useCallback(
    (slideId, layerId) => {
      const { show, facts } = store.getState();
      const { spans } = preparedOnce(show, facts);
      const index = show.slides.findIndex((slide) => slide.id === slideId);
      const words = index < 0 ? null : layerIn(show.slides[index]!.layers, layerId);
      if (words?.kind !== 'words') return;
      const span = spans[index]!;
      const { startMs, endMs } = standingSpan(words, span);
      // Words that travel are in the middle of the frame half-way.
      const seenMs = span.startMs + (words.travel || endMs <= startMs ? (startMs + endMs) / 2 : startMs);
      const { momentMs, go } = kept.getState();
      const there = momentMs >= span.startMs + startMs && momentMs <= span.startMs + endMs;
      if (!there || words.travel) go(Math.min(seenMs, span.endMs - 1));
    },
    [store, kept],
  );
}
