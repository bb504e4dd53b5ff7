'use client';

import { sidesOfSeam } from '../../core/frame/seam-sides';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { SlideId } from '../../core/show/ids';
import type { Transition } from '../../core/show/transition';
import { fittingTransition, type FittingTransition } from '../../core/transitions/fitting-transition';
import { transitionName } from '../../core/transitions/transitions';
import { Button } from '../kit/button';

/** What fits the two pictures of a seam, and why; taken by one press. */
export function Fitting({
  prepared,
  slideId,
  transition,
  onTake,
}: {
  readonly prepared: PreparedShow;
  readonly slideId: SlideId;
  readonly transition: Transition;
  readonly onTake: (next: Transition) => void;
}) {
  const found = fittingAt(prepared, slideId);
  if (!found) return null;
  const isTaken = sameBut(found.transition, transition);
  return (
    <div className="mb-2.5 flex items-center gap-2 border-b border-rule pb-2.5" data-part="fitting">
      <p className="flex-1 text-soft">
        <b className="text-ink">{named(found.transition)}</b> {isTaken ? 'it is' : 'fits'}. {found.reason}
      </p>
      {!isTaken && (
        <Button className="h-7 shrink-0" data-part="take-fitting" onClick={() => onTake(found.transition)}>
          Take it
        </Button>
      )}
    </div>
  );
}

/** What fits at the seam into a slide; null at the first. */
export function fittingAt(prepared: PreparedShow, slideId: SlideId): FittingTransition | null {
  const sides = sidesOfSeam(prepared, slideId);
  return sides && fittingTransition(sides.leaving, sides.coming, prepared.show.clocks);
}

function named(transition: Transition): string {
  const name = transition.kind === 'built' ? transition.name : transitionName(transition.kind);
  const way = 'direction' in transition && transition.direction ? ` ${transition.direction}` : '';
  return `A ${name}${way}`;
}

/** How long it takes is a matter of taste. */
function sameBut(one: Transition, other: Transition): boolean {
  if (one.kind !== other.kind) return false;
  const way = (of: Transition) => ('direction' in of ? of.direction : undefined);
  return way(one) === way(other);
}
