import { ID, maybe, object, orNull } from '../../schema/schema';
import { CHOOSER, withChooser, type Chooser } from '../chosen';
import type { SlideId } from '../ids';
import { TRANSITION } from '../schemas/transition-schema';
import type { Transition } from '../transition';
import { changeSlides, counted, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly slideId: SlideId;
  readonly transition: Transition;
  /** Who chose it: a hand when left out; null for nobody. */
  readonly by?: Chooser | null;
}

/** How slides come in. */
export interface SetTransitions {
  readonly kind: 'set-transitions';
  readonly transitions: readonly Entry[];
}

export const setTransitions: EditRecord<SetTransitions> = {
  kind: 'set-transitions',
  parts: { transitions: many(object<Entry>({ slideId: ID, transition: TRANSITION, by: maybe(orNull(CHOOSER)) })) },
  apply(show, edit) {
    const wanted = new Map(edit.transitions.map((entry) => [entry.slideId, entry]));
    const before = show.slides.filter((slide) => wanted.has(slide.id));
    if (before.length === 0) return refused('slide-not-found');
    return done(
      changeSlides(show, wanted, (slide, { transition, by = 'hand' }) =>
        withChooser({ ...slide, transition }, 'transition', by),
      ),
      {
        kind: 'set-transitions',
        transitions: before.map((slide) => ({
          slideId: slide.id,
          transition: slide.transition,
          by: slide.chosen?.transition ?? null,
        })),
      },
    );
  },
  touched: (edit) => edit.transitions.map((entry) => placeOfSlide(entry.slideId, 'transition')),
  sentence: (edit) => `change ${counted(edit.transitions.length, 'transition')}`,
};
