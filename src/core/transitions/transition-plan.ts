import { curveOf } from '../keys/easing';
import { seedOf } from '../motion/seed';
import type { AssetId } from '../show/ids';
import {
  EIGHT_WAYS,
  FAMILIES,
  FOUR_WAYS,
  IRIS_SHAPES,
  PATTERN_NAMES,
  type EightWays,
  type FourWays,
  type IrisShape,
  type PatternName,
  type Transition,
  type TransitionOverTime,
} from '../show/transition';
import { unreachable } from '../unreachable';

/** A transition with everything decided, ready to be drawn at any progress. */
export type TransitionPlan =
  | { readonly kind: 'dissolve' }
  | { readonly kind: 'dip' | 'burn'; readonly colour: string }
  | {
      readonly kind: 'map';
      readonly map: WipeMapLook;
      /** width of the soft border as a share of the way, 0…1 */ readonly softness: number;
    }
  | {
      readonly kind: 'push' | 'slide-over' | 'slide-off' | 'page-turn' | 'card-turn' | 'cube-turn';
      readonly direction: FourWays;
    }
  | { readonly kind: 'slide-apart'; readonly direction: 'across' | 'down' }
  | { readonly kind: 'zoom-through' | 'zoom-blur'; readonly direction: 'in' | 'out' }
  | { readonly kind: 'blur-through' }
  | { readonly kind: 'mosaic'; readonly count: number };

/** When each place of the frame changes over. */
export type WipeMapLook =
  | { readonly kind: 'wipe'; readonly direction: EightWays }
  | { readonly kind: 'clock'; readonly direction: 'clockwise' | 'anticlockwise' }
  | { readonly kind: 'iris'; readonly shape: IrisShape; readonly direction: 'open' | 'close' }
  | { readonly kind: 'blinds'; readonly direction: FourWays; readonly count: number }
  | { readonly kind: 'checks'; readonly count: number; readonly seed: number }
  | { readonly kind: 'pattern'; readonly pattern: PatternName; readonly inverted: boolean }
  | { readonly kind: 'own-pattern'; readonly assetId: AssetId; readonly inverted: boolean };

/** A border of about a pixel, so that hard wipes are antialiased. */
const HARD = 0.002;

/** What a transition takes for softness and number when it is not told. */
export const USUAL_SOFTNESS = { wipe: 0.15, clock: 0.02, iris: 0.05, blinds: 0.1, checks: 0.2, pattern: 0.2 } as const;
export const USUAL_COUNT = { blinds: 8, checks: 9, mosaic: 24 } as const;

export function planTransition(transition: TransitionOverTime, slideId: string): TransitionPlan {
  const softness = (of: { readonly kind: keyof typeof USUAL_SOFTNESS; readonly softness?: number }) =>
    Math.max(HARD, of.softness ?? USUAL_SOFTNESS[of.kind]);
  switch (transition.kind) {
    case 'dissolve':
    case 'blur-through':
      return { kind: transition.kind };
    case 'dip':
      return { kind: 'dip', colour: transition.colour ?? '#000000' };
    case 'burn':
      return { kind: 'burn', colour: transition.colour ?? '#ffffff' };
    case 'wipe':
      return {
        kind: 'map',
        map: { kind: 'wipe', direction: transition.direction ?? 'right' },
        softness: softness(transition),
      };
    case 'clock':
      return {
        kind: 'map',
        map: { kind: 'clock', direction: transition.direction ?? 'clockwise' },
        softness: softness(transition),
      };
    case 'iris':
      return {
        kind: 'map',
        map: { kind: 'iris', shape: transition.shape ?? 'circle', direction: transition.direction ?? 'open' },
        softness: softness(transition),
      };
    case 'blinds':
      return {
        kind: 'map',
        map: {
          kind: 'blinds',
          direction: transition.direction ?? 'down',
          count: transition.count ?? USUAL_COUNT.blinds,
        },
        softness: softness(transition),
      };
    case 'checks':
      return {
        kind: 'map',
        map: { kind: 'checks', count: transition.count ?? USUAL_COUNT.checks, seed: transition.seed ?? 1 },
        softness: softness(transition),
      };
    case 'pattern': {
      const inverted = transition.inverted ?? false;
      const map =
        typeof transition.pattern === 'string'
          ? ({ kind: 'pattern', pattern: transition.pattern, inverted } as const)
          : ({ kind: 'own-pattern', assetId: transition.pattern.assetId, inverted } as const);
      return { kind: 'map', map, softness: softness(transition) };
    }
    case 'push':
    case 'slide-over':
    case 'slide-off':
    case 'page-turn':
    case 'card-turn':
    case 'cube-turn':
      return { kind: transition.kind, direction: transition.direction ?? 'left' };
    case 'slide-apart':
      return { kind: 'slide-apart', direction: transition.direction ?? 'across' };
    case 'zoom-through':
    case 'zoom-blur':
      return { kind: transition.kind, direction: transition.direction ?? 'in' };
    case 'mosaic':
      return { kind: 'mosaic', count: transition.count ?? USUAL_COUNT.mosaic };
    case 'shuffle':
      return planTransition(dealt(transition, slideId), slideId);
    default:
      return unreachable(transition);
  }
}

