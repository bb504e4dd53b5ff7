import * as yup from 'yup';
import { EASING_NAMES } from '../../core/keys/easing';
import type { Edge, Layer, Move } from '../../core/show/layer';
import { PRINT_EFFECTS, type Light } from '../../core/show/light';
import { LONGEST_SLIDE_MS, type Backing } from '../../core/show/show';
import {
  EIGHT_WAYS,
  FAMILIES,
  FOUR_WAYS,
  IRIS_SHAPES,
  PATTERN_NAMES,
  type Transition,
} from '../../core/show/transition';
import { FONT_NAMES, WORDS_PLACES, WORDS_UNITS, WORDS_WAYS } from '../../core/show/words';
import { MOST_LAYERS } from './layer-faults';
import {
  absent,
  byKind,
  closed,
  colour,
  decibels,
  hashSchema,
  idSchema,
  kind,
  milliseconds,
  number,
  once,
  oneOf,
  optional,
} from './parts';

const MOST_KEYS = 1000;

const framingSchema = once(() =>
  closed({
    x: number(-100, 100).required(),
    y: number(-100, 100).required(),
    width: number(0.001, 100).required(),
    height: number(0.001, 100).required(),
    turnDegrees: number(-3600, 3600).required(),
  }),
);

/** Lies on the picture; it may be longer than the picture is wide when it is turned by a quarter. */
export const cropSchema = () =>
  yup
    .object({
      x: number(0, 1).required(),
      y: number(0, 1).required(),
      width: number(0.0001, 1000).required(),
      height: number(0.0001, 1000).required(),
      turnDegrees: number(-360, 360).required(),
    })
    .noUnknown('${path} has an unknown part: ${unknown}');

export const moveSchema = once(
  (): yup.Schema<Move> =>
    byKind({
      automatic: closed({ kind: kind('automatic') }),
      still: closed({ kind: kind('still') }),
      set: closed({ kind: kind('set'), first: framingSchema(), last: framingSchema() }),
    }) as unknown as yup.Schema<Move>,
);

const curveSchema = once(() =>
  optional({
    bezier: yup
      .array(number(-10, 10).required())
      .length(4)
      .required()
      .test(
        'curve',
        'the x of a curve’s points must lie within 0…1',
        (points) => !points || [points[0], points[2]].every((x) => x! >= 0 && x! <= 1),
      ),
  }),
);
const namedEasingSchema = once(() => oneOf(EASING_NAMES).optional());
const easingSchema = once(() =>
  yup.lazy((value: unknown) => (typeof value === 'object' ? curveSchema() : namedEasingSchema())),
);

const stretchSchema = once(() => closed({ tied: kind('stretch'), share: number(0, 1).required() }));
const tiedSchema = once(() =>
  closed({ tied: oneOf(['start', 'end', 'stretch']).required(), ms: milliseconds(0, LONGEST_SLIDE_MS) }),
);
const keyTimeSchema = once(() =>
  yup.lazy((value: unknown) =>
    (value as { tied?: unknown } | null)?.tied === 'stretch' ? stretchSchema() : tiedSchema(),
  ),
);

/** A number, or keys with values within the same bounds. */
const channels = new Map<string, yup.Lazy<unknown>>();
const channel = (least: number, most: number): yup.Lazy<unknown> => {
  const known = channels.get(`${least} ${most}`);
  if (known) return known;
  const constant = number(least, most).required();
  const keyed = once(() =>
    closed({
      keys: yup
        .array(closed({ at: keyTimeSchema(), value: number(least, most).required(), easing: easingSchema() }))
        .min(1)
        .max(MOST_KEYS)
        .required(),
    }),
  );
  const made = yup.lazy((value: unknown) =>
    value === undefined ? absent() : typeof value === 'object' ? keyed() : constant,
  ) as yup.Lazy<unknown>;
  channels.set(`${least} ${most}`, made);
  return made;
};
const share = () => channel(0, 1);
const amount = () => channel(-1, 1);

const channelsSchema = once(() =>
  optional({
    x: channel(-100, 100),
    y: channel(-100, 100),
    width: channel(0, 100),
    height: channel(0, 100),
    turnDegrees: channel(-36_000, 36_000),
    tiltXDegrees: channel(-36_000, 36_000),
    tiltYDegrees: channel(-36_000, 36_000),
    z: channel(-100, 100),
    opacity: share(),
    blur: channel(0, 0.1),
    cropLeft: share(),
    cropTop: share(),
    cropRight: share(),
    cropBottom: share(),
  }),
);

