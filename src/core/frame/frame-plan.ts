import type { Framing } from '../motion/framing';
import type { AssetId, SlideId } from '../show/ids';
import type { BlendMode, EdgeShape, Fill, Gradient, Shape } from '../show/layer';
import type { PrintEffect } from '../show/light';
import type { PassageEasing, WordsPlace, WordsStyle, WordsUnit, WordsWay } from '../show/words';
import type { TransitionPlan } from '../transitions/transition-plan';
import type { Matrix3 } from './matrix';
import type { HalfPlane } from './polygon';

/** Everything a frame shows, as plain data; `paintFrame` performs it. */
export interface FramePlan {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly slide: SlidePlan;
  /** The slide coming in over `slide`, or null outside transitions. */
  readonly incoming: {
    readonly slide: SlidePlan;
    readonly transition: TransitionPlan;
    /** 0…1, eased */ readonly progress: number;
  } | null;
  /** What lies over all of it, transitions too: captions. */
  readonly over: readonly LayerPlan[];
}

export interface SlidePlan {
  readonly slideId: SlideId;
  readonly backing: BackingPlan;
  /** Bottom to top. */
  readonly layers: readonly LayerPlan[];
}

export type BackingPlan =
  /** Every pixel is covered by a layer, so nothing is drawn. */
  | { readonly kind: 'hidden' }
  | { readonly kind: 'colour'; /** #rrggbb */ readonly colour: string }
  | { readonly kind: 'gradient'; readonly gradient: Gradient<string> }
  | {
      readonly kind: 'picture';
      readonly assetId: AssetId;
      readonly framing: Framing;
      readonly size: PictureSize;
      readonly light?: LightPlan;
    }
  /** `amount` is a share of the frame's height. */
  | {
      readonly kind: 'blurred';
      readonly assetId: AssetId;
      /** Of a clip, which frame. */
      readonly clipFrame: number | null;
      readonly crop: CropPlan | null;
      readonly aspect: number;
      readonly amount: number;
      readonly darkness: number;
      /** How much of its colour is left; most of it where it is not said, since the picture itself stands on it. */
      readonly colour?: number;
      readonly light?: LightPlan;
    };

export interface LayerPlan {
  readonly content: ContentPlan;
  /** The layer's box, a unit square, on the screen in pixels. */
  readonly toScreen: Matrix3;
  /** The box is the frame itself and nothing but `content` and `opacity` matters. */
  readonly plain: boolean;
  /** Shares of the box that are cut away. */
  readonly crop: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number };
  /** It is drawn only where each of these is positive on the screen: where it passes through others in its space. At most eight. */
  readonly cuts: readonly HalfPlane[];
  /** 0…1 */
  readonly opacity: number;
  /** Standard deviation. */
  readonly blurPx: number;
  readonly blend: BlendMode;
  readonly edge: EdgePlan | null;
  /** 0…1 */
  readonly vignette: number;
  readonly masks: readonly MaskPlan[];
}

export type ContentPlan =
  | PictureContent
  | ClipContent
  | { readonly kind: 'words'; readonly look: WordsLook; readonly passage: WordsPassagePlan }
  | { readonly kind: 'painted'; readonly shape: Shape; readonly fill: Fill<string>; readonly bitmap: PictureSize }
  | { readonly kind: 'group'; readonly layers: readonly LayerPlan[] }
  /** The whole frame of the slide that leaves, or of the one that comes; in transitions only. */
  | { readonly kind: 'frame'; readonly which: 'leaving' | 'coming' };

export interface PictureContent {
  readonly kind: 'picture';
  readonly assetId: AssetId;
  readonly crop: CropPlan | null;
  /** On what the crop leaves. */
  readonly framing: Framing;
  /** One size, or two while one gives way to the other. */
  readonly sizes: readonly SizeShare[];
  readonly light: LightPlan | null;
}

/** A framing cut out of a file's upright picture, whose size is given. */
export interface CropPlan {
  readonly framing: Framing;
  readonly ofWidthPx: number;
  readonly ofHeightPx: number;
}

export interface ClipContent {
  readonly kind: 'clip';
  readonly assetId: AssetId;
  readonly crop: CropPlan | null;
  /** On what the crop leaves. */
  readonly framing: Framing;
  readonly sizes: readonly SizeShare[];
  readonly light: LightPlan | null;
  /** From the clip's start, at `CLIP_FRAMES_PER_SECOND`; between two of those where the clip has a rate of its own (`ownFrame`). */
  readonly clipFrame: number;
}

