import { curveOf, type Easing } from './easing';
import { smoothValue } from './smooth';

/** A value that stands still, or goes from key to key while the slide is seen. */
export type Channel = number | KeyedChannel;

export interface KeyedChannel {
  readonly keys: readonly Key[];
  /** Goes through its keys in one smooth curve instead of along straight lines: see `smooth.ts`. */
  readonly smooth?: boolean;
  /** It stands still at this, and keeps its keys for when it moves again. */
  readonly still?: number;
}

/** When a key is, and how things go on from there to the next; `settle` when that is left out. */
export interface KeyMoment {
  readonly at: KeyTime;
  readonly easing?: Easing;
}

export interface Key extends KeyMoment {
  readonly value: number;
  /** Of a smooth channel: how steeply it comes to the key and leaves it, per second. Worked out from the neighbours when left out. */
  readonly slopes?: { readonly in: number; readonly out: number };
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
  const { keys, still } = channel;
  if (still !== undefined) return still;
  const times = keyTimes(keys, seenMs);
  const { from, to, progress } = between(keys, times, offsetMs);
  if (to === null) return keys[from]!.value;
  const eased = curveOf(keys[from]!.easing ?? 'settle')(progress);
  if (channel.smooth) return smoothValue(keys, times, from, eased);
  return keys[from]!.value + (keys[to]!.value - keys[from]!.value) * eased;
}

/**
 * Between which keys an offset lies, and how far on the way; `to` is null before the first key and from the last on.
 *
 * @throws {RangeError} when there are no keys
 */
export function between(
  keys: readonly KeyMoment[],
  times: readonly number[],
  offsetMs: number,
): { from: number; to: number | null; progress: number } {
  if (keys.length === 0) throw new RangeError('a keyed channel needs at least one key, got none');
  let index = -1;
  while (index + 1 < keys.length && times[index + 1]! <= offsetMs) index += 1;
  if (index < 0) return { from: 0, to: null, progress: 0 };
  if (index + 1 >= keys.length) return { from: index, to: null, progress: 0 };
  const progress = (offsetMs - times[index]!) / (times[index + 1]! - times[index]!);
  return { from: index, to: index + 1, progress };
}

/** Offsets of keys in ms. Keys keep their order: where a short slide would bring one before its forerunner, it waits for it. */
export function keyTimes(keys: readonly KeyMoment[], seenMs: number): number[] {
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

/** An offset as a key's time. Whole milliseconds from the ends; a share keeps what it is given. */
export function tiedAt(tied: KeyTime['tied'], offsetMs: number, seenMs: number): KeyTime {
  const held = Math.min(seenMs, Math.max(0, offsetMs));
  if (tied === 'start') return { tied, ms: Math.round(held) };
  return tied === 'end' ? { tied, ms: Math.round(seenMs - held) } : { tied, share: held / seenMs };
}

/** What a channel begins with, as a number to show: a keyed one counts by its first key. */
export function firstValue(channel: Channel | undefined, otherwise = 0): number {
  return channel === undefined
    ? otherwise
    : typeof channel === 'number'
      ? channel
      : (channel.still ?? channel.keys[0]!.value);
}
