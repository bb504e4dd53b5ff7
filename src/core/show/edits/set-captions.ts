import { ID, object, orNull } from '../../schema/schema';
import { CAPTIONS, LANGUAGE, type Caption } from '../caption';
import type { SlideId } from '../ids';
import { changeSlides, done, many, placeOfSlide, refused } from './changing';
import type { EditRecord } from './edit-record';

interface Entry {
  readonly slideId: SlideId;
  readonly language: string;
  /** Null: none by hand. */
  readonly captions: readonly Caption[] | null;
}

/** Captions by hand, or brought in, each language of each slide as a whole. */
export interface SetCaptions {
  readonly kind: 'set-captions';
  readonly captions: readonly Entry[];
}

export const setCaptions: EditRecord<SetCaptions> = {
  kind: 'set-captions',
  parts: { captions: many(object<Entry>({ slideId: ID, language: LANGUAGE, captions: orNull(CAPTIONS) })) },
  apply(show, edit) {
    const wanted = new Map<SlideId, Entry[]>();
    for (const entry of edit.captions) wanted.set(entry.slideId, [...(wanted.get(entry.slideId) ?? []), entry]);
    const before = show.slides.filter((slide) => wanted.has(slide.id));
    if (before.length === 0) return refused('slide-not-found');
    return done(
      changeSlides(show, wanted, (slide, entries) => {
        const { captions = {}, ...rest } = slide;
        const said = new Map<string, readonly Caption[] | null>(Object.entries(captions));
        for (const entry of entries) said.set(entry.language, entry.captions);
        const kept = [...said].flatMap(([language, list]) => (list === null ? [] : [[language, list] as const]));
        return kept.length === 0 ? rest : { ...rest, captions: Object.fromEntries(kept) };
      }),
      {
        kind: 'set-captions',
        captions: before.flatMap((slide) =>
          wanted
            .get(slide.id)!
            .map(({ language }) => ({ slideId: slide.id, language, captions: slide.captions?.[language] ?? null })),
        ),
      },
    );
  },
  touched: (edit) => edit.captions.map(({ slideId, language }) => placeOfSlide(slideId, `captions/${language}`)),
  sentence: (edit) =>
    edit.captions.every((entry) => entry.captions === null) ? 'take captions away' : 'change captions',
};
