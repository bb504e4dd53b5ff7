import type { BandStyle } from './band-style';
import type { BandStyleName } from './band-wishes';
import { QUIET_PIANO } from './styles/quiet-piano';
import { STRING_QUARTET } from './styles/string-quartet';
import { FOLK_GUITAR } from './styles/folk-guitar';
import { BRASS_BAND } from './styles/brass-band';
import { JAZZ_TRIO } from './styles/jazz-trio';
import { AMBIENT } from './styles/ambient';
import { LIGHT_ELECTRONIC } from './styles/light-electronic';
import { LULLABY } from './styles/lullaby';
import { MARCH } from './styles/march';
import { LATIN } from './styles/latin';
import { ORGAN } from './styles/organ';
import { HAND_DRUMS } from './styles/hand-drums';

const STYLES: Readonly<Record<BandStyleName, BandStyle>> = {
  'quiet-piano': QUIET_PIANO,
  'string-quartet': STRING_QUARTET,
  'folk-guitar': FOLK_GUITAR,
  'brass-band': BRASS_BAND,
  'jazz-trio': JAZZ_TRIO,
  ambient: AMBIENT,
  'light-electronic': LIGHT_ELECTRONIC,
  lullaby: LULLABY,
  march: MARCH,
  latin: LATIN,
  organ: ORGAN,
  'hand-drums': HAND_DRUMS,
};

export function styleNamed(name: BandStyleName): BandStyle {
  return STYLES[name];
}
