import sharp, { type Sharp } from 'sharp';

/** What lies beyond a picture's border is taken to be as its border, so far out: more than the interpolation reaches. */
const BORDER_PX = 4;

interface Raw {
  readonly data: Buffer;
  readonly widthPx: number;
  readonly heightPx: number;
}

/**
 * A picture at exactly a size, as RGBA in sRGB, with every point where it was: places are shares of the picture before and after.
 *
 * Two habits of the library are worked around. Enlarging takes samples by their corners and moves the picture half a pixel right and down; it is done here with
 * the right offset. And JPEGs and WebPs are shrunk by 2, 4 or 8 while they are decoded, where a last row or column that does not fill a whole block still
 * becomes one: such pictures are decoded whole.
 *
 * @param picture upright, with nothing asked of it but perhaps a part taken out
 * @param of the size of what is resampled: of the part, or the whole picture
 */
export async function resampled(
  picture: Sharp,
  of: { readonly widthPx: number; readonly heightPx: number },
  widthPx: number,
  heightPx: number,
): Promise<Buffer> {
  const read = await raw(
    picture.resize(Math.min(widthPx, of.widthPx), Math.min(heightPx, of.heightPx), { fit: 'fill', kernel: 'lanczos3' }),
  );
  return read.widthPx === widthPx && read.heightPx === heightPx ? read.data : enlarged(read, widthPx, heightPx);
}

/** Whether shrinking while decoding would bend a picture: its sides are no multiples of the blocks that become a pixel. */
export function shrinksUnevenly(
  format: string | undefined,
  of: { readonly widthPx: number; readonly heightPx: number },
  widthPx: number,
): boolean {
  if (format !== 'jpeg' && format !== 'webp') return false;
  const block = [8, 4, 2].find((size) => of.widthPx / widthPx >= size);
  return block !== undefined && (of.widthPx % block !== 0 || of.heightPx % block !== 0);
}

async function raw(picture: Sharp): Promise<Raw> {
  const { data, info } = await picture
    .toColourspace('srgb')
    .ensureAlpha()
    .raw({ depth: 'uchar' })
    .toBuffer({ resolveWithObject: true });
  return { data, widthPx: info.width, heightPx: info.height };
}

async function enlarged(read: Raw, widthPx: number, heightPx: number): Promise<Buffer> {
  const { data: wide } = await sharp(read.data, { raw: { width: read.widthPx, height: read.heightPx, channels: 4 } })
    .extend({ top: BORDER_PX, bottom: BORDER_PX, left: BORDER_PX, right: BORDER_PX, extendWith: 'copy' })
    .raw()
    .toBuffer({ resolveWithObject: true });
  const [scaleX, scaleY] = [widthPx / read.widthPx, heightPx / read.heightPx];
  const [left, top] = [Math.floor(BORDER_PX * scaleX), Math.floor(BORDER_PX * scaleY)];
  const { data, info } = await sharp(wide, {
    raw: { width: read.widthPx + 2 * BORDER_PX, height: read.heightPx + 2 * BORDER_PX, channels: 4 },
  })
    .affine(
      [
        [scaleX, 0],
        [0, scaleY],
      ],
      {
        idx: 0.5,
        idy: 0.5,
        odx: left - BORDER_PX * scaleX - 0.5,
        ody: top - BORDER_PX * scaleY - 0.5,
        interpolator: 'bicubic',
      },
    )
    .raw()
    .toBuffer({ resolveWithObject: true });
  const out = Buffer.allocUnsafe(4 * widthPx * heightPx);
  for (let row = 0; row < heightPx; row += 1) {
    const from = 4 * ((row + top) * info.width + left);
    data.copy(out, 4 * widthPx * row, from, from + 4 * widthPx);
  }
  return out;
}

export function hasTransparency(rgba: Uint8Array): boolean {
  for (let at = 3; at < rgba.length; at += 4) if (rgba[at] !== 255) return true;
  return false;
}
