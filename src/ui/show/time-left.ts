/** How many were left at a time. */
export interface Sample {
  readonly atMs: number;
  readonly left: number;
}

/** Nothing is said before so many have been done and so much time has passed: a first guess is seldom right. */
const LEAST_DONE = 3;
const LEAST_MS = 2000;

/**
 * How long the rest will take at the pace so far; null while that cannot be told.
 *
 * @param samples in the order they were taken; what came before more was added does not count
 */
export function timeLeftMs(samples: readonly Sample[]): number | null {
  const grew = samples.findLastIndex((sample, index) => index > 0 && sample.left > samples[index - 1]!.left);
  const [first, last] = [samples[Math.max(0, grew)], samples.at(-1)];
  if (!first || !last) return null;
  const [done, tookMs] = [first.left - last.left, last.atMs - first.atMs];
  return done < LEAST_DONE || tookMs < LEAST_MS ? null : (last.left * tookMs) / done;
}
