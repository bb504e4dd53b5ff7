import type { FrameRate } from './frame-rate';

/** How many whole frames a film of this length has: at least one, to the nearest frame. */
export function frameCount(lengthMs: number, rate: FrameRate): number {
  assertRate(rate);
  return Math.max(1, Math.round((lengthMs * rate.frames) / (1000 * rate.seconds)));
}

/** The moment a frame shows, in fractional milliseconds. Derived from the count; never added up. */
export function momentOfFrame(frameIndex: number, rate: FrameRate): number {
  assertRate(rate);
  return (frameIndex * 1000 * rate.seconds) / rate.frames;
}

/** The frame on screen at a moment; the small term forgives the rounding of `momentOfFrame`. */
export function frameAtMoment(momentMs: number, rate: FrameRate): number {
  assertRate(rate);
  return Math.floor((momentMs * rate.frames) / (1000 * rate.seconds) + 1e-4);
}

/** The first frame that shows what begins at a moment. */
export function frameSeen(momentMs: number, rate: FrameRate): number {
  assertRate(rate);
  return Math.max(0, Math.ceil((momentMs * rate.frames) / (1000 * rate.seconds) - 1e-4));
}

/** The moment at which the first frame shows what begins at a moment: where it is seen to begin, and so where it is heard to. */
export function momentSeen(momentMs: number, rate: FrameRate): number {
  return momentOfFrame(frameSeen(momentMs, rate), rate);
}

function assertRate({ frames, seconds }: FrameRate): void {
  if (!(frames > 0 && seconds > 0))
    throw new RangeError(`a frame rate must be more than 0, got ${frames} in ${seconds} s`);
}
