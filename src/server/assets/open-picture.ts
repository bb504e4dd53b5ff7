import { existsSync } from 'node:fs';
import { open, readFile, rename, stat, writeFile } from 'node:fs/promises';
import sharp, { type Sharp, type SharpOptions } from 'sharp';
import { decodedCopy } from '../blobs/decoded-copy';
import { decodeHeic } from './decode-heic';
import { isRaw, pictureOfRaw } from './raw-preview';

/** Far above any drawing, below what would hold up the machine. */
const LARGEST_DRAWING_BYTES = 8 * 1024 * 1024;
/** A drawing has no size of its own: it counts as this large on its longer side, whatever its file says, since it is sharp at any. */
export const DRAWING_SIDE_PX = 4096;
/** Dots per inch at which a unit of SVG is a pixel. */
const USUAL_DENSITY = 72;
const HEIC_BRANDS = new Set(['heic', 'heix', 'hevc', 'hevx', 'mif1', 'msf1']);

/** So much of a file's beginning is read to tell what it is; a camera's directories lie within. */
const HEAD_BYTES = 64 * 1024;

export type PictureKind = 'drawing' | 'heic' | 'raw' | 'other';

/** What a picture's file is, as far as it is opened differently; by its content. */
export async function pictureKind(file: string): Promise<PictureKind> {
  const handle = await open(file, 'r');
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(HEAD_BYTES), 0, HEAD_BYTES, 0);
    if (isRaw(buffer.subarray(0, bytesRead))) return 'raw';
    if (
      buffer.toString('latin1', 4, 8) === 'ftyp' &&
      HEIC_BRANDS.has(buffer.toString('latin1', 8, 12)) &&
      !buffer.toString('latin1', 16, 64).includes('avif')
    )
      return 'heic';
    return /^\uFEFF?\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*|<!DOCTYPE svg[^>]*>\s*)*<svg[\s>]/.test(
      buffer.toString('utf8', 0, Math.min(bytesRead, 4096)),
    )
      ? 'drawing'
      : 'other';
  } finally {
    await handle.close();
  }
}

/**
 * Opens a picture for reading, upright. Drawings are read from memory, so that nothing they refer to is ever fetched, and at a density that gives the width asked for.
 * HEIC takes seconds to decode, and RAW is shown by the picture the camera put into it or developed; both are read from the copy `keepDecoded` left beside them, or decoded again.
 *
 * @throws {RangeError} for a drawing too large to read
 */
export async function openPicture(file: string, widthPx: number, options: SharpOptions): Promise<Sharp> {
  const kind = await pictureKind(file);
  if (kind === 'heic' || kind === 'raw')
    return sharp(existsSync(decodedCopy(file)) ? decodedCopy(file) : await decoded(file, kind), options).autoOrient();
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

/** Decodes a file once whose kind no usual reader reads, and keeps the outcome beside it; other files are left alone. */
export async function keepDecoded(file: string): Promise<void> {
  const kind = await pictureKind(file);
  if ((kind !== 'heic' && kind !== 'raw') || existsSync(decodedCopy(file))) return;
  const part = `${decodedCopy(file)}.${process.pid}.part`;
  await writeFile(part, await decoded(file, kind));
  await rename(part, decodedCopy(file));
}

async function decoded(file: string, kind: 'heic' | 'raw'): Promise<Buffer> {
  return kind === 'heic' ? decodeHeic(file) : pictureOfRaw(file);
}
