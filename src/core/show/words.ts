import type { EasingName } from '../keys/easing';
export type WordsPlace =
  'top-left' | 'top' | 'top-right' | 'left' | 'centre' | 'right' | 'bottom-left' | 'bottom' | 'bottom-right';

export const WORDS_PLACES: readonly WordsPlace[] = [
  'top-left',
  'top',
  'top-right',
  'left',
  'centre',
  'right',
  'bottom-left',
  'bottom',
  'bottom-right',
];

/** Where between left and right, and top and bottom, a place is: 0, 0.5 or 1. */
export function anchorOf(place: WordsPlace): readonly [across: number, down: number] {
  const across = place.endsWith('left') ? 0 : place.endsWith('right') ? 1 : 0.5;
  return [across, place.startsWith('top') ? 0 : place.startsWith('bottom') ? 1 : 0.5];
}

/** The families that ship with the app. */
export const FONT_NAMES = [
  'bricolage',
  'instrument',
  'outfit',
  'space-grotesk',
  'josefin',
  'quicksand',
  'oswald',
  'fraunces',
  'playfair',
  'bodoni',
  'vollkorn',
  'cinzel',
  'caveat',
  'dancing-script',
  'spline-mono',
] as const;
export type FontName = (typeof FONT_NAMES)[number];

/** How words look. What is left out is as the show's own: white, with a soft shadow. Sizes are shares of the frame's shorter side, or of the letters' where it says so. */
export interface WordsStyle<Colour = string> {
  readonly font?: FontName;
  readonly subtitleFont?: FontName;
  /** The letters lean. */
  readonly italic?: true;
  /** Parts of a line that look otherwise. */
  readonly parts?: readonly WordsPart[];
  /** 100…900, within what the font has. */
  readonly weight?: number;
  /** Size of the title; the subtitle keeps its proportion. 0.01…0.5. */
  readonly size?: number;
  readonly colour?: Colour;
  /** Colour of the subtitle. */
  readonly accent?: Colour;
  /** Of the lines; as the place when left out. */
  readonly align?: 'left' | 'centre' | 'right';
  /** Shares of the letters' size. */
  readonly letterSpacing?: number;
  /** 1 is the font's usual. */
  readonly lineSpacing?: number;
  /** Widest line as a share of the frame's width, 0.1…1. */
  readonly measure?: number;
  /** Tallest block as a share of the frame's height, 0.02…1: words that need more are made smaller. */
  readonly room?: number;
  readonly box?: {
    readonly colour: string;
    /** 0…1 */ readonly opacity: number;
    /** shares of the letters' size */ readonly padding: number;
    readonly radius: number;
  };
  /** Width as a share of the letters' size. */
  readonly outline?: { readonly colour: string; readonly width: number };
  readonly shadow?:
    | 'none'
    | {
        readonly colour: string;
        readonly opacity: number;
        readonly softness: number;
        readonly x: number;
        readonly y: number;
      };
}

/** How a part of a line looks, wherever it stands in the title or the subtitle. */
export interface WordsPart {
  /** As it reads, in one line. */
  readonly words: string;
  readonly colour?: string;
  readonly italic?: true;
}
/** Parts with a look of their own in one layer. */
export const MOST_PARTS = 12;
export const LONGEST_PART = 200;

export type WordsWay = 'none' | 'fade' | 'rise' | 'type' | 'wipe' | 'blur';
export type WordsUnit = 'all' | 'line' | 'word' | 'letter';
export const WORDS_WAYS: readonly WordsWay[] = ['none', 'fade', 'rise', 'type', 'wipe', 'blur'];
export const WORDS_UNITS: readonly WordsUnit[] = ['all', 'line', 'word', 'letter'];

/** When and how words come and go. Without it they fade in once the picture has arrived, and stay. */
export interface WordsCome {
  readonly entrance: WordsPassage;
  /** Null: they stay as long as the slide. */
  readonly exit: WordsPassage | null;
}

/** `atMs` counts from the slide's start for an entrance, back from the next slide's start for an exit's end. `lengthMs` covers all units. */
export interface WordsPassage {
  readonly way: WordsWay;
  readonly by: WordsUnit;
  readonly atMs: number;
  readonly lengthMs: number;
  /** How each unit comes or goes: by a curve of its own where it is not said. */
  readonly easing?: PassageEasing;
  /** How far one unit goes before the next sets out: 0 all at once, 1 one after the other; 0.6 when left out. Typing has its own beat. */
  readonly stagger?: number;
}
export const PASSAGE_EASINGS = [
  'linear',
  'settle',
  'arrive',
  'set-off',
  'swing',
  'bounce',
] as const satisfies EasingName[];
export type PassageEasing = (typeof PASSAGE_EASINGS)[number];

/** Words that travel over the frame: rolling upwards as credits, or crawling along the line, from outside to outside. */
export interface WordsTravel {
  readonly kind: 'roll' | 'crawl';
  readonly fromMs: number;
  /** Null: as long as the slide is seen. */
  readonly lengthMs: number | null;
}
