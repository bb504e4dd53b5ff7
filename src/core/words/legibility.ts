import type { Legibility } from '../snags/slide-seen';

/** Letters as large as this share of the frame's shorter side are large text: 24 px of 600, as on a page (WCAG 2.2, 1.4.3). */
export const LARGE_LETTERS = 0.035;
/** The contrast that large letters and smaller ones need: four fifths of what WCAG 2.2 asks of a text as a whole, since it is asked of its poorest part at its worst moment. */
export const CLEAR_LARGE = 2.4;
export const CLEAR_SMALL = 3.6;

/** A pixel of the mask so full is letter; one so empty is not touched by any. */
const LETTER = 0.75;
const CLEAN = 0.06;
/** Cells are so many heights of the letters wide: about one letter each. */
const CELL = 0.7;
/** A cell with fewer pixels of either says nothing. */
const LEAST_PIXELS = 6;
/** What lies so near a letter is its ground, in heights of the letters: about as thick as its thin strokes. */
const OUTLINE = 0.08;
/** The poorest part of a line counts, not its one worst letter. */
const POOREST_SHARE = 0.12;
/** A ground whose lightness varies by so much takes half of the contrast beyond 1. */
const HALVES_AT = 36;

/** A frame as it is seen, and which of its pixels are letters. */
export interface LetteredFrame {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly rgba: ArrayLike<number>;
  /** How much of each pixel is letter, 0…255. */
  readonly letters: Uint8Array;
}

/** What a level of red, green or blue adds to the light, by the sRGB curve. */
const LINEAR = Float64Array.from({ length: 256 }, (_, level) => {
  const share = level / 255;
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4;
});

/** Relative luminance of a pixel, 0…1 (WCAG 2.2). @param at its index in bytes */
export function luminanceAt(rgba: ArrayLike<number>, at: number): number {
  return 0.2126 * LINEAR[rgba[at]!]! + 0.7152 * LINEAR[rgba[at + 1]!]! + 0.0722 * LINEAR[rgba[at + 2]!]!;
}

/** CIE L*, 0…100. */
const lightness = (y: number) => (y > 0.008856 ? 116 * Math.cbrt(y) - 16 : 903.3 * y);

/**
 * How well the letters of a frame stand out: in cells of about a letter each, the luminance contrast between the letters and what lies right about them
 * (shadow, outline, box and picture, as drawn), less what the restlessness of that ground takes. The poorest eighth of a line’s cells counts, and of the lines
 * (what rows without letters part) the poorest: a small line under a large one is to be read, too.
 *
 * @param letterPx height of the smallest letters, in pixels
 * @returns null when there are too few letters to judge
 */
export function legibilityOf(frame: LetteredFrame, letterPx: number): Legibility | null {
  const near = nearLetters(frame, Math.max(2, Math.round(OUTLINE * letterPx)));
  let poorest: Legibility | null = null;
  for (const line of linesOf(frame)) {
    const found = legibilityOfLine(frame, near, line, Math.max(6, Math.round(CELL * letterPx)));
    if (found && (!poorest || found.clear < poorest.clear)) poorest = found;
  }
  return poorest;
}

/** Rows of pixels, `[top, bottom)`. */
interface Rows {
  readonly top: number;
  readonly bottom: number;
}

/** The lines of what is written, each with half of the empty rows about it; lines that lie askew come out as one. */
function linesOf({ widthPx, heightPx, letters }: LetteredFrame): Rows[] {
  const full: Rows[] = [];
  let top = -1;
  for (let y = 0; y <= heightPx; y += 1) {
    const row = letters.subarray(y * widthPx, (y + 1) * widthPx);
    const written = row.some((letter) => letter > 255 * CLEAN);
    if (written && top < 0) top = y;
    if (!written && top >= 0) {
      full.push({ top, bottom: y });
      top = -1;
    }
  }
  const between = (one: Rows | undefined, other: Rows | undefined) =>
    one && other ? Math.round((one.bottom + other.top) / 2) : one ? heightPx : 0;
  return full.map((line, at) => ({ top: between(full[at - 1], line), bottom: between(line, full[at + 1]) }));
}

