import type { SlideId } from '../../core/show/ids';
import type { Show, Slide } from '../../core/show/show';

/** What became of a show, for a thread that has it as it was: everything but the slides that stayed as they were, which are only named. */
export interface ShowChange {
  readonly rest: Omit<Show, 'slides'>;
  readonly order: readonly SlideId[];
  /** Slides that are new or not what they were. */
  readonly slides: readonly Slide[];
}

/** Slides are compared by identity, which edits keep where they change nothing. */
export function changeOf(before: Show, after: Show): ShowChange {
  const known = new Set(before.slides);
  const { slides, ...rest } = after;
  return { rest, order: slides.map((slide) => slide.id), slides: slides.filter((slide) => !known.has(slide)) };
}

/** @throws {RangeError} when a slide is named that neither the show nor the change has */
export function withChange(before: Show, { rest, order, slides }: ShowChange): Show {
  const byId = new Map([...before.slides, ...slides].map((slide) => [slide.id, slide]));
  return {
    ...rest,
    slides: order.map((id) => {
      const slide = byId.get(id);
      if (!slide) throw new RangeError(`a change must hold every slide that is new, got none for ${id}`);
      return slide;
    }),
  };
}
