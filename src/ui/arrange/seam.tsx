'use client';

import { Play } from 'lucide-react';
import { Popover } from 'radix-ui';
import { memo, useState } from 'react';
import type { SlideId } from '../../core/show/ids';
import type { Slide } from '../../core/show/show';
import type { Transition } from '../../core/show/transition';
import { Button } from '../kit/button';
import { usePrepared, useShow } from '../show/show-provider';
import { Fitting, fittingAt } from './fitting';
import { SeamFamilies } from './seam-families';
import { SeamRoom } from './seam-room';
import { TransitionForm } from './transition-form';
import { transitionName } from '../../core/transitions/transitions';

/** Played before and after a transition, so that it is seen between its pictures. */
const AROUND_MS = 700;

interface SeamProps {
  readonly slide: Slide;
  /** What the transition really takes between these two slides. */
  readonly transitionMs: number;
  readonly startMs: number;
  /** Brings the viewer to a moment, so that a change is seen on the two real pictures. */
  readonly onGo: (momentMs: number) => void;
  readonly onPlay: (fromMs: number, untilMs: number) => void;
}

/** The slim place between two slides: the transition, and a way to change it for one, the selection or all. */
export const Seam = memo(function Seam({ slide, transitionMs, startMs, onGo, onPlay }: SeamProps) {
  const { transition } = slide;
  const label =
    transition.kind === 'cut'
      ? 'cut'
      : `${transition.kind === 'built' ? transition.name : transitionName(transition.kind)} ${(transitionMs / 1000).toFixed(1)}`;
  return (
    <Popover.Root
      onOpenChange={(open) => {
        if (open) onGo(startMs + transitionMs / 2);
      }}
    >
      <Popover.Trigger asChild>
        <button
          type="button"
          data-part="seam"
          aria-label={`Transition into this slide: ${label}`}
          onClick={(event) => event.stopPropagation()}
          className="tabular flex h-5 items-center gap-1 rounded-full border border-rule bg-paper px-2 text-xs text-soft hover:border-soft hover:text-ink"
        >
          <svg width="13" height="9" viewBox="0 0 13 9" aria-hidden="true" className="fill-current">
            {transition.kind === 'cut' ? (
              <path d="M6 0h1v9H6z" />
            ) : (
              <path d="M0 0l6.500 4.500L0 9zM13 0L6.500 4.500 13 9z" />
            )}
          </svg>
          {label}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          data-part="transition"
          aria-label="Transition into this slide"
          onClick={(event) => event.stopPropagation()}
          onKeyDown={(event) => event.stopPropagation()}
          className="z-30 w-[364px] rounded-lg border border-rule bg-card p-3 shadow-raised"
        >
          <SeamForm slide={slide} transitionMs={transitionMs} startMs={startMs} onGo={onGo} onPlay={onPlay} />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
});

function SeamForm({ slide, transitionMs, startMs, onGo, onPlay }: SeamProps) {
  const edit = useShow((state) => state.edit);
  const slides = useShow((state) => state.show.slides);
  const selection = useShow((state) => state.selection);
  const prepared = usePrepared();
  const [families, setFamilies] = useState(false);
  const { transition } = slide;
  const set = (ids: readonly SlideId[], next: Transition, joins?: string) =>
    edit(
      { kind: 'set-transitions', transitions: ids.map((slideId) => ({ slideId, transition: next })) },
      joins && `${joins} ${slide.id}`,
    );
  const setHere = (next: Transition, joins?: string) => {
    set([slide.id], next, joins);
    onGo(startMs + (next.kind === 'cut' ? 0 : Math.min(next.lengthMs, slide.lengthMs / 2) / 2));
  };
  const several = selection.size > 1 ? [...selection] : slides.map(({ id }) => id);
  /** What fits each of them, as one step. */
  const fitEach = () => {
    const transitions = several.flatMap((slideId) => {
      const found = fittingAt(prepared, slideId);
      return found ? [{ slideId, transition: found.transition }] : [];
    });
    edit({ kind: 'set-transitions', transitions });
  };
  return (
    <>
      <Fitting prepared={prepared} slideId={slide.id} transition={transition} onTake={setHere} />
      <TransitionForm transition={transition} slideId={slide.id} onChange={setHere} />
      <SeamRoom slide={slide} transitionMs={transitionMs} onChange={setHere} />
      {families && (
        <SeamFamilies
          slideId={slide.id}
          transition={transition}
          onTake={(next) => {
            setFamilies(false);
            setHere(next);
          }}
          onClose={() => setFamilies(false)}
        />
      )}
      <div className="mt-3 flex flex-wrap gap-2">
        <Button onClick={() => setFamilies(true)} data-part="see-families">
          See them all here …
        </Button>
        {transition.kind !== 'cut' && (
          <Button onClick={() => onPlay(Math.max(0, startMs - AROUND_MS), startMs + transitionMs + AROUND_MS)}>
            <Play size={12} fill="currentColor" /> Play it
          </Button>
        )}
        {selection.size > 1 && (
          <Button onClick={() => set([...selection], transition)}>Same for {selection.size} chosen</Button>
        )}
        <Button
          onClick={() =>
            set(
              slides.map((other) => other.id),
              transition,
            )
          }
        >
          Same for all
        </Button>
        <Button onClick={fitEach} data-part="fit-each">
          What fits each{selection.size > 1 ? ` of ${selection.size}` : ''}
        </Button>
      </div>
    </>
  );
}
