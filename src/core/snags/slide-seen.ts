import type { LayerId } from '../show/ids';

/** What was measured in the frames of one slide. */
export interface SlideSeen {
  readonly words: readonly WordsSeen[];
  /** Flashes that may harm (WCAG 2.2, 2.3.1), where they are worst, from the slide's start; null when there are none. */
  readonly flashes: { readonly offsetMs: number; readonly perSecond: number } | null;
}

/** How words of a slide are seen over all the moments they can be read. */
export interface WordsSeen {
  readonly layerId: LayerId;
  /** The moment at which they are hardest to read; null when they are never seen. */
  readonly worst: WordsMoment | null;
  /** Most of a face that they cover at any moment, 0…1, and when. */
  readonly face: { readonly share: number; readonly offsetMs: number } | null;
  /** How near they come to each side of the frame, in shares of it; negative beyond it. Words that travel are not asked. */
  readonly margins: {
    readonly left: number;
    readonly top: number;
    readonly right: number;
    readonly bottom: number;
  } | null;
  /** By how much they are drawn smaller than was asked. */
  readonly scale: number;
  /** Height of their letters, in shares of the frame's shorter side. */
  readonly size: number;
}

export interface WordsMoment {
  readonly offsetMs: number;
  readonly legibility: Legibility;
}

/** How well letters stand out, see `legibilityOf`. */
export interface Legibility {
  /** Luminance contrast at the letters' outlines where it is poorest, 1…21 (WCAG 2.2, 1.4.3). */
  readonly contrast: number;
  /** How uneven what lies about them is, as the standard deviation of CIE lightness at its worst, 0…50. */
  readonly busyness: number;
  /** Contrast and busyness as one: the contrast that letters on an even ground would need to be as easy to read. */
  readonly clear: number;
}
