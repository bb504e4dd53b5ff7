import type { BandInstrument, BandMood, BandStyleName } from './band-wishes';
import type { Mode } from './harmony';
import type { Drum } from './instruments';
import type { LanguageName } from './languages';
import type { RhythmName } from './rhythms';

/** A kind of music: how it goes on, who plays what, and how it is played. */
export interface BandStyle {
  readonly name: BandStyleName;
  readonly language: LanguageName;
  readonly beatsABar: 3 | 4;
  readonly bpm: { readonly least: number; readonly usual: number; readonly most: number };
  /** Tonics it is played in, as MIDI numbers of the octave below the middle C. */
  readonly keys: readonly number[];
  readonly modes: Readonly<Record<BandMood, Mode>>;
  /** Where the second half of a beat falls: 0.5 is straight, 0.667 a triplet. */
  readonly swing: number;
  /** How far the tempo gives within a phrase: 0.03 is much. */
  readonly rubato: number;
  /** By how much longer the last beat is than others. */
  readonly slowing: number;
  /** How far notes stray from their places, in milliseconds. */
  readonly looseMs: number;
  /** How long the last chord has to ring. */
  readonly ringMs: number;
  readonly rhythms: RhythmName;
  readonly parts: readonly PartPlan[];
  readonly room: { readonly seconds: number; readonly wet: number };
  /** What brings it to the loudness of the others. */
  readonly gainDb: number;
}

export interface PartPlan {
  readonly instrument: BandInstrument;
  readonly plays: Playing;
  /** It plays where the energy of a phrase is at least this. */
  readonly from: number;
  /** It rests where the energy is more than that. */
  readonly to?: number;
  /** Pitches it keeps to. */
  readonly low: number;
  readonly high: number;
  /** 0…1, against the others. */
  readonly level: number;
  /** −1…1. */
  readonly pan: number;
  /** Chords are spread by so many milliseconds a note. */
  readonly spreadMs?: number;
  /** Notes are held so long, as shares of what is written; 1 when it is not said. */
  readonly held?: number;
}

/** What a part does with chords and tune. */
export type Playing =
  | { readonly kind: 'tune'; readonly above?: number }
  /** A third or sixth under the tune, where that is in the chord. */
  | { readonly kind: 'shadow' }
  /** All voices of a chord as long as it stands. */
  | { readonly kind: 'chords'; readonly voices: number }
  /** One voice of chords that several parts share, 0 the lowest. */
  | { readonly kind: 'voice'; readonly of: number; readonly voice: number; readonly from?: readonly [number, number] }
  /** Tones of the chord one by one; indices into its tones from the lowest up. */
  | { readonly kind: 'broken'; readonly figures: readonly (readonly number[])[]; readonly stepBeats: number }
  /** Whole chords at the strokes of a pattern, four steps a beat. */
  | { readonly kind: 'strokes'; readonly voices: number; readonly patterns: readonly string[]; readonly beats: number }
  | { readonly kind: 'bass'; readonly line: BassLine }
  | { readonly kind: 'drums'; readonly beats: readonly DrumBeat[] };

export type BassLine = 'roots' | 'fifths' | 'walking' | 'marching' | 'swaying' | 'ahead' | 'pulsing' | 'held';

/** Strokes a bar for each drum, four steps a beat: `x`, `X` loud, `o` soft. */
export interface DrumBeat {
  /** Where the energy is at least this. */
  readonly from: number;
  readonly strokes: Readonly<Partial<Record<Drum, string>>>;
}

export function modesOf(bright: Mode, dark: Mode, calm: Mode = bright): Record<BandMood, Mode> {
  return { glad: bright, warm: bright, calm, wistful: dark, solemn: dark, playful: bright };
}