const pointsSchema = once(() =>
  optional({
    black: number(0, 1).required(),
    white: number(0, 1)
      .required()
      .test('levels', 'white must lie above black', function check(white) {
        return (white ?? 1) > (this.parent as { black: number }).black;
      }),
  }),
);
const automaticSchema = once(() => oneOf(['automatic']).optional());

export const lightSchema = once(
  () =>
    yup
      .object({
        exposure: channel(-4, 4),
        contrast: amount(),
        highlights: amount(),
        shadows: amount(),
        temperature: amount(),
        tint: amount(),
        saturation: amount(),
        vibrance: amount(),
        levels: yup.lazy((value: unknown) => (typeof value === 'object' ? pointsSchema() : automaticSchema())),
        blackAndWhite: share(),
        sepia: share(),
        paling: share(),
        tone: optional({ colour: colour().required(), amount: share() }),
        vignette: share(),
        sharpen: number(0, 1),
        print: optional({ kind: oneOf(PRINT_EFFECTS).required(), strength: number(0, 1).required() }),
        redEyes: yup
          .array(
            closed({ x: number(0, 1).required(), y: number(0, 1).required(), radius: number(0.0005, 0.5).required() }),
          )
          .max(100),
      })
      .noUnknown('${path} has an unknown part: ${unknown}')
      .default(undefined) as unknown as yup.ObjectSchema<Light>,
);

/** SVG path data; anything else in it is refused. */
const path = () =>
  yup
    .string()
    .matches(/^[MmLlHhVvCcSsQqTtAaZz0-9eE\s,.+-]*$/, '${path} must be SVG path data')
    .min(1)
    .max(20_000)
    .required();

const edgeShapeSchema = once(() =>
  byKind({
    rounded: closed({ kind: kind('rounded'), radius: number(0, 0.5).required() }),
    ellipse: closed({ kind: kind('ellipse') }),
    free: closed({ kind: kind('free'), path: path() }),
  }),
);

export const edgeSchema = once(
  () =>
    yup
      .object({
        shape: yup.lazy((value: unknown) => (value === undefined ? absent() : edgeShapeSchema())),
        feather: channel(0, 0.5),
        outline: optional({
          width: channel(0, 0.5),
          colour: colour().required(),
          where: oneOf(['inside', 'centre', 'outside']).required(),
        }),
        shadow: optional({
          x: channel(-1, 1),
          y: channel(-1, 1),
          softness: channel(0, 0.1),
          colour: colour().required(),
          opacity: share(),
        }),
      })
      .noUnknown('${path} has an unknown part: ${unknown}')
      .default(undefined) as unknown as yup.ObjectSchema<Edge>,
);

const maskSchema = once(() =>
  optional({
    by: oneOf(['brightness', 'transparency']).required(),
    inverted: yup.boolean(),
    feather: channel(0, 0.1),
    cuts: yup.lazy((value: unknown) =>
      typeof value === 'string'
        ? oneOf(['below']).required()
        : yup.array(idSchema()).min(1).max(MOST_LAYERS).required(),
    ),
  }),
);

const tetherSchema = once(() =>
  optional({
    to: idSchema(),
    position: yup.boolean(),
    size: yup.boolean(),
    turn: yup.boolean(),
    opacity: yup.boolean(),
  }),
);

const parts = () => ({
  id: idSchema(),
  name: yup.string().max(200),
  hidden: yup.boolean(),
  locked: yup.boolean(),
  channels: channelsSchema(),
  edge: edgeSchema().optional(),
  mask: maskSchema(),
  tether: tetherSchema(),
  blend: oneOf(['normal', 'multiply', 'screen', 'overlay', 'soft-light', 'lighten', 'darken', 'add']),
});
const lit = () => ({ ...parts(), light: lightSchema().optional() });

export const gradientShape = () => ({
  angleDegrees: number(-36_000, 36_000),
  stops: yup
    .array(closed({ at: number(0, 1).required(), colour: colour().required(), opacity: number(0, 1) }))
    .min(2)
    .max(64)
    .required()
    .test(
      'rising',
      '${path} must be in rising order',
      (stops) => !stops || stops.every((stop, index) => index === 0 || stop.at > stops[index - 1]!.at),
    ),
});
const GRADIENTS = ['linear', 'radial', 'conic'] as const;
const gradientSchema = once(() => closed({ kind: oneOf(GRADIENTS).required(), ...gradientShape() }));
const fillSchema = once(() =>
  byKind({
    colour: closed({ kind: kind('colour'), colour: colour().required() }),
    linear: gradientSchema(),
    radial: gradientSchema(),
    conic: gradientSchema(),
  }),
);

