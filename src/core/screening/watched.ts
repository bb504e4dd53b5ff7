/** A stretch of a film that was played, in milliseconds: from, to. */
export type Stretch = readonly [number, number];

/** So many stretches are kept of one viewing; who jumps more often has the shortest gaps counted as seen. */
export const MOST_STRETCHES = 200;

/** Stretches sorted and apart: what overlaps or touches becomes one. */
export function mergedStretches(stretches: readonly Stretch[], lengthMs: number): Stretch[] {
  const merged: [number, number][] = [];
  for (const [from, to] of stretches
    .map(([from, to]): Stretch => [Math.max(0, from), Math.min(lengthMs, to)])
    .filter(([from, to]) => to > from)
    .toSorted((one, other) => one[0] - other[0])) {
    const last = merged.at(-1);
    if (last && from <= last[1]) last[1] = Math.max(last[1], to);
    else merged.push([from, to]);
  }
  while (merged.length > MOST_STRETCHES) {
    const gaps = merged.slice(1).map(([from], index) => from - merged[index]![1]);
    const nearest = gaps.indexOf(Math.min(...gaps));
    merged[nearest]![1] = merged[nearest + 1]![1];
    merged.splice(nearest + 1, 1);
  }
  return merged;
}

/** How a film was watched, over all viewings. */
export interface Watched {
  readonly viewings: number;
  /** Of all viewings, the share that saw each of equal parts of the film, 0…1; a part seen by half counts half. */
  readonly curve: readonly number[];
  /** The mean share of the film that was seen, 0…1. */
  readonly seen: number;
  /** The share of viewings that saw the last twentieth of it or some of that, 0…1. */
  readonly toTheEnd: number;
}

export function watchedOf(viewings: readonly (readonly Stretch[])[], lengthMs: number, partCount: number): Watched {
  const curve = Array.from({ length: partCount }, () => 0);
  const partMs = lengthMs / partCount;
  let [seen, ends] = [0, 0];
  for (const stretches of viewings) {
    for (const [from, to] of stretches) {
      seen += (to - from) / lengthMs;
      const last = Math.min(partCount - 1, Math.floor((to - 1e-6) / partMs));
      for (let part = Math.floor(from / partMs); part <= last; part += 1)
        curve[part]! += (Math.min(to, (part + 1) * partMs) - Math.max(from, part * partMs)) / partMs;
    }
    if ((stretches.at(-1)?.[1] ?? 0) > 0.95 * lengthMs) ends += 1;
  }
  const count = Math.max(1, viewings.length);
  return {
    viewings: viewings.length,
    curve: curve.map((sum) => sum / count),
    seen: seen / count,
    toTheEnd: ends / count,
  };
}
