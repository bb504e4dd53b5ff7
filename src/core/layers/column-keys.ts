import { keyTimes, type KeyTime } from '../keys/channel';
import type { Easing } from '../keys/easing';
import {
  anyValueAt,
  isKeyed,
  isMoving,
  keysOf,
  withEasing,
  withKeyAt,
  withKeyMoved,
  withKeyTied,
  withoutKey,
  withoutStill,
  withSmooth,
  withStill,
  withValueAt,
  type AnyChannel,
  type AnyKey,
  type Keyed,
} from '../keys/edit-keys';
import type { Layer } from '../show/layer';
import { MOST_KEYS } from '../show/limits';
import { channelAt, withChannelAt, type ChannelInfo, type ChannelPath } from './channel-paths';
import type { Column } from './columns';

/** Keys of a column's channels that stand at one moment. */
export interface ColumnKey {
  readonly ms: number;
  readonly tied: KeyTime['tied'];
  readonly easing: Easing;
  readonly keys: readonly { readonly path: ChannelPath; readonly index: number }[];
}

/** Values by the channels they belong to: what copying a key takes along. */
export type Values = Readonly<Record<ChannelPath, number | string>>;

/** Closer than this, keys of two channels count as one. In ms. */
const TOGETHER_MS = 2;

/** The keys of a column as they stand in a slide that is seen so long, in order. */
export function columnKeys(layer: Layer, column: Column, seenMs: number): ColumnKey[] {
  const all = column.channels.flatMap(({ path }) => {
    const keys = keysOf(channelAt(layer, path));
    const times = keyTimes(keys, seenMs);
    return keys.map((key, index) => ({ path, index, ms: times[index]!, key }));
  });
  all.sort((one, other) => one.ms - other.ms || one.index - other.index);
  const found: { ms: number; tied: KeyTime['tied']; easing: Easing; keys: { path: string; index: number }[] }[] = [];
  for (const { path, index, ms, key } of all) {
    // Two keys of one channel are two, however close they stand.
    const same = found.find((one) => ms - one.ms <= TOGETHER_MS && one.keys.every((other) => other.path !== path));
    if (same) same.keys.push({ path, index });
    else found.push({ ms, tied: key.at.tied, easing: key.easing ?? 'settle', keys: [{ path, index }] });
  }
  return found;
}

/** Whether a column goes from key to key; `parked` when it has keys and stands still. */
export function columnState(layer: Layer, column: Column): 'still' | 'moving' | 'parked' {
  const channels = column.channels.map(({ path }) => channelAt(layer, path));
  if (channels.some(isMoving)) return 'moving';
  return channels.some(isKeyed) ? 'parked' : 'still';
}

/** What a column's channels are at an offset. */
export function columnValues(layer: Layer, column: Column, offsetMs: number, seenMs: number): Values {
  return Object.fromEntries(
    column.channels.map(({ path, usual }) => [path, anyValueAt(channelAt(layer, path) ?? usual, offsetMs, seenMs)]),
  );
}

/** A key in each of the column's channels; a column that only stood still goes by its keys again. Nothing is seen to change. */
export function withColumnKey(layer: Layer, column: Column, offsetMs: number, seenMs: number): Layer {
  return over(layer, column, (channel, { usual, bounds }) =>
    withinBounds(withKeyAt(withoutStill(channel ?? usual), offsetMs, seenMs), bounds),
  );
}

/** A curve that swings beyond what its channel can be is drawn held to that, and so is a key that is put on it there. */
function withinBounds(channel: AnyChannel, bounds: ChannelInfo['bounds']): AnyChannel {
  if (!bounds || !isKeyed(channel)) return channel;
  const [least, most] = bounds;
  const isOut = (key: AnyKey) => 'value' in key && (key.value < least || key.value > most);
  if (!channel.keys.some(isOut)) return channel;
  return {
    ...channel,
    keys: channel.keys.map((key) =>
      'value' in key ? { ...key, value: Math.min(most, Math.max(least, key.value)) } : key,
    ),
  } as AnyChannel;
}

/** The layer with values at an offset: for good where nothing is keyed, as keys where something is. */
export function withValues(layer: Layer, values: Values, offsetMs: number, seenMs: number): Layer {
  return Object.entries(values).reduce(
    (changed, [path, value]) =>
      withChannelAt(changed, path, withValueAt(channelAt(changed, path), value, offsetMs, seenMs)),
    layer,
  );
}

/** The column standing still at what it is now, its keys kept; or going by them again. */
export function withColumnParked(
  layer: Layer,
  column: Column,
  parked: boolean,
  offsetMs: number,
  seenMs: number,
): Layer {
  return over(layer, column, (channel) =>
    channel === undefined ? channel : parked ? withStill(channel, offsetMs, seenMs) : withoutStill(channel),
  );
}

export function withKeyGone(layer: Layer, key: ColumnKey): Layer {
  return each(layer, key, withoutKey);
}

/** A key at another moment, never past its neighbours. */
export function withKeyShifted(layer: Layer, key: ColumnKey, toMs: number, seenMs: number): Layer {
  return each(layer, key, (channel, index) => withKeyMoved(channel, index, toMs, seenMs));
}

export function withKeyTie(layer: Layer, key: ColumnKey, tied: KeyTime['tied'], seenMs: number): Layer {
  return each(layer, key, (channel, index) => withKeyTied(channel, index, tied, seenMs));
}

export function withKeyEasing(layer: Layer, key: ColumnKey, easing: Easing): Layer {
  return each(layer, key, (channel, index) => withEasing(channel, index, easing));
}

/** Through the column's places in one curve, or straight from one to the next. Colours have no curves. */
export function withColumnSmooth(layer: Layer, column: Column, smooth: boolean): Layer {
  return over(layer, column, (channel) =>
    isKeyed(channel) && !('colour' in channel.keys[0]!)
      ? withSmooth(channel as Parameters<typeof withSmooth>[0], smooth)
      : channel,
  );
}

export function isSmooth(layer: Layer, column: Column): boolean {
  return column.channels.some(({ path }) => {
    const channel = channelAt(layer, path);
    return isKeyed(channel) && 'smooth' in channel && Boolean(channel.smooth);
  });
}

/** Whether another key still fits. */
export function hasRoom(layer: Layer, column: Column): boolean {
  return column.channels.every(({ path }) => keysOf(channelAt(layer, path)).length < MOST_KEYS);
}

function over(
  layer: Layer,
  column: Column,
  change: (channel: AnyChannel | undefined, info: ChannelInfo) => AnyChannel | undefined,
): Layer {
  return column.channels.reduce((changed, info) => {
    const before = channelAt(changed, info.path);
    const after = change(before, info);
    return after === before ? changed : withChannelAt(changed, info.path, after);
  }, layer);
}

function each(layer: Layer, key: ColumnKey, change: (channel: Keyed, index: number) => AnyChannel): Layer {
  return key.keys.reduce((changed, { path, index }) => {
    const channel = channelAt(changed, path);
    return isKeyed(channel) ? withChannelAt(changed, path, change(channel, index)) : changed;
  }, layer);
}
