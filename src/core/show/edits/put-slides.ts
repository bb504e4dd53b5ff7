import { SLIDE } from '../schemas/slide-schema';
import type { Slide } from '../show';
import { changeSlides, counted, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

/** Whole slides in the place of those with the same ids. */
export interface PutSlides {
  readonly kind: 'put-slides';
  readonly slides: readonly Slide[];
}

export const putSlides: EditRecord<PutSlides> = {
  kind: 'put-slides',
  parts: { slides: many(SLIDE) },
  apply(show, edit) {
    const wanted = new Map(edit.slides.map((slide) => [slide.id, slide]));
    const before = show.slides.filter((slide) => wanted.has(slide.id));
    if (before.length === 0) return refused('slide-not-found');
    return done(
      changeSlides(show, wanted, (_before, after) => after),
      { kind: 'put-slides', slides: before },
    );
  },
  touched: (edit) => edit.slides.map((slide) => placeOfSlide(slide.id)),
  sentence: (edit) => `change ${counted(edit.slides.length, 'slide')}`,
};
