import sharp from 'sharp';
import type { Box } from '../../core/focus/box';

/** Three bytes a pixel, upright, sRGB. */
export interface RgbPicture {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly rgb: Uint8Array;
}

/** A part of the picture at a size, in the upper left corner of a black square. */
export function resized(
  { rgb, widthPx, heightPx }: RgbPicture,
  part: Box,
  toWidthPx: number,
  toHeightPx: number,
  sidePx: number,
): Promise<Buffer> {
  const left = Math.round(part.left * widthPx);
  const top = Math.round(part.top * heightPx);
  return sharp(rgb, { raw: { width: widthPx, height: heightPx, channels: 3 } })
    .extract({
      left,
      top,
      width: Math.max(1, Math.min(widthPx - left, Math.round(part.width * widthPx))),
      height: Math.max(1, Math.min(heightPx - top, Math.round(part.height * heightPx))),
    })
    .resize(Math.max(1, toWidthPx), Math.max(1, toHeightPx), { fit: 'fill' })
    .extend({
      right: sidePx - Math.max(1, toWidthPx),
      bottom: sidePx - Math.max(1, toHeightPx),
      background: '#000000',
    })
    .raw()
    .toBuffer();
}

export function quarterTurned(
  { rgb, widthPx, heightPx }: RgbPicture,
  way: 'clockwise' | 'counter-clockwise',
): RgbPicture {
  const turned = new Uint8Array(rgb.length);
  for (let y = 0; y < heightPx; y += 1)
    for (let x = 0; x < widthPx; x += 1) {
      const [toX, toY] = way === 'clockwise' ? [heightPx - 1 - y, x] : [y, widthPx - 1 - x];
      const [from, to] = [3 * (y * widthPx + x), 3 * (toY * heightPx + toX)];
      turned[to] = rgb[from]!;
      turned[to + 1] = rgb[from + 1]!;
      turned[to + 2] = rgb[from + 2]!;
    }
  return { widthPx: heightPx, heightPx: widthPx, rgb: turned };
}
