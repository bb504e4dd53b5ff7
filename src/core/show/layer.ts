import type { Channel } from '../keys/channel';
import type { ColourChannel } from '../keys/colour';
import type { Framing } from '../motion/framing';
import type { AssetId, LayerId } from './ids';
import type { LayerChosen } from './chosen';
import type { Light } from './light';
import type { ShapeCorrection, ShapeName } from './shape';
import type { WordsCome, WordsPlace, WordsStyle, WordsTravel } from './words';

export type Layer =
  | PictureLayer
  | ClipLayer
  | DrawingLayer
  | WordsLayer
  | ShapeLayer
  | GradientLayer
  | SolidLayer
  | BoxLayer
  | GroupLayer;

/** What every layer may have beside its content. A part that is left out does nothing. */
export interface LayerParts {
  readonly id: LayerId;
  readonly name?: string;
  /** Neither drawn nor, as a mask, cutting. */
  readonly hidden?: boolean;
  readonly locked?: boolean;
  readonly channels?: Channels;
  readonly edge?: Edge;
  readonly blend?: BlendMode;
  readonly mask?: Mask;
  readonly tether?: Tether;
  /** What is otherwise in other shapes of the frame. */
  readonly shapes?: Readonly<Record<ShapeName, ShapeCorrection>>;
  /** Who chose what it says, how it moves and how it is lit. */
  readonly chosen?: LayerChosen;
  /** How it was before the look of the whole show dressed it. */
  readonly bare?: BareLayer;
}

/** Values the look of the whole show changed, as they were; null where there was none. */
export interface BareLayer {
  readonly move?: Move;
  readonly style?: WordsStyle<ColourChannel> | null;
  readonly come?: WordsCome | null;
}

/** What layers with tones of their own may have beside that. */
export interface LitParts extends LayerParts {
  readonly light?: Light;
}

/** Where a layer's box stands and how it is seen; each constant or keyed. */
export interface Channels {
  /** The box's centre, as shares of the frame's width and height; 0.5 and 0.5 when left out. */
  readonly x?: Channel;
  readonly y?: Channel;
  /** Shares of the frame's width and height. A picture given one of them keeps its own shape; given neither, the box is the frame. */
  readonly width?: Channel;
  readonly height?: Channel;
  /** Clockwise. */
  readonly turnDegrees?: Channel;
  /** About the box's horizontal axis; positive leans the top away. */
  readonly tiltXDegrees?: Channel;
  /** About its vertical axis; positive leans the right side away. */
  readonly tiltYDegrees?: Channel;
  /** Towards the viewer, in heights of the frame. */
  readonly z?: Channel;
  /** 0…1. */
  readonly opacity?: Channel;
  /** Standard deviation of a Gaussian, as a share of the frame's height: 0…0.1. */
  readonly blur?: Channel;
  /** Shares of the box cut away. */
  readonly cropLeft?: Channel;
  readonly cropTop?: Channel;
  readonly cropRight?: Channel;
  readonly cropBottom?: Channel;
}

export type BlendMode = 'normal' | 'multiply' | 'screen' | 'overlay' | 'soft-light' | 'lighten' | 'darken' | 'add';
export const BLEND_MODES: readonly BlendMode[] = [
  'normal',
  'multiply',
  'screen',
  'overlay',
  'soft-light',
  'lighten',
  'darken',
  'add',
];

/** A layer with a mask is not seen itself; it cuts what it names. Where it shows (or is bright), the cut layers show. */
export interface Mask {
  readonly by: 'brightness' | 'transparency';
  readonly inverted?: boolean;
  /** Standard deviation of its softness, as a share of the frame's height: 0…0.1. */
  readonly feather?: Channel;
  /** The layer right below it in its pile, or named layers anywhere on the slide. */
  readonly cuts: 'below' | readonly LayerId[];
}

/** A layer that follows another, keeping its own offset. Parts that are left out are not carried. */
export interface Tether {
  readonly to: LayerId;
  readonly position?: boolean;
  /** Of its position, only this is followed: left and right, or up and down, on the screen. */
  readonly along?: 'x' | 'y';
  readonly size?: boolean;
  readonly turn?: boolean;
  /** In space: it leans as its leader leans. */
  readonly tilt?: boolean;
  readonly opacity?: boolean;
}

/** Outline, shape, feather and shadow. Sizes are shares of the box's shorter side, the shadow's of the frame's height. */
export interface Edge {
  readonly shape?: EdgeShape;
  readonly feather?: Channel;
  readonly outline?: {
    readonly width: Channel;
    readonly colour: string;
    readonly where: 'inside' | 'centre' | 'outside';
  };
  readonly shadow?: {
    readonly x: Channel;
    readonly y: Channel;
    readonly softness: Channel;
    readonly colour: string;
    readonly opacity: Channel;
  };
}

export type EdgeShape =
  | { readonly kind: 'rounded'; /** 0…0.5 */ readonly radius: number }
  | { readonly kind: 'ellipse' }
  | { readonly kind: 'free'; /** SVG path data in a box of 100 × 100 */ readonly path: string };

