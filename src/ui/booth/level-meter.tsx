'use client';

import { clsx } from 'clsx';
import { useStore } from 'zustand';
import { loudnessOf, type Booth, type Loudness } from './booth-store';

const LOWEST_DB = -60;
const SAID: Readonly<Record<Loudness, string>> = {
  quiet: 'too quiet: come nearer',
  good: 'good',
  loud: 'too loud: move away',
};

/** How loud the microphone hears, on a ruler with the stretch that is right for speech. */
export function LevelMeter({ booth }: { readonly booth: Booth }) {
  const levelDb = useStore(booth, (state) => state.levelDb);
  const peakDb = useStore(booth, (state) => state.peakDb);
  const loudness = loudnessOf(levelDb, peakDb);
  const place = (db: number) => `${(100 * (Math.max(LOWEST_DB, Math.min(0, db)) - LOWEST_DB)) / -LOWEST_DB}%`;
  return (
    <div className="flex min-w-0 flex-1 items-center gap-3">
      <div
        role="meter"
        aria-label="How loud it is"
        aria-valuemin={LOWEST_DB}
        aria-valuemax={0}
        aria-valuenow={Math.round(Math.max(LOWEST_DB, levelDb))}
        aria-valuetext={SAID[loudness]}
        className="relative h-6 min-w-24 flex-1"
      >
        <span className="absolute inset-x-0 top-1/2 h-px bg-rule" />
        <span
          className="absolute top-1 h-4 rounded-sm border border-moss/60 bg-moss/15"
          style={{ left: place(-34), right: `calc(100% - ${place(-9)})` }}
        />
        {[-50, -40, -30, -20, -10].map((db) => (
          <span key={db} className="absolute bottom-0 h-1.5 w-px bg-soft/60" style={{ left: place(db) }} />
        ))}
        <span
          className={clsx('absolute top-0 h-6 w-[3px] rounded-full', loudness === 'good' ? 'bg-moss' : 'bg-red')}
          style={{ left: `calc(${place(levelDb)} - 1px)` }}
        />
        <span className="absolute top-0 h-2 w-px bg-ink" style={{ left: place(peakDb) }} />
      </div>
      <span data-part="loudness" className={clsx('w-40', loudness === 'good' ? 'text-moss' : 'text-red-deep')}>
        {SAID[loudness]}
      </span>
    </div>
  );
}
