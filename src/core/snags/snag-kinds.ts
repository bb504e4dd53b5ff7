import { alikeInARow } from './kinds/alike-in-a-row';
import { askew } from './kinds/askew';
import { blackEdge } from './kinds/black-edge';
import { blankSlide } from './kinds/blank-slide';
import { cutFace } from './kinds/cut-face';
import { faintWords } from './kinds/faint-words';
import { filmTooLarge } from './kinds/film-too-large';
import { flashing } from './kinds/flashing';
import { hastyWords } from './kinds/hasty-words';
import { levelJump } from './kinds/level-jump';
import { missingFile } from './kinds/missing-file';
import { musicCut, musicEndsEarly } from './kinds/music-ends';
import { noLicence } from './kinds/no-licence';
import { sideways } from './kinds/sideways';
import { silentStretch } from './kinds/silent-stretch';
import { softPicture } from './kinds/soft-picture';
import { speltTwice } from './kinds/spelt-twice';
import { stutteringClip } from './kinds/stuttering-clip';
import { transitionCutShort } from './kinds/transition-cut-short';
import { usedTwice } from './kinds/used-twice';
import { voiceCut } from './kinds/voice-cut';
import { voiceClipped, voiceQuiet } from './kinds/voice-level';
import { wordsOffFrame } from './kinds/words-off-frame';
import { wordsOverFace } from './kinds/words-over-face';
import { wordsShrunk } from './kinds/words-shrunk';
import { wrongClock } from './kinds/wrong-clock';

/** Every kind of snag by its name, in the order in which they are told. */
export const SNAG_KINDS = {
  'missing-file': missingFile,
  flashing,
  'faint-words': faintWords,
  'hasty-words': hastyWords,
  'words-over-face': wordsOverFace,
  'words-off-frame': wordsOffFrame,
  'words-shrunk': wordsShrunk,
  'spelt-twice': speltTwice,
  'cut-face': cutFace,
  sideways,
  askew,
  'soft-picture': softPicture,
  'black-edge': blackEdge,
  'voice-cut': voiceCut,
  'voice-quiet': voiceQuiet,
  'voice-clipped': voiceClipped,
  'music-ends-early': musicEndsEarly,
  'music-cut': musicCut,
  'silent-stretch': silentStretch,
  'level-jump': levelJump,
  'stuttering-clip': stutteringClip,
  'transition-cut-short': transitionCutShort,
  'alike-in-a-row': alikeInARow,
  'used-twice': usedTwice,
  'blank-slide': blankSlide,
  'wrong-clock': wrongClock,
  'no-licence': noLicence,
  'film-too-large': filmTooLarge,
} as const;

export type SnagKindName = keyof typeof SNAG_KINDS;
export const SNAG_KIND_NAMES = Object.keys(SNAG_KINDS) as SnagKindName[];
