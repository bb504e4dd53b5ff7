'use client';

import { clsx } from 'clsx';
import { useShow } from './show-provider';

const SAVING = { saved: 'saved', saving: 'saving …', offline: 'not connected; your work is kept here' } as const;

/** Whether what was done is safe on the server. */
export function SavingNote() {
  const saving = useShow((state) => state.saving);
  return (
    <span
      role="status"
      data-part="saving"
      data-state={saving}
      className={clsx('mx-1.5 text-sm', saving === 'offline' ? 'font-semibold text-red-deep' : 'text-soft')}
    >
      {SAVING[saving]}
    </span>
  );
}
