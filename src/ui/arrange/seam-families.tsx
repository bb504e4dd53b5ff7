'use client';

import { Check } from 'lucide-react';
import { Tabs } from 'radix-ui';
import type { SlideId } from '../../core/show/ids';
import { TRANSITION_FAMILIES, type Transition, type TransitionKind } from '../../core/show/transition';
import { FAMILIES, transitionName, TRANSITIONS } from '../../core/transitions/transitions';
import { Dialog } from '../kit/dialog';
import { MovingSeam } from './moving-seam';
import { usualTransition } from './transition-form';

interface SeamFamiliesProps {
  /** The slide it leads into. */
  readonly slideId: SlideId;
  readonly transition: Transition;
  readonly onTake: (next: Transition) => void;
  readonly onClose: () => void;
}

const USUAL_MS = 1000;

/** Every kind of transition, family by family, going on between the two pictures of this seam. */
export function SeamFamilies({ slideId, transition, onTake, onClose }: SeamFamiliesProps) {
  const { kind } = transition;
  const now = kind === 'cut' || kind === 'shuffle' || kind === 'built' ? 'plain' : TRANSITIONS[kind].family;
  return (
    <Dialog title="Transitions between these two" open onClose={onClose} className="w-[880px]">
      <Tabs.Root
        defaultValue={now}
        orientation="vertical"
        className="flex min-h-[420px] gap-5"
        data-part="seam-families"
      >
        <Tabs.List aria-label="Families" className="flex w-28 shrink-0 flex-col gap-0.5">
          {TRANSITION_FAMILIES.map((family) => (
            <Tabs.Trigger
              key={family}
              value={family}
              data-family={family}
              className="rounded-md px-2.5 py-1.5 text-left text-base text-soft first-letter:uppercase hover:text-ink data-[state=active]:bg-ink data-[state=active]:text-paper"
            >
              {family}
            </Tabs.Trigger>
          ))}
        </Tabs.List>
        {TRANSITION_FAMILIES.map((family) => (
          <Tabs.Content key={family} value={family} className="min-w-0 flex-1">
            <ul className="grid grid-cols-3 gap-x-4 gap-y-3">
              {tilesOf(family, transition).map((tile) => (
                <li key={tile.kind}>
                  <button
                    type="button"
                    aria-current={tile.kind === kind}
                    onClick={() => onTake(tile)}
                    data-transition={tile.kind}
                    className="group block w-full text-left outline-offset-2"
                  >
                    <MovingSeam slideId={slideId} transition={tile} />
                    <span className="mt-1 flex items-center gap-1 text-base group-hover:text-red">
                      {transitionName(tile.kind)}
                      {tile.kind === kind && <Check size={14} className="text-red" aria-hidden="true" />}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </Dialog>
  );
}

/** What a family offers; the one that is there stays as it was made. */
function tilesOf(family: (typeof TRANSITION_FAMILIES)[number], transition: Transition): Transition[] {
  const lengthMs = transition.kind === 'cut' ? USUAL_MS : transition.lengthMs;
  const kinds: readonly Exclude<TransitionKind, 'built'>[] =
    family === 'plain' ? ['cut', ...FAMILIES.plain] : FAMILIES[family];
  return kinds.map((kind) => (kind === transition.kind ? transition : usualTransition(kind, lengthMs)));
}
