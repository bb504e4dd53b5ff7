import { okLab } from '../keys/colour';

/** So many colours of a picture are kept as facts. */
export const MAIN_COLOURS = 5;
/** A pixel in so many is enough for a picture of some hundred pixels. */
const MOST_SAMPLES = 6000;
/** Bits of each channel that tell colours apart before they are put together. */
const BITS = 4;
/** Colours nearer than this in OKLab look alike on a page. */
const ALIKE = 0.085;
/** A colour that is much more of one than the picture counts for more than its share. */
const VIVID = 6;

/**
 * The colours one would name a picture by: those that much of it has, and those that stand out, none like another. By cells of a coarse cube whose means are
 * taken in the order of how much they count.
 *
 * @param rgba four bytes a pixel, gamma-encoded
 * @returns `#rrggbb`, what counts most first; fewer than `count` where a picture has no more
 */
export function mainColours(rgba: Uint8ClampedArray, count: number): string[] {
  const cells = new Map<number, { red: number; green: number; blue: number; pixels: number }>();
  const step = 4 * Math.max(1, Math.floor(rgba.length / 4 / MOST_SAMPLES));
  for (let at = 0; at < rgba.length; at += step) {
    if (rgba[at + 3]! < 128) continue;
    const [red, green, blue] = [rgba[at]!, rgba[at + 1]!, rgba[at + 2]!];
    const key = ((red >> (8 - BITS)) << (2 * BITS)) | ((green >> (8 - BITS)) << BITS) | (blue >> (8 - BITS));
    const cell = cells.get(key) ?? { red: 0, green: 0, blue: 0, pixels: 0 };
    cells.set(key, {
      red: cell.red + red,
      green: cell.green + green,
      blue: cell.blue + blue,
      pixels: cell.pixels + 1,
    });
  }
  const found = [...cells.values()]
    .map(({ red, green, blue, pixels }) => {
      const colour = hexOf([red / pixels, green / pixels, blue / pixels]);
      const lab = okLab(colour);
      return { colour, lab, counts: Math.sqrt(pixels) * (1 + VIVID * Math.hypot(lab[1], lab[2])) };
    })
    .sort((one, other) => other.counts - one.counts || (one.colour < other.colour ? -1 : 1));
  const chosen: typeof found = [];
  for (const one of found) {
    if (chosen.length === count) break;
    if (chosen.every(({ lab }) => Math.hypot(...lab.map((value, axis) => value - one.lab[axis]!)) >= ALIKE))
      chosen.push(one);
  }
  return chosen.map(({ colour }) => colour);
}

/** `#rrggbb` of three channels, 0…255. */
export function hexOf(channels: readonly number[]): string {
  return `#${channels.map((value) => Math.round(value).toString(16).padStart(2, '0')).join('')}`;
}
