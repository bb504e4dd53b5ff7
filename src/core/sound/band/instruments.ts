import type { BandInstrument } from './band-wishes';

/** What composers need to know of an instrument. Pitches are MIDI numbers, 60 the middle C. */
export interface InstrumentRange {
  readonly lowest: number;
  readonly highest: number;
  /** The instrument's number among those of General MIDI, from 0; null for drums, which have none. */
  readonly program: number | null;
}

/** As orchestration books give them, without the extremes of the good ones. */
export const INSTRUMENT_RANGES: Readonly<Record<BandInstrument, InstrumentRange>> = {
  piano: { lowest: 21, highest: 108, program: 0 },
  'electric-piano': { lowest: 28, highest: 103, program: 4 },
  guitar: { lowest: 40, highest: 83, program: 24 },
  'steel-guitar': { lowest: 40, highest: 86, program: 25 },
  'double-bass': { lowest: 28, highest: 67, program: 32 },
  violin: { lowest: 55, highest: 96, program: 40 },
  viola: { lowest: 48, highest: 88, program: 41 },
  cello: { lowest: 36, highest: 76, program: 42 },
  flute: { lowest: 60, highest: 96, program: 73 },
  clarinet: { lowest: 50, highest: 91, program: 71 },
  cornet: { lowest: 54, highest: 84, program: 56 },
  horn: { lowest: 41, highest: 77, program: 60 },
  trombone: { lowest: 40, highest: 72, program: 57 },
  tuba: { lowest: 28, highest: 58, program: 58 },
  organ: { lowest: 36, highest: 96, program: 19 },
  pedals: { lowest: 24, highest: 60, program: 19 },
  'music-box': { lowest: 60, highest: 103, program: 10 },
  vibraphone: { lowest: 53, highest: 89, program: 11 },
  marimba: { lowest: 45, highest: 96, program: 12 },
  pad: { lowest: 36, highest: 91, program: 89 },
  bells: { lowest: 60, highest: 108, program: 14 },
  'synth-bass': { lowest: 24, highest: 60, program: 38 },
  plucks: { lowest: 45, highest: 100, program: 80 },
  'drum-kit': { lowest: 35, highest: 81, program: null },
  brushes: { lowest: 35, highest: 81, program: null },
  'march-drums': { lowest: 35, highest: 81, program: null },
  congas: { lowest: 35, highest: 81, program: null },
  'frame-drums': { lowest: 35, highest: 81, program: null },
  shaker: { lowest: 35, highest: 82, program: null },
  'beat-machine': { lowest: 35, highest: 81, program: null },
};

export const isDrum = (instrument: BandInstrument): boolean => INSTRUMENT_RANGES[instrument].program === null;

/** What drums strike, by General MIDI's numbers. */
export const DRUMS = {
  kick: 36,
  snare: 38,
  rim: 37,
  clap: 39,
  hat: 42,
  'open-hat': 46,
  'low-tom': 45,
  'high-tom': 50,
  crash: 49,
  ride: 51,
  tambourine: 54,
  'high-conga': 62,
  slap: 63,
  'low-conga': 64,
  shaker: 82,
  claves: 75,
  'wood-block': 76,
  triangle: 81,
  'bass-drum': 35,
  brush: 40,
  sweep: 69,
} as const;
export type Drum = keyof typeof DRUMS;
