/** Something that lasts, in any unit. */
interface Stretch {
  readonly startMs: number;
  readonly endMs: number;
}

/**
 * A lane for each stretch, so that none lies on another: the first that is free, in the order in which they begin.
 *
 * @param stretches in any order @returns by their place in it, counted from 0
 */
export function lanesOf(stretches: readonly Stretch[]): number[] {
  const lanes = new Array<number>(stretches.length).fill(0);
  const freeFrom: number[] = [];
  const inOrder = stretches
    .map((stretch, at) => ({ ...stretch, at }))
    .sort((a, b) => a.startMs - b.startMs || a.at - b.at);
  for (const { startMs, endMs, at } of inOrder) {
    const free = freeFrom.findIndex((ms) => ms <= startMs);
    const lane = free < 0 ? freeFrom.length : free;
    lanes[at] = lane;
    freeFrom[lane] = endMs;
  }
  return lanes;
}
