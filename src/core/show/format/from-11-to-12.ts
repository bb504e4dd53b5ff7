import { entriesOf, isLoose, type Loose } from './loose';
import type { RaiseStep } from './raise';

/**
 * Version 12 can say which frame stands for a clip, what songs are called, whose they are and how they sound, and which joins of a tailored song are to be made;
 * of words that they lean, which part of a line looks otherwise, and how their units follow each other; of a picture behind how it is blurred and lit; of a clip
 * how it is framed in another shape. What was written before says none of it. Transitions give way to words now: those that were laid over words go on doing so.
 */
export const fromElevenToTwelve: RaiseStep = {
  content: (content) => (Array.isArray(content.slides) ? { ...content, slides: overWordsIn(content.slides) } : content),
  edit(edit, show) {
    switch (edit.kind) {
      case 'add-slides':
        return { ...edit, runs: entriesOf(edit.runs).map((run) => ({ ...run, slides: overWordsIn(run.slides) })) };
      case 'put-slides':
        return { ...edit, slides: overWordsIn(edit.slides) };
      case 'set-content':
        return { ...edit, content: fromElevenToTwelve.content(edit.content as Loose) };
      case 'set-transitions': {
        const slides = new Map(show.slides.map((slide) => [slide.id as unknown, slide]));
        const over = ({ slideId, transition }: Loose) =>
          (withTransitionOverWords({ layers: slides.get(slideId)?.layers, transition }) as Loose).transition;
        return {
          ...edit,
          transitions: entriesOf(edit.transitions).map((entry) => ({ ...entry, transition: over(entry) })),
        };
      }
      case 'together':
        return { ...edit, edits: entriesOf(edit.edits).map((inner) => fromElevenToTwelve.edit(inner, show)) };
      default:
        return edit;
    }
  },
};

const overWordsIn = (slides: unknown): unknown =>
  Array.isArray(slides) ? slides.map(withTransitionOverWords) : slides;

/** A slide, what a mount was laid over, and what it is without its plumage. */
function withTransitionOverWords(slide: unknown): unknown {
  if (!isLoose(slide)) return slide;
  const { mounted, bare } = slide;
  const under = isLoose(mounted) &&
    Array.isArray(mounted.before) && { ...mounted, before: overWordsIn(mounted.before) };
  const words = Array.isArray(slide.layers) && slide.layers.some(hasWords);
  return {
    ...slide,
    ...(under && { mounted: under }),
    ...(words && isOverTime(slide.transition) && { transition: { ...slide.transition, overWords: true } }),
    ...(words &&
      isLoose(bare) &&
      isOverTime(bare.transition) && { bare: { ...bare, transition: { ...bare.transition, overWords: true } } }),
  };
}

const isOverTime = (transition: unknown): transition is Loose => isLoose(transition) && transition.kind !== 'cut';

const hasWords = (layer: unknown): boolean =>
  isLoose(layer) && (layer.kind === 'words' || (Array.isArray(layer.layers) && layer.layers.some(hasWords)));