export interface SizeShare {
  readonly size: PictureSize;
  /** 0…1; the first has 1, the second lies over it. */
  readonly share: number;
}

/** Size at which a picture is wanted, so that source pixels per frame pixel stay within 1.1…1.5. */
export interface PictureSize {
  readonly widthPx: number;
  readonly heightPx: number;
}

export interface LightPlan {
  readonly values: LightValues;
  /** Worked out anew for every frame; otherwise once per picture. */
  readonly moves: boolean;
  readonly sharpen: number;
  readonly print: { readonly kind: PrintEffect; readonly strength: number } | null;
  readonly redEyes: readonly { readonly x: number; readonly y: number; readonly radius: number }[];
}

/** The numbers of `Light` at a moment; 0 is “as it is”, but for `black` 0 and `white` 1. */
export interface LightValues {
  readonly exposure: number;
  readonly contrast: number;
  readonly highlights: number;
  readonly shadows: number;
  readonly temperature: number;
  readonly tint: number;
  readonly saturation: number;
  readonly vibrance: number;
  readonly black: number;
  readonly white: number;
  readonly blackAndWhite: number;
  readonly sepia: number;
  readonly paling: number;
  readonly toneColour: string;
  readonly toneAmount: number;
}

/** A light that changes nothing. */
export const NEUTRAL: LightValues = {
  exposure: 0,
  contrast: 0,
  highlights: 0,
  shadows: 0,
  temperature: 0,
  tint: 0,
  saturation: 0,
  vibrance: 0,
  black: 0,
  white: 1,
  blackAndWhite: 0,
  sepia: 0,
  paling: 0,
  toneColour: '#000000',
  toneAmount: 0,
};

export interface EdgePlan {
  /** What the edge runs around, in shares of the layer's box: all of it, or the picture where that is shown whole with room about it. */
  readonly around: { readonly left: number; readonly top: number; readonly right: number; readonly bottom: number };
  /** White where the layer shows; null when its box is all there is to it. */
  readonly stencil: StencilLook | null;
  readonly outline:
    | (StencilLook & {
        readonly colour: string;
        readonly width: number;
        readonly where: 'inside' | 'centre' | 'outside';
      })
    | null;
  readonly shadow: {
    readonly xPx: number;
    readonly yPx: number;
    readonly blurPx: number;
    readonly colour: string;
    readonly opacity: number;
  } | null;
}

/** All that decides what an edge's bitmap looks like. Widths are shares of the box's shorter side. */
export interface StencilLook {
  readonly shape: EdgeShape | null;
  readonly feather: number;
  /** So much is left out along the shape’s border. */
  readonly inset: number;
  readonly bitmap: PictureSize;
}

export interface MaskPlan {
  readonly layer: LayerPlan;
  readonly by: 'brightness' | 'transparency';
  readonly inverted: boolean;
  readonly featherPx: number;
}

/** All that decides what a words layer looks like; equal looks are drawn once. */
export interface WordsLook {
  readonly title: string;
  readonly subtitle: string;
  readonly place: WordsPlace;
  readonly style: WordsStyle;
  /** The pieces that come and go by themselves. */
  readonly unit: WordsUnit;
  /** Everything in one line, as long as it gets. */
  readonly crawls: boolean;
  /** Travels upwards through the frame, which need not hold all of it at once. */
  readonly rolls: boolean;
}

/** One way, and how far along it words are. */
export interface PassagePlan {
  readonly way: WordsWay;
  readonly by: WordsUnit;
  readonly share: number;
  readonly easing?: PassageEasing;
  readonly stagger?: number;
}

/** Where words are on their way in and out. */
export interface WordsPassagePlan {
  /** `share` 0 (not yet there) … 1 (there). */
  readonly entrance: PassagePlan;
  /** `share` 0 (still there) … 1 (gone). */
  readonly exit: PassagePlan;
  /** `share` 0 (outside, before) … 1 (outside, after). */
  readonly travel: { readonly kind: 'roll' | 'crawl'; readonly share: number } | null;
}

/** Clips are read at this rate whatever the film's. */
export const CLIP_FRAMES_PER_SECOND = 30;
