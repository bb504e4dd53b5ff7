/** Which viewers play, for those that hold back their work meanwhile. */
const playing = new Set<object>();
const hearers = new Set<(plays: boolean) => void>();

export function tellPlaying(viewer: object, plays: boolean): void {
  const before = playing.size > 0;
  if (plays) playing.add(viewer);
  else playing.delete(viewer);
  if (before !== playing.size > 0) for (const hear of hearers) hear(!before);
}

/** @returns what ends it */
export function hearPlaying(hear: (plays: boolean) => void): () => void {
  hearers.add(hear);
  return () => hearers.delete(hear);
}
