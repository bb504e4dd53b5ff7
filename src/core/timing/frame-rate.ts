import { object, whole, type Schema } from '../schema/schema';

/** So many frames in so many seconds: 30 in 1, or 30,000 in 1001 (29.97). Whole numbers, so that no moment of a long film drifts. */
export interface FrameRate {
  readonly frames: number;
  readonly seconds: number;
}

/** The rates films are made at, by the names people know them by. */
export const FRAME_RATES: Readonly<Record<string, FrameRate>> = {
  '23.976': { frames: 24_000, seconds: 1001 },
  '24': { frames: 24, seconds: 1 },
  '25': { frames: 25, seconds: 1 },
  '29.97': { frames: 30_000, seconds: 1001 },
  '30': { frames: 30, seconds: 1 },
  '50': { frames: 50, seconds: 1 },
  '59.94': { frames: 60_000, seconds: 1001 },
  '60': { frames: 60, seconds: 1 },
};

/** A rate as the nearest one of whole numbers: 29.97 as 30,000 in 1001. */
export function wholeRate(each: number): FrameRate {
  const named = Object.values(FRAME_RATES).find((rate) => Math.abs(framesPerSecond(rate) - each) < 0.005);
  return (
    named ??
    (Number.isInteger(each) ? { frames: each, seconds: 1 } : { frames: Math.round(each * 1000), seconds: 1000 })
  );
}

/** What a document may say; `faultOfRate` says what the two numbers must be together. */
export const FRAME_RATE: Schema = object<FrameRate>({ frames: whole(1, 240_000), seconds: whole(1, 2002) });
const SLOWEST = 1;
const FASTEST = 120;

export function faultOfRate(rate: FrameRate): string | null {
  const each = framesPerSecond(rate);
  return each >= SLOWEST && each <= FASTEST ? null : `a frame rate must be ${SLOWEST} to ${FASTEST} frames a second`;
}

/** For people and for estimates; moments are worked out from the whole numbers. */
export function framesPerSecond({ frames, seconds }: FrameRate): number {
  return frames / seconds;
}

/** “30”, “29.97”. */
export function rateName(rate: FrameRate): string {
  return String(Number(framesPerSecond(rate).toFixed(3)));
}
