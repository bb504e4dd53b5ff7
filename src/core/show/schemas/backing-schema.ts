import { COLOUR, HASH, kinds, maybe, number, object, type Schema } from '../../schema/schema';
import type { Backing, BackingLight } from '../show';
import { STILL_GRADIENT } from './layer-schema';

export const BACKING: Schema = kinds<Backing>({
  automatic: {},
  colour: { colour: COLOUR },
  gradient: { gradient: STILL_GRADIENT },
  picture: {
    assetId: HASH,
    blur: maybe(number(0, 0.1)),
    light: maybe(
      object<BackingLight>({
        exposure: maybe(number(-4, 4)),
        contrast: maybe(number(-1, 1)),
        temperature: maybe(number(-1, 1)),
        saturation: maybe(number(-1, 1)),
      }),
    ),
  },
  blurred: { amount: number(0, 0.1), darkness: number(0, 1) },
});
