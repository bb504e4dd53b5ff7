import type { Mode } from './harmony';

/** The ways of going on that a kind of music knows: phrases of four bars, in Roman numerals. */
export interface Language {
  readonly intro: readonly string[];
  /** Phrases that ask: they end away from home. */
  readonly open: readonly string[];
  /** Phrases that answer: they end at home. */
  readonly closed: readonly string[];
  /** Phrases of a middle part. */
  readonly away: readonly string[];
  /** The bars before the last chord. */
  readonly ending: readonly string[];
  readonly last: string;
}

export type LanguageName = 'plain' | 'tender' | 'jazz' | 'drifting' | 'dancing' | 'hymn' | 'driving';

const PLAIN: Language = {
  intro: ['I | IV | I | V', 'I | I | IV | V'],
  open: ['I | IV | I | V', 'I | vi | IV | V', 'I | I/3 | IV | V', 'I | V/3 | vi | V'],
  closed: ['I | IV | I/5 V | I', 'vi | IV | I/5 V | I', 'IV | I/3 | ii V | I', 'I | ii | V7 | I'],
  away: ['vi | iii | IV | V', 'IV | I | ii | V', 'ii | V/3 | I | V', 'vi | ii | IV | V'],
  ending: ['IV | I/3 | ii | V7', 'vi | ii | I/5 | V7'],
  last: 'I',
};
const PLAIN_MINOR: Language = {
  intro: ['i | iv | i | V', 'i | i | bVI | V'],
  open: ['i | bVII | bVI | V', 'i | iv | i | V', 'i | bVI | bVII | V', 'i | bIII | iv | V'],
  closed: ['i | bVI | iv V | i', 'iv | i/3 | iv V | i', 'bVI | bVII | V | i', 'bIII | bVII | V | i'],
  away: ['bVI | bIII | bVII | V', 'bIII | bVII | i | V', 'iv | bVII | bIII | V'],
  ending: ['bVI | iv | i/5 | V7', 'iv | bVI | iv | V7'],
  last: 'i',
};
const TENDER: Language = {
  intro: ['I | IVmaj7 | I | IVmaj7', 'Iadd9 | vi | IVmaj7 | Vsus4'],
  open: ['I | V/3 | vi | IV', 'I | iii | IV | Vsus4', 'Iadd9 | vi7 | IVmaj7 | V', 'I | V/3 | IV/3 | V'],
  closed: ['vi | IV | ii7 V | I', 'IV | I/3 | ii7 V7 | I', 'vi7 | iii | IV V | I', 'I/3 | IV | Vsus4 V | I'],
  away: ['vi7 | iii7 | IVmaj7 | I/3', 'IVmaj7 | V/3 | iii7 | vi', 'ii7 | I/3 | IV | V', 'vi | V | IVmaj7 | V'],
  ending: ['IV | I/3 | ii7 | V7', 'vi7 | IV | ii7 | Vsus4 V'],
  last: 'Iadd9',
};
const TENDER_MINOR: Language = {
  intro: ['i | bVImaj7 | i | bVImaj7', 'i | iv7 | i | Vsus4'],
  open: ['i | bVI | bIII | bVII', 'i | v7 | bVImaj7 | Vsus4', 'i | bVII | bVI | V', 'i | iv7 | bVII | bIIImaj7'],
  closed: ['bVI | bIII | iv V | i', 'iv7 | bVII | V7 | i', 'bVImaj7 | iv | V7 | i'],
  away: ['bIII | bVII | iv7 | bVI', 'bVImaj7 | bVII | v7 | i', 'iv7 | bVII | bIIImaj7 | V'],
  ending: ['bVI | iv7 | i/5 | V7', 'iv7 | bVI | iv7 | Vsus4 V'],
  last: 'i',
};
const JAZZ: Language = {
  intro: ['Imaj7 vi7 | ii7 V7 | Imaj7 vi7 | ii7 V7', 'iii7 | vi7 | ii7 | V7'],
  open: [
    'Imaj7 | vi7 | ii7 | V7',
    'Imaj7 | IVmaj7 | iii7 vi7 | ii7 V7',
    'iii7 | vi7 | ii7 | V9',
    'Imaj7 | #i7/7 | ii7 | V7',
  ],
  closed: ['ii7 | V7 | Imaj7 vi7 | I6', 'iii7 vi7 | ii7 V7 | Imaj7 | I6', 'IVmaj7 iv7 | iii7 vi7 | ii7 V7 | I6'],
  away: ['vi7 | ii7 | v7 | I7', 'IVmaj7 | iv7 | Imaj7 | I7', 'IVmaj7 | bVII7 | Imaj7 | VI7', 'iii7 | VI7 | ii7 | V7'],
  ending: ['IVmaj7 | iv6 | iii7 vi7 | ii7 V7', 'ii7 | V7 | iii7 VI7 | ii7 V9'],
  last: 'Imaj9',
};
const JAZZ_MINOR: Language = {
  intro: ['i7 bVImaj7 | iim7b5 V7 | i7 bVImaj7 | iim7b5 V7'],
  open: ['i7 | iv7 | iim7b5 | V7', 'i7 | bVImaj7 | iim7b5 | V7', 'i7 | i7/7 | bVImaj7 | V7'],
  closed: ['iim7b5 | V7 | i7 | i6', 'iv7 bVII7 | bIIImaj7 bVImaj7 | iim7b5 V7 | i6'],
  away: ['iv7 | bVII7 | bIIImaj7 | bVImaj7', 'bIIImaj7 | bVImaj7 | iim7b5 | V7'],
  ending: ['iv7 | i7/3 | bVImaj7 | iim7b5 V7'],
  last: 'i6',
};
const DRIFTING: Language = {
  intro: ['Iadd9 | Iadd9 | IVmaj7 | IVmaj7', 'Isus2 | Isus2 | Iadd9 | Iadd9'],
  open: [
    'Iadd9 | IVmaj7 | vi7 | IVmaj7',
    'Imaj7 | iii7 | IVmaj7 | Vsus4',
    'Iadd9 | Vsus2 | vi7 | IVmaj9',
    'vi7 | IVmaj7 | Iadd9 | Vsus2',
  ],
  closed: ['IVmaj7 | vi7 | Vsus4 | Iadd9', 'ii7 | IVmaj7 | Vsus4 | Iadd9', 'vi7 | ii7 | IVmaj7 | Iadd9'],
  away: ['ii7 | vi7 | IVmaj7 | Vsus4', 'IVmaj9 | iii7 | ii7 | Vsus2', 'vi7 | Vsus2 | IVmaj7 | iii7'],
  ending: ['ii7 | IVmaj7 | Vsus4 | V', 'vi7 | ii7 | IVmaj7 | Vsus4'],
  last: 'Iadd9',
};
const DRIFTING_MINOR: Language = {
  intro: ['i | i | bVImaj7 | bVImaj7', 'isus2 | i | bVII | bVImaj7'],
  open: ['i | bVImaj7 | bIII | bVII', 'i | v7 | bVImaj7 | iv7', 'i7 | bIIImaj7 | bVII | iv7'],
  closed: ['bVImaj7 | bVII | v7 | i', 'iv7 | bVImaj7 | bVII | i'],
  away: ['bIIImaj7 | bVII | iv7 | bVImaj7', 'bVImaj7 | bIII | bVII | v7'],
  ending: ['bVImaj7 | iv7 | v7 | Vsus4', 'iv7 | bVImaj7 | bVII | V'],
  last: 'i',
};
const DANCING: Language = {
  intro: ['Imaj7 | VI7 | ii7 | V7', 'I6 | ii7 | V7 | I6'],
  open: ['I6 | VI7 | ii7 | V7', 'Imaj7 | ii7 | iii7 | V7', 'I6 | IVmaj7 | ii7 | V7'],
  closed: ['ii7 | V7 | iii7 VI7 | I6', 'IVmaj7 | iii7 | ii7 V7 | I6', 'ii7 | iv6 | V7 | I6'],
  away: ['vi7 | ii7 | V7 | Imaj7', 'IVmaj7 | iv7 | iii7 | VI7', 'ii7 | iii7 | IVmaj7 | V7'],
  ending: ['IVmaj7 | iv6 | iii7 VI7 | ii7 V7', 'ii7 | V7 | iii7 VI7 | ii7 V7'],
  last: 'I6',
};
const DANCING_MINOR: Language = {
  intro: ['i7 | iv7 | i7 | V7', 'i | bVII | bVI | V7'],
  open: ['i | iv7 | i | V7', 'i | bVII | bVI | V7', 'i7 | iv7 | bVII7 | bIIImaj7'],
  closed: ['iv7 | i | V7 | i', 'bVImaj7 | iv7 | V7 | i', 'iim7b5 | V7 | i | i'],
  away: ['iv7 | bVII7 | bIIImaj7 | bVImaj7', 'bIIImaj7 | bVII | iv7 | V7', 'bVI | bVII | i | V7'],
  ending: ['bVImaj7 | V7 | iim7b5 | V7', 'iv7 | i | iim7b5 | V7'],
  last: 'i6',
};
const HYMN: Language = {
  intro: ['I | IV | I/5 | V', 'I | V/3 | I | V'],
  open: [
    'I V/3 | vi iii | IV I/3 | ii V',
    'I IV/3 | I V/3 | vi ii | V',
    'I | V/3 I | IV ii/3 | V',
    'I vi | iii IV | I/3 ii | V',
  ],
  closed: ['vi iii | IV I/3 | ii/3 V | I', 'IV I/3 | ii vi | I/5 V7 | I', 'I V/3 | vi IV | I/5 V7 | I'],
  away: ['vi iii | vi II | V V/3 | vi V', 'IV I/3 | IV ii | vi II | V', 'vi V/3 | I IV | ii/3 vi | V'],
  ending: ['IV I/3 | ii vi | IV ii/3 | I/5 V7', 'vi iii | IV I | ii/3 ii | I/5 V7'],
  last: 'I',
};
const HYMN_MINOR: Language = {
  intro: ['i | iv | i/5 | V'],
  open: ['i V/3 | i bVI | iv i/3 | iv V', 'i v | bVI bIII | iv iv/3 | V', 'i | bVII bIII | bVI iv | V'],
  closed: ['bVI bIII | iv i/3 | iv V | i', 'iv i/3 | bVI iv | i/5 V7 | i'],
  away: ['bIII bVII | i bVI | iv bVII | bIII V', 'bVI bIII | iv i | bVII bIII | V'],
  ending: ['iv i/3 | bVI iv | iv bVI | i/5 V7'],
  // A hymn in minor ends in major (the Picardy third).
  last: 'I',
};
const DRIVING: Language = {
  intro: ['I | I | bVII | IV', 'I | bVII | I | IV'],
  open: ['I | bVII | IV | V', 'I | IV | bVII | V', 'I | v7 | bVII | IV'],
  closed: ['IV | bVII | V | I', 'bVII | IV | V | I', 'ii | bVII | V | I'],
  away: ['v7 | IV | bVII | V', 'IV | bVII | ii | V', 'bVII | ii | IV | V'],
  ending: ['IV | bVII | ii | V', 'ii | IV | bVII | V'],
  last: 'I',
};
const DRIVING_MINOR: Language = {
  intro: ['i | i | bVII | IV', 'i | bVII | i | IV'],
  open: ['i | IV | bVII | v7', 'i | bVII | IV | bVII', 'i | bIII | IV | bVII'],
  closed: ['bVII | IV | v7 | i', 'IV | bVII | V | i'],
  away: ['bIII | bVII | IV | i', 'IV | bIII | bVII | v7'],
  ending: ['IV | bVII | v7 | V', 'bIII | IV | bVII | V'],
  last: 'i',
};

const LANGUAGES: Readonly<Record<LanguageName, readonly [bright: Language, dark: Language]>> = {
  plain: [PLAIN, PLAIN_MINOR],
  tender: [TENDER, TENDER_MINOR],
  jazz: [JAZZ, JAZZ_MINOR],
  drifting: [DRIFTING, DRIFTING_MINOR],
  dancing: [DANCING, DANCING_MINOR],
  hymn: [HYMN, HYMN_MINOR],
  driving: [DRIVING, DRIVING_MINOR],
};

export function languageIn(name: LanguageName, mode: Mode): Language {
  return LANGUAGES[name][mode === 'minor' || mode === 'dorian' ? 1 : 0];
}
