/** How many whole frames a film of this length has: at least one, to the nearest frame. */
export function frameCount(lengthMs: number, framesPerSecond: number): number {
  assertRate(framesPerSecond);
  return Math.max(1, Math.round((lengthMs * framesPerSecond) / 1000));
}

/** The moment a frame shows, in fractional milliseconds. Derived from the count; never added up. */
export function momentOfFrame(frameIndex: number, framesPerSecond: number): number {
  assertRate(framesPerSecond);
  return (frameIndex * 1000) / framesPerSecond;
}

/** The frame on screen at a moment; the small term forgives the rounding of `momentOfFrame`. */
export function frameAtMoment(momentMs: number, framesPerSecond: number): number {
  assertRate(framesPerSecond);
  return Math.floor((momentMs * framesPerSecond) / 1000 + 1e-4);
}

function assertRate(framesPerSecond: number): void {
  if (!(framesPerSecond > 0)) throw new RangeError(`framesPerSecond must be more than 0, got ${framesPerSecond}`);
}
