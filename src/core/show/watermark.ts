import { HASH, number, object, oneOf, type Schema } from '../schema/schema';
import type { AssetId } from './ids';
import { WORDS_PLACES, type WordsPlace } from './words';

/** A picture over the whole film, usually a studio's mark. */
export interface Watermark {
  readonly assetId: AssetId;
  readonly place: WordsPlace;
  /** Its longer side as a share of the frame's shorter one, 0.03…0.6. */
  readonly size: number;
  /** 0.05…1 */
  readonly opacity: number;
}

export const USUAL_WATERMARK: Omit<Watermark, 'assetId'> = { place: 'bottom-right', size: 0.14, opacity: 0.6 };

export const WATERMARK: Schema = object<Watermark>({
  assetId: HASH,
  place: oneOf(WORDS_PLACES),
  size: number(0.03, 0.6),
  opacity: number(0.05, 1),
});
