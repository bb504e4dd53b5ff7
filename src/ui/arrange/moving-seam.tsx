'use client';

import { useEffect, useMemo, useRef } from 'react';
import type { SlideId } from '../../core/show/ids';
import type { Transition } from '../../core/show/transition';
import { usePrepared } from '../show/show-provider';
import { makePrint } from '../viewer/print-maker';

const FRAMES = 9;
const EACH_MS = 160;
const HIGH_PX = 128;

/** A transition going on over and over between the two real pictures of a seam, drawn as the film draws it. */
export function MovingSeam({ slideId, transition }: { readonly slideId: SlideId; readonly transition: Transition }) {
  const prepared = usePrepared();
  const canvas = useRef<HTMLCanvasElement>(null);
  // What is said of it stays the same while other things of the show are drawn anew.
  const said = JSON.stringify(transition);
  const order = useMemo(
    () => orderOf(prepared, slideId, JSON.parse(said) as Transition),
    // Drawn as the show was when it was first seen.
    // eslint-disable-next-line react-hooks/exhaustive-deps
    [slideId, said],
  );
  useEffect(() => {
    if (!order) return;
    let gone = false;
    let timer: ReturnType<typeof setInterval> | null = null;
    const draw = async () => {
      const frames: ImageBitmap[] = [];
      for (const momentMs of order.momentsMs) {
        if (gone) return;
        const { show, facts, widthPx } = order;
        const made = await makePrint({ show, facts, momentMs, widthPx, heightPx: HIGH_PX });
        if (made) frames.push(made);
      }
      const still = matchMedia('(prefers-reduced-motion: reduce)').matches;
      let turn = still ? Math.floor(FRAMES / 2) : 0;
      const showNext = () => {
        const bitmap = frames[turn % frames.length];
        const place = canvas.current;
        if (!bitmap || !place) return;
        if (place.width !== bitmap.width) [place.width, place.height] = [bitmap.width, bitmap.height];
        place.getContext('2d')?.drawImage(bitmap, 0, 0);
        turn += 1;
      };
      if (gone) return;
      showNext();
      canvas.current?.setAttribute('data-drawn', String(frames.length));
      if (!still) timer = setInterval(showNext, EACH_MS);
    };
    void draw();
    return () => {
      gone = true;
      if (timer) clearInterval(timer);
    };
  }, [order]);
  return <canvas ref={canvas} aria-hidden="true" className="aspect-video w-full bg-field object-contain" />;
}

/** The two slides by themselves, and the moments that are drawn; null at the first slide. */
function orderOf({ show, facts }: ReturnType<typeof usePrepared>, slideId: SlideId, transition: Transition) {
  const at = show.slides.findIndex(({ id }) => id === slideId);
  const [before, slide] = [show.slides[at - 1], show.slides[at]];
  if (!before || !slide) return null;
  const lengthMs =
    transition.kind === 'cut' ? 0 : Math.min(transition.lengthMs, before.lengthMs / 2, slide.lengthMs / 2);
  // A cut is seen by what is seen around it.
  const [fromMs, overMs] = lengthMs === 0 ? [-FRAMES / 2, FRAMES] : [0, lengthMs];
  return {
    show: {
      ...show,
      cues: [],
      slides: [
        { ...before, transition: { kind: 'cut' as const }, sounds: [] },
        { ...slide, transition, sounds: [] },
      ],
    },
    facts,
    momentsMs: Array.from(
      { length: FRAMES },
      (_, frame) => before.lengthMs + fromMs + (overMs * (frame + 0.5)) / FRAMES,
    ),
    widthPx: 16 * Math.max(1, Math.round((HIGH_PX * show.frame.widthPx) / show.frame.heightPx / 16)),
  };
}
