'use client';

import { valueAt, type Channel } from '../../core/keys/channel';
import { withValues } from '../../core/layers/column-keys';
import type { Edge, Layer } from '../../core/show/layer';
import { Button } from '../kit/button';
import { ColourField } from '../kit/colour-field';
import { NumberField } from '../kit/number-field';
import { Line } from './stand-fields';
import { useOpenSlide } from './use-slide';
import { useWide } from './wide-store';

const OUTLINE: NonNullable<Edge['outline']> = { width: 0.02, colour: '#fcfaf5', where: 'outside' };
const SHADOW: NonNullable<Edge['shadow']> = { x: 0.004, y: 0.012, softness: 0.02, colour: '#171513', opacity: 0.5 };

/** Softness, outline and shadow of a layer, with their keys. Shapes of edges are under Edge, on the folded bench. */
export function EdgeFields({ layer }: { layer: Layer }) {
  const { slide, seenMs, edit, put } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  const edge = layer.edge ?? {};
  const replace = (next: Edge) =>
    edit({
      kind: 'set-edge',
      edges: [{ slideId: slide.id, layerId: layer.id, edge: Object.keys(next).length > 0 ? next : null }],
    });
  const field = (label: string, path: string, channel: Channel | undefined, most: number, least = 0) => (
    <NumberField
      label={label}
      value={100 * (channel === undefined ? 0 : valueAt(channel, offsetMs, seenMs))}
      min={100 * least}
      max={100 * most}
      step={0.5}
      digits={1}
      onCommit={(value) =>
        put('change an edge', withValues(layer, { [path]: value / 100 }, offsetMs, seenMs), `${path} ${layer.id}`)
      }
      className="[&>input]:w-12"
    />
  );
  const { outline, shadow, ...shaped } = edge;
  return (
    <section aria-label="Edge" className="flex flex-col gap-1.5" data-part="wide-edge">
      <div className="flex flex-wrap gap-1.5">
        <Button
          className="h-7"
          aria-pressed={Boolean(outline)}
          onClick={() => replace(outline ? { ...shaped, ...(shadow && { shadow }) } : { ...edge, outline: OUTLINE })}
        >
          outline
        </Button>
        <Button
          className="h-7"
          aria-pressed={Boolean(shadow)}
          onClick={() => replace(shadow ? { ...shaped, ...(outline && { outline }) } : { ...edge, shadow: SHADOW })}
        >
          shadow
        </Button>
      </div>
      <Line layer={layer} column="feather" name="soft edge">
        {layer.edge && field('Softness of the edge, percent of its shorter side', 'edge/feather', edge.feather, 0.5)}
        {!layer.edge && <span className="text-soft">with an outline or a shadow</span>}
      </Line>
      {outline && (
        <Line layer={layer} column="outline" name="outline">
          {field('Width of the outline, percent of its shorter side', 'edge/outline/width', outline.width, 0.5)}
          <ColourField
            label="Colour of the outline"
            value={outline.colour}
            onChange={(colour) => replace({ ...edge, outline: { ...outline, colour } })}
          />
        </Line>
      )}
      {shadow && (
        <Line layer={layer} column="shadow" name="shadow">
          {field('Shadow to the right, percent of the frame’s height', 'edge/shadow/x', shadow.x, 1, -1)}
          {field('Shadow downwards, percent of the frame’s height', 'edge/shadow/y', shadow.y, 1, -1)}
          {field('Softness of the shadow, percent of the frame’s height', 'edge/shadow/softness', shadow.softness, 0.1)}
          {field('Opacity of the shadow, percent', 'edge/shadow/opacity', shadow.opacity, 1)}
          <ColourField
            label="Colour of the shadow"
            value={shadow.colour}
            onChange={(colour) => replace({ ...edge, shadow: { ...shadow, colour } })}
          />
        </Line>
      )}
    </section>
  );
}
