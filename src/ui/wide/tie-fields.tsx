'use client';

import { Crosshair, Eye, X } from 'lucide-react';
import { valueAt } from '../../core/keys/channel';
import { withValues } from '../../core/layers/column-keys';
import type { LayerProperties } from '../../core/show/edits/set-layer-properties';
import type { Layer, Tether } from '../../core/show/layer';
import { faultOfTie } from '../../core/layers/ties';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { NumberField } from '../kit/number-field';
import { Pick } from '../kit/pick';
import { Line } from './stand-fields';
import { say, useOpenSlide } from './use-slide';
import { useWide, useWideStore } from './wide-store';

const FOLLOWED: readonly { readonly part: 'size' | 'turn' | 'tilt' | 'opacity'; readonly name: string }[] = [
  { part: 'size', name: 'size' },
  { part: 'turn', name: 'turn' },
  { part: 'tilt', name: 'tilt' },
  { part: 'opacity', name: 'opacity' },
];

/** Whom a layer follows, and whom it cuts out. */
export function TieFields({ layer }: { layer: Layer }) {
  const store = useWideStore();
  const { slide, seenMs, edit, put, nameOf } = useOpenSlide();
  const asking = useWide((state) => state.asking);
  const offsetMs = useWide((state) => state.offsetMs);
  const maskSeen = useWide((state) => state.maskSeen);
  const { tether, mask } = layer;
  const set = (properties: LayerProperties) => {
    const fault = faultOfTie(
      slide.layers,
      layer.id,
      // Null takes a tie away, which is never at fault.
      Object.fromEntries(Object.entries(properties).map(([name, value]) => [name, value ?? undefined])),
      nameOf,
    );
    if (fault) return say(fault);
    edit({ kind: 'set-layer-properties', slideId: slide.id, layerId: layer.id, properties });
  };
  const tie = (part: Partial<Tether>) => {
    if (!tether) return;
    const next = Object.fromEntries(
      Object.entries({ ...tether, ...part }).filter(([, value]) => value !== undefined && value !== false),
    );
    set({ tether: next as unknown as Tether });
  };
  const ask = (what: 'leader' | 'cut') =>
    store.getState().set({ asking: asking?.for === what ? null : { for: what, layerId: layer.id } });
  return (
    <section aria-label="Ties" className="flex flex-col gap-2" data-part="tie-fields">
      <div className="flex flex-wrap items-center gap-2">
        <span className="w-[68px] shrink-0 text-soft">follows</span>
        <Button
          className="h-7 max-w-[11rem]"
          aria-pressed={asking?.for === 'leader'}
          data-part="tie-to"
          onClick={() => ask('leader')}
        >
          <Crosshair size={13} /> <span className="truncate">{tether ? nameOf(tether.to) : 'tie to …'}</span>
        </Button>
        {tether && (
          <Button
            look="quiet"
            square
            className="size-7"
            aria-label="Follow nothing any more"
            onClick={() => set({ tether: null })}
          >
            <X size={14} />
          </Button>
        )}
      </div>
      {tether && (
        <div className="flex flex-wrap items-center gap-1.5 pl-[76px]" data-part="tether">
          <Pick
            label="Of its place"
            value={!tether.position ? 'none' : (tether.along ?? 'both')}
            groups={[
              {
                name: null,
                options: [
                  { value: 'both', label: 'place' },
                  { value: 'x', label: 'left and right only' },
                  { value: 'y', label: 'up and down only' },
                  { value: 'none', label: 'not its place' },
                ],
              },
            ]}
            onChange={(way) =>
              tie({ position: way !== 'none', along: way === 'x' || way === 'y' ? way : undefined } as Partial<Tether>)
            }
          />
          {FOLLOWED.map(({ part, name }) => (
            <Button
              key={part}
              className="h-7 px-2"
              aria-pressed={Boolean(tether[part])}
              onClick={() => tie({ [part]: !tether[part] })}
            >
              {name}
            </Button>
          ))}
        </div>
      )}
      <div className="flex flex-wrap items-center gap-2">
        <span className="w-[68px] shrink-0 text-soft">cuts out</span>
        {mask ? (
          <>
            <Choice
              label="It cuts by"
              value={mask.by}
              onChange={(by) => set({ mask: { ...mask, by } })}
              options={[
                { value: 'transparency', label: 'transparency' },
                { value: 'brightness', label: 'brightness' },
              ]}
            />
            <Button
              look="quiet"
              square
              className="size-7"
              aria-label="No mask any more"
              onClick={() => set({ mask: null })}
            >
              <X size={14} />
            </Button>
          </>
        ) : (
          <Button
            className="h-7"
            data-part="cut-out"
            onClick={() => set({ mask: { by: 'transparency', cuts: 'below' } })}
          >
            what lies below
          </Button>
        )}
      </div>
      {mask && (
        <div className="flex flex-wrap items-center gap-1.5 pl-[76px]" data-part="mask">
          <Button
            className="h-7 px-2"
            aria-pressed={mask.cuts === 'below'}
            onClick={() => set({ mask: { ...mask, cuts: 'below' } })}
          >
            what lies below
          </Button>
          <Button
            className="h-7 px-2"
            aria-pressed={asking?.for === 'cut'}
            data-part="choose-cut"
            onClick={() => ask('cut')}
          >
            <Crosshair size={13} /> {mask.cuts === 'below' ? 'named layers …' : `${mask.cuts.length} named …`}
          </Button>
          <Button
            className="h-7 px-2"
            aria-pressed={Boolean(mask.inverted)}
            onClick={() => set({ mask: withInverted(mask) })}
          >
            inverted
          </Button>
          <Button
            className="h-7 px-2"
            aria-pressed={maskSeen === layer.id}
            data-part="see-mask"
            onClick={() => store.getState().set({ maskSeen: maskSeen === layer.id ? null : layer.id })}
          >
            <Eye size={13} /> alone
          </Button>
          <Line layer={layer} column="mask" name="softness">
            <NumberField
              label="Softness of the mask, percent of the frame’s height"
              value={100 * (mask.feather === undefined ? 0 : valueAt(mask.feather, offsetMs, seenMs))}
              min={0}
              max={10}
              step={0.1}
              digits={2}
              unit="%"
              onCommit={(value) =>
                put(
                  'soften a mask',
                  withValues(layer, { 'mask/feather': value / 100 }, offsetMs, seenMs),
                  `feather ${layer.id}`,
                )
              }
            />
          </Line>
        </div>
      )}
    </section>
  );
}

function withInverted(mask: NonNullable<Layer['mask']>): NonNullable<Layer['mask']> {
  const { inverted, ...rest } = mask;
  return inverted ? rest : { ...rest, inverted: true };
}
