import { ID } from '../../schema/schema';
import type { SlideId } from '../ids';
import type { Layer } from '../layer';
import { LAYERS } from '../schemas/layer-schema';
import { done, placeOfSlide, putSlide, refused, slideOf } from './changing';
import type { EditRecord } from './edit-record';

/** Everything on a slide at once: for what lays a slide out anew. Single layers have edits of their own, which do not meet each other. */
export interface SetLayers {
  readonly kind: 'set-layers';
  readonly slideId: SlideId;
  readonly layers: readonly Layer[];
}

export const setLayers: EditRecord<SetLayers> = {
  kind: 'set-layers',
  parts: { slideId: ID, layers: LAYERS },
  apply(show, edit) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    return done(putSlide(show, { ...slide, layers: edit.layers }), { ...edit, layers: slide.layers });
  },
  touched: (edit) => [placeOfSlide(edit.slideId, 'layers/')],
  sentence: () => 'change the layers',
};
