'use client';

import { anyValueAt } from '../../core/keys/edit-keys';
import { channelAt, withChannelAt } from '../../core/layers/channel-paths';
import { withValues } from '../../core/layers/column-keys';
import { isLit, type Layer } from '../../core/show/layer';
import { LIGHT_AMOUNTS } from '../../core/show/light-amounts';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { Line } from './stand-fields';
import { useOpenSlide } from './use-slide';
import { useWide } from './wide-store';

/** The amounts of light a layer has, as numbers with their keys. All of them, with levels and prints, are under Light on the folded bench. */
export function LightFields({ layer }: { layer: Layer }) {
  const { seenMs, put } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  if (!isLit(layer)) return null;
  const own = LIGHT_AMOUNTS.filter(({ name }) => channelAt(layer, `light/${name}`) !== undefined);
  const others = LIGHT_AMOUNTS.filter((amount) => !own.includes(amount));
  return (
    <section aria-label="Light" className="flex flex-col gap-1.5" data-part="light-fields">
      {own.map(({ name, called, least, most }) => {
        const path = `light/${name}`;
        // Stops for exposure, hundredths for the others.
        const scale = name === 'exposure' ? 1 : 100;
        return (
          <Line key={name} layer={layer} column={`light-${name}`} name={called}>
            <NumberField
              label={`Light: ${called}`}
              value={scale * Number(anyValueAt(channelAt(layer, path)!, offsetMs, seenMs))}
              min={scale * least}
              max={scale * most}
              step={name === 'exposure' ? 0.1 : 5}
              digits={name === 'exposure' ? 2 : 0}
              onCommit={(value) =>
                put(
                  'change the light',
                  withValues(layer, { [path]: value / scale }, offsetMs, seenMs),
                  `${path} ${layer.id} ${Math.round(offsetMs)}`,
                )
              }
            />
          </Line>
        );
      })}
      <div className="flex min-h-8 items-center gap-2">
        <span className="w-[68px] shrink-0 text-soft">light</span>
        <Pick
          label="Another amount of light"
          value="more"
          groups={[
            {
              name: null,
              options: [
                { value: 'more', label: own.length > 0 ? 'another amount …' : 'an amount …' },
                ...others.map(({ name, called }) => ({ value: name as string, label: called })),
              ],
            },
          ]}
          onChange={(name) => {
            if (name !== 'more') put('change the light', withChannelAt(layer, `light/${name}`, 0));
          }}
        />
      </div>
    </section>
  );
}
