/** Shapes of OpenTimelineIO’s JSON (schemas as of OpenTimelineIO 0.17), as far as they are read and written here. */

export interface RationalTime {
  readonly OTIO_SCHEMA: 'RationalTime.1';
  readonly rate: number;
  readonly value: number;
}

export interface TimeRange {
  readonly OTIO_SCHEMA: 'TimeRange.1';
  readonly start_time: RationalTime;
  readonly duration: RationalTime;
}

/** Anything with a schema’s name. */
export interface OtioThing {
  readonly OTIO_SCHEMA: string;
  readonly [part: string]: unknown;
}

/** What we keep beside the standard’s own parts, under this name. */
export const OURS = 'tanager';

export const timeOf = (frames: number, rate: number): RationalTime => ({
  OTIO_SCHEMA: 'RationalTime.1',
  rate,
  value: frames,
});

export const rangeOf = (start: number, duration: number, rate: number): TimeRange => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: timeOf(start, rate),
  duration: timeOf(duration, rate),
});

/** `Clip` of `Clip.2`; empty for what has no schema. */
export const schemaOf = (thing: unknown): string => (isThing(thing) ? thing.OTIO_SCHEMA.replace(/\.\d+$/, '') : '');

export function isThing(value: unknown): value is OtioThing {
  return typeof value === 'object' && value !== null && typeof (value as OtioThing).OTIO_SCHEMA === 'string';
}

/** Seconds of a time; null when it is none. */
export function secondsOf(time: unknown): number | null {
  if (schemaOf(time) !== 'RationalTime') return null;
  const { rate, value } = time as unknown as RationalTime;
  return Number.isFinite(rate) && rate > 0 && Number.isFinite(value) ? value / rate : null;
}

/** Where in its medium a range begins, and how long it is, in seconds. */
export function rangeIn(range: unknown): { readonly start: number; readonly duration: number } | null {
  if (schemaOf(range) !== 'TimeRange') return null;
  const start = secondsOf((range as OtioThing).start_time);
  const duration = secondsOf((range as OtioThing).duration);
  return start === null || duration === null || duration < 0 ? null : { start, duration };
}

/** What was noted under our name. */
export function ours(thing: OtioThing): Readonly<Record<string, unknown>> {
  const { metadata } = thing as { metadata?: Record<string, unknown> | null };
  const own = metadata?.[OURS];
  return typeof own === 'object' && own !== null ? (own as Record<string, unknown>) : {};
}

export const listOf = (value: unknown): readonly unknown[] => (Array.isArray(value) ? value : []);

/** A sound by who holds it. */
export const keyOfSound = (slide: string | null | undefined, sound: string | undefined): string =>
  `${slide ?? ''} ${sound ?? ''}`;
