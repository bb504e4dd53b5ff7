import {
  COLOUR,
  list,
  maybe,
  number,
  object,
  oneOf,
  record,
  text,
  whole,
  type Schema,
  type TextSchema,
} from '../schema/schema';
import { LONGEST_CAPTION, LONGEST_SLIDE_MS, MOST_CAPTIONS, MOST_LANGUAGES } from './limits';
import { FONT_NAMES, type FontName } from './words';

/** What is read along with what is spoken. Times count from where the slide is first seen; it may be read on over later slides. */
export interface Caption {
  readonly fromMs: number;
  readonly toMs: number;
  /** Lines as they are broken; one line is broken as it needs. */
  readonly text: string;
}

/** By language tag (BCP 47): `en`, `pt-BR`. */
export type CaptionsByLanguage = Readonly<Record<string, readonly Caption[]>>;

/** How captions look that are part of the picture. */
export interface CaptionLook {
  readonly font?: FontName;
  /** Share of the frame's shorter side. */
  readonly size?: number;
  readonly colour?: string;
  /** 0 none … 1: how dark the box behind them is. */
  readonly box?: number;
  readonly place?: 'top' | 'bottom';
  /** Which of the show's languages is shown; its own when it is not said. */
  readonly language?: string;
}

export const USUAL_CAPTION_LOOK = {
  font: 'instrument',
  size: 0.048,
  colour: '#ffffff',
  box: 0.6,
  place: 'bottom',
} as const;

export const USUAL_LANGUAGE = 'en';

export const LANGUAGE: TextSchema = {
  is: 'text',
  least: 2,
  most: 35,
  like: {
    pattern: /^[a-z]{2,3}(-[A-Za-z0-9]{2,8})*$/,
    says: 'must be a language tag, as en or pt-BR',
    samples: ['en', 'de', 'pt-BR'],
  },
};

export const CAPTIONS: Schema = list(
  object<Caption>({
    fromMs: whole(0, LONGEST_SLIDE_MS),
    toMs: whole(1, LONGEST_SLIDE_MS),
    text: text(LONGEST_CAPTION, 1),
  }),
  MOST_CAPTIONS,
);

export const CAPTIONS_BY_LANGUAGE: Schema = record(LANGUAGE, CAPTIONS, MOST_LANGUAGES, 1);

export const CAPTION_LOOK: Schema = object<CaptionLook>({
  font: maybe(oneOf(FONT_NAMES)),
  size: maybe(number(0.02, 0.12)),
  colour: maybe(COLOUR),
  box: maybe(number(0, 1)),
  place: maybe(oneOf(['top', 'bottom'])),
  language: maybe(LANGUAGE),
});

/** What is wrong with captions together, as a sentence that can follow “because”. */
export function faultOfCaptions(captions: readonly Caption[]): string | null {
  for (const [index, caption] of captions.entries()) {
    if (caption.toMs <= caption.fromMs) return 'a caption ends before it begins';
    if (index > 0 && caption.fromMs < captions[index - 1]!.toMs) return 'two captions of one language overlap';
  }
  return null;
}
