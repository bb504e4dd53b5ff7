import type { FilmSegment } from '../../core/film/plan-film';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { Show } from '../../core/show/show';
import type { SegmentEncoding } from './encodings';

/** What a film worker is given first. */
export interface FilmWork {
  /** In the film's shape and at its rate. */
  readonly show: Show;
  readonly facts: ReadonlyMap<AssetId, AssetFacts>;
  /** Absolute paths of the original files. */
  readonly files: ReadonlyMap<AssetId, string>;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly encoding: SegmentEncoding;
}

export interface SegmentOrder {
  readonly segment: FilmSegment;
  readonly outFile: string;
  /** Where more files lie, for a worker that has only what it needs. */
  readonly files?: ReadonlyMap<AssetId, string>;
}

/** What drawing a segment took. */
export interface DrawnSegment {
  /** Planning, reading and painting. */
  readonly drawMs: number;
  /** Of that, waiting for pictures that had to be read. */
  readonly readMs: number;
  /** CPU time of the encoder. */
  readonly encodeMs: number;
  /** Frames that were like the one before, and were not drawn again. */
  readonly stillFrames: number;
}

export interface UnreadFile {
  readonly assetId: AssetId;
  readonly message: string;
}

export type WorkerReport =
  | { readonly kind: 'frames'; readonly done: number }
  /** A small JPEG of the frame just made, now and then. */
  | { readonly kind: 'glimpse'; readonly jpeg: Uint8Array }
  /** Files that could not be read are missing from it. */
  | { readonly kind: 'segment'; readonly drawn: DrawnSegment; readonly problems: readonly UnreadFile[] }
  | { readonly kind: 'failed'; readonly message: string; readonly details: string; readonly diskFull: boolean };
