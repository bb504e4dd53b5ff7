import { ID, object, orNull } from '../../schema/schema';
import type { SlideId } from '../ids';
import { CHAPTER_NAME } from '../schemas/slide-schema';
import { changeSlides, counted, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly slideId: SlideId;
  /** Null: no chapter begins here. */
  readonly name: string | null;
}

/** Where chapters begin, and what they are called. */
export interface SetChapters {
  readonly kind: 'set-chapters';
  readonly chapters: readonly Entry[];
}

export const setChapters: EditRecord<SetChapters> = {
  kind: 'set-chapters',
  parts: { chapters: many(object<Entry>({ slideId: ID, name: orNull(CHAPTER_NAME) })) },
  apply(show, edit) {
    const wanted = new Map(edit.chapters.map((entry) => [entry.slideId, entry]));
    const before = show.slides.filter((slide) => wanted.has(slide.id));
    if (before.length === 0) return refused('slide-not-found');
    return done(
      changeSlides(show, wanted, (slide, { name }) => {
        const { chapter: _chapter, ...rest } = slide;
        return name === null ? rest : { ...rest, chapter: name };
      }),
      {
        kind: 'set-chapters',
        chapters: before.map((slide) => ({ slideId: slide.id, name: slide.chapter ?? null })),
      },
    );
  },
  touched: (edit) => edit.chapters.map((entry) => placeOfSlide(entry.slideId, 'chapter')),
  sentence: (edit) =>
    edit.chapters.every((entry) => entry.name === null)
      ? `end ${counted(edit.chapters.length, 'chapter')} here`
      : `name ${counted(edit.chapters.length, 'chapter')}`,
};
