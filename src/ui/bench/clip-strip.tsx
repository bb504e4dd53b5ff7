'use client';

import { useRef, useState, type KeyboardEvent, type PointerEvent } from 'react';
import { PEAKS_PER_SECOND } from '../../core/sound/peaks';
import type { AssetId } from '../../core/show/ids';
import { CLIP_FRAME_MS } from '../../core/timing/clip-time';
import type { ClipPart } from '../../core/timing/clip-trim';
import { clockTenths } from '../kit/clock';
import { useClipFrameUrl } from '../show/file-url';
import { usePeaks } from '../show/use-peaks';

interface ClipStripProps {
  readonly assetId: AssetId;
  readonly lengthMs: number;
  readonly part: ClipPart;
  readonly hasSound: boolean;
  /** Where frames stand, in the clip’s own time. */
  readonly stands: readonly number[];
  /** @param held while the hand has not let go */
  readonly onFrom: (fromMs: number, held: boolean) => void;
  readonly onTo: (toMs: number, held: boolean) => void;
}

const WIDTH_PX = 512;
const HEIGHT_PX = 58;
const WAVE_PX = 26;
const COUNT = 9;
const WAVE_POINTS = 256;

/** The whole clip as a strip of its frames above its sound, and what the slide shows of it between two handles. */
export function ClipStrip({ assetId, lengthMs, part, hasSound, stands, onFrom, onTo }: ClipStripProps) {
  const peaks = usePeaks(hasSound ? assetId : null);
  const strip = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<'from' | 'to' | null>(null);
  const [looking, setLooking] = useState<'from' | 'to' | null>(null);
  const urlOf = useClipFrameUrl();
  const frameUrl = (ms: number) => urlOf(assetId, Math.min(ms, lengthMs - 1));
  const share = (ms: number) => `${(100 * Math.min(lengthMs, ms)) / lengthMs}%`;
  const msAt = (event: PointerEvent) => {
    const box = strip.current!.getBoundingClientRect();
    return ((event.clientX - box.left) / box.width) * lengthMs;
  };
  const handle = (which: 'from' | 'to') => {
    const ms = which === 'from' ? part.fromMs : part.toMs;
    const change = which === 'from' ? onFrom : onTo;
    return (
      <div
        role="slider"
        tabIndex={0}
        aria-label={which === 'from' ? 'First frame of the clip' : 'Last frame of the clip'}
        aria-valuemin={0}
        aria-valuemax={Math.round(lengthMs)}
        aria-valuenow={Math.round(ms)}
        aria-valuetext={clockTenths(ms)}
        data-part={`clip-${which}`}
        className="absolute inset-y-0 z-10 w-4 -translate-x-1/2 cursor-ew-resize touch-none outline-offset-2"
        style={{ left: share(ms) }}
        onFocus={() => setLooking(which)}
        onBlur={() => setLooking(null)}
        onPointerDown={(event) => {
          event.preventDefault();
          event.currentTarget.setPointerCapture(event.pointerId);
          event.currentTarget.focus();
          setHeld(which);
        }}
        onPointerMove={(event) => {
          if (held === which) change(msAt(event), true);
        }}
        onPointerUp={(event) => {
          if (held !== which) return;
          setHeld(null);
          change(msAt(event), false);
        }}
        onKeyDown={(event: KeyboardEvent) => {
          const by: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageUp: -30, PageDown: 30 };
          const frames = by[event.key];
          if (frames === undefined) return;
          event.preventDefault();
          event.stopPropagation();
          change(ms + frames * (event.shiftKey ? 10 : 1) * CLIP_FRAME_MS, false);
        }}
      >
        <span className="absolute inset-y-0 left-1/2 w-[3px] -translate-x-1/2 bg-red" />
        <span className="absolute top-1/2 left-1/2 h-6 w-2.5 -translate-1/2 rounded-sm border border-white bg-red" />
      </div>
    );
  };
  return (
    <div
      ref={strip}
      className="relative w-full overflow-visible select-none"
      style={{ maxWidth: WIDTH_PX, height: HEIGHT_PX + (hasSound ? WAVE_PX : 0) }}
      data-part="clip-strip"
    >
      <div className="absolute inset-x-0 top-0 flex overflow-hidden bg-surround" style={{ height: HEIGHT_PX }}>
        {Array.from({ length: COUNT }, (_, index) => (
          // Frames of a clip are as small as they come.
          // eslint-disable-next-line @next/next/no-img-element
          <img
            key={index}
            src={frameUrl(((index + 0.5) / COUNT) * lengthMs)}
            alt=""
            draggable={false}
            className="h-full min-w-0 flex-1 object-cover"
          />
        ))}
      </div>
      {hasSound && (
        <svg
          className="absolute inset-x-0 w-full bg-surround text-saffron"
          style={{ top: HEIGHT_PX, height: WAVE_PX }}
          viewBox={`0 0 ${WAVE_POINTS} 2`}
          preserveAspectRatio="none"
          aria-hidden="true"
        >
          <path d={wave(peaks, lengthMs)} fill="currentColor" />
        </svg>
      )}
      <div
        className="pointer-events-none absolute inset-y-0 left-0 bg-black/65"
        style={{ width: share(part.fromMs) }}
      />
      <div className="pointer-events-none absolute inset-y-0 right-0 bg-black/65" style={{ left: share(part.toMs) }} />
      {stands.map((ms) => (
        <span
          key={ms}
          className="pointer-events-none absolute inset-y-0 w-[2px] -translate-x-1/2 border-x border-black/40 bg-white"
          style={{ left: share(ms) }}
        />
      ))}
      {handle('from')}
      {handle('to')}
      {looking && (
        <span
          className="pointer-events-none absolute z-20 -translate-x-1/2 rounded-md border border-rule bg-card p-1 shadow-raised"
          style={{
            left: `clamp(112px, ${share(looking === 'from' ? part.fromMs : part.toMs)}, calc(100% - 112px))`,
            top: '100%',
            marginTop: 8,
          }}
          data-part="clip-frame"
        >
          {/* eslint-disable-next-line @next/next/no-img-element */}
          <img
            src={frameUrl(looking === 'from' ? part.fromMs : part.toMs - CLIP_FRAME_MS)}
            alt=""
            className="block w-[212px]"
          />
          <span className="tabular block pt-0.5 text-center text-xs text-soft">
            {looking === 'from' ? 'first' : 'last'} frame,{' '}
            {((looking === 'from' ? part.fromMs : part.toMs) / 1000).toFixed(2)} s
          </span>
        </span>
      )}
    </div>
  );
}

/** Loudness mirrored about the middle. */
function wave(peaks: Uint8Array | null, lengthMs: number): string {
  if (!peaks || peaks.length === 0) return `M0 1H${WAVE_POINTS}`;
  const count = Math.min(peaks.length, Math.ceil((lengthMs / 1000) * PEAKS_PER_SECOND));
  const loudest = Array.from({ length: WAVE_POINTS }, (_, at) => {
    const [from, to] = [Math.floor((at * count) / WAVE_POINTS), Math.floor(((at + 1) * count) / WAVE_POINTS)];
    let most = 0;
    for (let index = from; index < Math.max(from + 1, to); index += 1) most = Math.max(most, peaks[index] ?? 0);
    return most / 255;
  });
  const above = loudest.map((value, at) => `L${at} ${(1 - value).toFixed(3)}`).join('');
  const below = loudest
    .map((value, at) => `L${at} ${(1 + value).toFixed(3)}`)
    .reverse()
    .join('');
  return `M0 1${above}${below}Z`;
}
