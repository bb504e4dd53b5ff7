'use client';

import { clsx } from 'clsx';
import { Link2, Link2Off } from 'lucide-react';
import type { ReactNode } from 'react';
import { isMoving, keyIndexAt } from '../../core/keys/edit-keys';
import { channelAt } from '../../core/layers/channel-paths';
import { columnState, withValues, type Values } from '../../core/layers/column-keys';
import { columnsOf } from '../../core/layers/columns';
import { sizeNow, sizeValues, valueNow } from '../../core/layers/stand';
import { BLEND_MODES, type Channels, type Layer } from '../../core/show/layer';
import { CHANNEL_BOUNDS } from '../../core/show/schemas/layer-schema';
import { Button } from '../kit/button';
import { Choice } from '../kit/choice';
import { NumberField } from '../kit/number-field';
import { Pick, plainOptions } from '../kit/pick';
import { useKeyHere } from './use-key-here';
import { useOpenSlide } from './use-slide';
import { useWide, useWideStore } from './wide-store';

/** Where a layer stands and how it is seen, as numbers that can be typed; each with its key. */
export function StandFields({ layer }: { layer: Layer }) {
  const store = useWideStore();
  const { slide, prepared, seenMs, put, edit } = useOpenSlide();
  const offsetMs = useWide((state) => state.offsetMs);
  const unit = useWide((state) => state.unit);
  const linked = useWide((state) => state.linked);
  const guided = useWide((state) => state.guided);
  const { frame } = prepared.show;
  const now = (name: keyof Channels) => valueNow(layer, name, offsetMs, seenMs);
  const set = (values: Values, what: string) =>
    put(what, withValues(layer, values, offsetMs, seenMs), `${what} ${layer.id} ${Math.round(offsetMs)}`);
  const size = sizeNow(layer, prepared.facts, frame, offsetMs, seenMs);
  const length = (
    label: string,
    share: number,
    whole: number,
    least: number,
    most: number,
    commit: (share: number) => void,
  ) =>
    unit === 'shares' ? (
      <NumberField
        label={label}
        value={share}
        min={least}
        max={most}
        step={0.01}
        digits={4}
        onCommit={commit}
        className="w-[72px] [&>input]:w-full"
      />
    ) : (
      <NumberField
        label={`${label}, film pixels`}
        value={share * whole}
        min={least * whole}
        max={most * whole}
        step={1}
        digits={1}
        onCommit={(px) => commit(px / whole)}
        className="w-[72px] [&>input]:w-full"
      />
    );
  const sized = (side: 'width' | 'height') => (share: number) => {
    const ratio = side === 'width' ? share / size.width : share / size.height;
    const [w, h] =
      side === 'width'
        ? [share, linked ? size.height * ratio : size.height]
        : [linked ? size.width * ratio : size.width, share];
    set(sizeValues(size, w, h), 'size a layer');
  };
  const plain = (
    name: keyof Channels,
    label: string,
    what: string,
    { scale = 1, digits = 1, step = 1, unit: sign = '' } = {},
  ) => (
    <NumberField
      label={label}
      value={now(name) * scale}
      min={CHANNEL_BOUNDS[name][0] * scale}
      max={CHANNEL_BOUNDS[name][1] * scale}
      step={step}
      digits={digits}
      unit={sign}
      onCommit={(value) => set({ [`channels/${name}`]: value / scale }, what)}
      className="[&>input]:w-16"
    />
  );
  return (
    <section aria-label="Where it stands" className="flex flex-col gap-1.5" data-part="stand-fields">
      <div className="flex flex-wrap items-center gap-2 pb-0.5">
        <Choice
          label="Numbers in"
          value={unit}
          onChange={(next) => store.getState().set({ unit: next })}
          options={[
            { value: 'shares', label: 'shares' },
            { value: 'pixels', label: 'film pixels' },
          ]}
        />
        <Button
          className="h-7"
          aria-pressed={guided}
          title="Edges, middles, thirds and gaps catch; Alt: not this time"
          onClick={() => store.getState().set({ guided: !guided })}
        >
          guides catch
        </Button>
      </div>
      <Line layer={layer} column="place" name="place">
        {length('Place from the left', now('x'), frame.widthPx, -100, 100, (x) =>
          set({ 'channels/x': x }, 'move a layer'),
        )}
        {length('Place from the top', now('y'), frame.heightPx, -100, 100, (y) =>
          set({ 'channels/y': y }, 'move a layer'),
        )}
      </Line>
      <Line layer={layer} column="size" name="size">
        {length('Width', size.width, frame.widthPx, 0.001, 100, sized('width'))}
        <Button
          look="quiet"
          square
          className="-mx-1 size-6"
          aria-label={linked ? 'Width and height change alike' : 'Width and height change by themselves'}
          aria-pressed={linked}
          onClick={() => store.getState().set({ linked: !linked })}
        >
          {linked ? <Link2 size={13} /> : <Link2Off size={13} />}
        </Button>
        {length('Height', size.height, frame.heightPx, 0.001, 100, sized('height'))}
      </Line>
      <Line layer={layer} column="turn" name="turn">
        {plain('turnDegrees', 'Turn, degrees clockwise', 'turn a layer', { unit: '°' })}
      </Line>
      <Line layer={layer} column="tilt" name="tilt">
        {plain('tiltXDegrees', 'Tilt of the top away, degrees', 'tilt a layer', { unit: '°' })}
        {plain('tiltYDegrees', 'Tilt of the right side away, degrees', 'tilt a layer', { unit: '°' })}
      </Line>
      <Line layer={layer} column="near" name="nearness">
        {plain('z', 'Towards the viewer, heights of the frame', 'bring a layer nearer', { digits: 2, step: 0.05 })}
      </Line>
      <Line layer={layer} column="opacity" name="opacity">
        {plain('opacity', 'Opacity, percent', 'fade a layer', { scale: 100, digits: 0, step: 5, unit: '%' })}
      </Line>
      <Line layer={layer} column="blur" name="blur">
        {plain('blur', 'Blur, percent of the frame’s height', 'blur a layer', {
          scale: 100,
          digits: 2,
          step: 0.1,
          unit: '%',
        })}
      </Line>
      {(['cropLeft', 'cropTop', 'cropRight', 'cropBottom'] as const).some(
        (name) => layer.channels?.[name] !== undefined,
      ) && (
        <Line layer={layer} column="crop" name="crop">
          {plain('cropLeft', 'Cut from the left, percent', 'crop a layer', { scale: 100, digits: 0, unit: '' })}
          {plain('cropTop', 'Cut from the top, percent', 'crop a layer', { scale: 100, digits: 0, unit: '' })}
          {plain('cropRight', 'Cut from the right, percent', 'crop a layer', { scale: 100, digits: 0, unit: '' })}
          {plain('cropBottom', 'Cut from the bottom, percent', 'crop a layer', { scale: 100, digits: 0, unit: '%' })}
        </Line>
      )}
      <div className="flex min-h-8 items-center gap-2">
        <span className="w-[68px] shrink-0 text-soft">blends</span>
        <Pick
          label="How it blends with what lies below"
          value={layer.blend ?? 'normal'}
          groups={[{ name: null, options: plainOptions(BLEND_MODES) }]}
          onChange={(blend) =>
            edit({
              kind: 'set-layer-properties',
              slideId: slide.id,
              layerId: layer.id,
              properties: { blend: blend === 'normal' ? null : blend },
            })
          }
        />
      </div>
    </section>
  );
}