function legibilityOfLine(
  { widthPx, rgba, letters }: LetteredFrame,
  near: Uint8Array,
  { top, bottom }: Rows,
  cellPx: number,
): Legibility | null {
  const [columns, rows] = [Math.ceil(widthPx / cellPx), Math.ceil((bottom - top) / cellPx)];
  const cells = Array.from({ length: columns * rows }, () => ({
    on: 0,
    onSum: 0,
    off: 0,
    offSum: 0,
    light: 0,
    light2: 0,
  }));
  for (let y = top; y < bottom; y += 1)
    for (let x = 0; x < widthPx; x += 1) {
      const at = y * widthPx + x;
      const letter = letters[at]! / 255;
      if (letter < LETTER && near[at] === 0) continue;
      const cell = cells[Math.floor((y - top) / cellPx) * columns + Math.floor(x / cellPx)]!;
      const luminance = luminanceAt(rgba, 4 * at);
      if (letter >= LETTER) {
        cell.on += 1;
        cell.onSum += luminance;
      } else if (letter <= CLEAN) {
        const light = lightness(luminance);
        cell.off += 1;
        cell.offSum += luminance;
        cell.light += light;
        cell.light2 += light ** 2;
      }
    }
  const judged = cells.flatMap(({ on, onSum, off, offSum, light, light2 }) => {
    if (on < LEAST_PIXELS || off < LEAST_PIXELS) return [];
    const [own, ground] = [onSum / on, offSum / off];
    const contrast = (Math.max(own, ground) + 0.05) / (Math.min(own, ground) + 0.05);
    const busyness = Math.sqrt(Math.max(0, light2 / off - (light / off) ** 2));
    return [{ contrast, busyness, clear: 1 + (contrast - 1) / (1 + (busyness / HALVES_AT) ** 2), weight: on }];
  });
  if (judged.length === 0) return null;
  judged.sort((a, b) => a.clear - b.clear);
  const whole = judged.reduce((sum, { weight }) => sum + weight, 0);
  let passed = 0;
  for (const cell of judged) {
    passed += cell.weight;
    if (passed >= POOREST_SHARE * whole) return { contrast: cell.contrast, busyness: cell.busyness, clear: cell.clear };
  }
  return judged.at(-1)!;
}

/** Which pixels lie within so many of a letter: 1, else 0. By two passes, across and down. */
export function nearLetters(
  { widthPx, heightPx, letters }: Pick<LetteredFrame, 'widthPx' | 'heightPx' | 'letters'>,
  withinPx: number,
): Uint8Array {
  const across = new Uint8Array(letters.length);
  for (let y = 0; y < heightPx; y += 1) {
    let last = -Infinity;
    for (let x = 0; x < widthPx; x += 1) {
      if (letters[y * widthPx + x]! >= 255 * LETTER) last = x;
      if (x - last <= withinPx) across[y * widthPx + x] = 1;
    }
    let next = Infinity;
    for (let x = widthPx - 1; x >= 0; x -= 1) {
      if (letters[y * widthPx + x]! >= 255 * LETTER) next = x;
      if (next - x <= withinPx) across[y * widthPx + x] = 1;
    }
  }
  const near = new Uint8Array(letters.length);
  for (let x = 0; x < widthPx; x += 1) {
    let last = -Infinity;
    for (let y = 0; y < heightPx; y += 1) {
      if (across[y * widthPx + x] === 1) last = y;
      if (y - last <= withinPx) near[y * widthPx + x] = 1;
    }
    let next = Infinity;
    for (let y = heightPx - 1; y >= 0; y -= 1) {
      if (across[y * widthPx + x] === 1) next = y;
      if (next - y <= withinPx) near[y * widthPx + x] = 1;
    }
  }
  return near;
}
