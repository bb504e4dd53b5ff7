import type { Letters, Palette } from '../plumage/plumage';
import type { LayerId } from '../show/ids';
import type { FrameShape, Slide } from '../show/show';

/**
 * A reusable slide, or a run of them. Where a person's picture goes stands the id of a window (`windowId`); the same window may stand in several places, such as
 * a picture and the backing behind it.
 */
export interface Mount {
  /** Of one that ships with the app its name in small letters; of others a hash of all they are. */
  readonly id: string;
  readonly name: string;
  readonly author: string;
  readonly description: string;
  /** What it is kept under. */
  readonly shelf: string;
  /** Moment of its first fit that stands for it. */
  readonly posterMs: number;
  /** Where it goes when it takes no picture: before what is chosen, or after it. */
  readonly goes: 'before' | 'after';
  /** Its fits for a frame, dressed in a look; at least one. */
  fits(frame: Shape, look: Look): readonly MountFit[];
}

export type Shape = Pick<FrameShape, 'widthPx' | 'heightPx'>;

/** The letters and colours a mount is dressed in. */
export interface Look {
  readonly letters: Letters;
  readonly palette: Palette;
  /** What the studio's logo reads on; paper where nothing is said. */
  readonly logoOn?: 'ink';
}

/** What one mount is for so many pictures of such a shape. */
export interface MountFit {
  readonly name: string;
  readonly suits: Suits;
  readonly windows: readonly MountWindow[];
  readonly slides: readonly Slide[];
  readonly words: readonly MountWords[];
  /** A loupe goes over the picture of this layer once that is known. */
  readonly loupeOver?: LayerId;
}

export type Suits = 'any' | 'wide' | 'upright' | 'square';
export const SUITS: readonly Suits[] = ['any', 'wide', 'upright', 'square'];

/** Where a picture of the person's goes; its number, from 1, is its place in the list. */
export interface MountWindow {
  readonly name: string;
  /** `backing`: takes the first window's picture where it is given none. `logo`: takes the studio's. */
  readonly takes: 'picture' | 'backing' | 'logo';
  /** On a back, on a side of a box, as a backing: a clip cannot stand there. */
  readonly stills?: true;
}

/** Words that are there to be filled; all others are part of the design. */
export interface MountWords {
  readonly slide: number;
  readonly layerId: LayerId;
  readonly part: 'title' | 'subtitle';
  readonly name: string;
  readonly from: WordsFrom;
}

/** Where words come from that nobody wrote: what stood on the slides, the show's title, when its pictures were taken, the studio. `own`: as designed. */
export type WordsFrom = 'words' | 'title' | 'dates' | 'chapter' | 'studio' | 'contact' | 'credits' | 'own';
export const WORDS_FROM: readonly WordsFrom[] = [
  'words',
  'title',
  'dates',
  'chapter',
  'studio',
  'contact',
  'credits',
  'own',
];

/** The windows that take pictures a person chooses, by their index. */
export function pictureWindows({ windows }: Pick<MountFit, 'windows'>): number[] {
  return windows.flatMap((window, index) => (window.takes === 'picture' ? [index] : []));
}

/** How many pictures a fit takes. */
export const takesOf = (fit: MountFit): number => pictureWindows(fit).length;
