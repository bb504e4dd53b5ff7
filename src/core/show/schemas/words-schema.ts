import {
  COLOUR,
  either,
  list,
  maybe,
  number,
  object,
  oneOf,
  orNull,
  text,
  truth,
  whole,
  type PartsOf,
  type Schema,
} from '../../schema/schema';
import type { ColourChannel } from '../../keys/colour';
import { COLOUR_CHANNEL } from './channel-schema';
import { LONGEST_SLIDE_MS, LONGEST_WORDS_SUBTITLE, LONGEST_WORDS_TITLE } from '../limits';
import {
  FONT_NAMES,
  LONGEST_PART,
  MOST_PARTS,
  PASSAGE_EASINGS,
  WORDS_PLACES,
  WORDS_UNITS,
  WORDS_WAYS,
  type WordsCome,
  type WordsPart,
  type WordsPassage,
  type WordsStyle,
  type WordsTravel,
} from '../words';
import type { WordsText } from '../words-of-slide';

const PASSAGE = object<WordsPassage>({
  way: oneOf(WORDS_WAYS),
  by: oneOf(WORDS_UNITS),
  atMs: whole(0, LONGEST_SLIDE_MS),
  lengthMs: whole(0, LONGEST_SLIDE_MS),
  easing: maybe(oneOf(PASSAGE_EASINGS)),
  stagger: maybe(number(0, 1)),
});

const SHADOW: Schema = object<Exclude<WordsStyle['shadow'], 'none' | undefined>>({
  colour: COLOUR,
  opacity: number(0, 1),
  softness: number(0, 1),
  x: number(-1, 1),
  y: number(-1, 1),
});

export const WORDS_STYLE: Schema = object<WordsStyle<ColourChannel>>({
  font: maybe(oneOf(FONT_NAMES)),
  subtitleFont: maybe(oneOf(FONT_NAMES)),
  italic: maybe(truth),
  parts: maybe(
    list(
      object<WordsPart>({ words: text(LONGEST_PART, 1), colour: maybe(COLOUR), italic: maybe(truth) }),
      MOST_PARTS,
      1,
    ),
  ),
  weight: maybe(number(100, 900)),
  size: maybe(number(0.01, 0.5)),
  colour: maybe(COLOUR_CHANNEL),
  accent: maybe(COLOUR_CHANNEL),
  align: maybe(oneOf(['left', 'centre', 'right'])),
  letterSpacing: maybe(number(-0.2, 2)),
  lineSpacing: maybe(number(0.5, 4)),
  measure: maybe(number(0.1, 1)),
  room: maybe(number(0.02, 1)),
  box: maybe(
    object<NonNullable<WordsStyle['box']>>({
      colour: COLOUR,
      opacity: number(0, 1),
      padding: number(0, 5),
      radius: number(0, 5),
    }),
  ),
  outline: maybe(object<NonNullable<WordsStyle['outline']>>({ colour: COLOUR, width: number(0, 0.5) })),
  shadow: maybe(either({ when: 'string', then: oneOf(['none']) }, { when: 'object', then: SHADOW })),
});

export const WORDS_COME: Schema = object<WordsCome>({ entrance: PASSAGE, exit: orNull(PASSAGE) });

/** The words of a layer; also what an edit of them carries. */
export const WORDS_PARTS: PartsOf<WordsText> = {
  title: text(LONGEST_WORDS_TITLE),
  subtitle: text(LONGEST_WORDS_SUBTITLE),
  place: oneOf(WORDS_PLACES),
  style: maybe(WORDS_STYLE),
  come: maybe(WORDS_COME),
  travel: maybe(
    object<WordsTravel>({
      kind: oneOf(['roll', 'crawl']),
      fromMs: whole(0, LONGEST_SLIDE_MS),
      lengthMs: orNull(whole(100, LONGEST_SLIDE_MS)),
    }),
  ),
};
