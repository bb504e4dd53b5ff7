'use client';

import { useRef, useState } from 'react';
import type { AssetId } from '../../core/show/ids';
import { CLIP_FRAME_MS } from '../../core/timing/clip-time';
import type { ClipPart } from '../../core/timing/clip-trim';
import { clockTenths } from '../kit/clock';
import { TrimHandle } from '../kit/trim-handle';
import { useClipFrameUrl } from '../show/file-url';
import { usePeaks } from '../show/use-peaks';
import { wavePath, WAVE_POINTS } from '../show/wave-path';

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

/** The whole clip as a strip of its frames above its sound, and what the slide shows of it between two handles. */
export function ClipStrip({ assetId, lengthMs, part, hasSound, stands, onFrom, onTo }: ClipStripProps) {
  const peaks = usePeaks(hasSound ? assetId : null);
  const strip = useRef<HTMLDivElement>(null);
  const [looking, setLooking] = useState<'from' | 'to' | null>(null);
  const urlOf = useClipFrameUrl();
  const frameUrl = (ms: number) => urlOf(assetId, Math.min(ms, lengthMs - 1));
  const share = (ms: number) => `${(100 * Math.min(lengthMs, ms)) / lengthMs}%`;
  const handle = (which: 'from' | 'to') => {
    const ms = which === 'from' ? part.fromMs : part.toMs;
    const change = which === 'from' ? onFrom : onTo;
    return (
      <TrimHandle
        label={which === 'from' ? 'First frame of the clip' : 'Last frame of the clip'}
        part={`clip-${which}`}
        ms={ms}
        lengthMs={lengthMs}
        text={clockTenths(ms)}
        strip={strip}
        colour="red"
        onFocus={() => setLooking(which)}
        onBlur={() => setLooking(null)}
        onDrag={change}
        onKey={(event) => {
          const by: Record<string, number> = { ArrowLeft: -1, ArrowRight: 1, PageUp: -30, PageDown: 30 };
          const frames = by[event.key];
          if (frames === undefined) return false;
          change(ms + frames * (event.shiftKey ? 10 : 1) * CLIP_FRAME_MS, false);
          return true;
        }}
      />
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
          <path d={wavePath(peaks, lengthMs)} fill="currentColor" />
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
