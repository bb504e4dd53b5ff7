import type { CropSides } from '../motion/crop';
import type { FactsById } from '../show/asset-facts';
import type { SlideId } from '../show/ids';
import { everyLayer, type PictureLayer } from '../show/layer';
import type { Slide } from '../show/show';

export interface BarredPicture {
  readonly slideIndex: number;
  readonly slideId: SlideId;
  readonly layer: PictureLayer;
  readonly bars: CropSides;
}

/** Pictures of the show that have dark bars baked into their files and were not cropped yet. */
export function barredPictures(slides: readonly Slide[], facts: FactsById): BarredPicture[] {
  return slides.flatMap((slide, slideIndex) =>
    [...everyLayer(slide.layers)].flatMap((layer) => {
      if (layer.kind !== 'picture' || layer.crop) return [];
      const known = facts.get(layer.assetId);
      return known?.kind === 'picture' && known.bars
        ? [{ slideIndex, slideId: slide.id, layer, bars: known.bars }]
        : [];
    }),
  );
}
