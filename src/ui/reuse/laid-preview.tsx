'use client';

import { useDeferredValue, useMemo } from 'react';
import type { Laid } from '../../core/mounts/lay-mount';
import type { FactsById } from '../../core/show/asset-facts';
import { Playing } from '../builds/build-preview';

/** A mount as it would lie, playing over and over with the person's own pictures. Nothing of the show is changed. */
export function LaidPreview({ laid, facts }: { laid: Extract<Laid, { ok: true }>; facts: FactsById }) {
  const latest = useDeferredValue(laid);
  const alone = useMemo(() => {
    const slides = latest.show.slides.filter(({ id }) => latest.slideIds.includes(id));
    const run = slides[0]?.mounted?.run;
    return {
      ...latest.show,
      cues: [],
      slides: slides
        .filter(({ mounted }) => mounted?.run === run)
        .map((slide, index) => ({
          ...slide,
          sounds: [],
          ...(index === 0 && { transition: { kind: 'cut' as const } }),
        })),
    };
  }, [latest]);
  return <Playing show={alone} facts={facts} />;
}
