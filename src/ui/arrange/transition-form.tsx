'use client';

import { useState } from 'react';
import { easingsForTransitions, TRANSITION_NAMES } from './transition-names';
import {
  EIGHT_WAYS,
  FAMILIES,
  FOUR_WAYS,
  IRIS_SHAPES,
  PATTERN_NAMES,
  type Transition,
  type TransitionFamily,
  type TransitionKind,
  type TransitionOverTime,
} from '../../core/show/transition';
import { USUAL_COUNT, USUAL_SOFTNESS } from '../../core/transitions/transition-plan';
import type { Easing } from '../../core/keys/easing';
import { ChoosePrintSheet } from '../gather/choose-print-sheet';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { ColourField } from '../kit/colour-field';
import { NumberField } from '../kit/number-field';
import { Pick, plainOptions } from '../kit/pick';

interface TransitionFormProps {
  readonly transition: Transition;
  readonly onChange: (next: Transition, joins?: string) => void;
}

const USUAL_MS = 1000;
const FAMILY_NAMES = Object.keys(FAMILIES) as TransitionFamily[];
const groups = [
  { name: null, options: [{ value: 'cut' as TransitionKind, label: 'cut' }] },
  ...FAMILY_NAMES.map((family) => ({
    name: family,
    options: FAMILIES[family].map((kind) => ({ value: kind as TransitionKind, label: TRANSITION_NAMES[kind] })),
  })),
  { name: 'any of a family', options: [{ value: 'shuffle' as TransitionKind, label: TRANSITION_NAMES.shuffle }] },
];

/** Everything that can be said about one transition. */
export function TransitionForm({ transition, onChange }: TransitionFormProps) {
  const lengthMs = transition.kind === 'cut' ? USUAL_MS : transition.lengthMs;
  const choose = (kind: TransitionKind) => {
    if (kind === 'cut') onChange({ kind });
    else if (kind === 'pattern') onChange({ kind, lengthMs, pattern: 'clouds' });
    else if (kind === 'shuffle') onChange({ kind, lengthMs, family: 'all', seed: 1 });
    else onChange({ kind, lengthMs } as TransitionOverTime);
  };
  return (
    <div className="flex flex-col gap-2.5">
      <div className="flex items-center gap-2">
        <Pick label="Transition" value={transition.kind} groups={groups} onChange={choose} />
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
    </div>
  );
}

function Parts({
  transition,
  onChange,
}: {
  transition: TransitionOverTime;
  onChange: TransitionFormProps['onChange'];
}) {
  const change = (part: Record<string, unknown>, joins?: string) =>
    onChange({ ...transition, ...part } as Transition, joins);
  const directions = directionsOf(transition);
  const [choosing, setChoosing] = useState(false);
  return (
    <>
      {choosing && (
        <ChoosePrintSheet
          title="A pattern of your own"
          kind="picture"
          part="pattern-with"
          onChoose={(entry) => change({ pattern: { assetId: entry.assetId } })}
          onClose={() => setChoosing(false)}
        >
          <p className="text-soft">Its dark places change over first, its bright ones last.</p>
        </ChoosePrintSheet>
      )}
      <div className="flex flex-wrap items-center gap-2">
        {directions && (
          <Pick
            label="Direction"
            value={('direction' in transition && transition.direction) || directions[0]!}
            groups={[{ name: null, options: plainOptions(directions) }]}
            onChange={(direction) => change({ direction })}
          />
        )}
        {transition.kind === 'iris' && (
          <Pick
            label="Shape"
            value={transition.shape ?? 'circle'}
            groups={[{ name: null, options: plainOptions(IRIS_SHAPES) }]}
            onChange={(shape) => change({ shape })}
          />
        )}
        {transition.kind === 'pattern' && (
          <Pick
            label="Pattern"
            value={typeof transition.pattern === 'string' ? transition.pattern : 'own'}
            groups={[
              { name: null, options: plainOptions(PATTERN_NAMES) },
              { name: 'of your own', options: [{ value: 'own', label: 'a picture …' }] },
            ]}
            onChange={(pattern) => {
              if (pattern === 'own') setChoosing(true);
              else change({ pattern });
            }}
          />
        )}
        {transition.kind === 'pattern' && typeof transition.pattern === 'object' && (
          <Button className="h-7" onClick={() => setChoosing(true)}>
            another picture …
          </Button>
        )}
        {transition.kind === 'pattern' && (
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={transition.inverted ?? false}
              onChange={(event) => change({ inverted: event.target.checked || undefined })}
            />
            the other way round
          </label>
        )}
        {(transition.kind === 'dip' || transition.kind === 'burn') && (
          <span className="flex items-center gap-1.5">
            through{' '}
            <ColourField
              label="Colour it goes through"
              value={transition.colour ?? (transition.kind === 'dip' ? '#000000' : '#ffffff')}
              onChange={(colour) => change({ colour }, 'transition colour')}
            />
          </span>
        )}
        {(transition.kind === 'blinds' || transition.kind === 'checks' || transition.kind === 'mosaic') && (
          <NumberField
            label="How many"
            value={transition.count ?? USUAL_COUNT[transition.kind]}
            min={2}
            max={100}
            digits={0}
            onCommit={(count) => change({ count: Math.round(count) })}
          />
        )}
        {transition.kind === 'shuffle' && (
          <>
            <Pick
              label="Family"
              value={transition.family}
              groups={[{ name: null, options: plainOptions(['all', ...FAMILY_NAMES] as const) }]}
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
      {isSoft(transition) && (
        <Amount
          label="Softness"
          value={transition.softness ?? USUAL_SOFTNESS[transition.kind]}
          min={0}
          max={1}
          rest={USUAL_SOFTNESS[transition.kind]}
          shown={`${Math.round(100 * (transition.softness ?? USUAL_SOFTNESS[transition.kind]))} %`}
          onChange={(softness) => change({ softness }, 'transition softness')}
        />
      )}
    </>
  );
}

type SoftTransition = Extract<TransitionOverTime, { kind: keyof typeof USUAL_SOFTNESS }>;

function isSoft(transition: TransitionOverTime): transition is SoftTransition {
  return transition.kind in USUAL_SOFTNESS;
}

function directionsOf(transition: TransitionOverTime): readonly string[] | null {
  switch (transition.kind) {
    case 'wipe':
      return ['right', ...EIGHT_WAYS.filter((way) => way !== 'right')];
    case 'clock':
      return ['clockwise', 'anticlockwise'];
    case 'iris':
      return ['open', 'close'];
    case 'blinds':
      return ['down', ...FOUR_WAYS.filter((way) => way !== 'down')];
    case 'slide-apart':
      return ['across', 'down'];
    case 'zoom-through':
    case 'zoom-blur':
      return ['in', 'out'];
    case 'push':
    case 'slide-over':
    case 'slide-off':
    case 'page-turn':
    case 'card-turn':
    case 'cube-turn':
      return FOUR_WAYS;
    default:
      return null;
  }
}
