import type { BandWishes } from '../../core/sound/band/band-wishes';
import type { Section } from '../../core/sound/listening/sections';

export type ToBand =
  /** Tells what a piece would be like, before anybody plays it. */
  | { readonly kind: 'plan'; readonly id: number; readonly wishes: BandWishes }
  /** Plays it; the thread is ended when nobody listens any more. */
  | { readonly kind: 'play'; readonly wishes: BandWishes };

/** A piece before it is played. */
export interface PlannedPiece {
  readonly title: string;
  readonly bpm: number;
  readonly bars: number;
  readonly beatsABar: number;
  readonly sections: readonly Section[];
  readonly lastChordMs: number;
}

export type FromBand =
  | { readonly kind: 'planned'; readonly id: number; readonly piece: PlannedPiece | null }
  | { readonly kind: 'played'; readonly left: Float32Array; readonly right: Float32Array; readonly share: number }
  | { readonly kind: 'over' };
