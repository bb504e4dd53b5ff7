'use client';

import { clsx } from 'clsx';
import { useEffect, useRef } from 'react';
import type { TakeSpan } from '../../core/sound/sound-spans';
import { beatsWithin, type ShowBeat } from '../../core/sound/show-beats';
import type { Music } from '../show/use-music';

interface SoundStripProps {
  readonly music: Music;
  readonly startMs: number;
  readonly endMs: number;
  readonly widthPx: number;
  readonly heightPx: number;
  /** What begins on this slide: voices as moss bars, short sounds as saffron ones. */
  readonly takes: readonly TakeSpan[];
  /** Of the whole show, rising. */
  readonly beats: readonly ShowBeat[];
}

/** The music's waveform drawn downwards beside a slide, for the slide's own time. */
export function SoundStrip({ music, startMs, endMs, widthPx, heightPx, takes, beats }: SoundStripProps) {
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
    drawBeats(
      context,
      beatsWithin(beats, startMs, endMs),
      (atMs) => ((atMs - startMs) / (endMs - startMs)) * heightPx,
      heightPx,
    );
  }, [music, beats, startMs, endMs, widthPx, heightPx]);
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

/** Beats as short ticks at the left edge, bars as longer ones; where they would run into each other only bars, or none. */
function drawBeats(
  context: CanvasRenderingContext2D,
  beats: readonly ShowBeat[],
  placeOf: (atMs: number) => number,
  heightPx: number,
): void {
  const bars = beats.filter((beat) => beat.begins !== 'beat');
  const shown =
    heightPx / Math.max(1, beats.length) >= 5 ? beats : heightPx / Math.max(1, bars.length) >= 5 ? bars : [];
  context.globalAlpha = 1;
  for (const beat of shown) {
    const length = beat.begins === 'beat' ? 4 : beat.begins === 'bar' ? 9 : 14;
    context.fillRect(0, Math.round(placeOf(beat.atMs)), length, beat.begins === 'beat' ? 1 : 1.6);
  }
}
