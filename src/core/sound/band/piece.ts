import type { BandInstrument, BandWishes } from './band-wishes';
import type { BandStyle, Playing } from './band-style';
import type { Form } from './form';
import type { Mode } from './harmony';

/** Raised whenever equal wishes give another score: what was made by an earlier one keeps its sound, and is listened to for its beats. */
export const BAND_METHOD = 1;

/** A note as it is written. Beats are quarters, from the beginning of the piece. */
export interface ScoreNote {
  readonly beat: number;
  readonly beats: number;
  /** MIDI number; drums by General MIDI. */
  readonly pitch: number;
  /** 0…1. */
  readonly loudness: number;
}

export interface Part {
  readonly instrument: BandInstrument;
  readonly role: Playing['kind'];
  readonly pan: number;
  readonly spreadMs: number;
  /** How long notes sound, as shares of what is written. */
  readonly held: number;
  readonly notes: readonly ScoreNote[];
}

export interface Piece {
  readonly wishes: BandWishes;
  readonly style: BandStyle;
  readonly form: Form;
  /** MIDI number of the tonic, in the octave below the middle C. */
  readonly tonic: number;
  readonly mode: Mode;
  readonly chords: readonly { readonly beat: number; readonly beats: number; readonly name: string }[];
  readonly parts: readonly Part[];
  /** How long the last chord is held, in beats. */
  readonly lastBeats: number;
}

/** A note as it is played. */
export interface PlayedNote {
  readonly startMs: number;
  readonly lengthMs: number;
  readonly pitch: number;
  readonly loudness: number;
}

/** When a place in the score is heard, before anybody plays early or late; goes on evenly after the last beat. */
export function momentOfBeat({ beatsMs }: Form, beat: number): number {
  const last = beatsMs.length - 1;
  if (beat >= last) return beatsMs[last]! + (beat - last) * (beatsMs[last]! - beatsMs[last - 1]!);
  const at = Math.max(0, Math.floor(beat));
  return beatsMs[at]! + (beat - at) * (beatsMs[at + 1]! - beatsMs[at]!);
}
