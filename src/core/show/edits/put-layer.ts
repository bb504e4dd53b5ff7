import { ID } from '../../schema/schema';
import type { SlideId } from '../ids';
import type { Layer } from '../layer';
import { layerIn, withChanged } from '../pile';
import { LAYER } from '../schemas/layer-schema';
import { done, placeOfLayer, putSlide, refused, slideOf } from './changing';
import type { EditRecord } from './edit-record';

/** A whole layer in the place of the one with the same id. */
export interface PutLayer {
  readonly kind: 'put-layer';
  readonly slideId: SlideId;
  readonly layer: Layer;
}

export const putLayer: EditRecord<PutLayer> = {
  kind: 'put-layer',
  parts: { slideId: ID, layer: LAYER },
  apply(show, edit) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    const before = layerIn(slide.layers, edit.layer.id);
    if (!before) return refused('layer-not-found');
    const layers = withChanged(slide.layers, new Map([[before.id, edit.layer]]), (_before, after) => after);
    return done(putSlide(show, { ...slide, layers }), { ...edit, layer: before });
  },
  touched: (edit) => [placeOfLayer({ slideId: edit.slideId, layerId: edit.layer.id })],
  sentence: () => 'change a layer',
};
