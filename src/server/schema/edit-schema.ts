import * as yup from 'yup';
import type { ShowEdit } from '../../core/show/edit';
import { backingSchema, cuesSchema, idSchema, MOST_SLIDES, moveSchema, narrationSchema, slideLengthSchema, slideSchema, titleSchema, transitionSchema, wordsShape } from './show-schema';

const closed = <Shape extends yup.ObjectShape>(shape: Shape) => yup.object(shape).noUnknown('${path} has an unknown part: ${unknown}').required();
const slideIds = () => yup.array(idSchema()).min(1).max(MOST_SLIDES).required();
const afterId = () => idSchema().nullable().defined();

const SHAPES: Record<ShowEdit['kind'], () => yup.ObjectShape> = {
  'add-slides': () => ({ runs: yup.array(closed({ afterId: afterId(), slides: yup.array(slideSchema()).min(1).max(MOST_SLIDES).required() })).min(1).max(MOST_SLIDES).required() }),
  'remove-slides': () => ({ slideIds: slideIds() }),
  'move-slides': () => ({ runs: yup.array(closed({ afterId: afterId(), slideIds: slideIds() })).min(1).max(MOST_SLIDES).required() }),
  'set-lengths': () => ({ lengths: yup.array(closed({ slideId: idSchema(), lengthMs: slideLengthSchema() })).min(1).max(MOST_SLIDES).required() }),
  'set-transitions': () => ({ transitions: yup.array(closed({ slideId: idSchema(), transition: transitionSchema() })).min(1).max(MOST_SLIDES).required() }),
  'set-words': () => ({ slideId: idSchema(), layerId: idSchema(), words: closed(wordsShape).nullable().defined() }),
  'set-move': () => ({ slideId: idSchema(), layerId: idSchema(), move: moveSchema() }),
  'set-backing': () => ({ slideId: idSchema(), backing: backingSchema() }),
  'set-narration': () => ({ slideId: idSchema(), narration: narrationSchema() }),
  'set-cues': () => ({ cues: cuesSchema() }),
  'set-default-length': () => ({ lengthMs: slideLengthSchema() }),
  'rename-show': () => ({ title: titleSchema().min(1) }),
};

export const editSchema = (): yup.Schema<ShowEdit> => yup.lazy((value: unknown) => {
  const kind = (value as { kind?: unknown } | null | undefined)?.kind;
  if (typeof kind !== 'string' || !Object.hasOwn(SHAPES, kind)) return yup.mixed().test('kind', '${path} is not a known edit', () => false);
  return closed({ kind: yup.string().oneOf([kind]).required(), ...SHAPES[kind as ShowEdit['kind']]() });
}) as unknown as yup.Schema<ShowEdit>;