export interface PictureLayer extends LitParts {
  readonly kind: 'picture';
  readonly assetId: AssetId;
  readonly move: Move;
  /** The part of the file's picture that is used; everything else speaks of what it leaves. See `motion/crop.ts`. */
  readonly crop?: Framing;
  readonly flip?: Flip;
  /** Another picture on its back, seen when it is turned away. */
  readonly back?: { readonly assetId: AssetId };
}

export interface ClipLayer extends LitParts {
  readonly kind: 'clip';
  readonly assetId: AssetId;
  /** Where in the clip the part that is shown begins. */
  readonly trimStartMs: number;
  /** Where in the clip it ends: the first moment that is not shown. The clip's end when left out; a slide that is shorter ends it earlier. */
  readonly trimEndMs?: number;
  /** The clip's own sound; −60 and below is silence. */
  readonly soundGainDb: number;
  /** Of its sound over the slide. */
  readonly fadeInMs?: number;
  readonly fadeOutMs?: number;
  readonly flip?: Flip;
  /** 1 when left out. Its sound keeps its pitch, from `SLOWEST_HEARD` to `FASTEST_HEARD`; beyond them it is silent. */
  readonly speed?: number;
  /** From its end to its beginning; silent. */
  readonly backwards?: boolean;
  /** What is seen when it is over before the slide: its last frame, when left out, or it again. */
  readonly after?: 'again';
  /** Frames that stand for a while, in the order of the clip. */
  readonly freezes?: readonly ClipFreeze[];
  /** As of a picture: how it moves in its box; it stands still when left out. */
  readonly move?: SetMove;
  /** The part of its frames that is used. See `motion/crop.ts`. */
  readonly crop?: Framing;
}

/** What a clip says of when its frames are seen; what is not said is left out. */
export function clipTimes(layer: ClipLayer): Pick<ClipLayer, (typeof CLIP_TIMES)[number]> {
  const said = CLIP_TIMES.filter((name) => layer[name] !== undefined).map((name) => [name, layer[name]] as const);
  return Object.fromEntries(said) as unknown as Pick<ClipLayer, (typeof CLIP_TIMES)[number]>;
}
const CLIP_TIMES = ['trimStartMs', 'trimEndMs', 'speed', 'backwards', 'after', 'freezes'] as const;

/** What a clip says that holds for any picture in its place: not what of it runs when, how it is heard, cropped and framed. */
export function withoutClip(
  layer: ClipLayer,
): Omit<ClipLayer, (typeof CLIP_TIMES)[number] | 'kind' | 'soundGainDb' | 'fadeInMs' | 'fadeOutMs' | 'crop' | 'move'> {
  const { kind: _kind, soundGainDb: _gain, fadeInMs: _in, fadeOutMs: _out, crop: _crop, move: _move, ...rest } = layer;
  const {
    trimStartMs: _start,
    trimEndMs: _end,
    speed: _speed,
    backwards: _round,
    after: _after,
    freezes: _freezes,
    ...kept
  } = rest;
  return kept;
}

/** A frame of a clip that stands; silent meanwhile. */
export interface ClipFreeze {
  /** Which frame, in the clip's own time. */
  readonly atMs: number;
  /** How long, in the show's time. */
  readonly lengthMs: number;
}

/** Left and right, or top and bottom, change places. */
export interface Flip {
  readonly across?: boolean;
  readonly down?: boolean;
}

/** A drawing in SVG, shown whole in its box. */
export interface DrawingLayer extends LitParts {
  readonly kind: 'drawing';
  readonly assetId: AssetId;
}

export interface WordsLayer extends LayerParts {
  readonly kind: 'words';
  readonly title: string;
  readonly subtitle: string;
  readonly place: WordsPlace;
  readonly style?: WordsStyle<ColourChannel>;
  readonly come?: WordsCome;
  readonly travel?: WordsTravel;
}

export interface ShapeLayer extends LayerParts {
  readonly kind: 'shape';
  readonly shape: Shape;
  readonly fill: Fill;
}

export type Shape =
  | { readonly kind: 'rectangle'; /** share of the shorter side, 0…0.5 */ readonly radius?: number }
  | { readonly kind: 'ellipse' }
  | { readonly kind: 'polygon'; /** 3…60 */ readonly sides: number }
  | {
      readonly kind: 'star';
      /** 3…60 */ readonly points: number;
      /** inner over outer radius, 0…1 */ readonly depth: number;
    }
  | { readonly kind: 'free'; /** SVG path data in a box of 100 × 100 */ readonly path: string };

/** Colours are channels where a layer says them, and plain where they are drawn. */
export type Fill<Colour = ColourChannel> = { readonly kind: 'colour'; readonly colour: Colour } | Gradient<Colour>;

