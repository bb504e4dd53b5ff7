import { isDrum } from '../instruments';
import type { BandInstrument } from '../band-wishes';
import { drumVoice } from './drums';
import { DOUBLE_BASS, GUITAR, pluckedVoice, STEEL_GUITAR, type Plucked } from './plucked';
import {
  BELLS,
  ELECTRIC_PIANO,
  MARIMBA,
  MUSIC_BOX,
  PIANO,
  PLUCKS,
  struckVoice,
  VIBRAPHONE,
  type Struck,
} from './struck';
import {
  CELLO,
  CLARINET,
  CORNET,
  FLUTE,
  HORN,
  ORGAN_PIPES,
  PAD,
  PEDALS,
  sustainedVoice,
  SYNTH_BASS,
  TROMBONE,
  TUBA,
  VIOLA,
  VIOLIN,
  type Sustained,
} from './sustained';
import type { Voice } from './tone';

const STRUCK: Readonly<Partial<Record<BandInstrument, Struck>>> = {
  piano: PIANO,
  'electric-piano': ELECTRIC_PIANO,
  'music-box': MUSIC_BOX,
  vibraphone: VIBRAPHONE,
  marimba: MARIMBA,
  bells: BELLS,
  plucks: PLUCKS,
};
const PLUCKED: Readonly<Partial<Record<BandInstrument, Plucked>>> = {
  guitar: GUITAR,
  'steel-guitar': STEEL_GUITAR,
  'double-bass': DOUBLE_BASS,
};
const SUSTAINED: Readonly<Partial<Record<BandInstrument, Sustained>>> = {
  violin: VIOLIN,
  viola: VIOLA,
  cello: CELLO,
  flute: FLUTE,
  clarinet: CLARINET,
  cornet: CORNET,
  horn: HORN,
  trombone: TROMBONE,
  tuba: TUBA,
  organ: ORGAN_PIPES,
  pedals: PEDALS,
  pad: PAD,
  'synth-bass': SYNTH_BASS,
};

/** How an instrument sounds. Voices keep the tones they made: one is made for a piece. */
export function voiceOfInstrument(instrument: BandInstrument): Voice {
  if (isDrum(instrument)) return drumVoice();
  const struck = STRUCK[instrument];
  if (struck) return struckVoice(struck);
  const plucked = PLUCKED[instrument];
  return plucked ? pluckedVoice(plucked) : sustainedVoice(SUSTAINED[instrument]!);
}
