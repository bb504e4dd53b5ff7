import type { PictureLayer, ClipLayer } from '../../core/show/layer';
import { mainLayerOf, type Slide } from '../../core/show/show';
import { useShow } from '../show/show-provider';

/** The main pictures of all chosen slides when this slide is one of them, else its own: what a change on the bench applies to. */
export function useChosenLayers(slide: Slide): readonly (PictureLayer | ClipLayer)[] {
  const selection = useShow((state) => state.selection);
  const slides = useShow((state) => state.show.slides);
  const chosen = selection.has(slide.id) && selection.size > 1 ? slides.filter((other) => selection.has(other.id)) : [slide];
  return chosen.flatMap((other) => mainLayerOf(other) ?? []);
}
