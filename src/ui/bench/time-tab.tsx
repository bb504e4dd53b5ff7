'use client';

import { clsx } from 'clsx';
import { Pin } from 'lucide-react';
import { isHeld, type Chooser } from '../../core/show/chosen';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { Slide } from '../../core/show/show';
import { useState } from 'react';
import { movedSeam, type SeamWay } from '../../core/timing/moved-seam';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { clockTenths } from '../kit/clock';
import { NumberField } from '../kit/number-field';
import { BackingFields } from './backing-fields';
import { useShow } from '../show/show-provider';

/** How long the slide lasts, what is spoken over it, and what lies behind it. */
export function TimeTab({ slide, prepared, index }: { slide: Slide; prepared: PreparedShow; index: number }) {
  const edit = useShow((state) => state.edit);
  const selection = useShow((state) => state.selection);
  const entries = useShow((state) => state.entries);
  const [way, setWay] = useState<SeamWay>('ripple');
  const span = prepared.spans[index]!;
  const ids = selection.has(slide.id) && selection.size > 1 ? [...selection] : [slide.id];
  const setLength = (lengthMs: number, which: readonly Slide['id'][], by: Chooser = 'hand') =>
    edit({ kind: 'set-lengths', lengths: which.map((slideId) => ({ slideId, lengthMs, by })) });
  const hold = (on: boolean) =>
    edit({
      kind: 'set-choosers',
      choosers: ids.map((slideId) => ({ slideId, value: 'length', by: on ? 'hand' : null })),
    });
  const held = isHeld(slide, 'length');
  const mixed = prepared.show.slides.some((other) => ids.includes(other.id) && other.lengthMs !== slide.lengthMs);
  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-center gap-3">
        <NumberField
          label="Length in seconds"
          value={mixed ? null : slide.lengthMs / 1000}
          min={0.2}
          max={86_400}
          step={0.5}
          unit={ids.length > 1 ? `s for ${ids.length} chosen slides` : 's'}
          onCommit={(seconds) => {
            if (ids.length === 1)
              edit({
                kind: 'set-lengths',
                lengths: movedSeam(prepared.show.slides, index, Math.round(seconds * 1000) - slide.lengthMs, way),
              });
            else setLength(Math.round(seconds * 1000), ids);
          }}
        />
        <Button
          className="h-7"
          onClick={() =>
            setLength(
              slide.lengthMs,
              prepared.show.slides.map((other) => other.id),
              'pace',
            )
          }
        >
          Same for all slides
        </Button>
        <Button
          className="h-7"
          aria-pressed={held}
          title={
            held ? 'Fitting to the music leaves this length as it is' : 'Fitting to the music may change this length'
          }
          onClick={() => hold(!held)}
          data-part="held-length"
        >
          <Pin size={13} aria-hidden="true" /> {held ? 'held: let it go' : 'hold it'}
        </Button>
        <Button
          className="h-7"
          aria-pressed={slide.waits === true}
          title="In a hall the showing stays on this slide until it is told to go on; a film does not"
          onClick={() =>
            edit({ kind: 'set-waits', slides: ids.map((slideId) => ({ slideId, waits: slide.waits !== true })) })
          }
          data-part="waits"
        >
          a showing waits here
        </Button>
      </div>
      <div className="flex flex-wrap items-center gap-2">
        <Choice
          label="What gives the time"
          value={way}
          onChange={setWay}
          options={[
            { value: 'ripple', label: 'what follows moves along' },
            { value: 'roll', label: 'the next slide gives it' },
          ]}
        />
        {[-1000, -100, 100, 1000].map((byMs) => (
          <Button
            key={byMs}
            className="h-7 tabular"
            aria-label={`${Math.abs(byMs / 1000)} seconds ${byMs < 0 ? 'shorter' : 'longer'}`}
            onClick={() =>
              edit(
                { kind: 'set-lengths', lengths: movedSeam(prepared.show.slides, index, byMs, way) },
                `seam ${slide.id}`,
              )
            }
          >
            {byMs < 0 ? '−' : '+'}
            {Math.abs(byMs / 1000)}
          </Button>
        ))}
      </div>
      <p className="text-soft">
        On screen from <span className="tabular text-ink">{clockTenths(span.startMs)}</span> to{' '}
        <span className="tabular text-ink">{clockTenths(span.endMs)}</span>.
      </p>
      {slide.sounds.map((sound) => (
        <div key={sound.id} className="flex flex-wrap items-center gap-3">
          <span className="inline-flex items-center gap-2">
            <span
              className={clsx('h-4 w-2 rounded-full', sound.kind === 'voice' ? 'bg-moss' : 'bg-saffron')}
              aria-hidden="true"
            />
            {sound.name ??
              entries.find((entry) => entry.assetId === sound.assetId)?.fileName ??
              'A file that is missing'}{' '}
            {sound.kind !== 'voice' ? 'sounds here' : sound.resting ? 'is kept and not heard' : 'is spoken here'}
          </span>
          <Button
            className="h-7"
            onClick={() => edit({ kind: 'remove-sounds', slideId: slide.id, soundIds: [sound.id] })}
          >
            Take it off
          </Button>
        </div>
      ))}
      <BackingFields slide={slide} />
    </div>
  );
}
