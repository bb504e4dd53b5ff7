import { ID, maybe, orNull } from '../../schema/schema';
import { CHOOSER, withChooser, type Chooser } from '../chosen';
import type { SlideId } from '../ids';
import { BACKING } from '../schemas/backing-schema';
import type { Backing } from '../show';
import { done, placeOfSlide, putSlide, refused, slideOf } from './changing';
import type { EditRecord } from './edit-record';

export interface SetBacking {
  readonly kind: 'set-backing';
  readonly slideId: SlideId;
  readonly backing: Backing;
  /** Who chose it: a hand when left out, and nobody when it is automatic. */
  readonly by?: Chooser | null;
}

export const setBacking: EditRecord<SetBacking> = {
  kind: 'set-backing',
  parts: { slideId: ID, backing: BACKING, by: maybe(orNull(CHOOSER)) },
  apply(show, edit) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    const { backing, by = backing.kind === 'automatic' ? null : 'hand' } = edit;
    return done(putSlide(show, withChooser({ ...slide, backing }, 'backing', by)), {
      ...edit,
      backing: slide.backing,
      by: slide.chosen?.backing ?? null,
    });
  },
  touched: (edit) => [placeOfSlide(edit.slideId, 'backing')],
  sentence: () => 'change the backing',
};
