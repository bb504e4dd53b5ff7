import type { Stage } from './stage';
import { NOTHING } from './stage';

const BELOW_HZ = 80;
/** The two halves of a Butterworth filter of the fourth order. */
const QUALITIES = [0.54119610014619698, 1.3065629648763766];

/** Takes away what lies below speech: a Butterworth high pass of the fourth order (biquads as in Bristow-Johnson’s cookbook). */
export function lowCut(rate: number): Stage {
  const filters = QUALITIES.map((quality) => highPass(BELOW_HZ, quality, rate));
  return {
    push(samples) {
      const out = Float32Array.from(samples);
      for (const filter of filters) filter(out);
      return out;
    },
    finish: () => NOTHING,
  };
}

/** In place. */
export function highPass(hz: number, quality: number, rate: number): (samples: Float32Array) => void {
  const w = (2 * Math.PI * hz) / rate;
  const alpha = Math.sin(w) / (2 * quality);
  const a0 = 1 + alpha;
  const b = (1 + Math.cos(w)) / 2 / a0;
  const a1 = (-2 * Math.cos(w)) / a0;
  const a2 = (1 - alpha) / a0;
  let [x1, x2, y1, y2] = [0, 0, 0, 0];
  return (samples) => {
    for (let at = 0; at < samples.length; at += 1) {
      const x = samples[at]!;
      const y = b * (x - 2 * x1 + x2) - a1 * y1 - a2 * y2;
      x2 = x1;
      x1 = x;
      y2 = y1;
      y1 = y;
      samples[at] = y;
    }
  };
}
