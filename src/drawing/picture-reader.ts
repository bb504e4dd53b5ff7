import type { AssetId } from '../core/show/ids';
import type { DecodedFrame, Pixels } from './planes/picture-planes';

/** Some of a picture's own pixels: columns and rows from `left` and `top` on, and how many there are in all. */
export interface PicturePart {
  readonly left: number;
  readonly top: number;
  readonly widthPx: number;
  readonly heightPx: number;
  readonly ofWidthPx: number;
  readonly ofHeightPx: number;
}

/** What differs between browser and server: where pictures come from. */
export interface PictureReader {
  /**
   * The picture, or a part of it, upright and in sRGB, at exactly the size asked for.
   *
   * @throws when the file cannot be read; the error's message is for a person
   */
  readPicture(assetId: AssetId, widthPx: number, heightPx: number, part?: PicturePart): Promise<Pixels>;
  /** One frame of a clip at the size asked for or, where that saves time, smaller; counted at `CLIP_FRAMES_PER_SECOND` and held at the last. */
  readClipFrame(assetId: AssetId, clipFrame: number, widthPx: number, heightPx: number): Promise<Pixels | DecodedFrame>;
}
