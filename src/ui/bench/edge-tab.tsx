'use client';

import type { Channel } from '../../core/keys/channel';
import type { ClipLayer, Edge, EdgeShape, PictureLayer } from '../../core/show/layer';
import type { Slide } from '../../core/show/show';
import { Amount } from '../kit/amount';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { useShow } from '../show/show-provider';
import { useChosenLayers } from './chosen-layers';

const SHADOW: NonNullable<Edge['shadow']> = { x: 0.012, y: 0.018, softness: 0.018, colour: '#000000', opacity: 0.55 };

/** Shape, outline, feather and shadow of the picture; a change applies to all chosen slides. */
export function EdgeTab({ slide, layer: own }: { slide: Slide; layer: PictureLayer | ClipLayer }) {
  const edit = useShow((state) => state.edit);
  const layers = useChosenLayers(slide, own);
  const edge = own.edge ?? {};
  const change = (part: Partial<Record<keyof Edge, unknown>>, joins?: string) => edit({ kind: 'set-edge', edges: layers.map((layer) => ({ layerId: layer.id, edge: withPart(layer.edge ?? {}, part) })) }, joins && `${joins} ${own.id}`);
  const numberOf = (channel: Channel | undefined) => (typeof channel === 'number' ? channel : channel ? channel.keys[0]!.value : 0);
  const shape = edge.shape?.kind ?? 'plain';
  const shapes: Record<'plain' | 'rounded' | 'ellipse', EdgeShape | undefined> = { plain: undefined, rounded: { kind: 'rounded', radius: 0.08 }, ellipse: { kind: 'ellipse' } };
  const percent = (value: number) => `${(100 * value).toFixed(1)} %`;
  return (
    <div data-part="edge" className="flex flex-col gap-2">
      <div className="flex flex-wrap items-center gap-2">
        <Choice label="Shape" value={shape === 'free' ? 'plain' : shape} onChange={(kind) => change({ shape: shapes[kind] })} options={[{ value: 'plain', label: 'plain' }, { value: 'rounded', label: 'rounded' }, { value: 'ellipse', label: 'oval' }]} />
        <Button className="h-7" disabled={layers.every((layer) => !layer.edge)} onClick={() => edit({ kind: 'set-edge', edges: layers.map((layer) => ({ layerId: layer.id, edge: null })) })}>as it was</Button>
        {layers.length > 1 && <span className="text-soft">for {layers.length} chosen pictures</span>}
      </div>
      {edge.shape?.kind === 'rounded' && <Amount label="Roundness" value={edge.shape.radius} min={0} max={0.5} rest={0.08} shown={percent(edge.shape.radius)} onChange={(radius) => change({ shape: { kind: 'rounded', radius } }, 'edge radius')} />}
      <Amount label="Feather" value={numberOf(edge.feather)} min={0} max={0.4} rest={0} shown={percent(numberOf(edge.feather))} onChange={(feather) => change({ feather: feather === 0 ? undefined : feather }, 'edge feather')} />
      <Amount label="Outline" value={numberOf(edge.outline?.width)} min={0} max={0.1} rest={0} shown={percent(numberOf(edge.outline?.width))} onChange={(width) => change({ outline: width === 0 ? undefined : { colour: '#ffffff', where: 'inside', ...edge.outline, width } }, 'edge outline')} />
      {edge.outline && (
        <div className="flex items-center gap-2 pl-[7.5rem]">
          <input type="color" aria-label="Colour of the outline" value={edge.outline.colour} onChange={(event) => change({ outline: { ...edge.outline, colour: event.target.value } }, 'edge colour')} className="h-7 w-10 rounded-md border border-rule bg-white p-0.5" />
          <Choice label="Where the outline lies" value={edge.outline.where} onChange={(where) => change({ outline: { ...edge.outline, where } })} options={[{ value: 'inside', label: 'inside' }, { value: 'centre', label: 'centre' }, { value: 'outside', label: 'outside' }]} />
        </div>
      )}
      <Amount label="Shadow" value={numberOf(edge.shadow?.opacity)} min={0} max={1} rest={0} shown={`${Math.round(100 * numberOf(edge.shadow?.opacity))}`} onChange={(opacity) => change({ shadow: opacity === 0 ? undefined : { ...SHADOW, ...edge.shadow, opacity } }, 'edge shadow')} />
      {edge.shadow && <Amount label="Its softness" value={numberOf(edge.shadow.softness)} min={0} max={0.1} rest={0.018} shown={percent(numberOf(edge.shadow.softness))} onChange={(softness) => change({ shadow: { ...edge.shadow, softness } }, 'edge softness')} />}
      <p className="text-soft">A picture that fills the frame shows its edge where its framing leaves room.</p>
    </div>
  );
}

/** Null when nothing is left of it. */
function withPart(edge: Edge, part: Partial<Record<keyof Edge, unknown>>): Edge | null {
  const kept = Object.fromEntries(Object.entries({ ...edge, ...part }).filter(([, value]) => value !== undefined));
  return Object.keys(kept).length === 0 ? null : kept;
}
