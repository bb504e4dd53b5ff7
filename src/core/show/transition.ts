import type { WholeEasing } from '../keys/easing';
import type { AssetId } from './ids';
import type { Layer } from './layer';

/** How a slide comes in over the one before it. */
export type Transition = { readonly kind: 'cut' } | TransitionOverTime;

export type TransitionOverTime =
  | (Timed & { readonly kind: 'dissolve' })
  | (Timed & { readonly kind: 'dip'; readonly colour?: string })
  | (Timed & { readonly kind: 'burn'; readonly colour?: string })
  | (Timed & { readonly kind: 'wipe'; readonly direction?: EightWays; readonly softness?: number })
  | (Timed & { readonly kind: 'clock'; readonly direction?: 'clockwise' | 'anticlockwise'; readonly softness?: number })
  | (Timed & {
      readonly kind: 'iris';
      readonly shape?: IrisShape;
      readonly direction?: 'open' | 'close';
      readonly softness?: number;
    })
  | (Timed & {
      readonly kind: 'blinds';
      readonly direction?: FourWays;
      readonly count?: number;
      readonly softness?: number;
    })
  | (Timed & { readonly kind: 'checks'; readonly count?: number; readonly seed?: number; readonly softness?: number })
  | (Timed & {
      readonly kind: 'pattern';
      readonly pattern: PatternName | { readonly assetId: AssetId };
      readonly inverted?: boolean;
      readonly softness?: number;
    })
  | (Timed & { readonly kind: 'push'; readonly direction?: FourWays })
  | (Timed & { readonly kind: 'slide-over'; readonly direction?: FourWays })
  | (Timed & { readonly kind: 'slide-off'; readonly direction?: FourWays })
  | (Timed & { readonly kind: 'slide-apart'; readonly direction?: 'across' | 'down' })
  | (Timed & { readonly kind: 'zoom-through'; readonly direction?: 'in' | 'out' })
  | (Timed & { readonly kind: 'zoom-blur'; readonly direction?: 'in' | 'out' })
  | (Timed & { readonly kind: 'page-turn'; readonly direction?: FourWays })
  | (Timed & { readonly kind: 'card-turn'; readonly direction?: FourWays })
  | (Timed & { readonly kind: 'cube-turn'; readonly direction?: FourWays })
  | (Timed & { readonly kind: 'blur-through' })
  | (Timed & { readonly kind: 'mosaic'; readonly count?: number })
  | BuiltTransition
  | (Timed & { readonly kind: 'shuffle'; readonly family: TransitionFamily | 'all'; readonly seed: number });

/**
 * One that is made of layers and keys. Where the slides that leave and come are seen, stand `LEAVING` and `COMING` (`window-id.ts`) in pictures; whatever its
 * length, all of the time it was made in goes by.
 */
export interface BuiltTransition extends Timed {
  readonly kind: 'built';
  readonly name: string;
  /** How long it was when it was made; its keys count in that. */
  readonly ofMs: number;
  /** Behind its layers; black when it is not said. */
  readonly colour?: string;
  readonly layers: readonly Layer[];
}

interface Timed {
  readonly lengthMs: number;
  /** Which of the studio's own it was when it was chosen, by id. */
  readonly kept?: string;
  /** `linear` when left out, `settle` for those that move the pictures. */
  readonly easing?: WholeEasing;
  /** It takes its time even from words that need it; otherwise it gives way to them. */
  readonly overWords?: boolean;
}

export type FourWays = 'left' | 'right' | 'up' | 'down';
/** Towards where it goes. */
export type EightWays = FourWays | 'up-left' | 'up-right' | 'down-left' | 'down-right';
export type IrisShape = 'circle' | 'diamond' | 'square' | 'star';
export type PatternName = 'clouds' | 'brush' | 'rain' | 'ripples' | 'spiral' | 'shards';
export type TransitionKind = Transition['kind'];
export type TransitionFamily = 'plain' | 'wipes' | 'shapes' | 'patterns' | 'slides' | 'zooms' | 'turns';

export const FOUR_WAYS: readonly FourWays[] = ['left', 'right', 'up', 'down'];
export const EIGHT_WAYS: readonly EightWays[] = [...FOUR_WAYS, 'up-left', 'up-right', 'down-left', 'down-right'];
export const IRIS_SHAPES: readonly IrisShape[] = ['circle', 'diamond', 'square', 'star'];
export const PATTERN_NAMES: readonly PatternName[] = ['clouds', 'brush', 'rain', 'ripples', 'spiral', 'shards'];
export const TRANSITION_FAMILIES: readonly TransitionFamily[] = [
  'plain',
  'wipes',
  'shapes',
  'patterns',
  'slides',
  'zooms',
  'turns',
];
