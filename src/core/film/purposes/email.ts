import { framesPerSecond } from '../../timing/frame-rate';
import { sides, type PurposeRecord } from './purpose';

/** What most post rooms let through. */
export const USUAL_MAIL_BYTES = 10_000_000;
/** Bits a pixel below which x264 lets a slow move fall apart; found on the demo's show. */
export const FEWEST_BITS_A_PIXEL = 0.035;
export const SHORT_SIDES = [1080, 720, 540, 480, 360, 270] as const;

export const email: PurposeRecord = {
  name: 'E-mail',
  note: 'as good as the size allows',
  spec({ frame, shape, lengthMs, mostBytes = USUAL_MAIL_BYTES }) {
    const bitsASecond = (mostBytes * 8) / Math.max(1, lengthMs / 1000);
    const fitting = SHORT_SIDES.find((shortPx) => {
      const { widthPx, heightPx } = sides(shape, shortPx);
      return bitsASecond / (widthPx * heightPx * framesPerSecond(frame.rate)) >= FEWEST_BITS_A_PIXEL;
    });
    return {
      format: 'mp4',
      shape,
      ...sides(shape, fitting ?? SHORT_SIDES.at(-1)!),
      rate: frame.rate,
      quality: 'good',
      mostBytes,
    };
  },
};
