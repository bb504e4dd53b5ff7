'use client';

import { clsx } from 'clsx';
import { AppWindow, Check, Film, Music2, SlidersHorizontal, Sparkles } from 'lucide-react';
import { formatOf } from '../../core/film/film-formats';
import type { FilmSpec } from '../../core/film/film-spec';
import { BY_HAND, PURPOSES, PURPOSE_NAMES, type PurposeName } from '../../core/film/purposes/purposes';
import { megabytes } from '../kit/clock';
import { Pick } from '../kit/pick';
import { ShapeIcon } from './shape-icon';
import type { Trials } from './use-trials';

export const MAIL_MEGABYTES = ['5', '10', '20', '25'] as const;

interface PurposeCardsProps {
  readonly specOf: (purpose: PurposeName) => FilmSpec;
  readonly chosen: ReadonlySet<string>;
  readonly byHand: FilmSpec;
  readonly trials: Trials;
  readonly mailMegabytes: string;
  readonly onToggle: (purpose: string) => void;
  readonly onMailMegabytes: (megabytes: string) => void;
  readonly onByHand: () => void;
}

/** Everything a film can be for; several may be chosen. */
export function PurposeCards(props: PurposeCardsProps) {
  const { specOf, chosen, byHand, trials, mailMegabytes, onToggle, onMailMegabytes, onByHand } = props;
  return (
    <ul className="grid grid-cols-2 gap-1.5" data-part="purposes">
      {PURPOSE_NAMES.map((purpose) => {
        const spec = specOf(purpose);
        return (
          <Card
            key={purpose}
            name={PURPOSES[purpose].name}
            note={PURPOSES[purpose].note}
            purpose={purpose}
            spec={spec}
            trial={trials.get(JSON.stringify(spec))}
            chosen={chosen.has(purpose)}
            onToggle={() => onToggle(purpose)}
          >
            {purpose === 'email' && (
              <span className="absolute bottom-[2px] left-[54px]">
                <Pick
                  label="Largest size for e-mail"
                  value={mailMegabytes}
                  groups={[
                    { name: null, options: MAIL_MEGABYTES.map((value) => ({ value, label: `under ${value} MB` })) },
                  ]}
                  onChange={onMailMegabytes}
                />
              </span>
            )}
          </Card>
        );
      })}
      <Card
        name="By hand"
        note="size, rate, format and stretch, one by one"
        purpose={BY_HAND}
        spec={byHand}
        trial={trials.get(JSON.stringify(byHand))}
        chosen={chosen.has(BY_HAND)}
        onToggle={() => onToggle(BY_HAND)}
      >
        <button
          type="button"
          aria-label="Set the numbers"
          title="Set the numbers"
          data-part="by-hand"
          onClick={onByHand}
          className="absolute right-1.5 bottom-1.5 grid size-7 place-items-center rounded-md border border-rule bg-field hover:border-soft"
        >
          <SlidersHorizontal size={13} />
        </button>
      </Card>
    </ul>
  );
}

interface CardProps {
  readonly name: string;
  readonly note: string;
  readonly purpose: string;
  readonly spec: FilmSpec;
  readonly trial: { readonly byteCount: number } | undefined;
  readonly chosen: boolean;
  readonly onToggle: () => void;
  readonly children?: React.ReactNode;
}

function Card({ name, note, purpose, spec, trial, chosen, onToggle, children }: CardProps) {
  const format = formatOf(spec.format);
  return (
    <li className="relative">
      <label
        title={note}
        data-purpose={purpose}
        className={clsx(
          'flex h-[52px] cursor-pointer items-center gap-2.5 rounded-lg border px-2.5 has-[:focus-visible]:outline-2 has-[:focus-visible]:outline-slate',
          chosen ? 'border-red bg-red-wash/50' : 'border-rule bg-card hover:border-soft',
        )}
      >
        <input type="checkbox" checked={chosen} onChange={onToggle} className="sr-only" />
        <span className="grid w-9 shrink-0 place-items-center">
          {format.holds === 'sound' ? (
            <Music2 size={20} aria-hidden="true" />
          ) : purpose === 'teaser' ? (
            <Sparkles size={20} aria-hidden="true" />
          ) : format.holds === 'show' ? (
            <AppWindow size={20} aria-hidden="true" />
          ) : purpose === 'edit' ? (
            <Film size={20} aria-hidden="true" />
          ) : (
            <ShapeIcon widthPx={spec.widthPx} heightPx={spec.heightPx} filled={chosen} />
          )}
        </span>
        <span className="min-w-0 leading-[1.2]">
          <span className="block truncate font-semibold">{name}</span>
          <span className="tabular block truncate text-xs text-soft">
            {purpose === 'email'
              ? '\u00a0'
              : format.holds === 'sound'
                ? format.name
                : `${spec.widthPx} × ${spec.heightPx}`}
          </span>
          <span className="tabular block truncate text-xs text-soft">
            {purpose === 'email'
              ? '\u00a0'
              : trial
                ? `about ${megabytes(trial.byteCount)}`
                : format.holds === 'sound'
                  ? '256 kbit/s'
                  : format.name}
          </span>
        </span>
        {chosen && <Check size={13} aria-hidden="true" className="absolute top-1.5 right-1.5 text-red-deep" />}
      </label>
      {children}
    </li>
  );
}
