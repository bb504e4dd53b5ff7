'use client';

import { clsx } from 'clsx';
import type { ComponentProps } from 'react';
import { useLive } from './use-live';

type Look = 'main' | 'plain' | 'quiet' | 'dark';

const LOOKS: Record<Look, string> = {
  main: 'bg-red text-white hover:bg-red-hover border-transparent font-semibold',
  plain:
    'bg-card text-ink border-rule hover:border-soft aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-paper',
  quiet: 'bg-transparent text-ink border-transparent hover:bg-rule/50',
  dark: 'bg-transparent text-lamp border-transparent hover:bg-white/10',
};

interface ButtonProps extends ComponentProps<'button'> {
  readonly look?: Look;
  /** Square, for a single icon; such a button needs an `aria-label`. */
  readonly square?: boolean;
}

/** A form is not sent before the page can send it: a browser by itself would put what was typed into the address. */
export function Button({ look = 'plain', square = false, className, type = 'button', ...rest }: ButtonProps) {
  const live = useLive();
  return (
    <button
      type={type}
      title={rest.title ?? (square ? rest['aria-label'] : undefined)}
      className={clsx(
        'inline-flex items-center justify-center gap-1.5 rounded-md border text-sm whitespace-nowrap transition-colors disabled:opacity-45 disabled:pointer-events-none select-none',
        square ? 'size-8 shrink-0' : 'h-8 px-3',
        LOOKS[look],
        className,
      )}
      {...rest}
      disabled={rest.disabled || (type === 'submit' && !live)}
    />
  );
}
