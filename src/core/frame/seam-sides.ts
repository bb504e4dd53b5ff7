import { mainLayerOf } from '../show/show';
import type { SlideId } from '../show/ids';
import type { SeamSide } from '../transitions/fitting-transition';
import type { PreparedShow } from './plan-frame';

/** What lies on both sides of the seam into a slide; null when it is the first, or not in the show. */
export function sidesOfSeam(
  { show, facts, moves }: PreparedShow,
  slideId: SlideId,
): { readonly leaving: SeamSide; readonly coming: SeamSide } | null {
  const index = show.slides.findIndex(({ id }) => id === slideId);
  const [before, slide] = [show.slides[index - 1], show.slides[index]];
  if (!before || !slide) return null;
  const side = (of: typeof slide): SeamSide => {
    const main = mainLayerOf(of);
    if (!main) return { slide: of, facts: undefined, move: undefined };
    return { slide: of, facts: facts.get(main.assetId), move: moves.get(of.id)?.get(main.id) };
  };
  return { leaving: side(before), coming: side(slide) };
}
