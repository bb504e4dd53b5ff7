/** What a piece of the house band shall be like. From equal wishes comes the same piece, on every machine. */
export interface BandWishes {
  readonly style: BandStyleName;
  readonly mood: BandMood;
  /** Beats a minute; the style's own when it is not said. What is played differs by as much as whole bars need. */
  readonly bpm?: number;
  /** How much goes on, 0…1. */
  readonly energy: number;
  readonly lengthMs: number;
  /** Another number deals another piece. */
  readonly seed: number;
  /** Instruments of the style that shall not play. */
  readonly without?: readonly BandInstrument[];
  /** Instruments that play although the style has none of them. */
  readonly and?: readonly BandInstrument[];
  /** What happens in the show: the music turns where a chapter begins, and goes down where a picture lingers. Rising. */
  readonly moments?: readonly BandMoment[];
}

export interface BandMoment {
  readonly atMs: number;
  readonly what: 'chapter' | 'lingers';
}

export const BAND_LENGTH_MS = { least: 8_000, most: 1_200_000 };
export const BAND_BPM = { least: 40, most: 200 };
export const MOST_SEED = 9_999;
export const MOST_BAND_MOMENTS = 60;

export const BAND_STYLES = [
  'quiet-piano',
  'string-quartet',
  'folk-guitar',
  'brass-band',
  'jazz-trio',
  'ambient',
  'light-electronic',
  'lullaby',
  'march',
  'latin',
  'organ',
  'hand-drums',
] as const;
export type BandStyleName = (typeof BAND_STYLES)[number];

/** What each is called where a person chooses. */
export const BAND_STYLE_NAMES: Readonly<Record<BandStyleName, string>> = {
  'quiet-piano': 'Quiet piano',
  'string-quartet': 'String quartet',
  'folk-guitar': 'Folk guitar',
  'brass-band': 'Brass band',
  'jazz-trio': 'Jazz trio',
  ambient: 'Ambient',
  'light-electronic': 'Light electronic',
  lullaby: 'Lullaby',
  march: 'March',
  latin: 'Latin',
  organ: 'Organ hymn',
  'hand-drums': 'Hand drums',
};

export const BAND_MOODS = ['glad', 'warm', 'calm', 'wistful', 'solemn', 'playful'] as const;
export type BandMood = (typeof BAND_MOODS)[number];

export const BAND_INSTRUMENTS = [
  'piano',
  'electric-piano',
  'guitar',
  'steel-guitar',
  'double-bass',
  'violin',
  'viola',
  'cello',
  'flute',
  'clarinet',
  'cornet',
  'horn',
  'trombone',
  'tuba',
  'organ',
  'pedals',
  'music-box',
  'vibraphone',
  'marimba',
  'pad',
  'bells',
  'synth-bass',
  'plucks',
  'drum-kit',
  'brushes',
  'march-drums',
  'congas',
  'frame-drums',
  'shaker',
  'beat-machine',
] as const;
export type BandInstrument = (typeof BAND_INSTRUMENTS)[number];

export const BAND_INSTRUMENT_NAMES: Readonly<Record<BandInstrument, string>> = {
  piano: 'piano',
  'electric-piano': 'electric piano',
  guitar: 'guitar',
  'steel-guitar': 'steel-string guitar',
  'double-bass': 'double bass',
  violin: 'violin',
  viola: 'viola',
  cello: 'cello',
  flute: 'flute',
  clarinet: 'clarinet',
  cornet: 'cornet',
  horn: 'horn',
  trombone: 'trombone',
  tuba: 'tuba',
  organ: 'organ',
  pedals: 'organ pedals',
  'music-box': 'music box',
  vibraphone: 'vibraphone',
  marimba: 'marimba',
  pad: 'pad',
  bells: 'bells',
  'synth-bass': 'synth bass',
  plucks: 'plucks',
  'drum-kit': 'drum kit',
  brushes: 'brushes',
  'march-drums': 'march drums',
  congas: 'congas',
  'frame-drums': 'frame drums',
  shaker: 'shaker',
  'beat-machine': 'beat machine',
};
