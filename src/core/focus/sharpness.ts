import { smooth } from '../light/running-mean';
import { onPicture, type Box } from './box';

const COLUMNS = 16;
const ROWS = 12;
/** So many of the sharpest tiles speak for the picture: a portrait is sharp at the eyes and soft everywhere else. */
const SHARPEST = 0.12;
/** A Laplacian of this many grey levels, root mean square, counts as half sharp. */
const HALF = 9;
/**
 * A picture that is so many times as fine along one axis as along the other, and hardly fine along that, was smeared by a moving hand: none of 44 sharp pictures
 * is, and of the same smeared sideways by 1 % of their width nine in ten are found so or by what the whole Laplacian says.
 */
const SMEARED = { times: 2.8, fineness: 7 };
/** What it then counts for: the lesser axis, as much as both would be; what runs one way only, as blinds do, for a share of itself. */
const OF_LESSER = 1.6;
const LEAST_OF_BOTH = 0.2;

/**
 * How sharp the sharpest parts of a grey picture are, 0…1: the energy of its Laplacian (modified as by Nayar and Nakagawa 1994) by tiles. It says which of two
 * pictures of one scene is sharper; scenes differ. In one that was smeared along an axis, edges that run along it stay sharp: the other axis counts then.
 *
 * @param within only this part of it
 */
export function sharpnessOf(
  grey: Uint8Array,
  width: number,
  height: number,
  within: Box = { left: 0, top: 0, width: 1, height: 1 },
): number {
  const box = onPicture(within);
  const [x0, y0] = [Math.floor(box.left * width), Math.floor(box.top * height)];
  const [w, h] = [Math.floor(box.width * width), Math.floor(box.height * height)];
  if (w < 8 || h < 8) return 0;
  const columns = Math.min(COLUMNS, Math.floor(w / 8));
  const rows = Math.min(ROWS, Math.floor(h / 8));
  const energies: number[] = [];
  const across: number[] = [];
  const down: number[] = [];
  for (let row = 0; row < rows; row += 1)
    for (let column = 0; column < columns; column += 1) {
      let [sum, acrossSum, downSum, count] = [0, 0, 0, 0];
      const [top, bottom] = [y0 + Math.floor((row * h) / rows), y0 + Math.floor(((row + 1) * h) / rows)];
      const [left, right] = [x0 + Math.floor((column * w) / columns), x0 + Math.floor(((column + 1) * w) / columns)];
      for (let y = Math.max(1, top); y < Math.min(height - 1, bottom); y += 1)
        for (let x = Math.max(1, left); x < Math.min(width - 1, right); x += 1) {
          const at = y * width + x;
          const [acrossBy, downBy] = [bendAt(grey, at, 1), bendAt(grey, at, width)];
          sum += (acrossBy + downBy) ** 2;
          acrossSum += acrossBy ** 2;
          downSum += downBy ** 2;
          count += 1;
        }
      energies.push(count > 0 ? Math.sqrt(sum / count) : 0);
      across.push(count > 0 ? Math.sqrt(acrossSum / count) : 0);
      down.push(count > 0 ? Math.sqrt(downSum / count) : 0);
    }
  const mean = ofSharpest(energies);
  const [less, more] = [ofSharpest(across), ofSharpest(down)].sort((a, b) => a - b) as [number, number];
  const isSmeared = more >= SMEARED.times * less && less < SMEARED.fineness;
  const counted = isSmeared ? Math.max(OF_LESSER * less, LEAST_OF_BOTH * mean) : mean;
  return counted / (counted + HALF);
}

/** The mean of the largest of them. */
function ofSharpest(energies: readonly number[]): number {
  const best = energies.toSorted((a, b) => b - a).slice(0, Math.max(1, Math.round(SHARPEST * energies.length)));
  return best.reduce((sum, value) => sum + value, 0) / best.length;
}

/** How fine a grey picture is in each cell of a grid, in grey levels, smoothed a little. */
export function finenessOf(
  grey: Uint8Array,
  width: number,
  height: number,
  columns: number,
  rows: number,
): Float32Array {
  const sums = new Float32Array(columns * rows);
  const counts = new Uint32Array(columns * rows);
  for (let y = 1; y < height - 1; y += 1)
    for (let x = 1; x < width - 1; x += 1) {
      const cell = Math.floor((y * rows) / height) * columns + Math.floor((x * columns) / width);
      const at = y * width + x;
      sums[cell]! += (bendAt(grey, at, 1) + bendAt(grey, at, width)) ** 2;
      counts[cell]! += 1;
    }
  const fine = sums.map((sum, cell) => Math.sqrt(sum / Math.max(1, counts[cell]!)));
  smooth(fine, columns, rows, Math.max(1, Math.max(columns, rows) / 40));
  return fine;
}

/** The second difference along an axis, whose neighbours lie so far apart. */
function bendAt(grey: Uint8Array, at: number, step: number): number {
  return Math.abs(2 * grey[at]! - grey[at - step]! - grey[at + step]!);
}
