import { maybe, number, object, oneOf, orNull, type Schema } from '../../schema/schema';
import type { Channel, Key, KeyTime } from '../../keys/channel';
import type { ShowEdit } from '../edit';
import type { Channels } from '../layer';
import { MOST_KEYS } from '../limits';
import { layerIn } from '../pile';
import { EASING, KEY_TIME, SLOPES } from '../schemas/channel-schema';
import { CHANNEL_BOUNDS } from '../schemas/layer-schema';
import { LAYER_ADDRESS, placeOfLayer, refused, slideOf, type LayerAddress } from './changing';
import type { EditRecord } from './edit-record';

/** One key of a channel, named by its time; null removes it. A channel that had none begins with it, and one that loses its last stands still at that value. */
export interface SetKey extends LayerAddress {
  readonly kind: 'set-key';
  readonly channel: keyof Channels;
  readonly at: KeyTime;
  readonly key: Omit<Key, 'at'> | null;
  /** The key a new one comes after; null for the first. */
  readonly after: KeyTime | null;
}

const KEY: Schema = object<Omit<Key, 'at'>>({
  value: number(-36_000, 36_000),
  easing: maybe(EASING),
  slopes: maybe(SLOPES),
});

export const setKey: EditRecord<SetKey> = {
  kind: 'set-key',
  parts: {
    ...LAYER_ADDRESS,
    channel: oneOf(Object.keys(CHANNEL_BOUNDS)),
    at: KEY_TIME,
    key: orNull(KEY),
    after: orNull(KEY_TIME),
  },
  fault({ channel, key }) {
    const [least, most] = CHANNEL_BOUNDS[channel];
    return key && (key.value < least || key.value > most)
      ? `a key of ${channel} must lie within ${least} and ${most}`
      : null;
  },
  apply(show, edit, nested) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    const layer = layerIn(slide.layers, edit.layerId);
    const before = layer?.channels?.[edit.channel];
    const keys = typeof before === 'object' ? before.keys : [];
    const index = keys.findIndex((key) => isSameTime(key.at, edit.at));
    if (!layer || (!edit.key && index < 0)) return refused('layer-not-found');
    if (edit.key && index < 0 && keys.length >= MOST_KEYS) return refused('too-many-keys');
    const result = nested(show, channelEdit(edit, like(before, withKey(keys, index, edit))));
    if (!result.ok) return result;
    return keys.length > 0 && hasOwnTimes(keys)
      ? { ...result, inverse: inverseOf(edit, keys, index) ?? result.inverse }
      : result;
  },
  touched: (edit) => [placeOfLayer(edit, `channels/${edit.channel}/${JSON.stringify(edit.at)}`)],
  sentence: (edit) => (edit.key ? 'set a key' : 'remove a key'),
};

function channelEdit({ slideId, layerId, channel }: SetKey, value: Channel): ShowEdit {
  return { kind: 'set-channels', slideId, layerId, channels: { [channel]: value } };
}

/** A smooth channel stays one. */
function like(before: Channel | undefined, after: Channel): Channel {
  return typeof before === 'object' && before.smooth && typeof after === 'object' ? { ...before, ...after } : after;
}

function withKey(keys: readonly Key[], index: number, { at, key, after }: SetKey): Channel {
  if (!key) {
    const rest = keys.filter((_key, other) => other !== index);
    return rest.length > 0 ? { keys: rest } : keys[index]!.value;
  }
  const set: Key = { at, ...key };
  if (index >= 0) return { keys: keys.map((other, position) => (position === index ? set : other)) };
  const before = after === null ? -1 : keys.findIndex((other) => isSameTime(other.at, after));
  const place = after !== null && before < 0 ? keys.length : before + 1;
  return { keys: [...keys.slice(0, place), set, ...keys.slice(place)] };
}

/** By this key alone, so that it leaves other hands' keys as they are; null when the channel itself must be put back. */
function inverseOf(edit: SetKey, keys: readonly Key[], index: number): SetKey | null {
  if (index < 0) return { ...edit, key: null };
  if (!edit.key && keys.length === 1) return null;
  const { at: _at, ...key } = keys[index]!;
  return { ...edit, key, after: keys[index - 1]?.at ?? null };
}

function isSameTime(one: KeyTime, other: KeyTime): boolean {
  if (one.tied === 'stretch') return other.tied === 'stretch' && one.share === other.share;
  return one.tied === other.tied && one.ms === (other as { ms?: number }).ms;
}

/** Whether every key can be told by its time. */
function hasOwnTimes(keys: readonly Key[]): boolean {
  return keys.every((key, index) => keys.findIndex((other) => isSameTime(other.at, key.at)) === index);
}
