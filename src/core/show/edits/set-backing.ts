import { ID } from '../../schema/schema';
import type { SlideId } from '../ids';
import { BACKING } from '../schemas/slide-schema';
import type { Backing } from '../show';
import { done, placeOfSlide, putSlide, refused, slideOf } from './changing';
import type { EditRecord } from './edit-record';

export interface SetBacking {
  readonly kind: 'set-backing';
  readonly slideId: SlideId;
  readonly backing: Backing;
}

export const setBacking: EditRecord<SetBacking> = {
  kind: 'set-backing',
  parts: { slideId: ID, backing: BACKING },
  apply(show, edit) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    return done(putSlide(show, { ...slide, backing: edit.backing }), { ...edit, backing: slide.backing });
  },
  touched: (edit) => [placeOfSlide(edit.slideId, 'backing')],
  sentence: () => 'change the backing',
};