/** A line of fields with the key of its column at its end: filled where a key stands at this moment. */
export function Line({
  layer,
  column: id,
  name,
  children,
}: {
  layer: Layer;
  column: string;
  name: string;
  children: ReactNode;
}) {
  const { seenMs } = useOpenSlide();
  const keyHere = useKeyHere();
  const offsetMs = useWide((state) => state.offsetMs);
  const column = columnsOf(layer).find((one) => one.id === id);
  const state = column ? columnState(layer, column) : 'still';
  const stands = column?.channels.some(({ path }) => {
    const channel = channelAt(layer, path);
    return isMoving(channel) && keyIndexAt(channel, offsetMs, seenMs) >= 0;
  });
  return (
    <div className="flex min-h-8 flex-wrap items-center gap-2">
      <span className="w-[68px] shrink-0 truncate text-soft">{name}</span>
      {children}
      {column && (
        <button
          type="button"
          data-part="field-key"
          data-column={id}
          aria-pressed={Boolean(stands)}
          aria-label={stands ? `${name}: there is a key here` : `${name}: a key here`}
          title={
            state === 'still'
              ? 'Its first key: from then on it can change over time'
              : stands
                ? 'There is a key here'
                : 'A key here'
          }
          className={clsx(
            'grid size-7 shrink-0 place-items-center rounded-md hover:bg-rule/60',
            state === 'still' && 'opacity-60',
          )}
          onClick={() => keyHere(layer, [column], offsetMs)}
        >
          <svg aria-hidden="true" viewBox="0 0 20 14" className="h-3 w-5">
            <path d="M1 4h18" strokeWidth={2} className={state === 'moving' ? 'stroke-slate' : 'stroke-soft'} />
            <path
              d="M5 4a5 5 0 0 0 10 0z"
              strokeWidth={1.5}
              className={
                stands
                  ? 'fill-slate stroke-slate'
                  : state === 'moving'
                    ? 'fill-none stroke-slate'
                    : 'fill-none stroke-soft'
              }
            />
          </svg>
        </button>
      )}
    </div>
  );
}
