import { ID, object, orNull, type Schema } from '../../schema/schema';
import type { SlideId } from '../ids';
import { everyLayer } from '../layer';
import { layersPutIn, type PlacedLayers } from '../pile';
import { LAYERS } from '../schemas/layer-schema';
import { counted, done, many, placeOfLayer, putSlide, refused, slideOf } from './changing';
import type { EditRecord } from './edit-record';

export interface AddLayers {
  readonly kind: 'add-layers';
  readonly slideId: SlideId;
  readonly runs: readonly PlacedLayers[];
}

const PLACED: Schema = object<PlacedLayers>({ into: orNull(ID), aboveId: orNull(ID), layers: LAYERS });

export const addLayers: EditRecord<AddLayers> = {
  kind: 'add-layers',
  parts: { slideId: ID, runs: many(PLACED) },
  apply(show, edit) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    const present = new Set([...everyLayer(slide.layers)].map((layer) => layer.id));
    const added = edit.runs.flatMap((run) => run.layers);
    if (added.length === 0) return refused('layer-not-found');
    for (const layer of everyLayer(added)) {
      if (present.has(layer.id)) return refused('layer-already-there');
      present.add(layer.id);
    }
    return done(putSlide(show, { ...slide, layers: layersPutIn(slide.layers, edit.runs) }), {
      kind: 'remove-layers',
      slideId: slide.id,
      layerIds: added.map((layer) => layer.id),
    });
  },
  touched: (edit) =>
    edit.runs.flatMap((run) => run.layers.map(({ id }) => placeOfLayer({ slideId: edit.slideId, layerId: id }))),
  sentence: (edit) =>
    `add ${counted(
      edit.runs.reduce((sum, run) => sum + run.layers.length, 0),
      'layer',
    )}`,
};
