import { curveOf, type Easing } from './easing';

/** A value that stands still, or goes from key to key while the slide is seen. */
export type Channel = number | { readonly keys: readonly Key[] };

export interface Key {
  readonly at: KeyTime;
  readonly value: number;
  /** From this key to the next; `settle` when left out. */
  readonly easing?: Easing;
}

/** What a key's time is measured from, so that a change of the slide's length never ruins the work. `ms` counts inwards from either end; `share` is 0…1 of the whole. */
export type KeyTime =
  | { readonly tied: 'start'; readonly ms: number }
  | { readonly tied: 'end'; readonly ms: number }
  | { readonly tied: 'stretch'; readonly share: number };

/**
 * The channel's value at an offset, held flat before the first key and after the last.
 *
 * @param offsetMs from the start of the slide; may be fractional
 * @param seenMs how long the slide is seen, its leaving transition included
 * @throws {RangeError} when there are no keys
 */
export function valueAt(channel: Channel, offsetMs: number, seenMs: number): number {
  if (typeof channel === 'number') return channel;
  const { keys } = channel;
  if (keys.length === 0) throw new RangeError('a keyed channel needs at least one key, got none');
  const times = keyTimes(keys, seenMs);
  let index = -1;
  while (index + 1 < keys.length && times[index + 1]! <= offsetMs) index += 1;
  if (index < 0) return keys[0]!.value;
  const from = keys[index]!;
  const to = keys[index + 1];
  if (!to) return from.value;
  const progress = (offsetMs - times[index]!) / (times[index + 1]! - times[index]!);
  return from.value + (to.value - from.value) * curveOf(from.easing ?? 'settle')(progress);
}

/** Offsets of keys in ms. Keys keep their order: where a short slide would bring one before its forerunner, it waits for it. */
export function keyTimes(keys: readonly Key[], seenMs: number): number[] {
  let latest = 0;
  return keys.map((key) => {
    latest = Math.max(latest, keyTimeMs(key.at, seenMs));
    return latest;
  });
}

export function keyTimeMs(at: KeyTime, seenMs: number): number {
  if (at.tied === 'start') return at.ms;
  return at.tied === 'end' ? seenMs - at.ms : at.share * seenMs;
}

/** The same channel with a key at an offset; between two keys it takes the value that was there, tied as its forerunner is. */
export function withKeyAt(channel: Channel, offsetMs: number, seenMs: number): Channel {
  const value = valueAt(channel, offsetMs, seenMs);
  if (typeof channel === 'number') return { keys: [{ at: { tied: 'start', ms: Math.round(offsetMs) }, value }] };
  const times = keyTimes(channel.keys, seenMs);
  if (times.includes(offsetMs)) return channel;
  const next = times.findIndex((time) => time > offsetMs);
  const at = next < 0 ? channel.keys.length : next;
  const tied = channel.keys[Math.max(0, at - 1)]!.at.tied;
  const key: Key = {
    at: tiedAt(tied, offsetMs, seenMs),
    value,
    ...(channel.keys[Math.max(0, at - 1)]!.easing && { easing: channel.keys[Math.max(0, at - 1)]!.easing! }),
  };
  return { keys: [...channel.keys.slice(0, at), key, ...channel.keys.slice(at)] };
}

function tiedAt(tied: KeyTime['tied'], offsetMs: number, seenMs: number): KeyTime {
  if (tied === 'start') return { tied, ms: Math.round(offsetMs) };
  return tied === 'end' ? { tied, ms: Math.round(seenMs - offsetMs) } : { tied, share: offsetMs / seenMs };
}

/** What a channel begins with, as a number to show: a keyed one counts by its first key. */
export function firstValue(channel: Channel | undefined, otherwise = 0): number {
  return channel === undefined ? otherwise : typeof channel === 'number' ? channel : channel.keys[0]!.value;
}
