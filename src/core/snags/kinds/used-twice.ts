import type { AssetId } from '../../show/ids';
import { layersOfPictures } from '../pictures-of-slide';
import { allOf, called, slidesOf, type SlideLook } from '../helpers';
import type { SnagKind } from '../snag';

/** Slides with more are gatherings, which bring pictures back on purpose. */
const MOST_ON_A_SLIDE = 4;

export const usedTwice: SnagKind = {
  title: 'Pictures used twice',
  advice: 'Leave one of them out, or leave it as it is if it was meant.',
  place: 'arrange',
  *find(look) {
    const first = new Map<AssetId, SlideLook>();
    for (const place of slidesOf(look.prepared)) {
      const pictures = layersOfPictures(place.slide.layers);
      if (pictures.length > MOST_ON_A_SLIDE) continue;
      for (const { assetId, id } of pictures) {
        const before = first.get(assetId);
        if (!before) first.set(assetId, place);
        else
          yield {
            grave: false,
            slideId: place.slide.id,
            layerId: id,
            assetId,
            of: id,
            ...allOf(place),
            sentence: `${called(look, assetId)} is on slide ${before.index + 1} already.`,
          };
      }
    }
  },
  fixes({ prepared }, { slideId, layerId }) {
    const slide = prepared.show.slides.find((one) => one.id === slideId);
    if (!slide || !layerId) return [];
    const alone = layersOfPictures(slide.layers).length === 1;
    return [
      alone
        ? { name: 'Leave this one out', edit: { kind: 'remove-slides', slideIds: [slide.id] } }
        : { name: 'Take it off this slide', edit: { kind: 'remove-layers', slideId: slide.id, layerIds: [layerId] } },
    ];
  },
};
