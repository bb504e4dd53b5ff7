'use client';

import { clsx } from 'clsx';
import { Check, ChevronDown } from 'lucide-react';
import { Select } from 'radix-ui';

interface PickProps<Value extends string> {
  readonly label: string;
  readonly value: Value;
  readonly groups: readonly {
    readonly name: string | null;
    readonly options: readonly {
      readonly value: Value;
      readonly label: string;
      /** The font it is written in. */
      readonly family?: string;
    }[];
  }[];
  readonly onChange: (value: Value) => void;
  /** What stands there while nothing is chosen. */
  readonly placeholder?: string;
  readonly dark?: boolean;
}

/** One of many, from a list that opens. */
export function Pick<Value extends string>({
  label,
  value,
  groups,
  onChange,
  placeholder,
  dark = false,
}: PickProps<Value>) {
  return (
    <Select.Root value={value} onValueChange={(next) => onChange(next as Value)}>
      <Select.Trigger
        aria-label={label}
        className={clsx(
          'inline-flex h-7 items-center gap-1.5 rounded-md border px-2 text-sm whitespace-nowrap',
          dark ? 'border-white/20 text-lamp hover:border-white/50' : 'border-rule bg-field hover:border-soft',
        )}
      >
        <Select.Value placeholder={placeholder} />
        <Select.Icon>
          <ChevronDown size={13} aria-hidden="true" className={dark ? 'text-lamp-soft' : 'text-soft'} />
        </Select.Icon>
      </Select.Trigger>
      <Select.Portal>
        <Select.Content
          position="popper"
          sideOffset={4}
          className="z-50 max-h-[440px] overflow-hidden rounded-lg border border-rule bg-card shadow-raised"
        >
          <Select.Viewport className="p-1">
            {groups.map((group) => (
              <Select.Group key={group.name ?? ''}>
                {group.name && <Select.Label className="px-6 pt-2 pb-0.5 text-xs text-soft">{group.name}</Select.Label>}
                {group.options.map((option) => (
                  <Select.Item
                    key={option.value}
                    value={option.value}
                    className="relative flex h-7 cursor-default items-center rounded-sm pr-4 pl-6 text-sm outline-none select-none data-[highlighted]:bg-rule/60"
                  >
                    <Select.ItemIndicator className="absolute left-1.5">
                      <Check size={12} aria-hidden="true" />
                    </Select.ItemIndicator>
                    <Select.ItemText>
                      <span style={option.family ? { fontFamily: `'${option.family}'` } : undefined}>
                        {option.label}
                      </span>
                    </Select.ItemText>
                  </Select.Item>
                ))}
              </Select.Group>
            ))}
          </Select.Viewport>
        </Select.Content>
      </Select.Portal>
    </Select.Root>
  );
}

/** Options that are called what they are. */
export function plainOptions<Value extends string>(values: readonly Value[]): { value: Value; label: string }[] {
  return values.map((value) => ({ value, label: value.replaceAll('-', ' ') }));
}
