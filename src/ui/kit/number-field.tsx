'use client';

import { clsx } from 'clsx';
import { useId, useRef, useState } from 'react';
import { numberTyped, secondsTyped } from './typed-number';

interface NumberFieldProps {
  readonly label: string;
  /** Null when those that are chosen differ. */
  readonly value: number | null;
  readonly min: number;
  readonly max: number;
  readonly step?: number;
  readonly digits?: number;
  /** One that begins with `s` stands for seconds, which may also be typed as minutes. */
  readonly unit?: string;
  readonly onCommit: (value: number) => void;
  readonly className?: string;
}

/**
 * A number that is typed; taken on Enter or when left, Escape puts the old one back. Arrow keys step. What cannot be read stays as it was typed and says what
 * would be right; what is out of range is brought to its edge, and that is said.
 */
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
  const [said, setSaid] = useState<{ text: string; wrong: boolean } | null>(null);
  const noteId = useId();
  const fresh = useRef(false);
  /** Escape was pressed: what was typed is given up. */
  const givenUp = useRef(false);
  const isTime = /^s\b/.test(unit ?? '');
  const shown = typed ?? (value === null ? 'mixed' : value.toFixed(digits));
  const withUnit = (number: number) =>
    `${number.toLocaleString('en', { maximumFractionDigits: digits })}${isTime ? ' s' : unit === '%' || unit === '°' ? unit : ''}`;
  const commit = (text: string) => {
    const parsed = isTime ? secondsTyped(text) : numberTyped(text);
    if (text.trim() === '' || text === 'mixed') return setTyped(null);
    if (parsed === null)
      return setSaid({
        text: isTime
          ? 'Seconds, such as 4.5, or minutes and seconds, such as 1:30'
          : `A number from ${withUnit(min)} to ${withUnit(max)}`,
        wrong: true,
      });
    setTyped(null);
    const held = Math.min(max, Math.max(min, parsed));
    if (held !== parsed)
      setSaid({ text: held < parsed ? `${withUnit(max)} at most` : `${withUnit(min)} at least`, wrong: false });
    if (held.toFixed(digits) !== value?.toFixed(digits)) onCommit(held);
  };
  return (
    <span className={clsx('relative inline-flex items-center gap-1', className)}>
      <input
        aria-label={label}
        data-untyped={typed === null || undefined}
        aria-invalid={said?.wrong || undefined}
        aria-describedby={said ? noteId : undefined}
        inputMode={isTime ? 'text' : 'decimal'}
        value={shown}
        onChange={(event) => {
          setSaid(null);
          setTyped(event.target.value);
        }}
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
          // Undo of the page, unless there is something typed here to undo.
          if ((event.ctrlKey || event.metaKey) && typed === null) return;
          event.stopPropagation();
          // Leaving the field takes the number, and the keys of the page work again.
          if (event.key === 'Enter') event.currentTarget.blur();
          if (event.key === 'Escape') {
            givenUp.current = true;
            setSaid(null);
            event.currentTarget.blur();
          }
          if ((event.key === 'ArrowUp' || event.key === 'ArrowDown') && value !== null) {
            event.preventDefault();
            onCommit(Math.min(max, Math.max(min, value + (event.key === 'ArrowUp' ? step : -step))));
          }
        }}
        className={clsx(
          'tabular h-7 w-14 rounded-md border bg-field px-1.5 text-sm text-ink',
          said?.wrong ? 'border-red' : 'border-rule',
        )}
      />
      {unit && <span className="text-soft">{unit}</span>}
      {said && (
        <span
          id={noteId}
          role="alert"
          data-part="field-note"
          className="absolute top-full left-0 z-40 mt-1 rounded-md bg-black px-2 py-1 text-xs whitespace-nowrap text-lamp shadow-raised"
          ref={(note) => {
            if (!note) return;
            const box = note.getBoundingClientRect();
            if (box.bottom > innerHeight) Object.assign(note.style, { top: 'auto', bottom: 'calc(100% + 4px)' });
            if (box.right > innerWidth) Object.assign(note.style, { left: 'auto', right: '0' });
            if (said.wrong) return;
            const timer = setTimeout(() => setSaid(null), 4000);
            return () => clearTimeout(timer);
          }}
        >
          {said.text}
        </span>
      )}
    </span>
  );
}
