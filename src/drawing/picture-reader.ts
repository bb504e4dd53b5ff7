import type { AssetId } from '../core/show/ids';
import type { DecodedFrame, Pixels } from './planes/picture-planes';

/** What differs between browser and server: where pictures come from. */
export interface PictureReader {
  /**
   * The picture, upright and in sRGB, at exactly the size asked for.
   *
   * @throws when the file cannot be read; the error's message is for a person
   */
  readPicture(assetId: AssetId, widthPx: number, heightPx: number): Promise<Pixels>;
  /** One frame of a clip at the size asked for or, where that saves time, smaller; counted at `CLIP_FRAMES_PER_SECOND` and held at the last. */
  readClipFrame(assetId: AssetId, clipFrame: number, widthPx: number, heightPx: number): Promise<Pixels | DecodedFrame>;
}
