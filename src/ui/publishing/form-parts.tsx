import type { ReactNode } from 'react';

export const FIELD = 'rounded-md border border-rule bg-field px-2.5 py-1.5';

/** A field with its name above it, and what is to be said of it below. */
export function Labelled({ label, says, children }: { label: string; says?: ReactNode; children: ReactNode }) {
  return (
    <label className="flex flex-col gap-1">
      <span className="text-soft">{label}</span>
      {children}
      {says && <span className="text-soft">{says}</span>}
    </label>
  );
}

/** What was typed stays when the window is closed by mistake, or left to sign in elsewhere. */
export const isText = (kept: unknown): kept is string => typeof kept === 'string' && kept.length <= 20_000;
