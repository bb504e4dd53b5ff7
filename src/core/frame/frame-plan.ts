import type { Framing } from '../motion/framing';
import type { AssetId, SlideId } from '../show/ids';
import type { WordsPlace } from '../show/show';

/** Everything a frame shows, as plain data; `paintFrame` performs it. */
export interface FramePlan {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly slide: SlidePlan;
  /** The slide coming in over `slide`, or null outside transitions. */
  readonly incoming: { readonly slide: SlidePlan; readonly kind: 'dissolve'; /** 0…1 */ readonly progress: number } | null;
}

export interface SlidePlan {
  readonly slideId: SlideId;
  readonly backing: BackingPlan;
  /** Bottom to top. */
  readonly layers: readonly LayerPlan[];
}

export type BackingPlan =
  /** Every pixel is covered by a layer, so nothing is drawn. */
  | { readonly kind: 'hidden' }
  | { readonly kind: 'colour'; /** #rrggbb */ readonly colour: string }
  | { readonly kind: 'blurred'; readonly assetId: AssetId };

export type LayerPlan =
  | { readonly kind: 'picture'; readonly assetId: AssetId; readonly framing: Framing; readonly size: PictureSize }
  | { readonly kind: 'clip'; readonly assetId: AssetId; readonly framing: Framing; readonly size: PictureSize; /** From the clip's start, at `CLIP_FRAMES_PER_SECOND`. */ readonly clipFrame: number }
  | { readonly kind: 'words'; readonly look: WordsLook; /** 0…1 */ readonly opacity: number };

/** Size at which a picture is wanted for the whole of its move, so that source pixels per frame pixel stay within 1.1…1.5. */
export interface PictureSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** All that decides what a words layer looks like; equal looks are drawn once. */
export interface WordsLook {
  readonly title: string;
  readonly subtitle: string;
  readonly place: WordsPlace;
}

/** Clips are read at this rate whatever the film's. */
export const CLIP_FRAMES_PER_SECOND = 30;
