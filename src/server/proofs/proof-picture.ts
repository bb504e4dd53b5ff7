import { readFileSync } from 'node:fs';
import { readFile } from 'node:fs/promises';
import sharp from 'sharp';
import { createFontShelf, type FontFile } from '../../drawing/words/fonts';
import { shapeLine, UNITS } from '../../drawing/words/shape-line';
import { fontFile, fontIndexFile } from '../paths';

const WEIGHT = 600;
/** Against the length of the picture's diagonal. */
const SIZE = 1 / 24;
const SMALLEST_PX = 14;
const TURN_DEGREES = -26;

let shelf: ReturnType<typeof createFontShelf> | null = null;

/**
 * A print as a client gets it: no longer than was chosen, with the studio’s words over all of it, and nothing of what its file says besides.
 *
 * @param print an upright JPEG, PNG or WebP
 * @param longestPx of the picture handed out; it is never made larger than the print
 * @param words over it, again and again; null: none
 * @returns a JPEG
 */
export async function proofPicture(print: Uint8Array, longestPx: number, words: string | null): Promise<Buffer> {
  const { data, info } = await sharp(print)
    .resize({ width: longestPx, height: longestPx, fit: 'inside', withoutEnlargement: true })
    .flatten({ background: '#ffffff' })
    .removeAlpha()
    .toColourspace('srgb')
    .raw()
    .toBuffer({ resolveWithObject: true });
  const { width, height, channels } = info;
  const picture = sharp(data, { raw: { width, height, channels } });
  if (words !== null) picture.composite([{ input: Buffer.from(await watermark(words, width, height)) }]);
  return picture.jpeg({ quality: 84 }).toBuffer();
}

/** The words over and over on a slant, as outlines out of the shipped fonts: SVG, in the picture’s own pixels. */
async function watermark(words: string, widthPx: number, heightPx: number): Promise<string> {
  // Written by our own build, not by a person.
  shelf ??= createFontShelf(
    JSON.parse(readFileSync(fontIndexFile(), 'utf8')) as FontFile[],
    async (name) => new Uint8Array(await readFile(fontFile(name))),
  );
  const { glyphs, widthEms } = shapeLine(words, await shelf.chainFor('instrument', WEIGHT, words));
  const reach = Math.hypot(widthPx, heightPx);
  const size = Math.max(SMALLEST_PX, Math.round(reach * SIZE));
  const outlines = glyphs
    .filter(({ isEmoji }) => !isEmoji)
    .map(
      ({ font, glyph, x, y }) =>
        `<path transform="translate(${x * UNITS} ${y * UNITS})" d="${font.glyphToPath(glyph)}"/>`,
    )
    .join('');
  const step = widthEms * size + 2.5 * size;
  const places: string[] = [];
  for (let row = 0, y = -reach / 2; y < reach / 2; y += 3.4 * size, row += 1)
    for (let x = -reach / 2 - (row % 2 ? step / 2 : 0); x < reach / 2; x += step)
      places.push(`<use href="#words" x="0" y="0" transform="translate(${x} ${y})"/>`);
  const scale = size / UNITS;
  const all = places.join('');
  // Dark beside light: it shows on snow and at night.
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${widthPx}" height="${heightPx}">
<defs><g id="words" transform="scale(${scale} ${-scale})">${outlines}</g></defs>
<g transform="translate(${widthPx / 2} ${heightPx / 2}) rotate(${TURN_DEGREES})">
<g fill="#000" fill-opacity="0.22" transform="translate(${size / 16} ${size / 16})">${all}</g>
<g fill="#fff" fill-opacity="0.42">${all}</g>
</g></svg>`;
}
