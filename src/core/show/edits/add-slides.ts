import { ID, list, object, orNull } from '../../schema/schema';
import { withFreedEnds } from '../freed-sounds';
import { MOST_SLIDES } from '../limits';
import { putIn, type PlacedSlides } from '../order';
import { SLIDE } from '../schemas/slide-schema';
import { counted, done, many, placeOfSlide, refused } from './changing';
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
    // What was copied from elsewhere may have a sound that ended with a slide that is not here.
    const runs = edit.runs.map((run) => ({
      ...run,
      slides: run.slides.map((slide) => withFreedEnds(slide, (id) => present.has(id))),
    }));
    return done(
      { ...show, slides: putIn(show.slides, runs) },
      { kind: 'remove-slides', slideIds: added.map((slide) => slide.id) },
    );
  },
  touched: (edit) => edit.runs.flatMap((run) => run.slides.map(({ id }) => placeOfSlide(id))),
  sentence: (edit) =>
    `add ${counted(
      edit.runs.reduce((sum, run) => sum + run.slides.length, 0),
      'slide',
    )}`,
};
