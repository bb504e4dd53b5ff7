import * as yup from 'yup';
import { isHash } from './hash';
import { faultOfLayers } from './layer-faults';
import { backingSchema, layersSchema, transitionSchema } from './layer-schema';
import { closed, decibels, hashSchema, idSchema, milliseconds, once } from './parts';
import { MARKS, type Mark } from '../../core/show/mark';
import {
  LONGEST_SLIDE_MS,
  SHORTEST_SLIDE_MS,
  type Cue,
  type Narration,
  type Show,
  type ShowContent,
  type Slide,
} from '../../core/show/show';

/** Most slides a show may have; far above a wedding's three thousand, far below what would stop the server. */
export const MOST_SLIDES = 10_000;
const MOST_CUES = 200;
export const narrationSchema = once(
  (): yup.Schema<Narration | null> =>
    closed({ assetId: hashSchema(), offsetMs: milliseconds(0, LONGEST_SLIDE_MS), gainDb: decibels() })
      .nullable()
      .defined() as unknown as yup.Schema<Narration | null>,
);

export const slideSchema = once(
  (): yup.Schema<Slide> =>
    closed({
      id: idSchema(),
      lengthMs: milliseconds(SHORTEST_SLIDE_MS, LONGEST_SLIDE_MS),
      transition: transitionSchema(),
      backing: backingSchema(),
      layers: layersSchema(),
      narration: narrationSchema(),
    }).test('layers', '${path}: ${fault}', function check(value) {
      const fault = faultOfLayers((value as { layers?: unknown }).layers);
      return fault === null || this.createError({ message: `${this.path || 'the slide'}: ${fault}` });
    }) as unknown as yup.Schema<Slide>,
);

export const cuesSchema = once(
  (): yup.Schema<Cue[]> =>
    yup
      .array(
        closed({
          id: idSchema(),
          assetId: hashSchema(),
          trimStartMs: milliseconds(0, LONGEST_SLIDE_MS),
          gainDb: decibels(),
          fadeInMs: milliseconds(0, 600_000),
          fadeOutMs: milliseconds(0, 600_000),
        }),
      )
      .max(MOST_CUES)
      .defined() as unknown as yup.Schema<Cue[]>,
);

export const titleSchema = () => yup.string().defined().max(300);
export const slideLengthSchema = () => milliseconds(SHORTEST_SLIDE_MS, LONGEST_SLIDE_MS);

const MOST_MARKS = 50_000;
const marksSchema = () =>
  yup
    .object()
    .test(
      'marks',
      '${path} must map hashes to marks',
      (value: unknown) =>
        value === undefined ||
        (typeof value === 'object' &&
          value !== null &&
          Object.keys(value).length <= MOST_MARKS &&
          Object.entries(value).every(([hash, mark]) => isHash(hash) && MARKS.includes(mark as Mark))),
    )
    .optional()
    .default(undefined);

/** What a show says, apart from who it is. */
export const contentShape = () => ({
  title: titleSchema(),
  frame: closed({
    widthPx: yup.number().integer().min(16).max(7680).required(),
    heightPx: yup.number().integer().min(16).max(7680).required(),
    framesPerSecond: yup.number().min(1).max(120).required(),
  }),
  defaultLengthMs: slideLengthSchema(),
  slides: yup.array(slideSchema()).max(MOST_SLIDES).defined(),
  cues: cuesSchema(),
  marks: marksSchema(),
});

const showShape = () => ({
  format: yup.string().oneOf(['tanager-show']).required(),
  version: yup.number().oneOf([1]).required(),
  id: idSchema(),
  ...contentShape(),
});

export const contentSchema = once(
  (): yup.Schema<ShowContent> => closed(contentShape()) as unknown as yup.Schema<ShowContent>,
);

export const showSchema = once(
  (): yup.Schema<Show> => withUniqueIds(closed(showShape())) as unknown as yup.Schema<Show>,
);

/** A show saved as a file: the document and where its files lie, relative to it. */
export interface ShowFile extends Show {
  readonly files: Readonly<Record<string, string>>;
}

export const showFileSchema = once(
  (): yup.Schema<ShowFile> =>
    withUniqueIds(
      closed({
        ...showShape(),
        files: yup
          .object()
          .test(
            'files',
            '${path} must map hashes to file names',
            (value: unknown) =>
              typeof value === 'object' &&
              value !== null &&
              Object.entries(value).every(
                ([hash, file]) => isHash(hash) && typeof file === 'string' && file.length > 0 && file.length < 4096,
              ),
          )
          .required(),
      }),
    ) as unknown as yup.Schema<ShowFile>,
);

function withUniqueIds<Schema extends yup.AnyObjectSchema>(schema: Schema): Schema {
  return schema.test('unique', 'two slides have the same id', (value) => {
    const slides = (value as { slides?: { id?: unknown }[] } | null)?.slides;
    return !Array.isArray(slides) || new Set(slides.map((slide) => slide?.id)).size === slides.length;
  }) as Schema;
}
