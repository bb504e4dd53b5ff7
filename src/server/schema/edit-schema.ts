import * as yup from 'yup';
import type { ShowEdit } from '../../core/show/edit';
import { faultOfLayers } from './layer-faults';
import {
  backingSchema,
  cropSchema,
  edgeSchema,
  layersSchema,
  lightSchema,
  moveSchema,
  transitionSchema,
  wordsShape,
} from './layer-schema';
import { MARKS } from '../../core/show/mark';
import { closed, hashSchema, idSchema, oneOf } from './parts';
import {
  contentShape,
  cuesSchema,
  MOST_SLIDES,
  narrationSchema,
  slideLengthSchema,
  slideSchema,
  titleSchema,
} from './show-schema';

const slideIds = () => yup.array(idSchema()).min(1).max(MOST_SLIDES).required();
const afterId = () => idSchema().nullable().defined();

const SHAPES: Record<ShowEdit['kind'], () => yup.ObjectShape> = {
  'add-slides': () => ({
    runs: yup
      .array(closed({ afterId: afterId(), slides: yup.array(slideSchema()).min(1).max(MOST_SLIDES).required() }))
      .min(1)
      .max(MOST_SLIDES)
      .required(),
  }),
  'remove-slides': () => ({ slideIds: slideIds() }),
  'move-slides': () => ({
    runs: yup
      .array(closed({ afterId: afterId(), slideIds: slideIds() }))
      .min(1)
      .max(MOST_SLIDES)
      .required(),
  }),
  'set-lengths': () => ({
    lengths: yup
      .array(closed({ slideId: idSchema(), lengthMs: slideLengthSchema() }))
      .min(1)
      .max(MOST_SLIDES)
      .required(),
  }),
  'set-transitions': () => ({
    transitions: yup
      .array(closed({ slideId: idSchema(), transition: transitionSchema() }))
      .min(1)
      .max(MOST_SLIDES)
      .required(),
  }),
  'set-words': () => ({ slideId: idSchema(), layerId: idSchema(), words: closed(wordsShape()).nullable().defined() }),
  'set-move': () => ({ slideId: idSchema(), layerId: idSchema(), move: moveSchema() }),
  'set-crops': () => ({
    crops: yup
      .array(closed({ layerId: idSchema(), crop: cropSchema().nullable().defined(), move: moveSchema() }))
      .min(1)
      .max(MOST_SLIDES)
      .required(),
  }),
  'set-layers': () => ({
    slideId: idSchema(),
    layers: layersSchema().test('layers', function check(value) {
      const fault = faultOfLayers(value);
      return fault === null || this.createError({ message: fault });
    }),
  }),
  'set-light': () => ({
    lights: yup
      .array(closed({ layerId: idSchema(), light: lightSchema().nullable().defined() }))
      .min(1)
      .max(MOST_SLIDES)
      .required(),
  }),
  'set-edge': () => ({
    edges: yup
      .array(closed({ layerId: idSchema(), edge: edgeSchema().nullable().defined() }))
      .min(1)
      .max(MOST_SLIDES)
      .required(),
  }),
  'set-backing': () => ({ slideId: idSchema(), backing: backingSchema() }),
  'set-narration': () => ({ slideId: idSchema(), narration: narrationSchema() }),
  'set-cues': () => ({ cues: cuesSchema() }),
  'set-default-length': () => ({ lengthMs: slideLengthSchema() }),
  'rename-show': () => ({ title: titleSchema().min(1) }),
  'set-marks': () => ({
    marks: yup
      .array(closed({ assetId: hashSchema(), mark: oneOf(MARKS).nullable().defined() }))
      .min(1)
      .max(MOST_SLIDES)
      .required(),
  }),
  'swap-file': () => ({ from: hashSchema(), to: hashSchema() }),
  'put-slides': () => ({ slides: yup.array(slideSchema()).min(1).max(MOST_SLIDES).required() }),
  'set-content': () => ({ content: closed(contentShape()) }),
  together: () => ({
    name: yup.string().min(1).max(200).required(),
    edits: yup.array(editSchema()).min(1).max(MOST_SLIDES).required(),
  }),
};

export const editSchema = (): yup.Schema<ShowEdit> =>
  yup.lazy((value: unknown) => {
    const kind = (value as { kind?: unknown } | null | undefined)?.kind;
    if (typeof kind !== 'string' || !Object.hasOwn(SHAPES, kind))
      return yup.mixed().test('kind', '${path} is not a known edit', () => false);
    return closed({ kind: yup.string().oneOf([kind]).required(), ...SHAPES[kind as ShowEdit['kind']]() });
  }) as unknown as yup.Schema<ShowEdit>;
