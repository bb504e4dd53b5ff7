import type { AnyChannel } from '../keys/edit-keys';
import { unreachable } from '../unreachable';
import { isLit, type Channels, type Layer } from '../show/layer';
import { LIGHT_AMOUNTS } from '../show/light-amounts';
import { CHANNEL_BOUNDS } from '../show/schemas/layer-schema';

/**
 * Where in a layer a channel lies: the names of the parts that lead to it, with slashes between, such as `channels/x`, `edge/shadow/opacity` or
 * `gradient/stops/0/colour`.
 */
export type ChannelPath = string;

/** A channel a layer may have: what it is without it, and within what bounds it lies; null for a colour. */
export interface ChannelInfo {
  readonly path: ChannelPath;
  readonly usual: number | string;
  readonly bounds: readonly [least: number, most: number] | null;
}

const USUAL: { readonly [Name in keyof Required<Channels>]: number } = {
  x: 0.5,
  y: 0.5,
  width: 1,
  height: 1,
  turnDegrees: 0,
  tiltXDegrees: 0,
  tiltYDegrees: 0,
  z: 0,
  opacity: 1,
  blur: 0,
  cropLeft: 0,
  cropTop: 0,
  cropRight: 0,
  cropBottom: 0,
};

const info = (path: ChannelPath, usual: number | string, least?: number, most?: number): ChannelInfo => ({
  path,
  usual,
  bounds: least === undefined || most === undefined ? null : [least, most],
});

const OWN = (Object.keys(USUAL) as (keyof Channels)[]).map((name) =>
  info(`channels/${name}`, USUAL[name], ...CHANNEL_BOUNDS[name]),
);

/** Every channel that a layer has a place for as it is: one of a shadow only when it has a shadow. */
export function channelsOf(layer: Layer): readonly ChannelInfo[] {
  const found = [...OWN];
  const { edge } = layer;
  if (edge) found.push(info('edge/feather', 0, 0, 0.5));
  if (edge?.outline) found.push(info('edge/outline/width', 0, 0, 0.5));
  if (edge?.shadow)
    found.push(
      info('edge/shadow/x', 0, -1, 1),
      info('edge/shadow/y', 0, -1, 1),
      info('edge/shadow/softness', 0, 0, 0.1),
      info('edge/shadow/opacity', 1, 0, 1),
    );
  if (layer.mask) found.push(info('mask/feather', 0, 0, 0.1));
  if (isLit(layer))
    for (const { name, least, most } of LIGHT_AMOUNTS) found.push(info(`light/${name}`, 0, least, most));
  found.push(...ownOf(layer));
  return found;
}

function ownOf(layer: Layer): ChannelInfo[] {
  switch (layer.kind) {
    case 'solid':
      return [info('colour', '#000000')];
    case 'shape':
      return layer.fill.kind === 'colour' ? [info('fill/colour', '#ffffff')] : stopsOf('fill', layer.fill.stops.length);
    case 'gradient':
      return stopsOf('gradient', layer.gradient.stops.length);
    case 'words':
      return [info('style/colour', '#ffffff'), info('style/accent', '#ffffff')];
    case 'box':
      return [info('depth', 0, 0, 100)];
    case 'group':
      return layer.space
        ? [
            info('space/distance', 2.5, 0.1, 100),
            info('space/x', 0, -100, 100),
            info('space/y', 0, -100, 100),
            info('space/z', 0, -100, 100),
            info('space/turnDegrees', 0, -36_000, 36_000),
            info('space/tiltXDegrees', 0, -36_000, 36_000),
            info('space/tiltYDegrees', 0, -36_000, 36_000),
          ]
        : [];
    case 'picture':
    case 'clip':
    case 'drawing':
      return [];
    default:
      return unreachable(layer);
  }
}

function stopsOf(part: string, count: number): ChannelInfo[] {
  return Array.from({ length: count }, (_, index) => info(`${part}/stops/${index}/colour`, '#ffffff'));
}

/** The channel that lies there; undefined when the layer does without it. */
export function channelAt(layer: Layer, path: ChannelPath): AnyChannel | undefined {
  let at: unknown = layer;
  for (const name of path.split('/')) {
    if (typeof at !== 'object' || at === null) return undefined;
    at = (at as Record<string, unknown>)[name];
  }
  return at as AnyChannel | undefined;
}

/** The layer with a channel there; without one when it is undefined. Parts that would be left empty are left out. */
export function withChannelAt(layer: Layer, path: ChannelPath, channel: AnyChannel | undefined): Layer {
  return put(layer, path.split('/'), channel) as Layer;
}

const EMPTY_GOES = new Set(['channels', 'light', 'style']);

function put(into: unknown, [name, ...rest]: readonly string[], value: unknown): unknown {
  if (Array.isArray(into)) return into.map((item, index) => (String(index) === name ? put(item, rest, value) : item));
  const before = (into ?? {}) as Record<string, unknown>;
  const after = rest.length === 0 ? value : put(before[name!], rest, value);
  const { [name!]: _gone, ...others } = before;
  if (after === undefined) return others;
  if (EMPTY_GOES.has(name!) && Object.keys(after as object).length === 0) return others;
  return { ...before, [name!]: after };
}
