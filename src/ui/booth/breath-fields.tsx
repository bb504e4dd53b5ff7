'use client';

import { breathOf, USUAL_BREATH, type Breath } from '../../core/show/breath';
import { LONGEST_BREATH_MS } from '../../core/show/limits';
import type { Slide } from '../../core/show/show';
import { breathsSet } from '../../core/timing/wait-for-voices';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { useShow } from '../show/show-provider';

/** How long it is silent before and after what is spoken, for the show or for one slide. */
export function BreathFields({ slide }: { readonly slide: Slide }) {
  const show = useShow((state) => state.show);
  const edit = useShow((state) => state.edit);
  const own = slide.breath;
  const breath = breathOf(show, slide);
  const set = (next: Breath | null) => edit(breathsSet(show, own ? [slide.id] : null, next));
  const field = (part: keyof Breath, label: string) => (
    <NumberField
      label={label}
      value={breath[part] / 1000}
      min={0}
      max={LONGEST_BREATH_MS / 1000}
      step={0.1}
      unit="s"
      onCommit={(seconds) => set({ ...breath, [part]: Math.round(seconds * 1000) })}
    />
  );
  return (
    <div className="flex flex-wrap items-center gap-x-1.5 gap-y-1" data-part="breath">
      <span className="text-soft">silence before</span>
      {field('beforeMs', 'Silence before a voice, seconds')}
      <span className="text-soft">and after</span>
      {field('afterMs', 'Silence after a voice, seconds')}
      <span className="text-soft">{own ? 'on this slide' : 'on every slide'}</span>
      <Button
        look="quiet"
        className="h-7 px-2"
        onClick={() => edit(breathsSet(show, [slide.id], own ? null : (show.breath ?? USUAL_BREATH)))}
      >
        {own ? 'as on the others' : 'this one otherwise'}
      </Button>
    </div>
  );
}
