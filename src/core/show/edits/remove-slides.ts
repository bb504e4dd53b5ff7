import { ID } from '../../schema/schema';
import type { ShowEdit } from '../edit';
import { freedCues, withFreedEnds } from '../freed-sounds';
import type { SlideId } from '../ids';
import { takeOut } from '../order';
import { counted, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

/** Removes slides. Songs that were tied to them are tied to those that follow, and come back with them as they were. */
export interface RemoveSlides {
  readonly kind: 'remove-slides';
  readonly slideIds: readonly SlideId[];
}

export const removeSlides: EditRecord<RemoveSlides> = {
  kind: 'remove-slides',
  parts: { slideIds: many(ID) },
  apply(show, edit) {
    const taken = takeOut(show.slides, edit.slideIds);
    if (!taken) return refused('slide-not-found');
    const gone = new Set(taken.runs.flatMap((run) => run.slides.map((slide) => slide.id)));
    const cues = freedCues(show.cues, show.slides, gone);
    const isThere = (id: SlideId) => !gone.has(id);
    const slides = taken.rest.map((slide) => withFreedEnds(slide, isThere));
    const freed: ShowEdit[] = cues.flatMap((cue, index) => {
      const was = show.cues[index]!;
      const { starts, ends } = was;
      return cue === was ? [] : [{ kind: 'set-sound', slideId: null, soundId: cue.id, properties: { starts, ends } }];
    });
    slides.forEach((slide, at) => {
      slide.sounds.forEach((sound, index) => {
        const was = taken.rest[at]!.sounds[index]!;
        if (sound !== was)
          freed.push({ kind: 'set-sound', slideId: slide.id, soundId: sound.id, properties: { ends: was.ends } });
      });
    });
    const back: ShowEdit = { kind: 'add-slides', runs: taken.runs };
    return done(
      { ...show, slides, cues },
      freed.length === 0 ? back : { kind: 'together', name: removeSlides.sentence(edit), edits: [back, ...freed] },
    );
  },
  touched: (edit) => edit.slideIds.map((id) => placeOfSlide(id)),
  sentence: (edit) => `remove ${counted(edit.slideIds.length, 'slide')}`,
};