const shapeSchema = once(() =>
  byKind({
    rectangle: closed({ kind: kind('rectangle'), radius: number(0, 0.5) }),
    ellipse: closed({ kind: kind('ellipse') }),
    polygon: closed({ kind: kind('polygon'), sides: number(3, 60).integer().required() }),
    star: closed({ kind: kind('star'), points: number(3, 60).integer().required(), depth: number(0, 1).required() }),
    free: closed({ kind: kind('free'), path: path() }),
  }),
);

const spacing = () => number(-0.2, 2);
const passageSchema = once(() =>
  closed({
    way: oneOf(WORDS_WAYS).required(),
    by: oneOf(WORDS_UNITS).required(),
    atMs: milliseconds(0, LONGEST_SLIDE_MS),
    lengthMs: milliseconds(0, LONGEST_SLIDE_MS),
  }),
);

const wordsShadowSchema = once(() =>
  optional({
    colour: colour().required(),
    opacity: number(0, 1).required(),
    softness: number(0, 1).required(),
    x: number(-1, 1).required(),
    y: number(-1, 1).required(),
  }),
);
const noneSchema = once(() => oneOf(['none']).optional());

/** The words of a layer; also what an edit of them carries. */
export const wordsShape = () => ({
  title: yup.string().defined().max(2000),
  subtitle: yup.string().defined().max(10_000),
  place: oneOf(WORDS_PLACES).required(),
  style: optional({
    font: oneOf(FONT_NAMES),
    subtitleFont: oneOf(FONT_NAMES),
    weight: number(100, 900),
    size: number(0.01, 0.5),
    colour: colour(),
    accent: colour(),
    align: oneOf(['left', 'centre', 'right']),
    letterSpacing: spacing(),
    lineSpacing: number(0.5, 4),
    measure: number(0.1, 1),
    box: optional({
      colour: colour().required(),
      opacity: number(0, 1).required(),
      padding: number(0, 5).required(),
      radius: number(0, 5).required(),
    }),
    outline: optional({ colour: colour().required(), width: number(0, 0.5).required() }),
    shadow: yup.lazy((value: unknown) => (typeof value === 'object' ? wordsShadowSchema() : noneSchema())),
  }),
  come: optional({ entrance: passageSchema(), exit: passageSchema().nullable().defined() }),
  travel: optional({
    kind: oneOf(['roll', 'crawl']).required(),
    fromMs: milliseconds(0, LONGEST_SLIDE_MS),
    lengthMs: yup.number().integer().min(100).max(LONGEST_SLIDE_MS).nullable().defined(),
  }),
});

const flipSchema = () => optional({ across: yup.boolean(), down: yup.boolean() });

const face = once(() =>
  byKind({
    picture: closed({ kind: kind('picture'), assetId: hashSchema() }),
    colour: closed({ kind: kind('colour'), colour: colour().required() }),
  }),
);

const groupSchema = once(() =>
  closed({
    kind: kind('group'),
    ...parts(),
    layers: layersSchema(),
    space: optional({
      distance: channel(0.1, 100),
      x: channel(-100, 100),
      y: channel(-100, 100),
      z: channel(-100, 100),
    }),
  }),
);

const layerSchema = once(
  (): yup.Schema<Layer> =>
    byKind({
      picture: closed({
        kind: kind('picture'),
        ...lit(),
        assetId: hashSchema(),
        move: moveSchema(),
        crop: cropSchema().optional().default(undefined),
        flip: flipSchema(),
        back: optional({ assetId: hashSchema() }),
      }),
      clip: closed({
        kind: kind('clip'),
        ...lit(),
        assetId: hashSchema(),
        trimStartMs: milliseconds(0, LONGEST_SLIDE_MS),
        soundGainDb: decibels(),
        flip: flipSchema(),
        speed: number(0.05, 20),
      }),
      drawing: closed({ kind: kind('drawing'), ...lit(), assetId: hashSchema() }),
      words: closed({ kind: kind('words'), ...parts(), ...wordsShape() }),
      shape: closed({ kind: kind('shape'), ...parts(), shape: shapeSchema(), fill: fillSchema() }),
      gradient: closed({ kind: kind('gradient'), ...parts(), gradient: gradientSchema() }),
      solid: closed({ kind: kind('solid'), ...parts(), colour: colour().required() }),
      box: closed({
        kind: kind('box'),
        ...parts(),
        depth: channel(0, 100),
        faces: closed({ front: face(), back: face(), left: face(), right: face(), top: face(), bottom: face() }),
      }),
      group: yup.lazy(() => groupSchema()) as unknown as yup.Schema,
    }) as unknown as yup.Schema<Layer>,
);

