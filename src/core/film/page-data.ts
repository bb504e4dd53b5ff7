import type { FileCaption } from '../captions/caption-files';
import type { ScreeningLook } from '../screening/screening-look';
import type { AssetFacts } from '../show/asset-facts';
import type { AssetId } from '../show/ids';
import type { Show } from '../show/show';
import type { FilmChapter } from './chapters';

/** What a page that plays is told about the show; its pictures, letters and sound lie beside it as parts. */
export interface PageData {
  readonly show: Show;
  readonly facts: readonly (readonly [AssetId, AssetFacts])[];
  /** The stretch of the show that is played. Chapters and captions are in its own time. */
  readonly fromMs: number;
  readonly toMs: number;
  readonly chapters: readonly FilmChapter[];
  readonly captions: readonly { readonly language: string; readonly captions: readonly FileCaption[] }[];
  readonly hasSound: boolean;
  readonly look: ScreeningLook;
}

/** Names of parts, as page and packer both say them. */
export const PAGE_PARTS = {
  data: 'show',
  sound: 'sound',
  kernels: 'kernels',
  shaping: 'shaping',
  fonts: 'fonts',
  drawing: 'drawing',
  plates: 'plates',
  font: (name: string) => `font-${name}`,
  picture: (id: string) => `picture-${id}`,
  clip: (id: string, second: number) => `clip-${id}-${second}`,
} as const;
