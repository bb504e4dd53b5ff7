'use client';

import type { Channel } from '../../core/keys/channel';
import type { ClipLayer, PictureLayer } from '../../core/show/layer';
import { PRINT_EFFECTS, type Light, type PrintEffect } from '../../core/show/light';
import type { Slide } from '../../core/show/show';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { Pick, plainOptions } from '../kit/pick';
import { useShow } from '../show/show-provider';
import { useChosenLayers } from './chosen-layers';

type AmountName = 'exposure' | 'contrast' | 'highlights' | 'shadows' | 'temperature' | 'tint' | 'saturation' | 'vibrance' | 'paling' | 'blackAndWhite' | 'sepia' | 'vignette' | 'sharpen';
const AMOUNTS: readonly { readonly name: AmountName; readonly label: string; readonly min: number; readonly max: number }[] = [
  { name: 'exposure', label: 'Exposure', min: -3, max: 3 }, { name: 'contrast', label: 'Contrast', min: -1, max: 1 }, { name: 'highlights', label: 'Highlights', min: -1, max: 1 }, { name: 'shadows', label: 'Shadows', min: -1, max: 1 },
  { name: 'temperature', label: 'Warmth', min: -1, max: 1 }, { name: 'tint', label: 'Green–magenta', min: -1, max: 1 }, { name: 'saturation', label: 'Saturation', min: -1, max: 1 }, { name: 'vibrance', label: 'Vibrance', min: -1, max: 1 },
  { name: 'paling', label: 'Paling', min: 0, max: 1 }, { name: 'blackAndWhite', label: 'Black and white', min: 0, max: 1 }, { name: 'sepia', label: 'Sepia', min: 0, max: 1 }, { name: 'vignette', label: 'Vignette', min: 0, max: 1 }, { name: 'sharpen', label: 'Sharpen', min: 0, max: 1 },
];

/** Brightness and colour of the picture; a change applies to all chosen slides, each keeping the rest of its own light. */
export function LightTab({ slide, layer: own }: { slide: Slide; layer: PictureLayer | ClipLayer }) {
  const edit = useShow((state) => state.edit);
  const layers = useChosenLayers(slide, own);
  const light = own.light ?? {};
  const change = (part: Partial<Record<keyof Light, unknown>>, joins?: string) => edit({ kind: 'set-light', lights: layers.map((layer) => ({ layerId: layer.id, light: withPart(layer.light ?? {}, part) })) }, joins && `${joins} ${own.id}`);
  const numberOf = (channel: Channel | undefined) => (typeof channel === 'number' ? channel : channel ? channel.keys[0]!.value : 0);
  const print = light.print?.kind ?? 'none';
  return (
    <div data-part="light">
      <div className="mb-3 flex flex-wrap items-center gap-2">
        <Button className="h-7" aria-pressed={light.levels === 'automatic'} onClick={() => change({ levels: light.levels === 'automatic' ? undefined : 'automatic' })}>levels by themselves</Button>
        <Pick label="Printmaking" value={print} groups={[{ name: null, options: [{ value: 'none' as PrintEffect | 'none', label: 'as a photograph' }, ...plainOptions(PRINT_EFFECTS)] }]} onChange={(kind) => change({ print: kind === 'none' ? undefined : { kind, strength: 1 } })} />
        <Button className="h-7" disabled={layers.every((layer) => !layer.light)} onClick={() => edit({ kind: 'set-light', lights: layers.map((layer) => ({ layerId: layer.id, light: null })) })}>as it was</Button>
        {layers.length > 1 && <span className="text-soft">for {layers.length} chosen pictures</span>}
      </div>
      <div className="grid grid-cols-1 gap-x-8 gap-y-0.5 2xl:grid-cols-2">
        {AMOUNTS.map(({ name, label, min, max }) => {
          const value = numberOf(light[name]);
          return <Amount key={name} label={label} value={value} min={min} max={max} rest={0} shown={name === 'exposure' ? value.toFixed(1) : `${Math.round(100 * value)}`} onChange={(next) => change({ [name]: next === 0 ? undefined : next }, `light ${name}`)} />;
        })}
      </div>
    </div>
  );
}

/** Null when nothing is left of it. */
function withPart(light: Light, part: Partial<Record<keyof Light, unknown>>): Light | null {
  const kept = Object.fromEntries(Object.entries({ ...light, ...part }).filter(([, value]) => value !== undefined));
  return Object.keys(kept).length === 0 ? null : kept;
}
