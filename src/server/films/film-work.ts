import type { FilmSegment } from '../../core/film/plan-film';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { FrameRate } from '../../core/timing/frame-rate';
import type { Show } from '../../core/show/show';

/** What a film worker is given first. */
export interface FilmWork {
  readonly show: Show;
  readonly facts: ReadonlyMap<AssetId, AssetFacts>;
  /** Absolute paths of the original files. */
  readonly files: ReadonlyMap<AssetId, string>;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly rate: FrameRate;
}

export interface SegmentOrder {
  readonly segment: FilmSegment;
  readonly outFile: string;
}

export type WorkerReport =
  | { readonly kind: 'frames'; readonly done: number }
  | {
      readonly kind: 'segment';
      readonly index: number;
      /** planning, reading and painting */ readonly drawMs: number;
      /** CPU time of the encoder */ readonly encodeMs: number;
    }
  | { readonly kind: 'problem'; readonly assetId: AssetId; readonly message: string }
  | { readonly kind: 'failed'; readonly message: string; readonly details: string; readonly diskFull: boolean };
