import { maybe, number, object, oneOf, whole, type Schema } from '../schema/schema';

/** How the sounds of a show are put together, where a person wants it otherwise. */
export interface MixSaid {
  /** How far music goes down under voices and clips: 0 not at all. */
  readonly duckDb?: number;
  /** How long before a voice it begins to go down; it knows what comes. */
  readonly duckInMs?: number;
  /** How long after a voice it takes to come back. */
  readonly duckOutMs?: number;
  /** How loud the film is as a whole; `as-it-is` leaves it. */
  readonly loudness?: LoudnessAim;
}

export type LoudnessAim = '-14' | '-16' | '-23' | 'as-it-is';
export const LOUDNESS_AIMS: readonly LoudnessAim[] = ['-14', '-16', '-23', 'as-it-is'];

export const USUAL_DUCK = { db: 11, inMs: 450, outMs: 450 };
export const USUAL_LOUDNESS: LoudnessAim = '-14';
export const DEEPEST_DUCK_DB = 40;
/** Slower than this the music would go on swelling through the next pause; faster than the least, it would be heard to jump. */
export const DUCK_TIMES = { leastMs: 100, mostMs: 5000 };

export const MIX_SAID: Schema = object<MixSaid>({
  duckDb: maybe(number(0, DEEPEST_DUCK_DB)),
  duckInMs: maybe(whole(DUCK_TIMES.leastMs, DUCK_TIMES.mostMs)),
  duckOutMs: maybe(whole(DUCK_TIMES.leastMs, DUCK_TIMES.mostMs)),
  loudness: maybe(oneOf(LOUDNESS_AIMS)),
});
