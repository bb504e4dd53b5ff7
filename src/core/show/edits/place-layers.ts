import { ID, object, orNull } from '../../schema/schema';
import type { LayerId, SlideId } from '../ids';
import { layerIn, layersPutIn, layersTakenOut, type PlacedLayers } from '../pile';
import { counted, done, many, placeOfLayer, putSlide, refused, slideOf } from './changing';
import type { EditRecord } from './edit-record';

interface Run {
  readonly into: LayerId | null;
  readonly aboveId: LayerId | null;
  readonly layerIds: readonly LayerId[];
}

/** Layers to another place in the pile, into a group or out of one. */
export interface PlaceLayers {
  readonly kind: 'place-layers';
  readonly slideId: SlideId;
  readonly runs: readonly Run[];
}

export const placeLayers: EditRecord<PlaceLayers> = {
  kind: 'place-layers',
  parts: { slideId: ID, runs: many(object<Run>({ into: orNull(ID), aboveId: orNull(ID), layerIds: many(ID) })) },
  apply(show, edit) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    const named = edit.runs.flatMap((run) => run.layerIds);
    // As for slides: nowhere twice, not even on the way.
    if (new Set(named).size < named.length) return refused('layer-already-there');
    const taken = layersTakenOut(slide.layers, new Set(named));
    if (!taken) return refused('layer-not-found');
    const tops = taken.runs.flatMap((run) => run.layers);
    const placed: PlacedLayers[] = edit.runs.map(({ into, aboveId, layerIds }) => ({
      into,
      aboveId,
      layers: layerIds.flatMap((id) => tops.find((layer) => layer.id === id) ?? []),
    }));
    const layers = layersPutIn(taken.rest, placed);
    const back = taken.runs.map((run) => ({
      into: run.into,
      aboveId: run.aboveId,
      layerIds: run.layers.map((layer) => layer.id),
    }));
    if (tops.some((layer) => !layerIn(layers, layer.id))) return refused('layer-not-found');
    return done(putSlide(show, { ...slide, layers }), { kind: 'place-layers', slideId: slide.id, runs: back });
  },
  touched: (edit) =>
    edit.runs.flatMap((run) =>
      run.layerIds.map((layerId) => placeOfLayer({ slideId: edit.slideId, layerId }, 'place')),
    ),
  sentence: (edit) =>
    `move ${counted(
      edit.runs.reduce((sum, run) => sum + run.layerIds.length, 0),
      'layer',
    )}`,
};
