import {
  checked,
  COLOUR,
  DECIBELS,
  either,
  HASH,
  ID,
  kinds,
  later,
  list,
  maybe,
  number,
  object,
  oneOf,
  orNull,
  record,
  SVG_PATH,
  text,
  truth,
  whole,
  type PartsOf,
  type Schema,
  type TextSchema,
} from '../../schema/schema';
import type { Framing } from '../../motion/framing';
import {
  BLEND_MODES,
  BOX_SIDES,
  type BoxFace,
  type ClipFreeze,
  MOVE_EASINGS,
  type MovePace,
  type BareLayer,
  type Channels,
  type Fill,
  type Flip,
  type Gradient,
  type Layer,
  type LayerParts,
  type LitParts,
  type Mask,
  type Move,
  type SetMove,
  type Shape,
  type Space,
  type Tether,
} from '../layer';
import { LAYER_CHOSEN } from '../chosen';
import { LONGEST_NAME, LONGEST_SLIDE_MS, MOST_LAYERS, MOST_SHAPES } from '../limits';
import { SHAPE_LIKE, type ShapeCorrection } from '../shape';
import { WORDS_PLACES } from '../words';
import { channel, COLOUR_CHANNEL } from './channel-schema';
import { EDGE } from './edge-schema';
import { LIGHT } from './light-schema';
import { WORDS_COME, WORDS_PARTS, WORDS_STYLE } from './words-schema';

export const FRAMING: Schema = object<Framing>({
  x: number(-100, 100),
  y: number(-100, 100),
  width: number(0.001, 100),
  height: number(0.001, 100),
  turnDegrees: number(-3600, 3600),
});

/** Lies on the picture; it may be longer than the picture is wide when it is turned by a quarter. */
export const CROP: Schema = object<Framing>({
  x: number(0, 1),
  y: number(0, 1),
  width: number(0.0001, 1000),
  height: number(0.0001, 1000),
  turnDegrees: number(-360, 360),
});

/** Of a move; longer rests are for slides to have. */
export const LONGEST_REST_MS = 600_000;
const REST: Schema = whole(0, LONGEST_REST_MS);
/** Deals there are to choose from. */
export const MOST_DEALS = 1_000_000;

const SET_MOVE = {
  first: FRAMING,
  last: FRAMING,
  easing: maybe(oneOf(MOVE_EASINGS)),
  beforeMs: maybe(REST),
  afterMs: maybe(REST),
  middle: maybe(object<NonNullable<MovePace['middle']>>({ framing: FRAMING, at: number(0.05, 0.95) })),
};

export const MOVE: Schema = kinds<Move>({
  automatic: { deal: maybe(whole(0, MOST_DEALS)) },
  still: {},
  set: SET_MOVE,
});

/** Least and most of every channel a layer may have. */
export const CHANNEL_BOUNDS: { readonly [Name in keyof Required<Channels>]: readonly [least: number, most: number] } = {
  x: [-100, 100],
  y: [-100, 100],
  width: [0, 100],
  height: [0, 100],
  turnDegrees: [-36_000, 36_000],
  tiltXDegrees: [-36_000, 36_000],
  tiltYDegrees: [-36_000, 36_000],
  z: [-100, 100],
  opacity: [0, 1],
  blur: [0, 0.1],
  cropLeft: [0, 1],
  cropTop: [0, 1],
  cropRight: [0, 1],
  cropBottom: [0, 1],
};

export const CHANNELS = Object.fromEntries(
  Object.entries(CHANNEL_BOUNDS).map(([name, [least, most]]) => [name, maybe(channel(least, most))]),
) as unknown as PartsOf<Channels>;

export const MASK: Schema = object<Mask>({
  by: oneOf(['brightness', 'transparency']),
  inverted: maybe(truth),
  feather: maybe(channel(0, 0.1)),
  // A mask whose layers have all been removed cuts nothing, and is still not seen itself.
  cuts: either({ when: 'string', then: oneOf(['below']) }, { when: 'object', then: list(ID, MOST_LAYERS) }),
});

export const TETHER: Schema = object<Tether>({
  to: ID,
  position: maybe(truth),
  size: maybe(truth),
  along: maybe(oneOf(['x', 'y'])),
  turn: maybe(truth),
  tilt: maybe(truth),
  opacity: maybe(truth),
});

/** What can be said of any layer by itself, apart from what it shows and where it stands. */
export const LAYER_PROPERTIES: PartsOf<Omit<LayerParts, 'id' | 'channels' | 'edge' | 'shapes' | 'chosen' | 'bare'>> = {
  name: maybe(text(LONGEST_NAME)),
  hidden: maybe(truth),
  locked: maybe(truth),
  blend: maybe(oneOf(BLEND_MODES)),
  mask: maybe(MASK),
  tether: maybe(TETHER),
};

export const SHAPE_NAME: TextSchema = {
  is: 'text',
  least: 3,
  most: 11,
  like: { pattern: SHAPE_LIKE, says: 'must be a shape such as 16:9', samples: ['16:9', '1:1'] },
};
export const SHAPE_CORRECTION: Schema = object<ShapeCorrection>({
  crop: maybe(CROP),
  move: maybe(MOVE),
  place: maybe(oneOf(WORDS_PLACES)),
  hidden: maybe(truth),
});

