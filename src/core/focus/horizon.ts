/** Lines that lean more belong to something else; they are only looked at so that it is known what else there is. */
const MOST_DEGREES = 10;
/** Nobody holds a camera so crooked unawares: lines that lean more are meant to, or belong to what is seen from aside. */
const MOST_TOLD_DEGREES = 4.5;
/** A horizon is one line, so long at least as a share of the width; edges of things come by twos and threes. */
const HORIZON_LENGTH = 0.52;
/** Upright lines that lean otherwise by so much say that level ones lean by perspective alone. */
const CONTRADICTED_DEGREES = 1.5;
const STEP_DEGREES = 0.1;
/** An edge votes for slants so near to its own. */
const OWN_DEGREES = 4;
/** Grey levels a pixel that an edge has at least (Sobel, over eight), and above which it counts no more. */
const [LEAST_EDGE, FULL_EDGE] = [6, 40];
/** A line counts from this share of the picture’s width (or height, for upright ones) on. */
const SHORTEST_LINE = 0.35;
/** The best slant must be so much better than the middling one, and than any other farther away than `APART_DEGREES`. */
const CLEARLY_BETTER = 2.2;
const BETTER_THAN_NEXT = 1.3;
const APART_DEGREES = 1.2;
/** Less is straight. */
const LEAST_DEGREES = 0.35;
/** Upright lines lean by perspective alone, level ones seldom: what the level ones say counts more. */
const UPRIGHT_WEIGHT = 0.5;

const SLANTS = Math.round((2 * MOST_DEGREES) / STEP_DEGREES) + 1;

/**
 * By how much a picture hangs askew: the slant that its long straight lines share (Hough transform of edges whose direction is known, Duda and Hart 1972,
 * O'Gorman and Clowes 1976), level ones and upright ones together. Precision comes first.
 *
 * @param grey luma, `width` × `height`, some hundred pixels on the long side
 * @returns degrees, clockwise as seen; null when nothing sure can be said, or when it is straight
 */
export function tiltOf(grey: Uint8Array, width: number, height: number): number | null {
  const reach = Math.ceil(Math.hypot(width, height));
  // Votes by slant and distance from the picture's middle, for lines that are about level and for those about upright.
  const level = new Float32Array(SLANTS * (2 * reach + 1));
  const upright = new Float32Array(SLANTS * (2 * reach + 1));
  const sines = Array.from({ length: SLANTS }, (_, slant) => Math.sin(radians(degreesOf(slant))));
  const cosines = Array.from({ length: SLANTS }, (_, slant) => Math.cos(radians(degreesOf(slant))));
  for (let y = 2; y < height - 2; y += 1)
    for (let x = 2; x < width - 2; x += 1) {
      const at = y * width + x;
      const across =
        grey[at - width + 1]! +
        2 * grey[at + 1]! +
        grey[at + width + 1]! -
        grey[at - width - 1]! -
        2 * grey[at - 1]! -
        grey[at + width - 1]!;
      const down =
        grey[at + width - 1]! +
        2 * grey[at + width]! +
        grey[at + width + 1]! -
        grey[at - width - 1]! -
        2 * grey[at - width]! -
        grey[at - width + 1]!;
      const strength = Math.hypot(across, down) / 8;
      if (strength < LEAST_EDGE) continue;
      const isLevel = Math.abs(down) > Math.abs(across);
      const own = isLevel ? degrees(Math.atan(-across / down)) : degrees(Math.atan(down / across));
      if (Math.abs(own) > MOST_DEGREES + OWN_DEGREES) continue;
      const vote = Math.min(strength, FULL_EDGE) / FULL_EDGE;
      const [first, last] = [slantOf(own - OWN_DEGREES), slantOf(own + OWN_DEGREES)];
      const [fromX, fromY] = [x - width / 2, y - height / 2];
      for (let slant = first; slant <= last; slant += 1) {
        const distance = isLevel
          ? fromY * cosines[slant]! - fromX * sines[slant]!
          : fromX * cosines[slant]! + fromY * sines[slant]!;
        const bin = slant * (2 * reach + 1) + reach + Math.round(distance);
        if (isLevel) level[bin]! += vote;
        else upright[bin]! += vote;
      }
    }
  const levels = Array.from({ length: SLANTS }, (_, slant) => scoreAt(level, slant, reach, SHORTEST_LINE * width));
  const uprights = levels.map((_, slant) => scoreAt(upright, slant, reach, SHORTEST_LINE * height));
  const found = surestOf(levels.map((score, slant) => score + UPRIGHT_WEIGHT * uprights[slant]!));
  if (found === null || Math.abs(found) > MOST_TOLD_DEGREES) return null;
  // What hangs and what stands may lean by itself: without a level line nothing is sure.
  if (levels[slantOf(found)] === 0) return null;
  const standing = bestOf(uprights);
  // What was built stands upright and lies level at once; a horizon lies by itself. All other lines may be of what is seen from aside.
  const isSure =
    uprights[standing]! > 0
      ? Math.abs(degreesOf(standing) - found) <= CONTRADICTED_DEGREES
      : isHorizon(level, slantOf(found), reach, width);
  return isSure ? found : null;
}