/** Stops at 0…1, at least two, in rising order. Linear and conic gradients begin at `angleDegrees`, clockwise from the right (linear) or the top (conic). */
export interface Gradient<Colour = ColourChannel> {
  readonly kind: 'linear' | 'radial' | 'conic';
  readonly angleDegrees?: number;
  readonly stops: readonly {
    readonly at: number;
    readonly colour: Colour;
    /** 0…1; 1 when left out */ readonly opacity?: number;
  }[];
}

export interface GradientLayer extends LayerParts {
  readonly kind: 'gradient';
  readonly gradient: Gradient;
}

export interface SolidLayer extends LayerParts {
  readonly kind: 'solid';
  readonly colour: ColourChannel;
}

/** Six sides in space; `depth` is in heights of the frame. A side is a picture or a colour. */
export interface BoxLayer extends LayerParts {
  readonly kind: 'box';
  readonly depth: Channel;
  readonly faces: Readonly<Record<BoxSide, BoxFace>>;
}

export type BoxSide = 'front' | 'back' | 'left' | 'right' | 'top' | 'bottom';
export const BOX_SIDES: readonly BoxSide[] = ['front', 'back', 'left', 'right', 'top', 'bottom'];
export type BoxFace =
  { readonly kind: 'picture'; readonly assetId: AssetId } | { readonly kind: 'colour'; readonly colour: string };

/** Layers that move as one. Its box is the frame they are laid out in. */
export interface GroupLayer extends LayerParts {
  readonly kind: 'group';
  /** Bottom to top; in a space, nearer layers cover farther ones instead. */
  readonly layers: readonly Layer[];
  readonly space?: Space;
}

/** One space shared by a group's layers. The camera looks at the frame's centre from `distance` heights of the frame. */
export interface Space {
  readonly distance?: Channel;
  /** The camera's own shift, in widths, heights and heights of the frame. */
  readonly x?: Channel;
  readonly y?: Channel;
  readonly z?: Channel;
  /** The camera's own turn about its line of sight (what it sees turns the other way), and where it looks from there: up, and to the right. */
  readonly turnDegrees?: Channel;
  readonly tiltXDegrees?: Channel;
  readonly tiltYDegrees?: Channel;
}

export type Move =
  /** Worked out from the picture; `deal` gives another one of those that suit it. */
  { readonly kind: 'automatic'; readonly deal?: number } | { readonly kind: 'still' } | SetMove;

/** How a picture or a clip moves in its box; a clip that says nothing stands still. */
export function moveOf(layer: PictureLayer | ClipLayer): Move {
  return layer.move ?? { kind: 'still' };
}

/** The layer with another move. A clip has no move that is found for it: it stands still. */
export function withMove<Moved extends PictureLayer | ClipLayer>(layer: Moved, move: Move): Moved {
  if (layer.kind === 'picture') return { ...layer, move };
  const { move: _before, ...rest } = layer;
  return (move.kind === 'set' ? { ...rest, move } : rest) as Moved;
}

export interface SetMove extends MovePace {
  readonly kind: 'set';
  readonly first: Framing;
  readonly last: Framing;
}

/** How a move goes from its first framing to its last. */
export interface MovePace {
  /** `settle` when it is not said: as a camera on a stand is moved. */
  readonly easing?: MoveEasing;
  /** So long it rests on the first framing, and on the last. */
  readonly beforeMs?: number;
  readonly afterMs?: number;
  /** A framing on the way, and where on it: 0…1 of the time between the rests. */
  readonly middle?: { readonly framing: Framing; readonly at: number };
}

export type MoveEasing = 'linear' | 'settle' | 'set-off' | 'arrive';
export const MOVE_EASINGS: readonly MoveEasing[] = ['settle', 'set-off', 'arrive', 'linear'];

/** Whether a layer has tones that light can change. */
export function isLit(layer: Layer): layer is PictureLayer | ClipLayer | DrawingLayer {
  return layer.kind === 'picture' || layer.kind === 'clip' || layer.kind === 'drawing';
}

/** Every layer of a pile, those in groups too, each before what it holds. */
export function* everyLayer(layers: readonly Layer[]): Generator<Layer> {
  for (const layer of layers) {
    yield layer;
    if (layer.kind === 'group') yield* everyLayer(layer.layers);
  }
}

/** The layers that can be seen: neither hidden nor in a hidden group. */
export function* seenLayers(layers: readonly Layer[]): Generator<Layer> {
  for (const layer of layers) {
    if (layer.hidden) continue;
    yield layer;
    if (layer.kind === 'group') yield* seenLayers(layer.layers);
  }
}

/** The files a layer itself shows. */
export function assetIdsOfLayer(layer: Layer): AssetId[] {
  if (layer.kind === 'picture') return layer.back ? [layer.assetId, layer.back.assetId] : [layer.assetId];
  if (layer.kind === 'clip' || layer.kind === 'drawing') return [layer.assetId];
  if (layer.kind === 'box')
    return Object.values(layer.faces).flatMap((face) => (face.kind === 'picture' ? [face.assetId] : []));
  return [];
}
