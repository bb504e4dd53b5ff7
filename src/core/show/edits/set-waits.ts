import { ID, object, truth } from '../../schema/schema';
import type { SlideId } from '../ids';
import { changeSlides, counted, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly slideId: SlideId;
  readonly waits: boolean;
}

/** On which slides a showing waits until it is told to go on. */
export interface SetWaits {
  readonly kind: 'set-waits';
  readonly slides: readonly Entry[];
}

export const setWaits: EditRecord<SetWaits> = {
  kind: 'set-waits',
  parts: { slides: many(object<Entry>({ slideId: ID, waits: truth })) },
  apply(show, edit) {
    const wanted = new Map(edit.slides.map((entry) => [entry.slideId, entry]));
    const before = show.slides.filter((slide) => wanted.has(slide.id));
    if (before.length === 0) return refused('slide-not-found');
    return done(
      changeSlides(show, wanted, (slide, { waits }) => {
        const { waits: _waits, ...rest } = slide;
        return waits ? { ...rest, waits: true } : rest;
      }),
      { kind: 'set-waits', slides: before.map((slide) => ({ slideId: slide.id, waits: slide.waits ?? false })) },
    );
  },
  touched: (edit) => edit.slides.map((entry) => placeOfSlide(entry.slideId, 'waits')),
  sentence: (edit) =>
    edit.slides.every(({ waits }) => waits)
      ? `let a showing wait on ${counted(edit.slides.length, 'slide')}`
      : `let a showing go on by itself after ${counted(edit.slides.length, 'slide')}`,
};
