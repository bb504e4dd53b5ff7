'use client';

import { useEffect, useRef } from 'react';
import { beatsWithin, type ShowBeat } from '../../core/sound/show-beats';
import type { Music } from '../show/use-music';

/** Where what is drawn stands across the strip. */
export const TICKS_PX = 26;
export const TILE_PX = 480;
const LEAST_PX = 4.5;

interface WaveTileProps {
  readonly music: Music;
  readonly beats: readonly ShowBeat[];
  readonly accentsMs: readonly number[];
  readonly fromMs: number;
  readonly toMs: number;
  readonly topPx: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** A stretch of the music drawn downwards: bars and beats as long and short ticks, the waveform beside them, loud strokes as dots. */
export function WaveTile({ music, beats, accentsMs, fromMs, toMs, topPx, widthPx, heightPx }: WaveTileProps) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const element = canvas.current!;
    const scale = Math.min(2, devicePixelRatio);
    element.width = widthPx * scale;
    element.height = heightPx * scale;
    const context = element.getContext('2d')!;
    context.scale(scale, scale);
    context.fillStyle = getComputedStyle(element).color;
    const middle = TICKS_PX + (widthPx - TICKS_PX) / 2;
    const reach = (widthPx - TICKS_PX) / 2 - 6;
    const placeOf = (atMs: number) => ((atMs - fromMs) / (toMs - fromMs)) * heightPx;
    const msOf = (y: number) => fromMs + ((toMs - fromMs) * y) / heightPx;
    for (let y = 0; y < heightPx; y += 2) {
      const loud = music.loudness(msOf(y), msOf(y + 2));
      if (loud === 0) continue;
      const half = 1 + loud * reach;
      context.globalAlpha = 0.25 + 0.45 * loud;
      context.fillRect(middle - half, y + 0.25, 2 * half, 1.3);
    }
    context.globalAlpha = 1;
    // Each is drawn where there is room before the next: beats of a slow song beside bars of a quick one.
    const within = beatsWithin(beats, fromMs, toMs);
    let barPx = -Infinity;
    within.forEach((beat, index) => {
      const y = Math.round(placeOf(beat.atMs));
      const isBar = beat.begins !== 'beat';
      if (isBar ? y - barPx < LEAST_PX : placeOf(within[index + 1]?.atMs ?? Infinity) - y < LEAST_PX) return;
      if (isBar) barPx = y;
      context.fillRect(0, y, isBar ? 20 : 9, isBar ? 2 : 1);
    });
    // Loud strokes as dots at the other edge, where there is room for them.
    const strokes = accentsMs.filter((atMs) => atMs >= fromMs && atMs < toMs);
    if (heightPx / Math.max(1, strokes.length) >= 4)
      for (const atMs of strokes) context.fillRect(widthPx - 5, Math.round(placeOf(atMs)) - 1, 3, 3);
  }, [music, beats, accentsMs, fromMs, toMs, widthPx, heightPx]);
  return (
    <canvas
      ref={canvas}
      aria-hidden="true"
      className="pointer-events-none absolute left-0 text-saffron"
      style={{ top: topPx, width: widthPx, height: heightPx }}
    />
  );
}
