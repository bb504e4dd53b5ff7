import { existsSync } from 'node:fs';
import { open, readFile, rename, stat, writeFile } from 'node:fs/promises';
import sharp, { type Sharp, type SharpOptions } from 'sharp';
import { decodeHeic } from './decode-heic';

/** Far above any drawing, below what would hold up the machine. */
const LARGEST_DRAWING_BYTES = 8 * 1024 * 1024;
/** A drawing has no size of its own: it counts as this large on its longer side, whatever its file says, since it is sharp at any. */
export const DRAWING_SIDE_PX = 4096;
/** Dots per inch at which a unit of SVG is a pixel. */
const USUAL_DENSITY = 72;
const HEIC_BRANDS = new Set(['heic', 'heix', 'hevc', 'hevx', 'mif1', 'msf1']);

/** What a picture's file is, as far as it is opened differently; by its content. */
export async function pictureKind(file: string): Promise<'drawing' | 'heic' | 'other'> {
  const handle = await open(file, 'r');
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(4096), 0, 4096, 0);
    if (
      buffer.toString('latin1', 4, 8) === 'ftyp' &&
      HEIC_BRANDS.has(buffer.toString('latin1', 8, 12)) &&
      !buffer.toString('latin1', 16, 64).includes('avif')
    )
      return 'heic';
    return /^\uFEFF?\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*|<!DOCTYPE svg[^>]*>\s*)*<svg[\s>]/.test(
      buffer.toString('utf8', 0, bytesRead),
    )
      ? 'drawing'
      : 'other';
  } finally {
    await handle.close();
  }
}

/**
 * Opens a picture for reading, upright. Drawings are read from memory, so that nothing they refer to is ever fetched, and at a density that gives the width asked for.
 * HEIC takes seconds to decode; it is read from the copy `keepDecoded` left beside it, or decoded again.
 *
 * @throws {RangeError} for a drawing too large to read
 */
export async function openPicture(file: string, widthPx: number, options: SharpOptions): Promise<Sharp> {
  const kind = await pictureKind(file);
  if (kind === 'heic')
    return existsSync(decodedCopy(file)) ? sharp(decodedCopy(file), options) : sharp(await decodeHeic(file), options);
  if (kind === 'other') return sharp(file, options).autoOrient();
  if ((await stat(file)).size > LARGEST_DRAWING_BYTES) throw new RangeError('a drawing can be 8 MB at most');
  const bytes = await readFile(file);
  const { width } = await sharp(bytes).metadata();
  return sharp(bytes, { ...options, density: Math.min(7200, Math.max(1, (USUAL_DENSITY * widthPx) / width)) });
}

/** What a picture is, upright. */
export async function uprightSize(
  picture: Sharp,
): Promise<{ readonly format: string | undefined; readonly widthPx: number; readonly heightPx: number }> {
  const { format, autoOrient } = await picture.metadata();
  return { format, widthPx: autoOrient.width, heightPx: autoOrient.height };
}

/** Decodes a HEIC file once and keeps the outcome beside it; other files are left alone. */
export async function keepDecoded(file: string): Promise<void> {
  if ((await pictureKind(file)) !== 'heic' || existsSync(decodedCopy(file))) return;
  const part = `${decodedCopy(file)}.${process.pid}.part`;
  await writeFile(part, await decodeHeic(file));
  await rename(part, decodedCopy(file));
}

function decodedCopy(file: string): string {
  return `${file}.decoded`;
}
