import * as yup from 'yup';
import { isHash } from './hash';
import { LONGEST_SLIDE_MS, SHORTEST_SLIDE_MS, type Backing, type Cue, type Layer, type Move, type Narration, type Show, type Slide, type Transition } from '../../core/show/show';

/** Most slides a show may have; far above a wedding's three thousand, far below what would stop the server. */
export const MOST_SLIDES = 10_000;
const MOST_LAYERS = 200;
const MOST_CUES = 200;
const PLACES = ['top-left', 'top', 'top-right', 'left', 'centre', 'right', 'bottom-left', 'bottom', 'bottom-right'] as const;

export const idSchema = () => yup.string().matches(/^[\w-]{1,40}$/, '${path} must be an id').required();
export const hashSchema = () => yup.string().test('hash', '${path} must be a SHA-256 in hexadecimal', (value) => isHash(value)).required();
const milliseconds = (least: number, most: number) => yup.number().integer().min(least).max(most).required();
const decibels = () => yup.number().min(-100).max(24).required();
const closed = <Shape extends yup.ObjectShape>(shape: Shape) => yup.object(shape).noUnknown('${path} has an unknown part: ${unknown}').required();

/** A schema chosen by the value's `kind`. */
function byKind(schemas: Record<string, yup.Schema>): yup.Lazy<unknown> {
  return yup.lazy((value: unknown) => {
    const kind = (value as { kind?: unknown } | null | undefined)?.kind;
    return typeof kind === 'string' && Object.hasOwn(schemas, kind)
      ? schemas[kind]!
      : yup.mixed().test('kind', `\${path} must have one of the kinds ${Object.keys(schemas).join(', ')}`, () => false);
  });
}

const kind = (name: string) => yup.string().oneOf([name]).required();

const framingSchema = () => closed({
  x: yup.number().min(-100).max(100).required(),
  y: yup.number().min(-100).max(100).required(),
  width: yup.number().min(0.001).max(100).required(),
  height: yup.number().min(0.001).max(100).required(),
  turnDegrees: yup.number().min(-3600).max(3600).required(),
});

export const moveSchema = (): yup.Schema<Move> => byKind({
  automatic: closed({ kind: kind('automatic') }),
  still: closed({ kind: kind('still') }),
  set: closed({ kind: kind('set'), first: framingSchema(), last: framingSchema() }),
}) as unknown as yup.Schema<Move>;

export const transitionSchema = (): yup.Schema<Transition> => byKind({
  cut: closed({ kind: kind('cut') }),
  dissolve: closed({ kind: kind('dissolve'), lengthMs: milliseconds(0, 60_000) }),
}) as unknown as yup.Schema<Transition>;

export const backingSchema = (): yup.Schema<Backing> => byKind({
  automatic: closed({ kind: kind('automatic') }),
  colour: closed({ kind: kind('colour'), colour: yup.string().matches(/^#[0-9a-f]{6}$/i, '${path} must read #rrggbb').required() }),
}) as unknown as yup.Schema<Backing>;

export const wordsShape = {
  title: yup.string().defined().max(2000),
  subtitle: yup.string().defined().max(2000),
  place: yup.string().oneOf(PLACES).required(),
};

const layerSchema = (): yup.Schema<Layer> => byKind({
  picture: closed({ kind: kind('picture'), id: idSchema(), assetId: hashSchema(), move: moveSchema() }),
  clip: closed({ kind: kind('clip'), id: idSchema(), assetId: hashSchema(), trimStartMs: milliseconds(0, LONGEST_SLIDE_MS), soundGainDb: decibels() }),
  words: closed({ kind: kind('words'), id: idSchema(), ...wordsShape }),
}) as unknown as yup.Schema<Layer>;

export const narrationSchema = (): yup.Schema<Narration | null> => closed({ assetId: hashSchema(), offsetMs: milliseconds(0, LONGEST_SLIDE_MS), gainDb: decibels() })
  .nullable().defined() as unknown as yup.Schema<Narration | null>;

export const slideSchema = (): yup.Schema<Slide> => closed({
  id: idSchema(),
  lengthMs: milliseconds(SHORTEST_SLIDE_MS, LONGEST_SLIDE_MS),
  transition: transitionSchema(),
  backing: backingSchema(),
  layers: yup.array(layerSchema()).max(MOST_LAYERS).defined(),
  narration: narrationSchema(),
}) as unknown as yup.Schema<Slide>;

export const cuesSchema = (): yup.Schema<Cue[]> => yup.array(closed({
  id: idSchema(),
  assetId: hashSchema(),
  trimStartMs: milliseconds(0, LONGEST_SLIDE_MS),
  gainDb: decibels(),
  fadeInMs: milliseconds(0, 600_000),
  fadeOutMs: milliseconds(0, 600_000),
})).max(MOST_CUES).defined() as unknown as yup.Schema<Cue[]>;

export const titleSchema = () => yup.string().defined().max(300);
export const slideLengthSchema = () => milliseconds(SHORTEST_SLIDE_MS, LONGEST_SLIDE_MS);

const showShape = () => ({
  format: yup.string().oneOf(['tanager-show']).required(),
  version: yup.number().oneOf([1]).required(),
  id: idSchema(),
  title: titleSchema(),
  frame: closed({
    widthPx: yup.number().integer().min(16).max(7680).required(),
    heightPx: yup.number().integer().min(16).max(7680).required(),
    framesPerSecond: yup.number().min(1).max(120).required(),
  }),
  defaultLengthMs: slideLengthSchema(),
  slides: yup.array(slideSchema()).max(MOST_SLIDES).defined(),
  cues: cuesSchema(),
});

export const showSchema = (): yup.Schema<Show> => withUniqueIds(closed(showShape())) as unknown as yup.Schema<Show>;

/** A show saved as a file: the document and where its files lie, relative to it. */
export interface ShowFile extends Show {
  readonly files: Readonly<Record<string, string>>;
}

export const showFileSchema = (): yup.Schema<ShowFile> => withUniqueIds(closed({
  ...showShape(),
  files: yup.object().test('files', '${path} must map hashes to file names', (value: unknown) =>
    typeof value === 'object' && value !== null && Object.entries(value).every(([hash, file]) => isHash(hash) && typeof file === 'string' && file.length > 0 && file.length < 4096)).required(),
})) as unknown as yup.Schema<ShowFile>;

function withUniqueIds<Schema extends yup.AnyObjectSchema>(schema: Schema): Schema {
  return schema.test('unique', 'two slides have the same id', (value) => {
    const slides = (value as { slides?: { id?: unknown }[] } | null)?.slides;
    return !Array.isArray(slides) || new Set(slides.map((slide) => slide?.id)).size === slides.length;
  }) as Schema;
}
