'use client';

import { clsx } from 'clsx';
import { MARK_NAMES, MARKS, type Mark } from '../../core/show/mark';

const KEYS: Readonly<Record<Mark, string>> = { keep: 'K', linger: 'L', 'leave-out': 'O' };

interface MarkButtonsProps {
  /** What all that is chosen have in common; null when they have no mark or different ones. */
  readonly mark: Mark | null;
  readonly onMark: (mark: Mark | null) => void;
}

/** The three signs of the wax pencil; pressing the one that is there wipes it off. */
export function MarkButtons({ mark, onMark }: MarkButtonsProps) {
  return (
    <div className="flex gap-1" role="group" aria-label="Mark">
      {MARKS.map((name) => (
        <button
          key={name}
          type="button"
          aria-pressed={mark === name}
          data-part={`mark-${name}`}
          onClick={() => onMark(mark === name ? null : name)}
          className={clsx(
            'inline-flex h-8 items-center gap-1 rounded-md border px-2 whitespace-nowrap',
            mark === name ? 'border-chosen bg-chosen text-card' : 'border-rule bg-card hover:border-soft',
          )}
        >
          <svg
            width="14"
            height="12"
            viewBox="0 0 15 12"
            aria-hidden="true"
            fill="none"
            strokeWidth="1.6"
            className={mark === name ? 'stroke-white' : 'stroke-red'}
          >
            {name === 'leave-out' ? (
              <path d="M2 1.500l11 9M13 1.500l-11 9" />
            ) : (
              <ellipse cx="7.500" cy="6" rx="6.500" ry="5" />
            )}
            {name === 'linger' && <ellipse cx="7.500" cy="6" rx="3.700" ry="2.600" />}
          </svg>
          {MARK_NAMES[name]} <kbd className="tabular text-xs opacity-70">{KEYS[name]}</kbd>
        </button>
      ))}
    </div>
  );
}
