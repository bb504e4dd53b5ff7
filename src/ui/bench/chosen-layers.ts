import type { PictureLayer, ClipLayer } from '../../core/show/layer';
import { picturesOf } from '../../core/show/layout';
import type { Slide } from '../../core/show/show';
import { useShow } from '../show/show-provider';

/** What a change on the bench applies to: the slide worked on, or all that are chosen when it is one of them. */
export function useChosenSlides(slide: Slide): readonly Slide[] {
  const selection = useShow((state) => state.selection);
  const slides = useShow((state) => state.show.slides);
  return selection.has(slide.id) && selection.size > 1 ? slides.filter((other) => selection.has(other.id)) : [slide];
}

/** Every picture of the chosen slides when there are several, else the one that is worked on. */
export function useChosenLayers(slide: Slide, layer: PictureLayer | ClipLayer): readonly (PictureLayer | ClipLayer)[] {
  const slides = useChosenSlides(slide);
  return slides.length > 1 ? slides.flatMap(picturesOf) : [layer];
}
