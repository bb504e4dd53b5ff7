import { ID } from '../../schema/schema';
import type { SlideId } from '../ids';
import { takeOut } from '../order';
import { counted, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

export interface RemoveSlides {
  readonly kind: 'remove-slides';
  readonly slideIds: readonly SlideId[];
}

export const removeSlides: EditRecord<RemoveSlides> = {
  kind: 'remove-slides',
  parts: { slideIds: many(ID) },
  apply(show, edit) {
    const taken = takeOut(show.slides, edit.slideIds);
    if (!taken) return refused('slide-not-found');
    return done({ ...show, slides: taken.rest }, { kind: 'add-slides', runs: taken.runs });
  },
  touched: (edit) => edit.slideIds.map((id) => placeOfSlide(id)),
  sentence: (edit) => `remove ${counted(edit.slideIds.length, 'slide')}`,
};
