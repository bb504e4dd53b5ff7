'use client';

import { useRef, useState, type KeyboardEvent } from 'react';
import type { FactsById } from '../../core/show/asset-facts';
import type { SoundProperties } from '../../core/show/edits/set-sound';
import type { PlacedSound } from '../../core/show/placed-sound';
import { beatsOfSong } from '../../core/sound/show-beats';
import { clockTenths } from '../kit/clock';
import { TrimHandle } from '../kit/trim-handle';
import { useShow } from '../show/show-provider';
import { usePeaks } from '../show/use-peaks';
import { wavePath, WAVE_POINTS } from '../show/wave-path';
import { beatMoved, nearestBeat, placeInSong, type SongBeats } from './song-beats';

interface SongStripProps {
  readonly cue: PlacedSound;
  /** Of its file. */
  readonly lengthMs: number;
  readonly facts: FactsById;
  readonly onChange: (properties: SoundProperties, joins?: string) => void;
}

/** So much of it is used at least; of shorter ones, half. */
const LEAST_MS = 500;
/** On a strip of some five hundred pixels, of its length. */
const CATCHES = 0.012;
const FINE_MS = 10;
const COARSE_MS = 100;

/** The whole song as its wave with its bars, and what of it plays between two handles that catch on bars and beats. */
export function SongStrip({ cue, lengthMs, facts, onChange }: SongStripProps) {
  const show = useShow((state) => state.show);
  const peaks = usePeaks(cue.assetId);
  const strip = useRef<HTMLDivElement>(null);
  const [drag, setDrag] = useState(0);
  const [held, setHeld] = useState<'start' | 'end' | null>(null);
  const grid: SongBeats | null = beatsOfSong(show, facts, cue.assetId);
  const ends = { start: cue.trimStartMs, end: Math.min(cue.trimEndMs ?? lengthMs, lengthMs) };
  const share = (ms: number) => `${(100 * Math.min(lengthMs, ms)) / lengthMs}%`;
  const leastMs = Math.min(LEAST_MS, lengthMs / 2);
  const set = (which: 'start' | 'end', wantedMs: number) => {
    const ms = Math.round(
      which === 'start'
        ? Math.max(0, Math.min(ends.end - leastMs, wantedMs))
        : Math.min(lengthMs, Math.max(ends.start + leastMs, wantedMs)),
    );
    if (ms === Math.round(ends[which])) return;
    const whole = which === 'end' && ms >= lengthMs - 1;
    onChange(
      which === 'start' ? { trimStartMs: ms } : { trimEndMs: whole ? null : ms },
      `trim ${cue.id} ${which} ${drag}`,
    );
  };
  const keyed = (which: 'start' | 'end') => (event: KeyboardEvent) => {
    const way = event.key === 'ArrowLeft' ? -1 : event.key === 'ArrowRight' ? 1 : 0;
    if (way === 0) return false;
    const fine = event.shiftKey ? FINE_MS : COARSE_MS;
    const beat = grid && !event.shiftKey ? beatMoved(grid, ends[which], way) : null;
    set(which, beat ?? ends[which] + way * fine);
    return true;
  };
  const handle = (which: 'start' | 'end') => (
    <TrimHandle
      label={which === 'start' ? 'Where in the song it begins' : 'Where in the song it ends'}
      part={`song-${which}`}
      ms={ends[which]}
      lengthMs={lengthMs}
      text={`${clockTenths(ends[which])}${grid ? `, ${placeInSong(grid, ends[which])}` : ''}`}
      strip={strip}
      colour="saffron"
      onFocus={() => setHeld(which)}
      onBlur={() => setHeld(null)}
      onDrag={(ms, isHeld, free) => {
        set(which, (grid && !free ? nearestBeat(grid, ms, CATCHES * lengthMs) : null) ?? ms);
        if (!isHeld) setDrag(drag + 1);
      }}
      onKey={keyed(which)}
    />
  );
  return (
    <div className="mt-3">
      <div ref={strip} className="relative h-14 w-full select-none" data-part="song-strip">
        <svg
          className="absolute inset-0 h-full w-full rounded-sm bg-field text-saffron"
          viewBox={`0 0 ${WAVE_POINTS} 2`}
          preserveAspectRatio="none"
          aria-hidden="true"
        >
          {grid?.firsts.map((first) => {
            const x = (WAVE_POINTS * grid.beatsMs[first]!) / lengthMs;
            return <path key={first} d={`M${x} 0V2`} stroke="var(--color-rule)" vectorEffect="non-scaling-stroke" />;
          })}
          <path d={wavePath(peaks, lengthMs)} fill="currentColor" />
        </svg>
        <span
          className="pointer-events-none absolute inset-y-0 left-0 bg-card/80"
          style={{ width: share(ends.start) }}
        />
        <span className="pointer-events-none absolute inset-y-0 right-0 bg-card/80" style={{ left: share(ends.end) }} />
        {handle('start')}
        {handle('end')}
      </div>
      <p className="tabular mt-0.5 h-4 text-xs text-soft" aria-hidden="true">
        {held && `${clockTenths(ends[held])}${grid ? ` · ${placeInSong(grid, ends[held])}` : ''}`}
      </p>
    </div>
  );
}
