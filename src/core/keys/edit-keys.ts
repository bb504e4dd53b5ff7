import { between, keyTimeMs, keyTimes, tiedAt, valueAt, type Channel, type Key, type KeyTime } from './channel';
import { colourAt, type ColourChannel, type ColourKey } from './colour';
import { curveOf, dividedEasing, type Easing } from './easing';
import { hermiteSlope, slopesAt, STEEPEST } from './smooth';

/** Closer than this two moments are one: half a frame at sixty a second. */
const SAME_MS = 1000 / 120;

/** A channel of numbers or of colours. */
export type AnyChannel = Channel | ColourChannel;
export type AnyKey = Key | ColourKey;
export type Keyed = { readonly keys: readonly AnyKey[]; readonly smooth?: boolean; readonly still?: number | string };

export function isKeyed(channel: AnyChannel | undefined): channel is Extract<AnyChannel, object> {
  return typeof channel === 'object';
}

/** The keys of a channel; none when it stands still. */
export function keysOf(channel: AnyChannel | undefined): readonly AnyKey[] {
  return isKeyed(channel) ? channel.keys : [];
}

/** A channel's value at an offset, number or colour. */
export function anyValueAt(channel: AnyChannel, offsetMs: number, seenMs: number): number | string {
  return isColour(channel) ? colourAt(channel, offsetMs, seenMs) : valueAt(channel, offsetMs, seenMs);
}

export function isColour(channel: AnyChannel): channel is ColourChannel {
  if (typeof channel !== 'object') return typeof channel === 'string';
  return 'colour' in channel.keys[0]!;
}

/** Whether a channel goes from key to key: it has keys, and does not stand still in spite of them. */
export function isMoving(channel: AnyChannel | undefined): channel is Extract<AnyChannel, object> {
  return isKeyed(channel) && channel.still === undefined;
}

/** A channel that stands still at what it is at an offset. It keeps its keys. */
export function withStill(channel: AnyChannel, offsetMs: number, seenMs: number): AnyChannel {
  if (!isMoving(channel)) return channel;
  return { ...channel, still: anyValueAt(channel, offsetMs, seenMs) } as AnyChannel;
}

/** A channel that goes by its keys again. */
export function withoutStill(channel: AnyChannel): AnyChannel {
  if (!isKeyed(channel)) return channel;
  const { still: _still, ...moving } = channel;
  return moving as AnyChannel;
}

/** The key that stands at an offset, or −1. */
export function keyIndexAt(channel: AnyChannel | undefined, offsetMs: number, seenMs: number): number {
  const keys = keysOf(channel);
  const times = keyTimes(keys, seenMs);
  let found = -1;
  times.forEach((time, index) => {
    const off = Math.abs(time - offsetMs);
    if (off <= SAME_MS && (found < 0 || off < Math.abs(times[found]! - offsetMs))) found = index;
  });
  return found;
}

/**
 * The same channel with a key at an offset. It takes the value that was there, and the way to it and from it stays as it was, so that nothing is seen to change.
 * It is tied as its forerunner is; the first key of a channel to where it stands nearest.
 */
export function withKeyAt<Of extends AnyChannel>(channel: Of, offsetMs: number, seenMs: number): Of;
export function withKeyAt(channel: AnyChannel, offsetMs: number, seenMs: number): AnyChannel {
  const here = (moment: number) =>
    isColour(channel) ? { colour: colourAt(channel, moment, seenMs) } : { value: valueAt(channel, moment, seenMs) };
  if (!isKeyed(channel))
    return keyed([{ at: tiedAt(nearerEnd(offsetMs, seenMs), offsetMs, seenMs), ...here(offsetMs) }]);
  if (keyIndexAt(channel, offsetMs, seenMs) >= 0) return channel;
  const keys = channel.keys as readonly AnyKey[];
  const times = keyTimes(keys, seenMs);
  const forerunner = Math.max(
    0,
    times.findLastIndex((time) => time <= offsetMs),
  );
  const at = tiedAt(keys[forerunner]!.at.tied, offsetMs, seenMs);
  // A key stands on a whole millisecond; what it takes is what was there.
  const moment = keyTimeMs(at, seenMs);
  const valued = here(moment);
  const { from, to, progress } = between(keys, times, moment);
  const place = to ?? (moment < times[0]! ? 0 : keys.length);
  if (to === null) return keyed(put(keys, place, { at, ...valued }), channel);
  const { easing: whole = 'settle', ...left } = keys[from]!;
  const [before, after] = dividedEasing(whole, progress);
  const slopes =
    isColour(channel) || !('smooth' in channel && channel.smooth)
      ? null
      : divided(keys as Key[], times, from, progress);
  const next = keys.map((key, index) => {
    if (index === from) return { ...left, ...simply(before), ...(slopes && { slopes: slopes.left }) } as AnyKey;
    return index === to && slopes ? ({ ...key, slopes: slopes.right } as AnyKey) : key;
  });
  return keyed(
    put(next, to, { at, ...valued, ...simply(after), ...(slopes && { slopes: slopes.middle }) } as AnyKey),
    channel,
  );
}

