'use client';

import { useMemo } from 'react';
import { betterRates } from '../../core/snags/kinds/stuttering-clip';
import { FRAME_RATES, rateName } from '../../core/timing/frame-rate';
import { Pick } from '../kit/pick';
import { usePrepared, useShow } from '../show/show-provider';

/** How many frames a second the show's films have; where its clips would move more evenly at another rate, that one is offered. */
export function RatePick() {
  const prepared = usePrepared();
  const edit = useShow((state) => state.edit);
  const { rate } = prepared.show.frame;
  const better = useMemo(() => betterRates(prepared)[0], [prepared]);
  const names = [...new Set([...Object.keys(FRAME_RATES), rateName(rate)])].sort((a, b) => Number(a) - Number(b));
  return (
    <span className="flex flex-wrap items-center gap-x-2" data-part="show-rate">
      <Pick
        label="Frames a second"
        value={rateName(rate)}
        groups={[{ name: null, options: names.map((value) => ({ value, label: value })) }]}
        onChange={(name) => FRAME_RATES[name] && edit({ kind: 'set-rate', rate: FRAME_RATES[name] })}
      />
      a second
      {better && (
        <button
          type="button"
          data-part="better-rate"
          title="The clips of this show stutter less then"
          className="text-red-deep underline underline-offset-2"
          onClick={() => edit({ kind: 'set-rate', rate: better })}
        >
          {rateName(better)} suits its clips
        </button>
      )}
    </span>
  );
}
