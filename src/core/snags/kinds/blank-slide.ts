import { seenLayers } from '../../show/layer';
import { allOf, slidesOf } from '../helpers';
import type { SnagKind } from '../snag';

export const blankSlide: SnagKind = {
  title: 'Slides with nothing on them',
  advice: 'Lay something on it, or leave it out.',
  place: 'arrange',
  *find({ prepared }) {
    for (const place of slidesOf(prepared)) {
      const { slide } = place;
      if (slide.backing.kind === 'picture' || slide.backing.kind === 'gradient') continue;
      const shows = [...seenLayers(slide.layers)].some(
        (layer) =>
          layer.kind !== 'group' &&
          (layer.kind !== 'words' || layer.title.trim() !== '' || layer.subtitle.trim() !== ''),
      );
      if (!shows)
        yield {
          grave: false,
          slideId: slide.id,
          ...allOf(place),
          sentence: `Slide ${place.index + 1} shows nothing but its backing.`,
        };
    }
  },
  fixes: (_look, { slideId }) =>
    slideId ? [{ name: 'Leave it out', edit: { kind: 'remove-slides', slideIds: [slideId] } }] : [],
};
