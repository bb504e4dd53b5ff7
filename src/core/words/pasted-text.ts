import type { ShowEdit } from '../show/edit';
import { layerId, type SlideId } from '../show/ids';
import { LONGEST_WORDS_SUBTITLE, LONGEST_WORDS_TITLE, MOST_SLIDES } from '../show/limits';
import { blankSlide } from '../show/new-slide';
import { wordsOf, type Show, type Slide } from '../show/show';
import { textOf, type WordsText } from '../show/words-of-slide';

/** How a text is dealt out to slides. */
export type TextParts = 'paragraphs' | 'lines' | 'whole';
/** As what it is laid on a slide. */
export type TextAs = 'title' | 'subtitle' | 'first-line';

/** What is to be done with a text that was pasted. */
export interface PastedText {
  readonly text: string;
  readonly parts: TextParts;
  readonly as: TextAs;
}

export interface LaidText {
  readonly edit: ShowEdit;
  /** Slides that get words, those among them that had some, and those that are new. */
  readonly slides: number;
  readonly replaced: number;
  readonly added: number;
}

const INK = '#211d19';

/** A text in parts, each with its line breaks; what is blank is none. */
export function partsOfText(text: string, parts: TextParts): string[] {
  const lines = text.replace(/\r\n?/g, '\n').replaceAll('\0', '');
  const pieces = parts === 'whole' ? [lines] : lines.split(parts === 'lines' ? '\n' : /\n[^\S\n]*\n\s*/);
  return pieces.map(trimmed).filter((piece) => piece !== '');
}

/**
 * The edit that lays a text on slides, a part on each: on those that are named, in the order of the show, and on blank ones after the last for what is left.
 * Words that are there keep their place and look and say the new text.
 *
 * @param slideIds at least one that is in the show
 * @returns a sentence where it cannot be done; nothing is left out or cut short
 */
export function layText(
  show: Show,
  slideIds: readonly SlideId[],
  { text, parts, as }: PastedText,
  newId: () => string,
): LaidText | string {
  const wanted = new Set(slideIds);
  const slides = show.slides.filter(({ id }) => wanted.has(id));
  const last = slides.at(-1);
  const pieces = partsOfText(text, parts);
  if (pieces.length === 0) return 'There is no text yet.';
  if (!last) return 'No slide is chosen that could take it.';
  const words = pieces.map((piece) => saidAs(piece, as));
  const long = words.findIndex(
    ({ title, subtitle }) => title.length > LONGEST_WORDS_TITLE || subtitle.length > LONGEST_WORDS_SUBTITLE,
  );
  if (long >= 0) return `Part ${long + 1} is too long for one slide: part it by an empty line.`;
  const added = Math.max(0, pieces.length - slides.length);
  if (show.slides.length + added > MOST_SLIDES) return `A show has at most ${MOST_SLIDES.toLocaleString('en')} slides.`;
  const there = slides.slice(0, pieces.length);
  const fresh = words.slice(slides.length).map((said): Slide => {
    const slide = blankSlide(show.defaultLengthMs, INK, newId);
    return { ...slide, layers: [{ kind: 'words', id: layerId(newId()), ...said, place: 'centre' }] };
  });
  return {
    edit: {
      kind: 'together',
      name: pieces.length === 1 ? 'lay a text on a slide' : `lay a text on ${pieces.length} slides`,
      edits: [
        ...there.map((slide, index): ShowEdit => {
          const before = wordsOf(slide);
          const own: WordsText = before ? textOf(before) : { title: '', subtitle: '', place: 'bottom-left' };
          return {
            kind: 'set-words',
            slideId: slide.id,
            layerId: before?.id ?? layerId(newId()),
            words: { ...own, ...words[index]! },
          };
        }),
        ...(fresh.length > 0 ? [{ kind: 'add-slides' as const, runs: [{ afterId: last.id, slides: fresh }] }] : []),
      ],
    },
    slides: pieces.length,
    replaced: there.filter((slide) => wordsOf(slide) !== null).length,
    added: fresh.length,
  };
}

function saidAs(piece: string, as: TextAs): { readonly title: string; readonly subtitle: string } {
  if (as === 'title') return { title: piece, subtitle: '' };
  if (as === 'subtitle') return { title: '', subtitle: piece };
  const end = piece.indexOf('\n');
  return end < 0
    ? { title: piece, subtitle: '' }
    : { title: piece.slice(0, end), subtitle: trimmed(piece.slice(end + 1)) };
}

/** Without blank lines before and after; lines keep their indents, which credits in columns may have. */
function trimmed(piece: string): string {
  return piece.replace(/^(?:[^\S\n]*\n)+/, '').trimEnd();
}
