import { curveOf } from '../keys/easing';
import { seedOf } from '../motion/seed';
import type { LayerPlan } from '../frame/frame-plan';
import type { AssetId } from '../show/ids';
import {
  PATTERN_NAMES,
  type BuiltTransition,
  type EightWays,
  type FourWays,
  type IrisShape,
  type PatternName,
  type TransitionOverTime,
} from '../show/transition';
import type { Parameter, PlainKind, PlainTransition, TransitionKindRecord } from './transition-kind';
import { FAMILIES, TRANSITIONS } from './transitions';

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
  | { readonly kind: 'mosaic'; readonly count: number }
  /** Layers over a colour, among them the frames of both slides. */
  | { readonly kind: 'built'; readonly colour: string; readonly layers: readonly LayerPlan[] };

/** When each place of the frame changes over. */
export type WipeMapLook =
  | { readonly kind: 'wipe'; readonly direction: EightWays }
  | { readonly kind: 'clock'; readonly direction: 'clockwise' | 'anticlockwise' }
  | { readonly kind: 'iris'; readonly shape: IrisShape; readonly direction: 'open' | 'close' }
  | { readonly kind: 'blinds'; readonly direction: FourWays; readonly count: number }
  | { readonly kind: 'checks'; readonly count: number; readonly seed: number }
  | { readonly kind: 'pattern'; readonly pattern: PatternName; readonly inverted: boolean }
  | { readonly kind: 'own-pattern'; readonly assetId: AssetId; readonly inverted: boolean };

/** The transition as it is drawn; a shuffle as what it deals to this slide. */
export function planTransition(
  transition: Exclude<TransitionOverTime, BuiltTransition>,
  slideId: string,
): TransitionPlan {
  const plain = transition.kind === 'shuffle' ? dealt(transition, slideId) : transition;
  return recordOf(plain.kind).plan(plain);
}

/** One of a shuffle's family with a direction, shape or pattern of its own; the same seed deals the same hand. */
export function dealt(shuffle: Extract<TransitionOverTime, { kind: 'shuffle' }>, slideId: string): PlainTransition {
  const text = `${shuffle.seed} ${slideId}`;
  const kinds = shuffle.family === 'all' ? Object.values(FAMILIES).flat() : FAMILIES[shuffle.family];
  const kind = pick(kinds, seedOf(text, 1));
  const timed = { lengthMs: shuffle.lengthMs, ...(shuffle.easing !== undefined && { easing: shuffle.easing }) };
  const parts: Record<string, unknown> = {};
  let draw = 2;
  for (const [name, parameter] of Object.entries<Parameter>(recordOf(kind).parameters)) {
    const value = dealtValue(parameter, seedOf(text, draw));
    if (value === undefined) continue;
    parts[name] = value;
    draw += 1;
  }
  return { kind, ...timed, ...parts } as PlainTransition;
}

/** What a shuffle deals for a parameter; undefined for those that stay as usual. */
function dealtValue(parameter: Parameter, luck: number): unknown {
  if (parameter.is === 'choice') return pick(parameter.values, luck);
  if (parameter.is === 'pattern') return pick(PATTERN_NAMES, luck);
  if (parameter.is === 'switch') return luck < 0.5;
  return parameter.is === 'seed' ? Math.floor(luck * 1e6) : undefined;
}

function pick<Value>(from: readonly Value[], luck: number): Value {
  return from[Math.floor(luck * from.length)]!;
}

/** Share of the change that is done at a share of the transition's time; held to 0…1, since no transition can be more than done. */
export function transitionProgress(transition: TransitionOverTime, slideId: string, share: number): number {
  if (transition.kind === 'built') return held(curveOf(transition.easing ?? 'linear')(share));
  const { kind, easing } = transition.kind === 'shuffle' ? dealt(transition, slideId) : transition;
  return held(curveOf(easing ?? (recordOf(kind).movesPictures ? 'settle' : 'linear'))(share));
}

const held = (share: number) => Math.min(1, Math.max(0, share));

/** A kind's record, for transitions of that kind. */
function recordOf(kind: PlainKind): TransitionKindRecord & { plan(transition: PlainTransition): TransitionPlan } {
  return TRANSITIONS[kind] as TransitionKindRecord & { plan(transition: PlainTransition): TransitionPlan };
}
