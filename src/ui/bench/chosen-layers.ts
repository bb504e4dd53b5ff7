import type { SlideId } from '../../core/show/ids';
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

/** A layer and the slide it lies on: together they name it. */
export interface LayerOnSlide<OfLayer = PictureLayer | ClipLayer> {
  readonly slideId: SlideId;
  readonly layer: OfLayer;
}

/** Every picture of the chosen slides when there are several, else the one that is worked on. */
export function useChosenLayers(slide: Slide, layer: PictureLayer | ClipLayer): readonly LayerOnSlide[] {
  return layersOf(useChosenSlides(slide), slide, layer);
}

/** Every picture of the slides when there are several, else the one that is worked on. */
export function layersOf(slides: readonly Slide[], slide: Slide, layer: PictureLayer | ClipLayer): LayerOnSlide[] {
  if (slides.length === 1) return [{ slideId: slide.id, layer }];
  return slides.flatMap((other) => picturesOf(other).map((found) => ({ slideId: other.id, layer: found })));
}
