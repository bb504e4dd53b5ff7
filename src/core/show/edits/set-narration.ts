import { ID } from '../../schema/schema';
import type { SlideId } from '../ids';
import { NARRATION } from '../schemas/slide-schema';
import type { Narration } from '../show';
import { done, placeOfSlide, putSlide, refused, slideOf } from './changing';
import type { EditRecord } from './edit-record';

export interface SetNarration {
  readonly kind: 'set-narration';
  readonly slideId: SlideId;
  readonly narration: Narration | null;
}

export const setNarration: EditRecord<SetNarration> = {
  kind: 'set-narration',
  parts: { slideId: ID, narration: NARRATION },
  apply(show, edit) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    return done(putSlide(show, { ...slide, narration: edit.narration }), { ...edit, narration: slide.narration });
  },
  touched: (edit) => [placeOfSlide(edit.slideId, 'narration')],
  sentence: (edit) => (edit.narration ? 'set the narration' : 'remove the narration'),
};
