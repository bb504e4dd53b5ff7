import { ID, maybe, object, orNull } from '../../schema/schema';
import { CHOOSER, withChooser, type Chooser } from '../chosen';
import type { SlideId } from '../ids';
import { SLIDE_LENGTH } from '../schemas/slide-schema';
import { changeSlides, counted, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly slideId: SlideId;
  readonly lengthMs: number;
  /** Who chose it: a hand when left out; null for nobody. */
  readonly by?: Chooser | null;
}

/** How long slides last. Whoever works lengths out leaves those alone that are held (`isHeld`). */
export interface SetLengths {
  readonly kind: 'set-lengths';
  readonly lengths: readonly Entry[];
}

export const setLengths: EditRecord<SetLengths> = {
  kind: 'set-lengths',
  parts: { lengths: many(object<Entry>({ slideId: ID, lengthMs: SLIDE_LENGTH, by: maybe(orNull(CHOOSER)) })) },
  apply(show, edit) {
    const wanted = new Map(edit.lengths.map((entry) => [entry.slideId, entry]));
    const before = show.slides.filter((slide) => wanted.has(slide.id));
    if (before.length === 0) return refused('slide-not-found');
    return done(
      changeSlides(show, wanted, (slide, { lengthMs, by = 'hand' }) =>
        withChooser({ ...slide, lengthMs }, 'length', by),
      ),
      {
        kind: 'set-lengths',
        lengths: before.map((slide) => ({
          slideId: slide.id,
          lengthMs: slide.lengthMs,
          by: slide.chosen?.length ?? null,
        })),
      },
    );
  },
  touched: (edit) => edit.lengths.map((entry) => placeOfSlide(entry.slideId, 'length')),
  sentence: (edit) => `change the length of ${counted(edit.lengths.length, 'slide')}`,
};
