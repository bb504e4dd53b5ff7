'use client';

import { useState } from 'react';
import { mainLayerOf, type Backing, type BackingLight, type Slide } from '../../core/show/show';
import { ChoosePrintDialog } from '../gather/choose-print-dialog';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { ColourField } from '../kit/colour-field';
import { withPart } from '../kit/with-part';
import { useShow } from '../show/show-provider';
import { useChosenSlides } from './chosen-layers';

const LIGHTS: readonly { readonly name: keyof BackingLight; readonly label: string; readonly reach: number }[] = [
  { name: 'exposure', label: 'Brightness', reach: 2 },
  { name: 'contrast', label: 'Contrast', reach: 1 },
  { name: 'saturation', label: 'Colour', reach: 1 },
  { name: 'temperature', label: 'Warmth', reach: 1 },
];

const KINDS: Record<'automatic' | 'blurred' | 'gradient' | 'colour', Backing> = {
  automatic: { kind: 'automatic' },
  blurred: { kind: 'blurred', amount: 0.05, darkness: 0.35 },
  gradient: {
    kind: 'gradient',
    gradient: {
      kind: 'linear',
      angleDegrees: 90,
      stops: [
        { at: 0, colour: '#33404a' },
        { at: 1, colour: '#171513' },
      ],
    },
  },
  colour: { kind: 'colour', colour: '#211d19' },
};

/** What lies behind everything on the slide; seen where its picture leaves room. */
export function BackingFields({ slide }: { slide: Slide }) {
  const edit = useShow((state) => state.edit);
  const { backing } = slide;
  const pictureName = useShow((state) =>
    backing.kind === 'picture' ? state.entries.find((entry) => entry.assetId === backing.assetId)?.fileName : undefined,
  );
  const chosen = useChosenSlides(slide);
  const [choosing, setChoosing] = useState(false);
  const set = (next: Backing, joins?: string) =>
    edit(
      chosen.length > 1
        ? {
            kind: 'together',
            name: `change the backing of ${chosen.length} slides`,
            edits: chosen.map((other) => ({ kind: 'set-backing', slideId: other.id, backing: next })),
          }
        : { kind: 'set-backing', slideId: slide.id, backing: next },
      joins && `${joins} ${slide.id}`,
    );
  const options = [
    ...(mainLayerOf(slide)
      ? [
          { value: 'automatic' as const, label: 'by itself' },
          { value: 'blurred' as const, label: 'its blur' },
        ]
      : []),
    { value: 'picture' as const, label: 'a picture' },
    { value: 'gradient' as const, label: 'gradient' },
    { value: 'colour' as const, label: 'colour' },
  ];
  return (
    <div className="flex flex-col gap-2" data-part="backing">
      <div className="flex flex-wrap items-center gap-2">
        <span>{chosen.length > 1 ? `Behind all ${chosen.length} chosen` : 'Behind it'}</span>
        <Choice
          label="Backing"
          value={backing.kind}
          onChange={(kind) => {
            if (kind === 'picture') setChoosing(true);
            else set(KINDS[kind]);
          }}
          options={options}
        />
        {backing.kind === 'colour' && (
          <ColourField
            label="Colour of the backing"
            value={backing.colour}
            onChange={(colour) => set({ kind: 'colour', colour }, 'backing')}
          />
        )}
        {backing.kind === 'gradient' &&
          backing.gradient.stops.map((stop, index) => (
            <ColourField
              key={stop.at}
              label={`Colour ${index + 1} of the gradient`}
              value={stop.colour}
              onChange={(colour) =>
                set(
                  {
                    kind: 'gradient',
                    gradient: {
                      ...backing.gradient,
                      stops: backing.gradient.stops.map((other) => (other === stop ? { ...stop, colour } : other)),
                    },
                  },
                  `backing ${index}`,
                )
              }
            />
          ))}
        {backing.kind === 'picture' && (
          <Button className="h-7" onClick={() => setChoosing(true)}>
            {pictureName ?? 'a picture that is gone'}: another …
          </Button>
        )}
      </div>
      {backing.kind === 'picture' && (
        <>
          <Amount
            label="Blur"
            value={backing.blur ?? 0}
            min={0}
            max={0.1}
            rest={0}
            shown={`${((backing.blur ?? 0) * 100).toFixed(1)} %`}
            onChange={(blur) =>
              set(withPart(backing, { blur: blur === 0 ? undefined : blur }) ?? backing, 'backing blur')
            }
          />
          {LIGHTS.map(({ name, label, reach }) => {
            const value = backing.light?.[name] ?? 0;
            return (
              <Amount
                key={name}
                label={label}
                value={value}
                min={-reach}
                max={reach}
                rest={0}
                shown={value.toFixed(2)}
                onChange={(next) =>
                  set(
                    withPart(backing, {
                      light: withPart(backing.light ?? {}, { [name]: next === 0 ? undefined : next }) ?? undefined,
                    }) ?? backing,
                    `backing ${name}`,
                  )
                }
              />
            );
          })}
        </>
      )}
      {backing.kind === 'blurred' && (
        <>
          <Amount
            label="Blur"
            value={backing.amount}
            min={0.005}
            max={0.1}
            rest={0.05}
            shown={`${(backing.amount * 100).toFixed(1)} %`}
            onChange={(amount) => set({ ...backing, amount }, 'backing blur')}
          />
          <Amount
            label="Darkness"
            value={backing.darkness}
            min={0}
            max={1}
            rest={0.35}
            shown={`${Math.round(backing.darkness * 100)}`}
            onChange={(darkness) => set({ ...backing, darkness }, 'backing darkness')}
          />
        </>
      )}
      {choosing && (
        <ChoosePrintDialog
          title="The picture behind"
          kind="picture"
          part="backing-with"
          onChoose={(entry) =>
            set(
              backing.kind === 'picture'
                ? { ...backing, assetId: entry.assetId }
                : { kind: 'picture', assetId: entry.assetId },
            )
          }
          onClose={() => setChoosing(false)}
        >
          <p className="text-soft">It fills the frame behind the slide’s own picture.</p>
        </ChoosePrintDialog>
      )}
    </div>
  );
}
