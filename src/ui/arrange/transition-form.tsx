'use client';

import { useState } from 'react';
import { easingsForTransitions } from './easings-for-transitions';
import {
  PATTERN_NAMES,
  TRANSITION_FAMILIES,
  type PatternName,
  type Transition,
  type TransitionKind,
  type TransitionOverTime,
} from '../../core/show/transition';
import type { AssetId, SlideId } from '../../core/show/ids';
import type { Parameter } from '../../core/transitions/transition-kind';
import { FAMILIES, transitionName, TRANSITIONS } from '../../core/transitions/transitions';
import type { Easing } from '../../core/keys/easing';
import { KeepTransition } from '../reuse/keep-transition';
import { OwnTransitions } from '../reuse/own-transitions';
import { ChoosePrintDialog } from '../gather/choose-print-dialog';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { ColourField } from '../kit/colour-field';
import { NumberField } from '../kit/number-field';
import { Pick, plainOptions } from '../kit/pick';
import { unreachable } from '../../core/unreachable';

interface TransitionFormProps {
  readonly transition: Transition;
  /** The slide it leads into. */
  readonly slideId: SlideId;
  readonly onChange: (next: Transition, joins?: string) => void;
}

const USUAL_MS = 1000;
const OWN = 'own';
const groups = [
  { name: null, options: [{ value: 'cut' as TransitionKind | typeof OWN, label: 'cut' }] },
  ...TRANSITION_FAMILIES.map((family) => ({
    name: family,
    options: FAMILIES[family].map((kind) => ({
      value: kind as TransitionKind | typeof OWN,
      label: transitionName(kind),
    })),
  })),
  {
    name: 'any of a family',
    options: [{ value: 'shuffle' as TransitionKind | typeof OWN, label: transitionName('shuffle') }],
  },
  { name: 'your own', options: [{ value: OWN as TransitionKind | typeof OWN, label: 'see them …' }] },
];

/** A kind as it is when nothing more was said about it. */
export function usualTransition(kind: Exclude<TransitionKind, 'built'>, lengthMs: number): Transition {
  if (kind === 'cut') return { kind };
  if (kind === 'pattern') return { kind, lengthMs, pattern: 'clouds' };
  if (kind === 'shuffle') return { kind, lengthMs, family: 'all', seed: 1 };
  return { kind, lengthMs };
}

/** Everything that can be said about one transition. */
export function TransitionForm({ transition, slideId, onChange }: TransitionFormProps) {
  const [own, setOwn] = useState(false);
  const lengthMs = transition.kind === 'cut' ? USUAL_MS : transition.lengthMs;
  const choose = (kind: TransitionKind | typeof OWN) => {
    if (kind === OWN) setOwn(true);
    else if (kind !== 'built') onChange(usualTransition(kind, lengthMs));
  };
  return (
    <div className="flex flex-col gap-2.5">
      <div className="flex items-center gap-2">
        <Pick
          label="Transition"
          value={transition.kind}
          groups={
            transition.kind === 'built'
              ? [{ name: null, options: [{ value: 'built' as const, label: transition.name }] }, ...groups]
              : groups
          }
          onChange={choose}
        />
        {transition.kind !== 'cut' && (
          <NumberField
            label="Length of the transition in seconds"
            value={lengthMs / 1000}
            min={0.1}
            max={20}
            step={0.1}
            unit="s"
            onCommit={(seconds) => onChange({ ...transition, lengthMs: Math.round(seconds * 1000) })}
          />
        )}
      </div>
      {transition.kind !== 'cut' && <Parts transition={transition} onChange={onChange} />}
      {transition.kind !== 'cut' && <KeepTransition transition={transition} onChange={onChange} />}
      {own && (
        <OwnTransitions
          slideId={slideId}
          onChoose={(next) => {
            setOwn(false);
            onChange(next);
          }}
          onClose={() => setOwn(false)}
        />
      )}
    </div>
  );
}

