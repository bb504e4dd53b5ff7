/** Frames of this size are enough to see flashes. */
export const FLASH_FRAME = { across: 32, down: 18 } as const;
/** A change of relative luminance so large is half a flash, when the darker of the two is darker than the second number (WCAG 2.2, “general flash”). */
const LEAST_CHANGE = 0.1;
const DARKER_THAN = 0.8;
const MOST_PER_SECOND = 3;
/** A quarter of any ten degrees of sight, for somebody who sits two and a half heights of the frame away: so much of the frame. */
const LEAST_AREA = 0.06;

/**
 * The worst second of a run of frames: how many flashes it has where more of the frame flashes together than may (WCAG 2.2, success criterion 2.3.1).
 *
 * @param frames relative luminance, 0…1, of each cell; all of one size, evenly in time
 * @returns null when no second has more than three
 */
export function worstFlashes(
  frames: readonly Float32Array[],
  framesPerSecond: number,
): { readonly frame: number; readonly perSecond: number } | null {
  const cells = frames[0]?.length ?? 0;
  // For each cell the frames in which it turns from going up to going down or back, by enough.
  const turns = Array.from({ length: cells }, (_, cell) => turnsOf(frames, cell));
  const within = Math.round(framesPerSecond);
  let worst: { frame: number; perSecond: number } | null = null;
  for (let from = 0; from < frames.length; from += 1) {
    const counts = turns.map((of) =>
      Math.floor(of.filter((frame) => frame >= from && frame < from + within).length / 2),
    );
    const enough = Math.ceil(LEAST_AREA * cells);
    counts.sort((a, b) => b - a);
    const perSecond = counts[enough - 1] ?? 0;
    if (perSecond > MOST_PER_SECOND && perSecond > (worst?.perSecond ?? 0)) worst = { frame: from, perSecond };
  }
  return worst;
}

function turnsOf(frames: readonly Float32Array[], cell: number): number[] {
  const found: number[] = [];
  let [low, high] = [frames[0]![cell]!, frames[0]![cell]!];
  let way: 'up' | 'down' | null = null;
  for (const [at, frame] of frames.entries()) {
    const value = frame[cell]!;
    low = Math.min(low, value);
    high = Math.max(high, value);
    if (way !== 'up' && value - low >= LEAST_CHANGE && low < DARKER_THAN) {
      found.push(at);
      [way, low, high] = ['up', value, value];
    } else if (way !== 'down' && high - value >= LEAST_CHANGE && value < DARKER_THAN) {
      found.push(at);
      [way, low, high] = ['down', value, value];
    }
  }
  return found;
}
