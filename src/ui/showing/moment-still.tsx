'use client';

import { useEffect, useRef, useState } from 'react';
import type { PreparedShow } from '../../core/frame/plan-frame';
import { printOfSlide } from '../viewer/print-maker';

const HIGH_PX = 360;

/** A slide as it is seen when most of it is there. What was drawn stays when the server is gone. */
export function MomentStill({ prepared, index, label }: { prepared: PreparedShow; index: number; label: string }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const [drawn, setDrawn] = useState<number | null>(null);
  const { frame } = prepared.show;
  const aspect = frame.widthPx / frame.heightPx;
  useEffect(() => {
    let gone = false;
    void stillOf(prepared, index).then((bitmap) => {
      if (gone || !bitmap || !canvas.current) return;
      canvas.current.width = bitmap.width;
      canvas.current.height = bitmap.height;
      canvas.current.getContext('2d')?.drawImage(bitmap, 0, 0);
      setDrawn(index);
    });
    return () => {
      gone = true;
    };
  }, [prepared, index]);
  return (
    <div
      className="relative w-full overflow-hidden bg-black"
      style={{ aspectRatio: aspect }}
      role="img"
      aria-label={label}
    >
      <canvas ref={canvas} className="absolute inset-0 size-full" data-drawn={drawn} />
      {drawn !== index && (
        <p className="absolute inset-0 grid place-items-center bg-black text-lamp-soft">slide {index + 1}</p>
      )}
    </div>
  );
}

const stills = new WeakMap<PreparedShow, Map<number, Promise<ImageBitmap | null>>>();

/** Drawn once for each show. */
function stillOf(prepared: PreparedShow, index: number): Promise<ImageBitmap | null> {
  const ofShow = stills.get(prepared) ?? new Map<number, Promise<ImageBitmap | null>>();
  stills.set(prepared, ofShow);
  const known = ofShow.get(index);
  if (known) return known;
  const made = printOfSlide(prepared, index, HIGH_PX);
  ofShow.set(index, made);
  return made;
}
