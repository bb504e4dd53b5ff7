import { ID, object, orNull } from '../../schema/schema';
import type { SlideId } from '../ids';
import { SCRIPT } from '../schemas/slide-schema';
import { changeSlides, counted, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly slideId: SlideId;
  /** Null: nothing is spoken. */
  readonly script: string | null;
}

/** What is spoken on slides. */
export interface SetScripts {
  readonly kind: 'set-scripts';
  readonly scripts: readonly Entry[];
}

export const setScripts: EditRecord<SetScripts> = {
  kind: 'set-scripts',
  parts: { scripts: many(object<Entry>({ slideId: ID, script: orNull(SCRIPT) })) },
  apply(show, edit) {
    const wanted = new Map(edit.scripts.map((entry) => [entry.slideId, entry]));
    const before = show.slides.filter((slide) => wanted.has(slide.id));
    if (before.length === 0) return refused('slide-not-found');
    return done(
      changeSlides(show, wanted, (slide, { script }) => {
        const { script: _script, ...rest } = slide;
        return script === null ? rest : { ...rest, script };
      }),
      { kind: 'set-scripts', scripts: before.map((slide) => ({ slideId: slide.id, script: slide.script ?? null })) },
    );
  },
  touched: (edit) => edit.scripts.map((entry) => placeOfSlide(entry.slideId, 'script')),
  sentence: (edit) =>
    edit.scripts.length === 1 ? 'change the script' : `change the script of ${counted(edit.scripts.length, 'slide')}`,
};