export const layersSchema = (): yup.ArraySchema<Layer[] | undefined, yup.AnyObject> => LAYERS() as never;
const LAYERS = once(() =>
  yup
    .array(yup.lazy(() => layerSchema() as never))
    .max(MOST_LAYERS)
    .defined(),
);

const softness = () => number(0, 1);
const timed = () => ({ lengthMs: milliseconds(0, 60_000), easing: easingSchema() });
const four = (name: string) => closed({ kind: kind(name), ...timed(), direction: oneOf(FOUR_WAYS) });
const inOut = (name: string) => closed({ kind: kind(name), ...timed(), direction: oneOf(['in', 'out']) });

export const transitionSchema = once(
  (): yup.Schema<Transition> =>
    byKind({
      cut: closed({ kind: kind('cut') }),
      dissolve: closed({ kind: kind('dissolve'), ...timed() }),
      dip: closed({ kind: kind('dip'), ...timed(), colour: colour() }),
      burn: closed({ kind: kind('burn'), ...timed(), colour: colour() }),
      wipe: closed({ kind: kind('wipe'), ...timed(), direction: oneOf(EIGHT_WAYS), softness: softness() }),
      clock: closed({
        kind: kind('clock'),
        ...timed(),
        direction: oneOf(['clockwise', 'anticlockwise']),
        softness: softness(),
      }),
      iris: closed({
        kind: kind('iris'),
        ...timed(),
        shape: oneOf(IRIS_SHAPES),
        direction: oneOf(['open', 'close']),
        softness: softness(),
      }),
      blinds: closed({
        kind: kind('blinds'),
        ...timed(),
        direction: oneOf(FOUR_WAYS),
        count: number(1, 100).integer(),
        softness: softness(),
      }),
      checks: closed({
        kind: kind('checks'),
        ...timed(),
        count: number(1, 100).integer(),
        seed: number(0, 1e9).integer(),
        softness: softness(),
      }),
      pattern: closed({
        kind: kind('pattern'),
        ...timed(),
        inverted: yup.boolean(),
        softness: softness(),
        pattern: yup.lazy((value: unknown) =>
          typeof value === 'object' ? closed({ assetId: hashSchema() }) : oneOf(PATTERN_NAMES).required(),
        ),
      }),
      push: four('push'),
      'slide-over': four('slide-over'),
      'slide-off': four('slide-off'),
      'slide-apart': closed({ kind: kind('slide-apart'), ...timed(), direction: oneOf(['across', 'down']) }),
      'zoom-through': inOut('zoom-through'),
      'zoom-blur': inOut('zoom-blur'),
      'page-turn': four('page-turn'),
      'card-turn': four('card-turn'),
      'cube-turn': four('cube-turn'),
      'blur-through': closed({ kind: kind('blur-through'), ...timed() }),
      mosaic: closed({ kind: kind('mosaic'), ...timed(), count: number(2, 200).integer() }),
      shuffle: closed({
        kind: kind('shuffle'),
        ...timed(),
        family: oneOf(['all', ...Object.keys(FAMILIES)]).required(),
        seed: number(0, 1e9).integer().required(),
      }),
    }) as unknown as yup.Schema<Transition>,
);

export const backingSchema = once(
  (): yup.Schema<Backing> =>
    byKind({
      automatic: closed({ kind: kind('automatic') }),
      colour: closed({ kind: kind('colour'), colour: colour().required() }),
      gradient: closed({ kind: kind('gradient'), gradient: gradientSchema() }),
      picture: closed({ kind: kind('picture'), assetId: hashSchema() }),
      blurred: closed({ kind: kind('blurred'), amount: number(0, 0.1).required(), darkness: number(0, 1).required() }),
    }) as unknown as yup.Schema<Backing>,
);
