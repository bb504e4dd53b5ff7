'use client';

import { Popover } from 'radix-ui';
import type { SlideId } from '../../core/show/ids';
import { DEFAULT_TRANSITION, type Slide } from '../../core/show/show';
import type { Transition } from '../../core/show/transition';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { NumberField } from '../kit/number-field';
import { useShow } from '../show/show-provider';

interface SeamProps {
  readonly slide: Slide;
  /** What the transition really takes between these two slides. */
  readonly transitionMs: number;
}

/** The slim place between two slides: the transition, and a way to change it for one, the selection or all. */
export function Seam({ slide, transitionMs }: SeamProps) {
  const edit = useShow((state) => state.edit);
  const slides = useShow((state) => state.show.slides);
  const selection = useShow((state) => state.selection);
  const { transition } = slide;
  const set = (ids: readonly SlideId[], next: Transition) => edit({ kind: 'set-transitions', transitions: ids.map((slideId) => ({ slideId, transition: next })) });
  const lengthS = transition.kind === 'dissolve' ? transition.lengthMs / 1000 : 1;
  const label = transition.kind === 'cut' ? 'cut' : `dissolve ${(transitionMs / 1000).toFixed(1)}`;
  return (
    <Popover.Root>
      <Popover.Trigger asChild>
        <button type="button" aria-label={`Transition into this slide: ${label}`} onClick={(event) => event.stopPropagation()} className="tabular flex h-5 items-center gap-1 rounded-full border border-rule bg-paper px-2 text-xs text-soft hover:border-soft hover:text-ink">
          <svg width="13" height="9" viewBox="0 0 13 9" aria-hidden="true" className="fill-current">{transition.kind === 'cut' ? <path d="M6 0h1v9H6z" /> : <path d="M0 0l6.500 4.500L0 9zM13 0L6.500 4.500 13 9z" />}</svg>
          {label}
        </button>
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content align="start" sideOffset={6} onClick={(event) => event.stopPropagation()} className="z-30 w-72 rounded-lg border border-rule bg-card p-3 shadow-raised">
          <div className="flex items-center gap-2">
            <Choice label="Transition" value={transition.kind} onChange={(kind) => set([slide.id], kind === 'cut' ? { kind: 'cut' } : DEFAULT_TRANSITION)} options={[{ value: 'dissolve', label: 'dissolve' }, { value: 'cut', label: 'cut' }]} />
            {transition.kind === 'dissolve' && <NumberField label="Length of the dissolve in seconds" value={lengthS} min={0.1} max={20} step={0.1} unit="s" onCommit={(seconds) => set([slide.id], { kind: 'dissolve', lengthMs: Math.round(seconds * 1000) })} />}
          </div>
          {transition.kind === 'dissolve' && transitionMs < transition.lengthMs && <p className="mt-2 text-soft">It takes {(transitionMs / 1000).toFixed(1)} s here: a transition takes at most half of either slide.</p>}
          <div className="mt-3 flex gap-2">
            {selection.size > 1 && <Button onClick={() => set([...selection], transition)}>Same for {selection.size} chosen</Button>}
            <Button onClick={() => set(slides.map((other) => other.id), transition)}>Same for all</Button>
          </div>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
