'use client';

import {
  DEEPEST_DUCK_DB,
  DUCK_TIMES,
  USUAL_DUCK,
  USUAL_LOUDNESS,
  type LoudnessAim,
  type MixSaid,
} from '../../core/show/mix-said';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { useShow } from '../show/show-provider';

/** How all sounds are put together: how far music goes down under voices, and how loud the film is. */
export function MixFields() {
  const mix = useShow((state) => state.show.mix);
  const edit = useShow((state) => state.edit);
  const say = (more: MixSaid) => edit({ kind: 'set-mix', mix: { ...mix, ...more } });
  return (
    <section aria-labelledby="mix" data-part="mix">
      <h2 id="mix" className="text-base">
        The mix
      </h2>
      <div className="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2">
        <span className="flex items-center gap-1.5">
          under voices and clips, music goes down by
          <NumberField
            label="How far music goes down under voices, decibels"
            value={mix?.duckDb ?? USUAL_DUCK.db}
            min={0}
            max={DEEPEST_DUCK_DB}
            unit="dB"
            onCommit={(duckDb) => say({ duckDb })}
          />
        </span>
        <span className="flex items-center gap-1.5">
          within
          <NumberField
            label="How long it takes to go down, seconds"
            value={(mix?.duckInMs ?? USUAL_DUCK.inMs) / 1000}
            min={DUCK_TIMES.leastMs / 1000}
            max={DUCK_TIMES.mostMs / 1000}
            step={0.1}
            digits={2}
            unit="s"
            onCommit={(seconds) => say({ duckInMs: Math.round(seconds * 1000) })}
          />
        </span>
        <span className="flex items-center gap-1.5">
          and back within
          <NumberField
            label="How long it takes to come back, seconds"
            value={(mix?.duckOutMs ?? USUAL_DUCK.outMs) / 1000}
            min={DUCK_TIMES.leastMs / 1000}
            max={DUCK_TIMES.mostMs / 1000}
            step={0.1}
            digits={2}
            unit="s"
            onCommit={(seconds) => say({ duckOutMs: Math.round(seconds * 1000) })}
          />
        </span>
        <span className="flex items-center gap-1.5">
          loudness
          <Pick<LoudnessAim>
            label="Loudness of the film"
            value={mix?.loudness ?? USUAL_LOUDNESS}
            onChange={(loudness) => say({ loudness })}
            groups={[
              {
                name: null,
                options: [
                  { value: '-14', label: '−14 LUFS, for the web' },
                  { value: '-16', label: '−16 LUFS, a little calmer' },
                  { value: '-23', label: '−23 LUFS, for broadcast' },
                  { value: 'as-it-is', label: 'as the files are' },
                ],
              },
            ]}
          />
        </span>
      </div>
    </section>
  );
}
