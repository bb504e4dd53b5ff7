import type { Key } from './channel';

/**
 * Smooth curves through keys: piecewise cubic Hermite interpolation with the slope at each key that of the parabola through it and its neighbours (Bessel
 * tangents: C. de Boor, A Practical Guide to Splines, chapter IV), and none at the first, at the last, and where two neighbours are equal: there it rests. It goes
 * through every key and may swing a little beyond one. Two channels with keys at the same times, such as x and y, make a round way without corners.
 */
export function smoothValue(keys: readonly Key[], times: readonly number[], from: number, eased: number): number {
  const [a, b] = [keys[from]!.value, keys[from + 1]!.value];
  const lengthS = (times[from + 1]! - times[from]!) / 1000;
  const out = slopesAt(keys, times, from).out * lengthS;
  const into = slopesAt(keys, times, from + 1).in * lengthS;
  return hermite(a, b, out, into, eased);
}

/** More than any curve that is seen needs, per second. */
export const STEEPEST = 1e9;

/** How steeply the curve comes to a key and leaves it, per second. */
export function slopesAt(
  keys: readonly Key[],
  times: readonly number[],
  index: number,
): { readonly in: number; readonly out: number } {
  const said = keys[index]!.slopes;
  if (said) return said;
  const slope = worked(keys, times, index);
  return { in: slope, out: slope };
}

/** The cubic through `a` and `b` with slopes `out` and `into` over the whole way. */
export function hermite(a: number, b: number, out: number, into: number, t: number): number {
  const [t2, t3] = [t * t, t * t * t];
  return (2 * t3 - 3 * t2 + 1) * a + (t3 - 2 * t2 + t) * out + (3 * t2 - 2 * t3) * b + (t3 - t2) * into;
}

/** Its slope there, over the whole way. */
export function hermiteSlope(a: number, b: number, out: number, into: number, t: number): number {
  const t2 = t * t;
  return (6 * t2 - 6 * t) * a + (3 * t2 - 4 * t + 1) * out + (6 * t - 6 * t2) * b + (3 * t2 - 2 * t) * into;
}

function worked(keys: readonly Key[], times: readonly number[], index: number): number {
  if (index === 0 || index === keys.length - 1) return 0;
  const before = (times[index]! - times[index - 1]!) / 1000;
  const after = (times[index + 1]! - times[index]!) / 1000;
  if (!(before > 0 && after > 0)) return 0;
  const left = (keys[index]!.value - keys[index - 1]!.value) / before;
  const right = (keys[index + 1]!.value - keys[index]!.value) / after;
  if (left === 0 || right === 0) return 0;
  return (left * after + right * before) / (before + after);
}
