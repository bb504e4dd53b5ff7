'use client';

import { nanoid } from 'nanoid';
import { useRef } from 'react';
import { sightOf, type ScreenPoint } from '../../core/frame/layer-sight';
import { useOpenSlide } from './use-slide';
import type { useLoupePlan } from './use-loupe-plan';
import { PathPlace } from './path-place';
import { useWideStore } from './wide-store';

/** The places of a loupe on the stage, where each is when the loupe gets there: a click goes there, a drag moves the place. */
export function LoupePath({
  loupe: { group, plan, arrivals, movePlace },
  at,
}: {
  loupe: NonNullable<ReturnType<typeof useLoupePlan>>;
  at: (point: ScreenPoint) => { x: number; y: number };
}) {
  const store = useWideStore();
  const { around } = useOpenSlide();
  const joins = useRef('');
  const rim = group.layers[0]!;
  const spots = arrivals.flatMap((ms) => sightOf(around, rim.id, ms + plan.restMs / 2)?.centre ?? []);
  return (
    <g data-part="path">
      <polyline
        points={spots
          .map(at)
          .map(({ x, y }) => `${x},${y}`)
          .join(' ')}
        fill="none"
        stroke="#fcfaf5"
        strokeWidth={2}
        strokeDasharray="1 5"
        strokeLinecap="round"
        className="pointer-events-none"
      />
      {spots.map((spot, index) => (
        <PathPlace
          key={index}
          number={index + 1}
          ms={arrivals[index]!}
          spot={at(spot)}
          onGo={() => store.getState().seek(arrivals[index]! + Math.min(plan.restMs / 2, 200))}
          onHold={() => {
            joins.current = `place ${nanoid(6)}`;
          }}
          onDrag={(to) => movePlace(index, arrivals[index]! + plan.restMs / 2, to, joins.current)}
        />
      ))}
    </g>
  );
}
