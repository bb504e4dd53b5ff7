import { wholeRate } from '../../timing/frame-rate';
import { sides, type PurposeRecord } from './purpose';

/** From the show's second slide on, roughly: the first is often a title alone. */
const FROM_SHARE = 0.08;
const LENGTH_MS = 6000;

export const teaser: PurposeRecord = {
  name: 'Teaser',
  note: 'six seconds that move by themselves',
  spec({ shape, lengthMs }) {
    const fromMs = Math.round(Math.max(0, Math.min(lengthMs * FROM_SHARE, lengthMs - LENGTH_MS)));
    return {
      format: 'webp',
      shape,
      ...sides(shape, 360),
      rate: wholeRate(15),
      quality: 'good',
      span: { fromMs, toMs: Math.min(lengthMs, fromMs + LENGTH_MS) },
    };
  },
};
