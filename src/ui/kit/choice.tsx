'use client';

import { clsx } from 'clsx';
import { ToggleGroup } from 'radix-ui';

interface ChoiceProps<Value extends string> {
  readonly label: string;
  readonly value: Value;
  readonly options: readonly { readonly value: Value; readonly label: string }[];
  readonly onChange: (value: Value) => void;
  readonly dark?: boolean;
}

/** One of a few, side by side. */
export function Choice<Value extends string>({ label, value, options, onChange, dark = false }: ChoiceProps<Value>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label={label}
      value={value}
      onValueChange={(next) => {
        if (next) onChange(next as Value);
      }}
      className={clsx(
        'inline-flex overflow-hidden rounded-md border',
        dark ? 'border-white/20' : 'border-rule bg-card',
      )}
    >
      {options.map((option) => (
        <ToggleGroup.Item
          key={option.value}
          value={option.value}
          className={clsx(
            'h-7 px-2.5 text-sm whitespace-nowrap -outline-offset-2',
            dark
              ? 'text-lamp-soft data-[state=on]:bg-lamp data-[state=on]:text-black'
              : 'text-soft data-[state=on]:bg-chosen data-[state=on]:text-card',
          )}
        >
          {option.label}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