/** Whether one long line stands out of all of a slant. */
function isHorizon(votes: Float32Array, slant: number, reach: number, width: number): boolean {
  const row = slant * (2 * reach + 1);
  let [longest, lines] = [0, 0];
  for (let at = row + 1; at < row + 2 * reach; at += 1) {
    const [before, here, after] = [votes[at - 1]!, votes[at]!, votes[at + 1]!];
    const long = here + 0.5 * (before + after);
    longest = Math.max(longest, long);
    if (long > SHORTEST_LINE * width && here >= before && here >= after) lines += 1;
  }
  return longest >= HORIZON_LENGTH * width && lines === 1;
}

/** Long lines count, by the square of what is longer than the shortest that counts. */
function scoreAt(votes: Float32Array, slant: number, reach: number, shortest: number): number {
  const row = slant * (2 * reach + 1);
  let sum = 0;
  for (let at = 1; at < 2 * reach; at += 1) {
    const long = votes[row + at]! + 0.5 * (votes[row + at - 1]! + votes[row + at + 1]!);
    if (long > shortest) sum += (long - shortest / 2) ** 2;
  }
  return sum;
}

const bestOf = (scores: readonly number[]): number =>
  scores.reduce((most, score, slant) => (score > scores[most]! ? slant : most), 0);

function surestOf(scores: readonly number[]): number | null {
  const best = bestOf(scores);
  const top = scores[best]!;
  if (top === 0 || best === 0 || best === SLANTS - 1) return null;
  const middling = [...scores].sort((a, b) => a - b)[SLANTS >> 1]!;
  const apart = APART_DEGREES / STEP_DEGREES;
  const next = Math.max(...scores.filter((_, slant) => Math.abs(slant - best) > apart));
  if (top < CLEARLY_BETTER * middling || top < BETTER_THAN_NEXT * next) return null;
  // The vertex of the parabola through the best three.
  const [before, after] = [scores[best - 1]!, scores[best + 1]!];
  const bend = before - 2 * top + after;
  const found = degreesOf(best + (bend < 0 ? (before - after) / (2 * bend) : 0));
  return Math.abs(found) < LEAST_DEGREES ? null : Math.round(found * 100) / 100;
}

const degreesOf = (slant: number) => slant * STEP_DEGREES - MOST_DEGREES;
const slantOf = (of: number) => Math.min(SLANTS - 1, Math.max(0, Math.round((of + MOST_DEGREES) / STEP_DEGREES)));
const radians = (of: number) => (of * Math.PI) / 180;
const degrees = (of: number) => (of * 180) / Math.PI;
