import sharp from 'sharp';

/** The frame just made, small, for whoever waits for the film. */
const WIDTH_PX = 240;

/** @param i420 a frame as it goes to the encoder: BT.709, limited range. @returns a JPEG */
export async function glimpseOf(i420: Uint8Array, widthPx: number, heightPx: number): Promise<Uint8Array> {
  const step = Math.max(1, Math.floor(Math.max(widthPx, heightPx) / WIDTH_PX));
  const across = Math.floor(widthPx / step);
  const down = Math.floor(heightPx / step);
  const rgb = new Uint8ClampedArray(across * down * 3);
  const chromaWidth = widthPx / 2;
  const chromaU = widthPx * heightPx;
  const chromaV = chromaU + (chromaWidth * heightPx) / 2;
  for (let row = 0, to = 0; row < down; row += 1)
    for (let column = 0; column < across; column += 1, to += 3) {
      const x = column * step;
      const y = row * step;
      const chroma = (y >> 1) * chromaWidth + (x >> 1);
      const luma = 1.1644 * (i420[y * widthPx + x]! - 16);
      const u = i420[chromaU + chroma]! - 128;
      const v = i420[chromaV + chroma]! - 128;
      rgb[to] = luma + 1.7927 * v;
      rgb[to + 1] = luma - 0.2132 * u - 0.5329 * v;
      rgb[to + 2] = luma + 2.1124 * u;
    }
  return sharp(rgb, { raw: { width: across, height: down, channels: 3 } })
    .jpeg({ quality: 72 })
    .toBuffer();
}
