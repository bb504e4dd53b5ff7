import type { FactsById } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { CarriedPlate } from '../../drawing/plates/carried-plate';
import type { ShowChange } from './show-change';
import type { Plate } from '../../drawing/plates/plate';

/** Times called `atMs` are on the page's clock: `performance.timeOrigin + performance.now()`, which page and worker share. */
export type ToWorker =
  | { readonly kind: 'canvas'; readonly canvas: OffscreenCanvas }
  | { readonly kind: 'show'; readonly show: Show; readonly facts: FactsById }
  /** The show that was sent last has become this; facts are those that were not known yet, or are known better. */
  | { readonly kind: 'change'; readonly change: ShowChange; readonly facts: FactsById }
  | { readonly kind: 'size'; readonly widthPx: number; readonly heightPx: number }
  /** `speed` 1 as it is in the film. */
  | {
      readonly kind: 'play';
      readonly momentMs: number;
      readonly atMs: number;
      readonly endMs: number;
      readonly speed: number;
    }
  | { readonly kind: 'still'; readonly momentMs: number }
  /** Everything the show needs is fetched and made once, so that nothing is missing later. */
  | { readonly kind: 'rehearse' }
  /** A small picture of a moment of the show that was sent last. */
  | {
      readonly kind: 'print';
      readonly id: number;
      readonly momentMs: number;
      readonly widthPx: number;
      readonly heightPx: number;
    }
  | {
      readonly kind: 'frame-bytes';
      readonly id: number;
      readonly momentMs: number;
      readonly widthPx: number;
      readonly heightPx: number;
    };

export type FromWorker =
  | { readonly kind: 'ready' }
  | { readonly kind: 'drawn'; readonly momentMs: number }
  | { readonly kind: 'waiting'; readonly momentMs: number }
  /** By how much words of the slide that is seen are smaller than was asked, so that they fit; 1 when all are as large. */
  | { readonly kind: 'words-scale'; readonly scale: number }
  | { readonly kind: 'problem'; readonly assetId: AssetId; readonly message: string }
  | { readonly kind: 'rehearsed'; readonly done: number; readonly of: number }
  /** Frames drawn since the last time, and over how long: while it plays. */
  | { readonly kind: 'drew'; readonly frames: number; readonly overMs: number }
  | { readonly kind: 'print'; readonly id: number; readonly bitmap: ImageBitmap | null }
  | { readonly kind: 'frame-bytes'; readonly id: number; readonly i420: Uint8Array };

/** To the worker that makes plates. */
export interface PlateOrder {
  readonly id: number;
  readonly plate: Plate;
}

export type PlateMade =
  /** It hears orders from now on. */
  | { readonly id: null }
  | { readonly id: number; readonly carried: CarriedPlate }
  /** A sentence for a person. */
  | { readonly id: number; readonly problem: string };
