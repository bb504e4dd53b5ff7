'use client';

import { useState } from 'react';
import { firstValue } from '../../core/keys/channel';
import { isMoving } from '../../core/keys/edit-keys';
import { factsInUse } from '../../core/motion/crop';
import type { ClipLayer, PictureLayer } from '../../core/show/layer';
import type { Light } from '../../core/show/light';
import type { Slide } from '../../core/show/show';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { ColourField } from '../kit/colour-field';
import { withPart } from '../kit/with-part';
import { useShow } from '../show/show-provider';
import { useHoldBefore } from '../viewer/before-light';
import { useChosenLayers, type LayerOnSlide } from './chosen-layers';
import { EvenOut } from './even-out';
import { Histogram } from './histogram';
import { LightPrints } from './light-prints';
import { RedEyes } from './red-eyes';
import { useLightPixels } from './use-light-pixels';

type AmountName =
  | 'exposure'
  | 'contrast'
  | 'highlights'
  | 'shadows'
  | 'temperature'
  | 'tint'
  | 'saturation'
  | 'vibrance'
  | 'paling'
  | 'blackAndWhite'
  | 'sepia'
  | 'vignette'
  | 'sharpen';
const AMOUNTS: readonly {
  readonly name: AmountName;
  readonly label: string;
  readonly min: number;
  readonly max: number;
}[] = [
  { name: 'exposure', label: 'Exposure', min: -3, max: 3 },
  { name: 'contrast', label: 'Contrast', min: -1, max: 1 },
  { name: 'highlights', label: 'Highlights', min: -1, max: 1 },
  { name: 'shadows', label: 'Shadows', min: -1, max: 1 },
  { name: 'temperature', label: 'Warmth', min: -1, max: 1 },
  { name: 'tint', label: 'Green–magenta', min: -1, max: 1 },
  { name: 'saturation', label: 'Saturation', min: -1, max: 1 },
  { name: 'vibrance', label: 'Vibrance', min: -1, max: 1 },
  { name: 'paling', label: 'Paling', min: 0, max: 1 },
  { name: 'blackAndWhite', label: 'Black and white', min: 0, max: 1 },
  { name: 'sepia', label: 'Sepia', min: 0, max: 1 },
  { name: 'vignette', label: 'Vignette', min: 0, max: 1 },
  { name: 'sharpen', label: 'Sharpen', min: 0, max: 1 },
];
/** The picture's longer side when it is counted. */
const HISTOGRAM_PX = 320;
/** Black and white points stay this far apart. */
const LEAST_SPAN = 0.05;

