import { ID, object, orNull } from '../../schema/schema';
import { BREATH, type Breath } from '../breath';
import type { SlideId } from '../ids';
import { changeSlides, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  /** Null: the show, for slides that do not say it themselves. */
  readonly slideId: SlideId | null;
  /** Null: as the show, or as usual. */
  readonly breath: Breath | null;
}

/** How long it is silent before and after what is spoken. Where voices begin and how long slides last is said apart; see `breathsSet`. */
export interface SetBreaths {
  readonly kind: 'set-breaths';
  readonly breaths: readonly Entry[];
}

export const setBreaths: EditRecord<SetBreaths> = {
  kind: 'set-breaths',
  parts: { breaths: many(object<Entry>({ slideId: orNull(ID), breath: orNull(BREATH) })) },
  apply(show, edit) {
    const ofShow = edit.breaths.findLast((entry) => entry.slideId === null);
    const wanted = new Map(edit.breaths.flatMap((entry) => (entry.slideId === null ? [] : [[entry.slideId, entry]])));
    const before = show.slides.filter((slide) => wanted.has(slide.id));
    if (!ofShow && before.length === 0) return refused('slide-not-found');
    const { breath: breathBefore, ...rest } = show;
    const whole = !ofShow ? show : ofShow.breath === null ? rest : { ...rest, breath: ofShow.breath };
    return done(
      changeSlides(whole, wanted, (slide, { breath }) => {
        const { breath: _breath, ...others } = slide;
        return breath === null ? others : { ...others, breath };
      }),
      {
        kind: 'set-breaths',
        breaths: [
          ...(ofShow ? [{ slideId: null, breath: breathBefore ?? null }] : []),
          ...before.map((slide) => ({ slideId: slide.id, breath: slide.breath ?? null })),
        ],
      },
    );
  },
  touched: (edit) => edit.breaths.map(({ slideId }) => (slideId === null ? 'breath' : placeOfSlide(slideId, 'breath'))),
  sentence: () => 'change the silence around voices',
};
