'use client';

import { Check, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import { toast } from 'sonner';
import type { AssetFacts } from '../../core/show/asset-facts';
import { LATEST_NUDGE_MS, tempoOfTaps, type BeatsSaid } from '../../core/sound/listening/beats-said';
import { isDoubtful, type BeatGrid } from '../../core/sound/listening/listening-facts';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';

interface BeatsFieldsProps {
  readonly facts: AssetFacts | undefined;
  readonly grid: BeatGrid | null;
  readonly said: BeatsSaid | undefined;
  /** Where in the song the viewer is; null while it plays nothing of it. */
  readonly songMs: () => number | null;
  readonly onSay: (said: BeatsSaid | null) => void;
}

/** A pause so long between taps begins anew. */
const TAP_PAUSE_MS = 2500;

/** Where the beats of a song are, and what a person can put right about them. */
export function BeatsFields({ facts, grid, said, songMs, onSay }: BeatsFieldsProps) {
  const [taps, setTaps] = useState<readonly number[]>([]);
  if (facts?.kind !== 'sound') return null;
  if (!facts.listening) return <p className="text-soft">It is still being listened to; beats come in a moment.</p>;
  const say = (more: BeatsSaid) => {
    const next = Object.fromEntries(Object.entries({ ...said, ...more }).filter(([, value]) => value !== undefined));
    onSay(Object.keys(next).length === 0 ? null : (next as BeatsSaid));
  };
  const tap = () => {
    const now = songMs();
    if (now === null || now === taps.at(-1)) {
      toast('Play the song, then press on each beat.');
      return;
    }
    const kept = taps.length > 0 && now > taps.at(-1)! && now - taps.at(-1)! < TAP_PAUSE_MS ? [...taps, now] : [now];
    setTaps(kept);
    const tapped = tempoOfTaps(kept);
    if (tapped) say({ tapped, times: undefined, laterMs: undefined, barsLater: undefined });
  };
  const doubtful = grid !== null && isDoubtful(grid);
  return (
    <div data-part="beats" className="flex flex-wrap items-center gap-x-2 gap-y-2">
      <span className="flex items-center gap-1 font-semibold text-saffron-deep">
        {grid === null ? (
          'No beats found'
        ) : (
          <>
            <span className="tabular">{grid.tempoBpm.toFixed(grid.tempoBpm % 1 === 0 ? 0 : 1)}</span> beats a minute
            {doubtful ? <TriangleAlert size={14} aria-label="doubtful" /> : <Check size={14} aria-label="sure" />}
          </>
        )}
      </span>
      {grid && (
        <>
          <Button
            className="h-7 px-2"
            aria-pressed={said?.times === 'half'}
            onClick={() => say({ times: said?.times === 'half' ? undefined : 'half' })}
          >
            half
          </Button>
          <Button
            className="h-7 px-2"
            aria-pressed={said?.times === 'twice'}
            onClick={() => say({ times: said?.times === 'twice' ? undefined : 'twice' })}
          >
            twice
          </Button>
          <span className="flex items-center gap-1.5">
            <NumberField
              label="Beats later by milliseconds; earlier when negative"
              value={said?.laterMs ?? 0}
              min={-LATEST_NUDGE_MS}
              max={LATEST_NUDGE_MS}
              step={10}
              digits={0}
              unit="ms later"
              onCommit={(laterMs) => say({ laterMs: Math.round(laterMs) || undefined })}
            />
          </span>
          <span className="flex items-center gap-1.5">
            <NumberField
              label="Beats in a bar"
              value={grid.beatsABar}
              min={2}
              max={12}
              digits={0}
              unit="a bar"
              onCommit={(beatsABar) => say({ beatsABar: Math.round(beatsABar) })}
            />
          </span>
          <Button
            className="h-7 px-2"
            title="Every bar begins a beat later"
            onClick={() => say({ barsLater: ((said?.barsLater ?? 0) + 1) % grid.beatsABar || undefined })}
          >
            bars a beat later
          </Button>
        </>
      )}
      <Button
        className="h-7 px-2"
        title="While the song plays, press on each beat; the first press begins a bar"
        onClick={tap}
      >
        tap{taps.length > 0 && taps.length < 4 ? ` ${taps.length}` : ''}
      </Button>
      {doubtful && (
        <Button className="h-7 px-2" onClick={() => say({ sure: 'yes' })}>
          These beats are right
        </Button>
      )}
      {said && (
        <Button look="quiet" className="h-7 px-2" onClick={() => onSay(null)}>
          as they were found
        </Button>
      )}
      {doubtful && (
        <p className="w-full text-xs text-soft">
          Nobody can be sure of these beats, so no picture is tied to them. Listen with the ticks in view; say that they
          are right, or tap.
        </p>
      )}
    </div>
  );
}
