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

/**
 * A square of the picture at another size, as values from 0 to 1, three a pixel; black beyond the picture's edge. Several samples are averaged where it is made
 * smaller.
 *
 * @param x @param y its centre @param side all three in pixels of the picture
 */
export function squareOf(
  { rgb, widthPx, heightPx }: RgbPicture,
  x: number,
  y: number,
  side: number,
  toPx: number,
): Float32Array {
  const square = new Float32Array(3 * toPx * toPx);
  const samples = Math.max(1, Math.ceil(side / toPx));
  const step = side / (toPx * samples);
  const weight = 1 / (255 * samples * samples);
  for (let row = 0; row < toPx * samples; row += 1)
    for (let column = 0; column < toPx * samples; column += 1) {
      const fromX = x - side / 2 + (column + 0.5) * step - 0.5;
      const fromY = y - side / 2 + (row + 0.5) * step - 0.5;
      const [left, top] = [Math.floor(fromX), Math.floor(fromY)];
      const to = 3 * (Math.floor(row / samples) * toPx + Math.floor(column / samples));
      for (const [dx, dy] of CORNERS) {
        const [px, py] = [left + dx, top + dy];
        if (px < 0 || py < 0 || px >= widthPx || py >= heightPx) continue;
        const share = weight * (dx ? fromX - left : 1 - fromX + left) * (dy ? fromY - top : 1 - fromY + top);
        const from = 3 * (py * widthPx + px);
        for (let channel = 0; channel < 3; channel += 1) square[to + channel]! += share * rgb[from + channel]!;
      }
    }
  return square;
}
const CORNERS = [
  [0, 0],
  [1, 0],
  [0, 1],
  [1, 1],
] as const;

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
