'use client';

import { useMemo, useState } from 'react';
import { mainColours } from '../../core/light/main-colours';
import type { ClipLayer, PictureLayer } from '../../core/show/layer';
import { Choice } from '../kit/choice';
import { useShow } from '../show/show-provider';
import { useLightPixels } from './use-light-pixels';

const COLOURS = 6;
const COUNTED_PX = 128;

interface PictureColoursProps {
  readonly layer: PictureLayer | ClipLayer;
  readonly onTake: (part: { readonly colour: string } | { readonly accent: string }) => void;
}

/** Colours for words out of the picture they stand on. */
export function PictureColours({ layer, onTake }: PictureColoursProps) {
  const show = useShow((state) => state.show);
  const facts = useShow((state) => state.facts.get(layer.assetId));
  const pixels = useLightPixels(show, layer, facts, COUNTED_PX);
  const colours = useMemo(() => (pixels ? mainColours(pixels.data, COLOURS) : []), [pixels]);
  const [of, setOf] = useState<'title' | 'subtitle'>('title');
  if (colours.length === 0) return null;
  return (
    <div className="flex flex-wrap items-center gap-2" data-part="picture-colours">
      <span className="text-soft">Out of the picture, for the</span>
      <Choice
        label="What gets the colour"
        value={of}
        onChange={setOf}
        options={[
          { value: 'title', label: 'title' },
          { value: 'subtitle', label: 'subtitle' },
        ]}
      />
      {colours.map((colour) => (
        <button
          key={colour}
          type="button"
          aria-label={`${colour} for the ${of}`}
          title={colour}
          onClick={() => onTake(of === 'title' ? { colour } : { accent: colour })}
          className="size-6 rounded-full border border-rule"
          style={{ background: colour }}
        />
      ))}
    </div>
  );
}