const PARTS: PartsOf<LayerParts> = {
  id: ID,
  ...LAYER_PROPERTIES,
  channels: maybe(object<Channels>(CHANNELS)),
  edge: maybe(EDGE),
  shapes: maybe(record(SHAPE_NAME, SHAPE_CORRECTION, MOST_SHAPES, 1)),
  chosen: maybe(LAYER_CHOSEN),
  bare: maybe(
    object<BareLayer>({ move: maybe(MOVE), style: maybe(orNull(WORDS_STYLE)), come: maybe(orNull(WORDS_COME)) }),
  ),
};
const LIT: PartsOf<LitParts> = { ...PARTS, light: maybe(LIGHT) };

const gradientParts = (colour: Schema): PartsOf<Omit<Gradient, 'kind'>> => ({
  angleDegrees: maybe(number(-36_000, 36_000)),
  stops: checked<Gradient['stops']>(
    list(object<Gradient['stops'][number]>({ at: number(0, 1), colour, opacity: maybe(number(0, 1)) }), 64, 2),
    (stops) =>
      stops.every((stop, index) => index === 0 || stop.at > stops[index - 1]!.at)
        ? null
        : 'stops must be in rising order',
  ),
});
const gradients = (parts: ReturnType<typeof gradientParts>) => ({ linear: parts, radial: parts, conic: parts });
/** Behind a slide colours stay as they are. */
export const STILL_GRADIENT: Schema = { is: 'kinds', by: 'kind', kinds: gradients(gradientParts(COLOUR)) };
const GRADIENTS = gradients(gradientParts(COLOUR_CHANNEL));
const GRADIENT: Schema = { is: 'kinds', by: 'kind', kinds: GRADIENTS };
const FILL: Schema = kinds<Fill>({ colour: { colour: COLOUR_CHANNEL }, ...GRADIENTS });

const SHAPE: Schema = kinds<Shape>({
  rectangle: { radius: maybe(number(0, 0.5)) },
  ellipse: {},
  polygon: { sides: whole(3, 60) },
  star: { points: whole(3, 60), depth: number(0, 1) },
  free: { path: SVG_PATH },
});

/** Of a clip's own sound. */
export const LONGEST_CLIP_FADE_MS = 60_000;
export const MOST_FREEZES = 20;
export const SHORTEST_FREEZE_MS = 100;
export const LONGEST_FREEZE_MS = 60_000;
const FREEZES = checked<readonly ClipFreeze[]>(
  list(
    object<ClipFreeze>({ atMs: whole(0, LONGEST_SLIDE_MS), lengthMs: whole(SHORTEST_FREEZE_MS, LONGEST_FREEZE_MS) }),
    MOST_FREEZES,
  ),
  (freezes) =>
    freezes.every(({ atMs }, index) => index === 0 || atMs > freezes[index - 1]!.atMs)
      ? null
      : 'frames that stand must come in the order of the clip',
);

const FLIP = maybe(object<Flip>({ across: maybe(truth), down: maybe(truth) }));
const FACE = kinds<BoxFace>({ picture: { assetId: HASH }, colour: { colour: COLOUR } });
const FACES = object<Record<string, BoxFace>>(Object.fromEntries(BOX_SIDES.map((side) => [side, FACE])));

export const LAYER: Schema = kinds<Layer>({
  picture: {
    ...LIT,
    assetId: HASH,
    move: MOVE,
    crop: maybe(CROP),
    flip: FLIP,
    back: maybe(object<{ assetId: unknown }>({ assetId: HASH })),
  },
  clip: {
    ...LIT,
    assetId: HASH,
    trimStartMs: whole(0, LONGEST_SLIDE_MS),
    trimEndMs: maybe(whole(0, LONGEST_SLIDE_MS)),
    soundGainDb: DECIBELS,
    fadeInMs: maybe(whole(0, LONGEST_CLIP_FADE_MS)),
    fadeOutMs: maybe(whole(0, LONGEST_CLIP_FADE_MS)),
    flip: FLIP,
    speed: maybe(number(0.05, 20)),
    backwards: maybe(truth),
    after: maybe(oneOf(['again'])),
    freezes: maybe(FREEZES),
    move: maybe(object<SetMove>({ kind: oneOf(['set']), ...SET_MOVE })),
    crop: maybe(CROP),
  },
  drawing: { ...LIT, assetId: HASH },
  words: { ...PARTS, ...WORDS_PARTS },
  shape: { ...PARTS, shape: SHAPE, fill: FILL },
  gradient: { ...PARTS, gradient: GRADIENT },
  solid: { ...PARTS, colour: COLOUR_CHANNEL },
  box: { ...PARTS, depth: maybe(channel(0, 100)), faces: FACES },
  group: {
    ...PARTS,
    layers: later(() => LAYERS),
    space: maybe(
      object<Space>({
        distance: maybe(channel(0.1, 100)),
        x: maybe(channel(-100, 100)),
        y: maybe(channel(-100, 100)),
        z: maybe(channel(-100, 100)),
        turnDegrees: maybe(channel(-36_000, 36_000)),
        tiltXDegrees: maybe(channel(-36_000, 36_000)),
        tiltYDegrees: maybe(channel(-36_000, 36_000)),
      }),
    ),
  },
});

/** Bottom to top. */
export const LAYERS: Schema = list(LAYER, MOST_LAYERS);
