import { ID, list, object, orNull } from '../../schema/schema';
import { MOST_SLIDES } from '../limits';
import { putIn, type PlacedSlides } from '../order';
import { SLIDE } from '../schemas/slide-schema';
import { counted, done, many, refused } from './changing';
import type { EditRecord } from './edit-record';

export interface AddSlides {
  readonly kind: 'add-slides';
  readonly runs: readonly PlacedSlides[];
}

export const addSlides: EditRecord<AddSlides> = {
  kind: 'add-slides',
  parts: { runs: many(object<PlacedSlides>({ afterId: orNull(ID), slides: list(SLIDE, MOST_SLIDES, 1) })) },
  apply(show, edit) {
    const present = new Set(show.slides.map((slide) => slide.id));
    const added = edit.runs.flatMap((run) => run.slides);
    for (const slide of added) {
      if (present.has(slide.id)) return refused('slide-already-there');
      present.add(slide.id);
    }
    return done(
      { ...show, slides: putIn(show.slides, edit.runs) },
      { kind: 'remove-slides', slideIds: added.map((slide) => slide.id) },
    );
  },
  touched: () => [],
  sentence: (edit) =>
    `add ${counted(
      edit.runs.reduce((sum, run) => sum + run.slides.length, 0),
      'slide',
    )}`,
};
