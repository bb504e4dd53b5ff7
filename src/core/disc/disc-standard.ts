import type { FilmSpec } from '../film/film-spec';
import { FRAME_RATES, type FrameRate } from '../timing/frame-rate';

/** One of the two ways televisions count lines and frames, as DVD-Video has them. */
export interface DiscStandard {
  readonly name: string;
  readonly widthPx: 720;
  readonly heightPx: number;
  readonly rate: FrameRate;
  /**
   * From one whole picture to the next: the standard allows thirty fields in one, thirty-six in the other; a group that is closed and has two pictures between any two that others
   * lean on has two frames fewer.
   */
  readonly groupFrames: number;
}

export const STANDARDS = {
  pal: { name: 'PAL', widthPx: 720, heightPx: 576, rate: FRAME_RATES['25']!, groupFrames: 13 },
  ntsc: { name: 'NTSC', widthPx: 720, heightPx: 480, rate: FRAME_RATES['29.97']!, groupFrames: 16 },
} as const satisfies Readonly<Record<string, DiscStandard>>;

export type StandardName = keyof typeof STANDARDS;
export const STANDARD_NAMES = Object.keys(STANDARDS) as StandardName[];

/** What a blank disc takes: the smaller of its two kinds (ECMA-267, and the recordable ones with a plus), with a little left for the file system. */
export const DISC_BYTES = { 1: 4_700_372_992, 2: 8_543_666_176 } as const;

/** Pictures, sound and all may be read no faster: 10.08 Mbit/s. */
export const MOST_BITS = 10_080_000;
/** A disc holds so many chapters of one film. */
export const MOST_CHAPTERS = 99;

/** How a film is drawn for a disc: with square points, at the disc's height. */
export function discSpec(standard: StandardName, shape: '16:9' | '4:3', pictureKbits: number): FilmSpec {
  const { heightPx, rate } = STANDARDS[standard];
  return {
    purpose: 'disc',
    format: standard,
    shape,
    ...drawnSize(standard, shape),
    heightPx,
    rate,
    quality: 'best',
    pictureKbits,
  };
}

/** The size a frame is drawn in before it is squeezed to the disc's 720 points across. */
export function drawnSize(standard: StandardName, shape: '16:9' | '4:3') {
  const { heightPx } = STANDARDS[standard];
  const [across, down] = shape === '16:9' ? [16, 9] : [4, 3];
  return { widthPx: 2 * Math.round((heightPx * across) / down / 2), heightPx };
}
