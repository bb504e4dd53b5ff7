import { COLOUR, HASH, kinds, number, type Schema } from '../../schema/schema';
import type { Backing } from '../show';
import { STILL_GRADIENT } from './layer-schema';

export const BACKING: Schema = kinds<Backing>({
  automatic: {},
  colour: { colour: COLOUR },
  gradient: { gradient: STILL_GRADIENT },
  picture: { assetId: HASH },
  blurred: { amount: number(0, 0.1), darkness: number(0, 1) },
});
