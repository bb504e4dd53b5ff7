'use client';

import { useEffect, useRef } from 'react';
import type { Music } from '../show/use-music';

interface SoundStripProps {
  readonly music: Music;
  readonly startMs: number;
  readonly endMs: number;
  readonly widthPx: number;
  readonly heightPx: number;
  /** A take spoken over this slide, as shares of its length. */
  readonly voice: { readonly from: number; readonly to: number } | null;
}

/** The music's waveform drawn downwards beside a slide, for the slide's own time. */
export function SoundStrip({ music, startMs, endMs, widthPx, heightPx, voice }: SoundStripProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current!;
    const scale = Math.min(2, devicePixelRatio);
    element.width = widthPx * scale;
    element.height = heightPx * scale;
    const context = element.getContext('2d')!;
    context.scale(scale, scale);
    context.fillStyle = getComputedStyle(element).color;
    const middle = widthPx / 2;
    for (let y = 0; y < heightPx; y += 2) {
      const at = (row: number) => startMs + ((endMs - startMs) * row) / heightPx;
      const loud = music.loudness(at(y), at(y + 2));
      if (loud === 0) continue;
      const half = 1 + loud * (middle - 2);
      context.globalAlpha = 0.35 + 0.65 * loud;
      context.fillRect(middle - half, y + 0.25, 2 * half, 1.3);
    }
  }, [music, startMs, endMs, widthPx, heightPx]);
  return (
    <div aria-hidden="true" className="relative h-full" style={{ width: widthPx + 16 }}>
      <canvas
        ref={canvas}
        className="absolute top-0 left-0 text-saffron"
        style={{ width: widthPx, height: heightPx }}
      />
      {voice && (
        <span
          className="absolute right-1 w-2 rounded-full bg-moss"
          style={{ top: `${voice.from * 100}%`, height: `calc(${(voice.to - voice.from) * 100}% - 4px)` }}
        />
      )}
    </div>
  );
}