/** What can be said about a kind, as its record has it; the softness comes last, on a line of its own. */
function Parts({
  transition,
  onChange,
}: {
  transition: TransitionOverTime;
  onChange: TransitionFormProps['onChange'];
}) {
  const change = (part: Record<string, unknown>, joins?: string) =>
    onChange({ ...transition, ...part } as Transition, joins);
  const parameters: [string, Parameter][] =
    transition.kind === 'shuffle' || transition.kind === 'built'
      ? []
      : Object.entries(TRANSITIONS[transition.kind].parameters);
  const field = ([name, parameter]: [string, Parameter]) => (
    <ParameterField
      key={name}
      name={name}
      parameter={parameter}
      value={(transition as unknown as Record<string, unknown>)[name]}
      onChange={change}
    />
  );
  return (
    <>
      <div className="flex flex-wrap items-center gap-2">
        {parameters.filter(([, parameter]) => parameter.is !== 'softness').map(field)}
        {transition.kind === 'shuffle' && (
          <>
            <Pick
              label="Family"
              value={transition.family}
              groups={[{ name: null, options: plainOptions(['all', ...TRANSITION_FAMILIES] as const) }]}
              onChange={(family) => change({ family })}
            />
            <Button className="h-7" onClick={() => change({ seed: transition.seed + 1 })}>
              deal again
            </Button>
          </>
        )}
        <Pick
          label="Pace of the transition"
          value={typeof transition.easing === 'string' ? transition.easing : 'usual'}
          groups={[{ name: null, options: easingsForTransitions }]}
          onChange={(easing) => change({ easing: easing === 'usual' ? undefined : (easing as Easing) })}
        />
      </div>
      {parameters.filter(([, parameter]) => parameter.is === 'softness').map(field)}
    </>
  );
}

interface ParameterFieldProps {
  readonly name: string;
  readonly parameter: Parameter;
  /** As the transition has it; undefined stands for the usual. */
  readonly value: unknown;
  readonly onChange: (part: Record<string, unknown>, joins?: string) => void;
}

function ParameterField({ name, parameter, value, onChange }: ParameterFieldProps) {
  switch (parameter.is) {
    case 'choice':
      return (
        <Pick
          label={parameter.label}
          value={(value as string | undefined) ?? parameter.usual}
          groups={[
            {
              name: null,
              options: plainOptions([
                parameter.usual,
                ...parameter.values.filter((other) => other !== parameter.usual),
              ]),
            },
          ]}
          onChange={(chosen) => onChange({ [name]: chosen })}
        />
      );
    case 'pattern':
      return (
        <PatternField
          value={value as PatternName | { assetId: AssetId }}
          onChange={(pattern) => onChange({ [name]: pattern })}
        />
      );
    case 'switch':
      return (
        <label className="flex items-center gap-1.5">
          <input
            type="checkbox"
            checked={(value as boolean | undefined) ?? parameter.usual}
            onChange={(event) => onChange({ [name]: event.target.checked || undefined })}
          />
          {parameter.label}
        </label>
      );
    case 'colour':
      return (
        <span className="flex items-center gap-1.5">
          through{' '}
          <ColourField
            label="Colour it goes through"
            value={(value as string | undefined) ?? parameter.usual}
            onChange={(colour) => onChange({ [name]: colour }, 'transition colour')}
          />
        </span>
      );
    case 'count':
      return (
        <NumberField
          label="How many"
          value={(value as number | undefined) ?? parameter.usual}
          min={parameter.least}
          max={parameter.most}
          digits={0}
          onCommit={(count) => onChange({ [name]: Math.round(count) })}
        />
      );
    case 'softness': {
      const softness = (value as number | undefined) ?? parameter.usual;
      return (
        <Amount
          label="Softness"
          value={softness}
          min={0}
          max={1}
          rest={parameter.usual}
          shown={`${Math.round(100 * softness)} %`}
          onChange={(next) => onChange({ [name]: next }, 'transition softness')}
        />
      );
    }
    case 'seed':
      return null;
    default:
      return unreachable(parameter);
  }
}

/** One of the patterns that ship, or a picture of one's own. */
function PatternField({
  value,
  onChange,
}: {
  value: PatternName | { assetId: AssetId };
  onChange: (pattern: PatternName | { assetId: AssetId }) => void;
}) {
  const [choosing, setChoosing] = useState(false);
  return (
    <>
      {choosing && (
        <ChoosePrintDialog
          title="A pattern of your own"
          kind="picture"
          part="pattern-with"
          onChoose={(entry) => onChange({ assetId: entry.assetId })}
          onClose={() => setChoosing(false)}
        >
          <p className="text-soft">Its dark places change over first, its bright ones last.</p>
        </ChoosePrintDialog>
      )}
      <Pick
        label="Pattern"
        value={typeof value === 'string' ? value : 'own'}
        groups={[
          { name: null, options: plainOptions(PATTERN_NAMES) },
          { name: 'of your own', options: [{ value: 'own', label: 'a picture …' }] },
        ]}
        onChange={(pattern) => {
          if (pattern === 'own') setChoosing(true);
          else onChange(pattern as PatternName);
        }}
      />
      {typeof value === 'object' && (
        <Button className="h-7" onClick={() => setChoosing(true)}>
          another picture …
        </Button>
      )}
    </>
  );
}
