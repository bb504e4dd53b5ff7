/** What a farm is: figures that `bench/farm` measures, and how many work. */
export interface Farm {
  /** Segments in a film. */
  readonly segments: number;
  /** Seconds a core needs for one, on the average; each takes between a half and one and a half of it. */
  readonly segmentSeconds: number;
  readonly cores: number;
  /** Seconds of a core the one server needs for what it does alone: mixing, encoding the sound, joining, measuring. */
  readonly ownSeconds: number;
  readonly ownCores: number;
}

export interface Waited {
  /** Seconds from the order to the finished film. */
  readonly median: number;
  readonly ninetyFive: number;
  /** Share of the time cores draw, and the server's own are busy. */
  readonly coresBusy: number;
  readonly serverBusy: number;
}

/**
 * A queue of films by discrete events: orders come at random moments (exponential pauses), segments are drawn in the order of their films by whichever core is
 * free first, and the server puts films together one after the other. Deterministic for a seed. Nothing fails in it, no segment is there already, and files
 * are where they are drawn: each of these is a kinder or a harsher world than some.
 *
 * @param perHour films ordered in an hour
 */
export function simulated(
  { segments, segmentSeconds, cores, ownSeconds, ownCores }: Farm,
  perHour: number,
  films = 3000,
): Waited {
  const random = seeded(7);
  const [free, own] = [new Float64Array(cores), new Float64Array(ownCores)];
  let [ordered, drawn, joined] = [0, 0, 0];
  const waited: number[] = [];
  for (let film = 0; film < films; film += 1) {
    ordered += (-Math.log(1 - random()) * 3600) / perHour;
    let last = 0;
    for (let segment = 0; segment < segments; segment += 1) {
      const core = soonest(free);
      const seconds = segmentSeconds * (0.5 + random());
      free[core] = Math.max(free[core]!, ordered) + seconds;
      drawn += seconds;
      last = Math.max(last, free[core]!);
    }
    const hand = soonest(own);
    own[hand] = Math.max(own[hand]!, last) + ownSeconds;
    joined += ownSeconds;
    waited.push(own[hand]! - ordered);
  }
  const end = Math.max(...own, ...free);
  waited.sort((a, b) => a - b);
  return {
    median: waited[Math.floor(films / 2)]!,
    ninetyFive: waited[Math.floor(films * 0.95)]!,
    coresBusy: drawn / (cores * end),
    serverBusy: joined / (ownCores * end),
  };
}

function soonest(free: Float64Array): number {
  let first = 0;
  for (let at = 1; at < free.length; at += 1) if (free[at]! < free[first]!) first = at;
  return first;
}

function seeded(seed: number): () => number {
  let state = seed;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}
