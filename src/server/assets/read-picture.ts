import type { PicturePart } from '../../drawing/picture-reader';
import type { Pixels } from '../../drawing/planes/picture-planes';
import { MOST_PIXELS } from './look-at-picture';
import { openPicture, uprightSize } from './open-picture';
import { hasTransparency, resampled, shrinksUnevenly } from './resample';

/** Reads a picture or a part of it upright, in sRGB, at exactly a size. A damaged end is tolerated here: whether to use such a file was decided at intake. */
export async function readPictureFile(
  file: string,
  widthPx: number,
  heightPx: number,
  part?: PicturePart,
): Promise<Pixels> {
  const picture = await openPicture(file, part ? (widthPx * part.ofWidthPx) / part.widthPx : widthPx, {
    limitInputPixels: MOST_PIXELS,
    failOn: 'none',
  });
  const { format, ...whole } = await uprightSize(picture);
  // A part that is all there is keeps the decoder from shrinking.
  const taken = part ?? (shrinksUnevenly(format, whole, widthPx) ? { left: 0, top: 0, ...whole } : null);
  const read = taken
    ? picture.extract({ left: taken.left, top: taken.top, width: taken.widthPx, height: taken.heightPx })
    : picture;
  const data = await resampled(read, taken ?? whole, widthPx, heightPx);
  const rgba = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  return { widthPx, heightPx, rgba, hasTransparency: hasTransparency(rgba) };
}
