import type { Temperament } from '../motion/automatic-move';
import type { Backing } from '../show/show';
import type { Transition } from '../show/transition';
import type { FontName, WordsUnit, WordsWay } from '../show/words';

/** The look of a whole show: its letters and colours, how pictures move and give way to each other, which mounts open, part and close it. */
export interface Plumage {
  readonly id: string;
  readonly name: string;
  /** What it is like, in a sentence. */
  readonly description: string;
  readonly letters: Letters;
  readonly palette: Palette;
  /** One of these for each slide, as they are dealt. */
  readonly transitions: readonly Transition[];
  /** Into a chapter. */
  readonly chapterTransition: Transition;
  readonly temperament: Temperament;
  /** Behind pictures that leave room; `automatic` asks the picture. */
  readonly backing: Backing;
  /** How words come. */
  readonly come: { readonly way: WordsWay; readonly by: WordsUnit };
  /** Mounts by id; those of several pictures are dealt. */
  readonly mounts: {
    readonly opener: string;
    readonly chapter: string;
    readonly closer: string;
    readonly several: readonly string[];
  };
}

/** Two families: of titles, and of what stands below them. */
export interface Letters {
  readonly title: FontName;
  readonly text: FontName;
  /** Of titles: 100…900. */
  readonly weight: number;
  /** Of titles, as a share of the letters' size. */
  readonly spacing: number;
}

/** Colours by what they are for. Ink reads on paper, and paper on ink. */
export interface Palette {
  readonly ink: string;
  readonly paper: string;
  readonly accent: string;
  /** Between ink and paper: lines, fields, rims. */
  readonly soft: string;
}

/** What of a plumage a show has, beside how it looks. */
export interface PlumageWith {
  readonly opener: boolean;
  readonly chapters: boolean;
  readonly closer: boolean;
  /** Some neighbours share a slide. */
  readonly several: boolean;
}

/** A show's plumage, whole, so that it stays what it is when the studio changes it. */
export interface PlumageInUse {
  readonly is: Plumage;
  readonly with: PlumageWith;
  /** Another one deals moves, transitions and mounts again. */
  readonly seed: number;
  /** How the show was before, where that differs from what it is now; null where nothing was said. */
  readonly bare: { readonly temperament: Temperament | null };
  /** What its mounts were given to say, by role and name: it goes along when the plumage changes. */
  readonly said?: Readonly<Record<string, string>>;
}
