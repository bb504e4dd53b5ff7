'use client';

import { clsx } from 'clsx';
import { useState } from 'react';

interface TypedLineProps {
  readonly label: string;
  readonly value: string;
  readonly placeholder?: string;
  /** It goes back to what it was when nothing is left of it. */
  readonly needed?: boolean;
  readonly disabled?: boolean;
  readonly className?: string;
  readonly longest?: number;
  readonly onChange: (typed: string) => void;
}

/** A line that is told when it is left. Its `key` is its value, so that what came from elsewhere is shown. */
export function TypedLine({
  label,
  value,
  placeholder,
  needed = false,
  disabled = false,
  className,
  longest = 300,
  onChange,
}: TypedLineProps) {
  const [typed, setTyped] = useState(value);
  return (
    <input
      aria-label={label}
      value={typed}
      placeholder={placeholder}
      maxLength={longest}
      disabled={disabled}
      onChange={({ target }) => setTyped(target.value)}
      onBlur={() => {
        if (needed && typed.trim() === '') setTyped(value);
        else if (typed.trim() !== value) onChange(typed.trim());
      }}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
      }}
      className={clsx('min-w-0 rounded-md border px-1.5 py-1', className)}
    />
  );
}
