import { open, readFile, stat } from 'node:fs/promises';
import sharp, { type Sharp, type SharpOptions } from 'sharp';

/** Far above any drawing, below what would hold up the machine. */
const LARGEST_DRAWING_BYTES = 8 * 1024 * 1024;
/** A drawing has no size of its own: it counts as this large on its longer side, whatever its file says, since it is sharp at any. */
export const DRAWING_SIDE_PX = 4096;
/** Dots per inch at which a unit of SVG is a pixel. */
const USUAL_DENSITY = 72;

/** Whether a file is a drawing in SVG, by its content. */
export async function isDrawing(file: string): Promise<boolean> {
  const handle = await open(file, 'r');
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(4096), 0, 4096, 0);
    return /^\uFEFF?\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*|<!DOCTYPE svg[^>]*>\s*)*<svg[\s>]/.test(buffer.toString('utf8', 0, bytesRead));
  } finally {
    await handle.close();
  }
}

/**
 * Opens a picture for reading. Drawings are read from memory, so that nothing they refer to is ever fetched, and at a density that gives the width asked for.
 *
 * @throws {RangeError} for a drawing too large to read
 */
export async function openPicture(file: string, widthPx: number, options: SharpOptions): Promise<Sharp> {
  if (!(await isDrawing(file))) return sharp(file, options).autoOrient();
  if ((await stat(file)).size > LARGEST_DRAWING_BYTES) throw new RangeError('a drawing can be 8 MB at most');
  const bytes = await readFile(file);
  const { width } = await sharp(bytes).metadata();
  return sharp(bytes, { ...options, density: Math.min(7200, Math.max(1, (USUAL_DENSITY * widthPx) / width)) });
}
