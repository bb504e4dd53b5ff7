import type { PicturePart } from '../../drawing/picture-reader';
import type { Pixels } from '../../drawing/planes/picture-planes';
import { MOST_PIXELS } from './look-at-picture';
import { openPicture } from './open-picture';

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
  const { data } = await (
    part ? picture.extract({ left: part.left, top: part.top, width: part.widthPx, height: part.heightPx }) : picture
  )
    .resize(widthPx, heightPx, { fit: 'fill', kernel: 'lanczos3' })
    .toColourspace('srgb')
    .ensureAlpha()
    .raw({ depth: 'uchar' })
    .toBuffer({ resolveWithObject: true });
  const rgba = new Uint8Array(data.buffer, data.byteOffset, data.byteLength);
  return { widthPx, heightPx, rgba, hasTransparency: hasTransparency(rgba) };
}

function hasTransparency(rgba: Uint8Array): boolean {
  for (let at = 3; at < rgba.length; at += 4) if (rgba[at] !== 255) return true;
  return false;
}
