import type { Loudness } from '../loudness';
import type { Phrase } from '../voice/phrases';
import type { Joints } from './joints';
import type { Section } from './sections';

/** What is heard in a file, found out from its samples by methods that can be wrong; kept as a fact of its own, since it takes longer than looking at the file. */
export interface ListeningFacts {
  readonly loudness: Loudness;
  /** Where it really begins and ends, silence before and after left out. */
  readonly heardFromMs: number;
  readonly heardToMs: number;
  /** Null for what is no music, or too short. */
  readonly beats: BeatGrid | null;
  readonly sections: readonly Section[];
  /** 0…100 for each half second: how much is going on. */
  readonly energy: readonly number[];
  /** The strongest strokes, rising. */
  readonly accentsMs: readonly number[];
  /** Where it can be joined, to be longer or shorter; version 1 did not look for them. */
  readonly joints?: Joints;
  /** What would be said if it were speech, between pauses; version 1 did not look for it, nor is it looked for in long files. */
  readonly phrases?: readonly Phrase[];
}

export interface BeatGrid {
  /** Median over the song. */
  readonly tempoBpm: number;
  /** Rising. */
  readonly beatsMs: readonly number[];
  readonly beatsABar: number;
  /** Indices into `beatsMs` of the beats that begin a bar. */
  readonly firsts: readonly number[];
  /** 0…1; see `isDoubtful`. */
  readonly confidence: number;
}

/** A grid that pictures are not tied to before a person looked at it. */
export function isDoubtful({ confidence }: BeatGrid): boolean {
  return confidence < 0.5;
}