/** Brightness and colour of the picture; a change applies to all chosen slides, each keeping the rest of its own light. */
export function LightTab({ slide, layer: own }: { slide: Slide; layer: PictureLayer | ClipLayer }) {
  const edit = useShow((state) => state.edit);
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts.get(own.assetId));
  const pixels = useLightPixels(show, own, facts, HISTOGRAM_PX);
  const holdBefore = useHoldBefore();
  const layers = useChosenLayers(slide, own);
  const [eyesOpen, setEyesOpen] = useState(false);
  const light = own.light ?? {};
  const set = (of: readonly LayerOnSlide[], part: Partial<Record<keyof Light, unknown>>, joins?: string) =>
    edit(
      {
        kind: 'set-light',
        lights: of.map(({ slideId, layer }) => ({ slideId, layerId: layer.id, light: withPart(layer.light, part) })),
      },
      joins && `${joins} ${own.id}`,
    );
  const change = (part: Partial<Record<keyof Light, unknown>>, joins?: string) => set(layers, part, joins);
  const known = facts?.kind === 'picture' ? facts : null;
  const points =
    light.levels === 'automatic'
      ? (known?.tonePoints ?? { black: 0, white: 1 })
      : (light.levels ?? { black: 0, white: 1 });
  const level = (next: { black: number; white: number }) =>
    change({ levels: next.black === 0 && next.white === 1 ? undefined : next }, 'light levels');
  return (
    <div data-part="light">
      <LightPrints
        show={show}
        layer={own}
        facts={facts}
        onTake={(next) =>
          edit({
            kind: 'set-light',
            lights: layers.map(({ slideId, layer }) => ({
              slideId,
              layerId: layer.id,
              light: next(layer.light) ?? null,
            })),
          })
        }
      />
      <div className="mt-1.5 mb-3 flex flex-wrap items-center gap-2">
        <Button
          className="h-7"
          aria-pressed={light.levels === 'automatic'}
          onClick={() => change({ levels: light.levels === 'automatic' ? undefined : 'automatic' })}
        >
          levels by themselves
        </Button>
        {own.kind === 'picture' && (
          <Button className="h-7" aria-expanded={eyesOpen} onClick={() => setEyesOpen(!eyesOpen)}>
            red eyes{light.redEyes && light.redEyes.length > 0 ? `: ${light.redEyes.length}` : ''}
          </Button>
        )}
        <Button
          className="h-7"
          disabled={layers.every(({ layer }) => !layer.light)}
          onClick={() =>
            edit({
              kind: 'set-light',
              lights: layers.map(({ slideId, layer }) => ({ slideId, layerId: layer.id, light: null })),
            })
          }
        >
          as it was
        </Button>
        <Button
          className="h-7"
          disabled={!own.light}
          title="Hold it (or L) to see the pictures before their light"
          onPointerDown={holdBefore}
          onKeyDown={(event) => {
            if (event.key === ' ' || event.key === 'Enter') holdBefore();
          }}
          data-part="hold-before"
        >
          hold: before
        </Button>
        {layers.length > 1 && <EvenOut own={own} layers={layers} />}
        {layers.length > 1 && <span className="text-soft">for {layers.length} chosen pictures</span>}
      </div>
      {eyesOpen && own.kind === 'picture' && known && (
        <div className="mb-3">
          <RedEyes
            assetId={own.assetId}
            picture={known}
            shown={factsInUse(own, known)}
            crop={own.crop}
            eyes={light.redEyes ?? []}
            onChange={(redEyes, joins) =>
              set([{ slideId: slide.id, layer: own }], { redEyes: redEyes.length === 0 ? undefined : redEyes }, joins)
            }
          />
        </div>
      )}
      {pixels && (
        <div className="mb-3">
          <Histogram pixels={pixels} />
        </div>
      )}
      <div className="grid grid-cols-1 gap-x-8 gap-y-0.5 2xl:grid-cols-2">
        {light.print && (
          <Amount
            label="Print’s strength"
            value={light.print.strength}
            min={0}
            max={1}
            rest={1}
            shown={`${Math.round(100 * light.print.strength)}`}
            onChange={(strength) => change({ print: { ...light.print, strength } }, 'light print')}
          />
        )}
        {AMOUNTS.map(({ name, label, min, max }) => {
          const value = firstValue(light[name]);
          return (
            <Amount
              key={name}
              label={label}
              value={value}
              min={min}
              max={max}
              rest={0}
              keyed={isMoving(light[name])}
              shown={name === 'exposure' ? value.toFixed(1) : `${Math.round(100 * value)}`}
              onChange={(next) => change({ [name]: next === 0 ? undefined : next }, `light ${name}`)}
            />
          );
        })}
        <Amount
          label="Black point"
          value={points.black}
          min={0}
          max={0.6}
          rest={0}
          shown={`${Math.round(255 * points.black)}`}
          onChange={(black) => level({ black, white: Math.max(points.white, black + LEAST_SPAN) })}
        />
        <Amount
          label="White point"
          value={points.white}
          min={0.4}
          max={1}
          rest={1}
          shown={`${Math.round(255 * points.white)}`}
          onChange={(white) => level({ white, black: Math.min(points.black, white - LEAST_SPAN) })}
        />
        <div className="flex items-center gap-2">
          <div className="min-w-0 flex-1">
            <Amount
              label="Colour wash"
              value={firstValue(light.tone?.amount)}
              min={0}
              max={1}
              rest={0}
              shown={`${Math.round(100 * firstValue(light.tone?.amount))}`}
              onChange={(amount) =>
                change(
                  { tone: amount === 0 ? undefined : { colour: light.tone?.colour ?? '#33708f', amount } },
                  'light tone',
                )
              }
            />
          </div>
          {light.tone && (
            <ColourField
              label="Colour of the wash"
              value={light.tone.colour}
              onChange={(colour) => change({ tone: { ...light.tone, colour } }, 'light tone colour')}
            />
          )}
        </div>
      </div>
    </div>
  );
}
