'use client';

import { GENTLE, THOROUGH, type Cleaning } from '../../core/sound/voice/cleaning';
import { Amount } from '../kit/amount';
import { Pick } from '../kit/pick';

export type CleaningName = 'none' | 'gentle' | 'thorough' | 'own';

const NAMES: readonly { readonly value: CleaningName; readonly label: string }[] = [
  { value: 'none', label: 'as recorded' },
  { value: 'gentle', label: 'cleaned gently' },
  { value: 'thorough', label: 'cleaned thoroughly' },
  { value: 'own', label: 'cleaned as I say' },
];

/** Which of the settings with a name this is. */
export function nameOfCleaning(how: Cleaning | null | undefined): CleaningName {
  if (!how) return 'none';
  const { room: _room, ...said } = how;
  const same = (other: Cleaning) =>
    Object.keys({ ...said, ...other }).every((key) => said[key as keyof typeof said] === other[key as keyof Cleaning]);
  return same(GENTLE) ? 'gentle' : same(THOROUGH) ? 'thorough' : 'own';
}

export function cleaningNamed(name: CleaningName, before: Cleaning | null | undefined): Cleaning | null {
  const room = before?.room && { room: before.room };
  switch (name) {
    case 'none':
      return null;
    case 'gentle':
      return { ...GENTLE, ...room };
    case 'thorough':
      return { ...THOROUGH, ...room };
    case 'own':
      // A little of everything, to go on from.
      return { ...GENTLE, ...before, noise: 0.7 };
  }
}

interface CleaningPickProps {
  readonly label: string;
  readonly how: Cleaning | null | undefined;
  readonly onChange: (how: Cleaning | null) => void;
}

export function CleaningPick({ label, how, onChange }: CleaningPickProps) {
  return (
    <Pick<CleaningName>
      label={label}
      value={nameOfCleaning(how)}
      groups={[{ name: null, options: NAMES }]}
      onChange={(name) => onChange(cleaningNamed(name, how))}
    />
  );
}

const SWITCHES = [
  ['lowCut', 'rumble away'],
  ['clicks', 'clicks mended'],
  ['even', 'sentences equally loud'],
] as const;
const AMOUNTS = [
  ['noise', 'room noise down'],
  ['press', 'soft and loud together'],
  ['breaths', 'breaths down'],
] as const;

/** Every part of cleaning by itself. */
export function CleaningFields({
  how,
  onChange,
}: {
  readonly how: Cleaning;
  readonly onChange: (how: Cleaning) => void;
}) {
  const without = (name: keyof Cleaning): Cleaning =>
    Object.fromEntries(Object.entries(how).filter(([key]) => key !== name)) as Cleaning;
  return (
    <div className="flex flex-col gap-1.5 rounded-lg bg-field p-3">
      <div className="flex flex-wrap gap-x-5 gap-y-1">
        {SWITCHES.map(([name, label]) => (
          <label key={name} className="flex items-center gap-1.5">
            <input
              type="checkbox"
              className="accent-ink"
              checked={how[name] === true}
              onChange={(event) => onChange(event.target.checked ? { ...how, [name]: true } : without(name))}
            />
            {label}
          </label>
        ))}
      </div>
      {AMOUNTS.map(([name, label]) => (
        <Amount
          key={name}
          label={label}
          value={how[name] ?? 0}
          min={0}
          max={1}
          rest={GENTLE[name]!}
          shown={how[name] ? `${Math.round(100 * how[name])} %` : 'off'}
          onChange={(value) => onChange(value === 0 ? without(name) : { ...how, [name]: value })}
        />
      ))}
    </div>
  );
}
