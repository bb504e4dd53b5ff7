import type { ComponentProps } from 'react';

/** A line to type into, as wide as its form, under its name. */
export function Field({ label, hint, ...rest }: ComponentProps<'input'> & { label: string; hint?: string }) {
  return (
    <label className="grid gap-1">
      <span className="font-medium">{label}</span>
      <input className="h-10 w-full rounded-md border border-rule bg-field px-3 text-base" {...rest} />
      {hint && <span className="text-soft">{hint}</span>}
    </label>
  );
}