/** The channel with a value at an offset: one that stands still takes it for good, one with keys has a key there afterwards. */
export function withValueAt<Of extends AnyChannel>(
  channel: Of | undefined,
  value: number | string,
  offsetMs: number,
  seenMs: number,
): Of;
export function withValueAt(
  channel: AnyChannel | undefined,
  value: number | string,
  offsetMs: number,
  seenMs: number,
): AnyChannel {
  if (!isKeyed(channel)) return value;
  if (channel.still !== undefined) return { ...channel, still: value } as AnyChannel;
  const there = withKeyAt(channel as AnyChannel, offsetMs, seenMs) as Keyed;
  const index = keyIndexAt(there as AnyChannel, offsetMs, seenMs);
  return changedKey(there, index, (key) =>
    'colour' in key ? { ...key, colour: String(value) } : { ...key, value: Number(value) },
  );
}

/** A key given another value. */
export function withKeyValue(channel: Keyed, index: number, value: number | string): AnyChannel {
  return changedKey(channel, index, (key) =>
    'colour' in key ? { ...key, colour: String(value) } : { ...key, value: Number(value) },
  );
}

/** How a key goes on to the next. */
export function withEasing(channel: Keyed, index: number, easing: Easing): AnyChannel {
  return keyed(
    channel.keys.map((key, at) => (at === index ? { ...key, easing } : key)),
    channel,
  );
}

/** A key at another time, never past its neighbours. */
export function withKeyMoved(channel: Keyed, index: number, toMs: number, seenMs: number): AnyChannel {
  const times = keyTimes(channel.keys, seenMs);
  const held = Math.min(times[index + 1] ?? seenMs, Math.max(times[index - 1] ?? 0, toMs));
  return changedKey(channel, index, (key) => ({ ...key, at: tiedAt(key.at.tied, held, seenMs) }));
}

/** A key tied otherwise; it stays where it is. */
export function withKeyTied(channel: Keyed, index: number, tied: KeyTime['tied'], seenMs: number): AnyChannel {
  const time = keyTimes(channel.keys, seenMs)[index]!;
  return keyed(
    channel.keys.map((key, at) => (at === index ? { ...key, at: tiedAt(tied, time, seenMs) } : key)),
    channel,
  );
}

/** Without a key; the last one leaves its value behind. */
export function withoutKey(channel: Keyed, index: number): AnyChannel {
  const gone = channel.keys[index]!;
  if (channel.keys.length === 1) return 'colour' in gone ? gone.colour : gone.value;
  const rest = channel.keys.map((key, at) => (Math.abs(at - index) === 1 ? freed(key) : key));
  return keyed(
    rest.filter((_key, at) => at !== index),
    channel,
  );
}

/** Through its keys in one curve, or straight from key to key. */
export function withSmooth(channel: Channel, smooth: boolean): Channel {
  if (typeof channel === 'number') return channel;
  const { smooth: _smooth, ...straight } = channel;
  return smooth ? { ...channel, smooth } : { ...straight, keys: channel.keys.map((key) => freed(key) as Key) };
}

/** A key that is changed bends a smooth curve anew, and so do its neighbours. */
function changedKey(channel: Keyed, index: number, change: (key: AnyKey) => AnyKey): AnyChannel {
  return keyed(
    channel.keys.map((key, at) => {
      const own = at === index ? change(key) : key;
      return Math.abs(at - index) <= 1 ? freed(own) : own;
    }),
    channel,
  );
}

function freed(key: AnyKey): AnyKey {
  if (!('slopes' in key)) return key;
  const { slopes: _slopes, ...rest } = key;
  return rest;
}

/** Slopes that leave a smooth curve as it is when a key is put on it. */
function divided(keys: readonly Key[], times: readonly number[], from: number, progress: number) {
  const to = from + 1;
  const wholeS = (times[to]! - times[from]!) / 1000;
  const [left, right] = [slopesAt(keys, times, from), slopesAt(keys, times, to)];
  const at = curveOf(keys[from]!.easing ?? 'settle')(progress);
  const here = hermiteSlope(keys[from]!.value, keys[to]!.value, left.out * wholeS, right.in * wholeS, at);
  // Slopes over the whole way to slopes over the two parts of it, each of which has its own share of the time.
  const [before, after] = [at / progress, (1 - at) / (1 - progress)];
  const sloped = (into: number, out: number) => ({ in: steep(into), out: steep(out) });
  return {
    left: sloped(left.in, left.out * before),
    middle: sloped((here / wholeS) * before, (here / wholeS) * after),
    right: sloped(right.in * after, right.out),
  };
}

/** Keys that stand within a millisecond of each other can ask for more than can be written down. */
function steep(slope: number): number {
  return Math.min(STEEPEST, Math.max(-STEEPEST, slope));
}

function simply(easing: Easing): { easing?: Easing } {
  return easing === 'settle' ? {} : { easing };
}

function nearerEnd(offsetMs: number, seenMs: number): KeyTime['tied'] {
  return offsetMs <= seenMs / 2 ? 'start' : 'end';
}

function put(keys: readonly AnyKey[], at: number, key: AnyKey): AnyKey[] {
  return [...keys.slice(0, at), key, ...keys.slice(at)];
}

function keyed(keys: readonly AnyKey[], like?: Keyed | Extract<AnyChannel, object>): AnyChannel {
  return { ...like, keys } as AnyChannel;
}
