'use client';

import { Plus, X } from 'lucide-react';
import { colourAt } from '../../core/keys/colour';
import type { Gradient, Layer } from '../../core/show/layer';
import { Button } from '../kit/button';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { ColourLine } from './colour-line';
import { useOpenSlide } from './use-slide';
import { useWide } from './wide-store';

const MOST_STOPS = 12;

/** A gradient: its kind, its angle, its colours and where they stand; each colour with its key. */
export function GradientFields({
  layer,
  part,
  gradient,
  onChange,
}: {
  layer: Layer;
  part: 'gradient' | 'fill';
  gradient: Gradient;
  onChange: (gradient: Gradient) => Layer;
}) {
  const { put, seenMs } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  const set = (next: Gradient, joins?: string) =>
    put('change a gradient', onChange(next), joins && `${joins} ${layer.id}`);
  const { stops } = gradient;
  const widest = stops
    .slice(1)
    .reduce(
      (best, stop, index) => (stop.at - stops[index]!.at > stops[best + 1]!.at - stops[best]!.at ? index : best),
      0,
    );
  return (
    <>
      <div className="flex min-h-8 flex-wrap items-center gap-2">
        <span className="w-[68px] shrink-0 text-soft">goes</span>
        {part === 'gradient' && (
          <Pick
            label="How the gradient goes"
            value={gradient.kind}
            groups={[
              {
                name: null,
                options: [
                  { value: 'linear', label: 'along a line' },
                  { value: 'radial', label: 'outwards' },
                  { value: 'conic', label: 'round' },
                ],
              },
            ]}
            onChange={(kind) => set({ ...gradient, kind })}
          />
        )}
        {gradient.kind !== 'radial' && (
          <NumberField
            label="Angle of the gradient"
            value={gradient.angleDegrees ?? 0}
            min={-360}
            max={360}
            digits={0}
            unit="°"
            onCommit={(angleDegrees) => set({ ...gradient, angleDegrees }, 'angle')}
          />
        )}
      </div>
      {stops.map((stop, index) => (
        <div key={index} className="flex items-center gap-1.5">
          <ColourLine
            layer={layer}
            path={`${part}/stops/${index}/colour`}
            channel={stop.colour}
            column={`stop-${index}`}
            name={`colour ${index + 1}`}
          />
          <NumberField
            label={`Where colour ${index + 1} stands, percent`}
            value={100 * stop.at}
            min={index === 0 ? 0 : Math.ceil(100 * stops[index - 1]!.at + 1)}
            max={index === stops.length - 1 ? 100 : Math.floor(100 * stops[index + 1]!.at - 1)}
            digits={0}
            unit="%"
            onCommit={(at) =>
              set(
                { ...gradient, stops: stops.map((one, other) => (other === index ? { ...one, at: at / 100 } : one)) },
                `stop ${index}`,
              )
            }
            className="[&>input]:w-11"
          />
          {stops.length > 2 && (
            <Button
              look="quiet"
              square
              className="size-7"
              aria-label={`Without colour ${index + 1}`}
              onClick={() => set({ ...gradient, stops: stops.filter((_stop, other) => other !== index) })}
            >
              <X size={13} />
            </Button>
          )}
        </div>
      ))}
      {stops.length < MOST_STOPS && (
        <Button
          look="quiet"
          className="h-7 self-start"
          onClick={() => {
            const [before, after] = [stops[widest]!, stops[widest + 1]!];
            const between = { at: (before.at + after.at) / 2, colour: colourAt(before.colour, offsetMs, seenMs) };
            set({ ...gradient, stops: [...stops.slice(0, widest + 1), between, ...stops.slice(widest + 1)] });
          }}
        >
          <Plus size={13} /> another colour
        </Button>
      )}
    </>
  );
}
