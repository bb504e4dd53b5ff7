import { ID, object, oneOf, orNull } from '../../schema/schema';
import { CHOOSER, SLIDE_VALUES, withChooser, type Chooser, type SlideValue } from '../chosen';
import type { SlideId } from '../ids';
import type { Slide } from '../show';
import { changeSlides, counted, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly slideId: SlideId;
  readonly value: SlideValue;
  /** Null lets it go: it stays as it is, and may be changed by others. */
  readonly by: Chooser | null;
}

/** Who holds a value, apart from what it is: letting go, and holding on. */
export interface SetChoosers {
  readonly kind: 'set-choosers';
  readonly choosers: readonly Entry[];
}

export const setChoosers: EditRecord<SetChoosers> = {
  kind: 'set-choosers',
  parts: { choosers: many(object<Entry>({ slideId: ID, value: oneOf(SLIDE_VALUES), by: orNull(CHOOSER) })) },
  apply(show, edit) {
    const wanted = new Map<SlideId, Entry[]>();
    for (const entry of edit.choosers) wanted.set(entry.slideId, [...(wanted.get(entry.slideId) ?? []), entry]);
    const before = show.slides.filter((slide) => wanted.has(slide.id));
    if (before.length === 0) return refused('slide-not-found');
    const was = (slide: Slide): Entry[] =>
      wanted.get(slide.id)!.map(({ value }) => ({ slideId: slide.id, value, by: slide.chosen?.[value] ?? null }));
    return done(
      changeSlides(show, wanted, (slide, entries) =>
        entries.reduce((held, { value, by }) => withChooser(held, value, by), slide),
      ),
      { kind: 'set-choosers', choosers: before.flatMap(was) },
    );
  },
  touched: (edit) => edit.choosers.map((entry) => placeOfSlide(entry.slideId, entry.value)),
  sentence: ({ choosers }) =>
    `${choosers[0]?.by === 'hand' ? 'hold' : 'let go'} the ${choosers[0]?.value ?? 'length'} of ${counted(choosers.length, 'slide')}`,
};
