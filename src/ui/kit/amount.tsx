'use client';

import { clsx } from 'clsx';
import { Slider } from 'radix-ui';
import type { ReactNode } from 'react';

interface AmountProps {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  /** What double-click puts it back to. */
  readonly rest: number;
  readonly shown: ReactNode;
  readonly narrow?: boolean;
  /** It goes from key to key, which is changed where the keys are seen. */
  readonly keyed?: boolean;
  readonly onChange: (value: number) => void;
}

/** An amount that is drawn along a line, with its rest marked; arrow keys step, double-click puts it back. */
export function Amount({ label, value, min, max, rest, shown, narrow = false, keyed = false, onChange }: AmountProps) {
  const share = (of: number) => `${(100 * (of - min)) / (max - min)}%`;
  return (
    <div
      className={clsx(
        'grid items-center gap-2',
        narrow ? 'grid-cols-[auto_1fr_auto]' : 'grid-cols-[6.5rem_1fr_2.75rem]',
      )}
    >
      <span className={value === rest ? 'text-soft' : 'font-medium'}>{label}</span>
      <Slider.Root
        value={[value]}
        min={min}
        max={max}
        step={(max - min) / 200}
        onValueChange={([next]) => onChange(Math.round(next! * 1000) / 1000)}
        disabled={keyed}
        title={keyed ? `${label} goes from key to key: open the slide wide to change it` : undefined}
        onDoubleClick={() => {
          if (!keyed) onChange(rest);
        }}
        className="relative flex h-5 touch-none items-center select-none"
      >
        <Slider.Track className="relative h-[3px] grow rounded-full bg-rule">
          <span aria-hidden="true" className="absolute top-[-3px] h-[9px] w-px bg-soft" style={{ left: share(rest) }} />
          <span
            aria-hidden="true"
            className="absolute h-full rounded-full bg-slate"
            style={{ left: share(Math.min(rest, value)), right: `calc(100% - ${share(Math.max(rest, value))})` }}
          />
        </Slider.Track>
        <Slider.Thumb
          aria-label={label}
          className="block h-4 w-2 rounded-[3px] border border-ink bg-field data-[disabled]:opacity-40"
        />
      </Slider.Root>
      <span className="tabular text-right text-soft">{keyed ? 'keys' : shown}</span>
    </div>
  );
}
