'use client';

import { clsx } from 'clsx';
import { useEffect, useRef } from 'react';
import type { Take } from '../../core/sound/sound-spans';
import type { Music } from '../show/use-music';

interface SoundStripProps {
  readonly music: Music;
  readonly startMs: number;
  readonly endMs: number;
  readonly widthPx: number;
  readonly heightPx: number;
  /** What begins on this slide: voices as moss bars, short sounds as saffron ones. */
  readonly takes: readonly Take[];
}

/** The music's waveform drawn downwards beside a slide, for the slide's own time. */
export function SoundStrip({ music, startMs, endMs, widthPx, heightPx, takes }: SoundStripProps) {
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
      {takes.map((take) => (
        <span
          key={take.id}
          className={clsx('absolute right-1 w-2 rounded-full', take.kind === 'voice' ? 'bg-moss' : 'bg-saffron')}
          style={{ top: `${take.from * 100}%`, height: `calc(${(take.to - take.from) * 100}% - 4px)` }}
        />
      ))}
    </div>
  );
}
