import type { FactsById } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { CarriedPrint } from '../../drawing/prints/carried-print';
import type { ShowChange } from './show-change';
import type { Print } from '../../drawing/prints/print';

/** Times called `atMs` are on the page's clock: `performance.timeOrigin + performance.now()`, which page and worker share. */
export type ToWorker =
  | { readonly kind: 'canvas'; readonly canvas: OffscreenCanvas }
  | { readonly kind: 'show'; readonly show: Show; readonly facts: FactsById }
  /** The show that was sent last has become this; facts are those that were not known yet. */
  | { readonly kind: 'change'; readonly change: ShowChange; readonly facts: FactsById }
  | { readonly kind: 'size'; readonly widthPx: number; readonly heightPx: number }
  | { readonly kind: 'play'; readonly momentMs: number; readonly atMs: number; readonly endMs: number }
  | { readonly kind: 'still'; readonly momentMs: number }
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
  | { readonly kind: 'problem'; readonly assetId: AssetId; readonly message: string }
  | { readonly kind: 'frame-bytes'; readonly id: number; readonly i420: Uint8Array };

/** To the worker that makes prints. */
export interface PrintOrder {
  readonly id: number;
  readonly print: Print;
}

export type PrintMade =
  /** It hears orders from now on. */
  | { readonly id: null }
  | { readonly id: number; readonly carried: CarriedPrint }
  /** A sentence for a person. */
  | { readonly id: number; readonly problem: string };
