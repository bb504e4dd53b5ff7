'use client';

import { clsx } from 'clsx';
import { useRef, useState } from 'react';

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly step?: number;
  readonly digits?: number;
  readonly unit?: string;
  readonly onCommit: (value: number) => void;
  readonly className?: string;
}

/** A number that is typed; taken on Enter or when left, Escape puts the old one back. Arrow keys step. What is out of range is brought to its edge. */
export function NumberField({
  label,
  value,
  min,
  max,
  step = 1,
  digits = 1,
  unit,
  onCommit,
  className,
}: NumberFieldProps) {
  const [typed, setTyped] = useState<string | null>(null);
  const fresh = useRef(false);
  /** Escape was pressed: what was typed is given up. */
  const givenUp = useRef(false);
  const shown = typed ?? value.toFixed(digits);
  const commit = (text: string) => {
    setTyped(null);
    const parsed = Number(text.replace(',', '.').replace(/[^\d.+-]/g, ''));
    if (text.trim() === '' || !Number.isFinite(parsed)) return;
    const held = Math.min(max, Math.max(min, parsed));
    if (held.toFixed(digits) !== value.toFixed(digits)) onCommit(held);
  };
  return (
    <span className={clsx('inline-flex items-center gap-1', className)}>
      <input
        aria-label={label}
        inputMode="decimal"
        value={shown}
        onChange={(event) => setTyped(event.target.value)}
        onFocus={(event) => {
          event.target.select();
          fresh.current = true;
        }}
        onMouseUp={(event) => {
          // The click that brought the hand here would otherwise put the caret between the digits.
          if (fresh.current) event.preventDefault();
          fresh.current = false;
        }}
        onBlur={(event) => {
          if (givenUp.current) setTyped(null);
          else if (typed !== null) commit(event.target.value);
          givenUp.current = false;
        }}
        onKeyDown={(event) => {
          event.stopPropagation();
          // Leaving the field takes the number, and the keys of the page work again.
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') {
            givenUp.current = true;
            event.currentTarget.blur();
          }
          if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
            event.preventDefault();
            onCommit(Math.min(max, Math.max(min, value + (event.key === 'ArrowUp' ? step : -step))));
          }
        }}
        className="tabular h-7 w-14 rounded-md border border-rule bg-white px-1.5 text-sm text-ink"
      />
      {unit && <span className="text-soft">{unit}</span>}
    </span>
  );
}
