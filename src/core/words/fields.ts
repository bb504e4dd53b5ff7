import type { FactsById } from '../show/asset-facts';
import { takenAt } from '../show/camera-clock';
import { USUAL_LANGUAGE } from '../show/caption';
import { everyLayer } from '../show/layer';
import { mapped } from '../show/pile';
import { mainLayerOf, type Show, type Slide } from '../show/show';

/** What words can be filled from by themselves, written between braces: `{date}`. */
export const WORD_FIELDS = ['date', 'time', 'place', 'caption', 'number', 'of', 'title'] as const;
export type WordField = (typeof WORD_FIELDS)[number];
export type FieldValues = Readonly<Record<WordField, string>>;

/** For built transitions and the like, which belong to no slide. */
export const NO_FIELDS: FieldValues = { date: '', time: '', place: '', caption: '', number: '', of: '', title: '' };

const FIELD = new RegExp(`\\{(${WORD_FIELDS.join('|')})\\}`, 'g');

/** Stands for a field that finds nothing, and goes with what parts it from its neighbours: “{place}, {date}” without a place is “14 June”. */
const NOTHING = '\uffff';
const [PARTED_BEFORE, PARTED_AFTER] = [/[\s,;:·–—|/-]*\uffff/g, /^(?:\uffff[\s,;:·–—|/-]*)+/];

/** Words with their fields filled; what is between other braces stays as it is. A line whose fields all find nothing, and which says nothing else, is left out. */
export function filledWords(words: string, values: FieldValues): string {
  if (!words.includes('{')) return words;
  return words
    .split('\n')
    .flatMap((line) => {
      const filled = line.replace(FIELD, (_, field: WordField) => values[field] || NOTHING);
      if (!filled.includes(NOTHING)) return [filled];
      const left = filled.replace(PARTED_AFTER, '').replace(PARTED_BEFORE, '');
      return left.trim() === '' ? [] : [left];
    })
    .join('\n');
}

/** Whether something in them is filled by itself. */
export function hasFields(words: string): boolean {
  return words.search(FIELD) >= 0;
}

/**
 * What the fields of a slide say: of the picture it would be named by, of the slide, of the show. Empty where nothing is known. Dates and times are those of the
 * camera, its clock put right, as they are written in the show's language.
 */
export function fieldValues(show: Show, facts: FactsById, index: number): FieldValues {
  return valuesOn(show.slides[index]!, facts, show, index + 1);
}

/** What fields say of a show, as far as it is known. */
type SaysOfShow = Partial<Pick<Show, 'title' | 'language' | 'clocks' | 'slides'>>;

function valuesOn(slide: Slide, facts: FactsById, show: SaysOfShow, number: number): FieldValues {
  const main = mainLayerOf(slide);
  const known = main ? facts.get(main.assetId) : undefined;
  const seen = known && known.kind !== 'sound' ? known : null;
  const taken = seen ? takenAt(seen, show.clocks) : null;
  const at = taken === null ? null : new Date(`${taken.slice(0, 19)}Z`);
  const language = show.language ?? USUAL_LANGUAGE;
  const written = (how: Intl.DateTimeFormatOptions) =>
    at === null || Number.isNaN(at.getTime())
      ? ''
      : new Intl.DateTimeFormat(language === 'en' ? 'en-GB' : language, { ...how, timeZone: 'UTC' }).format(at);
  return {
    date: written({ dateStyle: 'long' }),
    time: written({ hour: '2-digit', minute: '2-digit' }),
    place: (seen?.kind === 'picture' && seen.place) || '',
    caption: (seen?.kind === 'picture' && seen.caption) || '',
    number: String(number),
    of: String(show.slides?.length ?? number),
    title: show.title ?? '',
  };
}

/** The slide with what its fields say instead of them; itself when it has none. For shows that are handed on without what the fields are filled from. */
export function filledSlide(show: Show, facts: FactsById, index: number): Slide {
  return filledAs(show.slides[index]!, facts, show, index + 1);
}

/** A slide with its fields filled, wherever it stands. @param number which of the show’s it is, or about */
export function filledAs(slide: Slide, facts: FactsById, show: SaysOfShow, number: number): Slide {
  if (!slideHasFields(slide)) return slide;
  const values = valuesOn(slide, facts, show, number);
  return {
    ...slide,
    layers: mapped(slide.layers, (layer) =>
      layer.kind === 'words'
        ? { ...layer, title: filledWords(layer.title, values), subtitle: filledWords(layer.subtitle, values) }
        : layer,
    ),
  };
}

export function slideHasFields(slide: Slide): boolean {
  for (const layer of everyLayer(slide.layers))
    if (layer.kind === 'words' && (hasFields(layer.title) || hasFields(layer.subtitle))) return true;
  return false;
}
