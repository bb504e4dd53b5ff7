import type { Channel } from '../keys/channel';

/** Brightness and colour of a layer. Amounts are −1…1 with 0 for “as it is”, unless they say otherwise; each constant or keyed. */
export interface Light {
  /** In stops, −4…4. */
  readonly exposure?: Channel;
  readonly contrast?: Channel;
  readonly highlights?: Channel;
  readonly shadows?: Channel;
  /** White balance: towards blue or amber. */
  readonly temperature?: Channel;
  /** White balance: towards green or magenta. */
  readonly tint?: Channel;
  readonly saturation?: Channel;
  /** Saturation of what has little of it. */
  readonly vibrance?: Channel;
  /** 0…1 each; `automatic` takes the points of the picture's own histogram. */
  readonly levels?: 'automatic' | { readonly black: number; readonly white: number };
  /** 0…1. */
  readonly blackAndWhite?: Channel;
  /** 0…1. */
  readonly sepia?: Channel;
  /** Towards white, so that words can stand on it: 0…1. */
  readonly paling?: Channel;
  /** A colour laid over the tones. */
  readonly tone?: { readonly colour: string; /** 0…1 */ readonly amount: Channel };
  /** Darkens the corners of the layer's box: 0…1. */
  readonly vignette?: Channel;
  /** 0…1. Worked out once per picture. */
  readonly sharpen?: number;
  /** Worked out once per picture. */
  readonly print?: { readonly kind: PrintEffect; /** 0…1 */ readonly strength: number };
  /** Places where red eyes are darkened; centre and radius as shares of the picture's width and height, radius of its width. */
  readonly redEyes?: readonly { readonly x: number; readonly y: number; readonly radius: number }[];
}

export type PrintEffect = 'pencil' | 'ink-wash' | 'linocut' | 'watercolour' | 'poster';
export const PRINT_EFFECTS: readonly PrintEffect[] = ['pencil', 'ink-wash', 'linocut', 'watercolour', 'poster'];
