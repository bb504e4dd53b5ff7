import { maybe, number, object, truth, whole, type Schema } from '../../schema/schema';

/** What is done to a recorded voice, in this order. What is left out is not done. */
export interface Cleaning {
  /** Rumble below speech is taken away: 12 dB an octave twice, below 80 Hz. */
  readonly lowCut?: true;
  /** Clicks of lips and cables are mended. */
  readonly clicks?: true;
  /** 0…1: how far the room’s noise goes down, from 6 to 30 dB. */
  readonly noise?: number;
  /** Where in the file nothing but the room is heard; found by itself otherwise. */
  readonly room?: { readonly fromMs: number; readonly toMs: number };
  /** Sentences are made equally loud. */
  readonly even?: true;
  /** 0…1: how much loud and soft syllables are brought together. */
  readonly press?: number;
  /** 0…1: how far breaths and rustle between sentences go down, to 18 dB. */
  readonly breaths?: number;
}

/** What a recording gets by itself: it sounds near and even, and like the person. */
export const GENTLE: Cleaning = { lowCut: true, clicks: true, noise: 0.6, even: true, press: 0.3, breaths: 0.5 };
/** For fans, street and hum. */
export const THOROUGH: Cleaning = { lowCut: true, clicks: true, noise: 0.85, even: true, press: 0.5, breaths: 0.8 };

const LONGEST_MS = 24 * 60 * 60 * 1000;

export const CLEANING: Schema = object<Cleaning>({
  lowCut: maybe(truth),
  clicks: maybe(truth),
  noise: maybe(number(0, 1)),
  room: maybe(object<NonNullable<Cleaning['room']>>({ fromMs: whole(0, LONGEST_MS), toMs: whole(0, LONGEST_MS) })),
  even: maybe(truth),
  press: maybe(number(0, 1)),
  breaths: maybe(number(0, 1)),
});
