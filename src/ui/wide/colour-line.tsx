'use client';

import { colourAt, type ColourChannel } from '../../core/keys/colour';
import { withValues } from '../../core/layers/column-keys';
import type { Layer } from '../../core/show/layer';
import { ColourField } from '../kit/colour-field';
import { Line } from './stand-fields';
import { useOpenSlide } from './use-slide';
import { useWide } from './wide-store';

/** A colour with its key. */
export function ColourLine({
  layer,
  path,
  channel,
  column,
  name,
}: {
  layer: Layer;
  path: string;
  channel: ColourChannel;
  column: string;
  name: string;
}) {
  const { seenMs, put } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  return (
    <Line layer={layer} column={column} name={name}>
      <ColourField
        label={name === 'colour' ? 'Colour' : `Colour: ${name}`}
        value={colourAt(channel, offsetMs, seenMs)}
        onChange={(colour) =>
          put(
            'colour a layer',
            withValues(layer, { [path]: colour }, offsetMs, seenMs),
            `${path} ${layer.id} ${Math.round(offsetMs)}`,
          )
        }
      />
    </Line>
  );
}