/** One of a shuffle's family with a direction, shape or pattern of its own; the same seed deals the same hand. */
export function dealt(
  shuffle: Extract<TransitionOverTime, { kind: 'shuffle' }>,
  slideId: string,
): Exclude<TransitionOverTime, { kind: 'shuffle' }> {
  const text = `${shuffle.seed} ${slideId}`;
  const pick = <Value>(from: readonly Value[], draw: number): Value =>
    from[Math.floor(seedOf(text, draw) * from.length)]!;
  const kinds = shuffle.family === 'all' ? Object.values(FAMILIES).flat() : FAMILIES[shuffle.family];
  const timed = { lengthMs: shuffle.lengthMs, ...(shuffle.easing !== undefined && { easing: shuffle.easing }) };
  const kind = pick(kinds, 1);
  switch (kind) {
    case 'dissolve':
    case 'dip':
    case 'burn':
    case 'blur-through':
    case 'mosaic':
      return { kind, ...timed };
    case 'wipe':
      return { kind, ...timed, direction: pick(EIGHT_WAYS, 2) };
    case 'clock':
      return { kind, ...timed, direction: pick(['clockwise', 'anticlockwise'] as const, 2) };
    case 'iris':
      return { kind, ...timed, shape: pick(IRIS_SHAPES, 2), direction: pick(['open', 'close'] as const, 3) };
    case 'checks':
      return { kind, ...timed, seed: Math.floor(seedOf(text, 2) * 1e6) };
    case 'pattern':
      return { kind, ...timed, pattern: pick(PATTERN_NAMES, 2), inverted: seedOf(text, 3) < 0.5 };
    case 'blinds':
    case 'push':
    case 'slide-over':
    case 'slide-off':
    case 'page-turn':
    case 'card-turn':
    case 'cube-turn':
      return { kind, ...timed, direction: pick(FOUR_WAYS, 2) } as Exclude<TransitionOverTime, { kind: 'shuffle' }>;
    case 'slide-apart':
      return { kind, ...timed, direction: pick(['across', 'down'] as const, 2) };
    case 'zoom-through':
    case 'zoom-blur':
      return { kind, ...timed, direction: pick(['in', 'out'] as const, 2) };
    default:
      return unreachable(kind);
  }
}

const MOVING: ReadonlySet<Transition['kind']> = new Set([
  'push',
  'slide-over',
  'slide-off',
  'slide-apart',
  'zoom-through',
  'zoom-blur',
  'page-turn',
  'card-turn',
  'cube-turn',
]);

/** Share of the change that is done at a share of the transition's time; held to 0…1, since no transition can be more than done. */
export function transitionProgress(transition: TransitionOverTime, slideId: string, share: number): number {
  const kind = transition.kind === 'shuffle' ? dealt(transition, slideId).kind : transition.kind;
  return Math.min(1, Math.max(0, curveOf(transition.easing ?? (MOVING.has(kind) ? 'settle' : 'linear'))(share)));
}
