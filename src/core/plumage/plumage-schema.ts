import {
  COLOUR,
  ID,
  list,
  maybe,
  number,
  object,
  oneOf,
  orNull,
  record,
  text,
  truth,
  whole,
  type Schema,
} from '../schema/schema';
import { TEMPERAMENTS } from '../motion/automatic-move';
import { LONGEST_NAME, LONGEST_REASON, LONGEST_WORDS_SUBTITLE, MOST_SLIDES } from '../show/limits';
import { BACKING } from '../show/schemas/backing-schema';
import { TRANSITION } from '../show/schemas/transition-schema';
import { FONT_NAMES, WORDS_UNITS, WORDS_WAYS } from '../show/words';
import type { Letters, Palette, Plumage, PlumageInUse, PlumageWith } from './plumage';

export const MOST_SEEDS = 1_000_000_000;
const MOST_DEALT = 40;
const MOUNT_ID = text(LONGEST_NAME, 1);
const FONT = oneOf(FONT_NAMES);

export const PALETTE: Schema = object<Palette>({ ink: COLOUR, paper: COLOUR, accent: COLOUR, soft: COLOUR });
export const LETTERS: Schema = object<Letters>({
  title: FONT,
  text: FONT,
  weight: number(100, 900),
  spacing: number(-0.2, 2),
});

export const PLUMAGE: Schema = object<Plumage>({
  id: ID,
  name: text(LONGEST_NAME, 1),
  description: text(LONGEST_REASON),
  letters: LETTERS,
  palette: PALETTE,
  transitions: list(TRANSITION, MOST_DEALT, 1),
  chapterTransition: TRANSITION,
  temperament: oneOf(TEMPERAMENTS),
  backing: BACKING,
  come: object<Plumage['come']>({ way: oneOf(WORDS_WAYS), by: oneOf(WORDS_UNITS) }),
  mounts: object<Plumage['mounts']>({
    opener: MOUNT_ID,
    chapter: MOUNT_ID,
    closer: MOUNT_ID,
    several: list(MOUNT_ID, MOST_DEALT),
  }),
});

export const PLUMAGE_WITH: Schema = object<PlumageWith>({
  opener: truth,
  chapters: truth,
  closer: truth,
  several: truth,
});

export const PLUMAGE_IN_USE: Schema = object<PlumageInUse>({
  is: PLUMAGE,
  with: PLUMAGE_WITH,
  seed: whole(0, MOST_SEEDS),
  bare: object<PlumageInUse['bare']>({ temperament: orNull(oneOf(TEMPERAMENTS)) }),
  said: maybe(record(text(2 * LONGEST_NAME, 1), text(LONGEST_WORDS_SUBTITLE), MOST_SLIDES, 1)),
});
