import type { CropSides } from '../motion/crop';

/** Bars are at most this bright: black, with what compression and old tapes add to it. 0…255. */
const DARKEST = 40;
/** How far samples of a bar may lie from its middle brightness. */
const EVENNESS = 12;
/** Of a line of a bar, so much may stray further (noise, a logo's corner). */
const STRAYING = 0.015;
/** Right inside a bar, so much of a line must be clearly brighter than it: the edge of a bar is sharp, that of a night sky is not. */
const INSIDE = 0.3;
const BRIGHTER = 14;
/** Narrower bars are left alone; wider ones leave no picture. */
const NARROWEST = 0.012;
const WIDEST = 0.42;

/**
 * Dark bars baked into a picture, as shares to cut away, rounded towards the picture so that no dark line stays; null when there are none.
 *
 * Lines are followed inwards from each side for as long as they are dark and even; the line where that ends must be brighter over much of its length. Bars on both of
 * two opposite sides are taken at once; a single one only when it is as black as can be.
 *
 * @param grey brightness 0…255 in rows
 */
export function darkBars(grey: ArrayLike<number>, widthPx: number, heightPx: number): CropSides | null {
  const row = (index: number) => Array.from({ length: widthPx }, (_, at) => grey[index * widthPx + at]!);
  const down = barsOf(row, heightPx);
  const [topLines, bottomLines] = [Math.round(down.first * heightPx), Math.round(down.last * heightPx)];
  // Columns are looked at between the bars above and below, which are dark all the way across.
  const column = (index: number) =>
    Array.from({ length: heightPx - topLines - bottomLines }, (_, at) => grey[(topLines + at) * widthPx + index]!);
  const across = barsOf(column, widthPx);
  const sides = { left: across.first, right: across.last, top: down.first, bottom: down.last };
  return sides.left + sides.right + sides.top + sides.bottom > 0 ? sides : null;
}

interface Pair {
  readonly first: number;
  readonly last: number;
}

/** Bars before and after the picture along one axis, as shares of it. */
function barsOf(line: (index: number) => number[], count: number): Pair {
  const first = barFrom((step) => line(step), count);
  const last = barFrom((step) => line(count - 1 - step), count);
  const share = (bar: Bar | null) => (bar ? Math.min(WIDEST, bar.lines / count) : 0);
  if (first && last) return { first: share(first), last: share(last) };
  const only = first ?? last;
  if (!only || only.brightness > 6) return { first: 0, last: 0 };
  return { first: share(first), last: share(last) };
}

interface Bar {
  readonly lines: number;
  readonly brightness: number;
}

function barFrom(line: (step: number) => number[], count: number): Bar | null {
  const brightness = median(line(0));
  if (brightness > DARKEST) return null;
  const most = Math.floor(count * WIDEST);
  let lines = 0;
  while (lines <= most && isEven(line(lines), brightness)) lines += 1;
  if (lines < Math.max(2, count * NARROWEST) || lines > most) return null;
  // The line where the bar ends may be half bar and half picture; it goes too.
  const next = line(lines + 1);
  const brighter = next.filter((value) => value > brightness + BRIGHTER).length;
  return brighter < INSIDE * next.length ? null : { lines: lines + 1, brightness };
}

function isEven(values: number[], brightness: number): boolean {
  let straying = 0;
  for (const value of values) if (Math.abs(value - brightness) > EVENNESS) straying += 1;
  return straying <= STRAYING * values.length;
}

function median(values: number[]): number {
  return [...values].sort((a, b) => a - b)[values.length >> 1]!;
}
