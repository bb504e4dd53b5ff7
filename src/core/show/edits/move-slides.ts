import { ID, object, orNull } from '../../schema/schema';
import type { SlideId } from '../ids';
import { putIn, takeOut } from '../order';
import { counted, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

interface Run {
  readonly slideIds: readonly SlideId[];
  readonly afterId: SlideId | null;
}

export interface MoveSlides {
  readonly kind: 'move-slides';
  readonly runs: readonly Run[];
}

export const moveSlides: EditRecord<MoveSlides> = {
  kind: 'move-slides',
  parts: { runs: many(object<Run>({ slideIds: many(ID), afterId: orNull(ID) })) },
  apply(show, edit) {
    const byId = new Map(show.slides.map((slide) => [slide.id, slide]));
    const named = edit.runs.flatMap((run) => run.slideIds);
    // It cannot stand in two places, not even on the way to an outcome that is sound again.
    if (new Set(named).size < named.length) return refused('slide-already-there');
    const taken = takeOut(show.slides, named);
    if (!taken) return refused('slide-not-found');
    const placed = edit.runs.map((run) => ({
      afterId: run.afterId,
      slides: run.slideIds.flatMap((id) => byId.get(id) ?? []),
    }));
    const back = taken.runs.map((run) => ({ afterId: run.afterId, slideIds: run.slides.map((slide) => slide.id) }));
    return done({ ...show, slides: putIn(taken.rest, placed) }, { kind: 'move-slides', runs: back });
  },
  touched: (edit) => edit.runs.flatMap((run) => run.slideIds.map((id) => placeOfSlide(id, 'place'))),
  sentence: (edit) =>
    `move ${counted(
      edit.runs.reduce((sum, run) => sum + run.slideIds.length, 0),
      'slide',
    )}`,
};
