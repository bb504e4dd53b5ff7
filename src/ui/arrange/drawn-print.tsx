'use client';

import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { Slide } from '../../core/show/show';
import { usePrepared } from '../show/show-provider';
import { printOfSlide } from '../viewer/print-maker';

/** Twice what it is shown at, for fine screens; of the frame's own shape. */
const HIGH_PX = 208;
/** A slide that is being changed is drawn again when the hands rest. */
const RESTS_MS = 400;

/** Prints that were drawn, by the slide as it was: slides are never changed, only replaced. */
const known = new WeakMap<Slide, ImageBitmap>();

/** A slide that is built of layers, as it is seen when most of it is there; until it is drawn, what is given. */
export function DrawnPrint({
  slide,
  widthPx,
  heightPx,
  children,
}: {
  slide: Slide;
  /** At most so large. */
  widthPx: number;
  heightPx: number;
  children: ReactNode;
}) {
  const prepared = usePrepared();
  const latest = useRef(prepared);
  useEffect(() => {
    latest.current = prepared;
  });
  const [drawn, setDrawn] = useState<{ slide: Slide; bitmap: ImageBitmap } | null>(null);
  const bitmap = known.get(slide) ?? drawn?.bitmap ?? null;
  const { frame } = prepared.show;
  const aspect = frame.widthPx / frame.heightPx;
  const high = Math.min(heightPx, Math.round(widthPx / aspect));
  useEffect(() => {
    if (known.has(slide)) return;
    let gone = false;
    const timer = setTimeout(() => {
      const index = latest.current.show.slides.indexOf(slide);
      if (index < 0) return;
      void printOfSlide(latest.current, index, HIGH_PX).then((made) => {
        if (!made) return;
        known.set(slide, made);
        if (!gone) setDrawn({ slide, bitmap: made });
      });
    }, RESTS_MS);
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [slide, aspect]);
  if (!bitmap) return children;
  return (
    <canvas
      ref={(canvas) => {
        if (!canvas) return;
        canvas.width = bitmap.width;
        canvas.height = bitmap.height;
        canvas.getContext('2d')?.drawImage(bitmap, 0, 0);
      }}
      aria-hidden="true"
      data-part="drawn-print"
      className="block"
      style={{ width: Math.round(high * aspect), height: high }}
    />
  );
}
