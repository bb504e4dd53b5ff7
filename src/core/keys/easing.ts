import { easeBackOut, easeBounceOut, easeExpInOut } from 'd3-ease';

/** How a value goes from one key to the next: a named curve, a cubic Bézier by its two inner points (x within 0…1), or a part of either. */
export type Easing = WholeEasing | EasingPart;
export type WholeEasing = EasingName | BezierEasing;
export interface BezierEasing {
  readonly bezier: readonly [x1: number, y1: number, x2: number, y2: number];
}
/** What of a curve is left where a key was put on the way: from one moment of it to another, 0…1. */
export interface EasingPart {
  readonly of: WholeEasing;
  readonly from: number;
  readonly to: number;
}
export type EasingName = 'linear' | 'hold' | 'settle' | 'set-off' | 'arrive' | 'swing' | 'bounce' | 'rush';

export const EASING_NAMES: readonly EasingName[] = [
  'linear',
  'hold',
  'settle',
  'set-off',
  'arrive',
  'swing',
  'bounce',
  'rush',
];

/**
 * A cubic Bézier timing curve from (0,0) to (1,1), as in CSS Easing Functions Level 1, section 2.2.
 *
 * @param x1 and x2 within 0…1
 * @returns a function from 0…1 to eased progress; values outside are held
 * @throws {RangeError} when x1 or x2 leave 0…1, for then one time would have several values
 */
export function cubicBezier(x1: number, y1: number, x2: number, y2: number): (progress: number) => number {
  if (!(x1 >= 0 && x1 <= 1 && x2 >= 0 && x2 <= 1))
    throw new RangeError(`x1 and x2 must lie within 0…1, got ${x1} and ${x2}`);
  return (progress) => {
    if (progress <= 0) return 0;
    if (progress >= 1) return 1;
    return bezier(y1, y2, solveForX(x1, x2, progress));
  };
}

/** Sets off and settles softly, with an even stretch between: what a hand does on a rostrum. */
export const settle = cubicBezier(0.4, 0, 0.6, 1);

/** The curve of a plain dissolve: constant. */
export const linear = (progress: number): number => Math.min(1, Math.max(0, progress));

const CURVES: Record<EasingName, (progress: number) => number> = {
  linear,
  hold: (progress) => (progress >= 1 ? 1 : 0),
  settle,
  'set-off': cubicBezier(0.5, 0, 0.9, 0.6),
  arrive: cubicBezier(0.1, 0.4, 0.5, 1),
  // Goes a little past its goal and comes back; within 0…1 in time, up to 1.1 in value.
  swing: (progress) => easeBackOut(linear(progress)),
  bounce: (progress) => easeBounceOut(linear(progress)),
  rush: (progress) => easeExpInOut(linear(progress)),
};

/** The curve of an easing: progress 0…1 in time to progress in value, which `swing`, Béziers and parts may take beyond 0…1. */
export function curveOf(easing: Easing): (progress: number) => number {
  if (typeof easing === 'string') return CURVES[easing];
  if ('bezier' in easing) return cubicBezier(...easing.bezier);
  const { from, to } = easing;
  const whole = curveOf(easing.of);
  const [first, last] = [whole(from), whole(to)];
  // A part that ends as high as it began has no way to be a share of.
  if (first === last) return linear;
  return (progress) => {
    if (progress <= 0) return 0;
    return progress >= 1 ? 1 : (whole(from + (to - from) * progress) - first) / (last - first);
  };
}

/** The two easings that together are this one, divided at a share of its time. */
export function dividedEasing(easing: Easing, at: number): [before: Easing, after: Easing] {
  if (easing === 'linear' || easing === 'hold') return [easing, easing];
  const { of, from, to } = typeof easing === 'object' && 'of' in easing ? easing : { of: easing, from: 0, to: 1 };
  const middle = from + (to - from) * at;
  // Of next to nothing there is no part: over so little of a curve it goes straight.
  const part = (begin: number, end: number): Easing => (begin < end ? { of, from: begin, to: end } : 'linear');
  return [part(from, middle), part(middle, to)];
}

function bezier(a: number, b: number, t: number): number {
  return ((1 - 3 * b + 3 * a) * t + (3 * b - 6 * a)) * t * t + 3 * a * t;
}

/** Bisection: sixty halvings reach the limit of a double, always converge and need no guess. */
function solveForX(x1: number, x2: number, x: number): number {
  let low = 0;
  let high = 1;
  for (let step = 0; step < 60; step += 1) {
    const middle = (low + high) / 2;
    if (bezier(x1, x2, middle) < x) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
