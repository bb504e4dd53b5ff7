import { ID } from '../../schema/schema';
import type { ShowEdit } from '../edit';
import type { LayerId, SlideId } from '../ids';
import { everyLayer, type Layer } from '../layer';
import { layersTakenOut, mapped } from '../pile';
import { counted, done, many, placeOfLayer, putSlide, refused, slideOf } from './changing';
import type { EditRecord } from './edit-record';
import type { LayerProperties } from './set-layer-properties';

/** Removes layers. What followed them stands free, and what cut them cuts them no longer; both come back with them. */
export interface RemoveLayers {
  readonly kind: 'remove-layers';
  readonly slideId: SlideId;
  readonly layerIds: readonly LayerId[];
}

export const removeLayers: EditRecord<RemoveLayers> = {
  kind: 'remove-layers',
  parts: { slideId: ID, layerIds: many(ID) },
  apply(show, edit) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    const taken = layersTakenOut(slide.layers, new Set(edit.layerIds));
    if (!taken) return refused('layer-not-found');
    const gone = new Set(taken.runs.flatMap((run) => [...everyLayer(run.layers)].map((layer) => layer.id)));
    const freed: ShowEdit[] = [];
    const layers = mapped(taken.rest, (layer) => {
      const free = withoutNamesOf(layer, gone);
      if (free === layer) return layer;
      const properties: LayerProperties = {
        ...(free.tether !== layer.tether && { tether: layer.tether! }),
        ...(free.mask !== layer.mask && { mask: layer.mask! }),
      };
      freed.push({ kind: 'set-layer-properties', slideId: slide.id, layerId: layer.id, properties });
      return free;
    });
    const back: ShowEdit = { kind: 'add-layers', slideId: slide.id, runs: taken.runs };
    return done(
      putSlide(show, { ...slide, layers }),
      freed.length === 0 ? back : { kind: 'together', name: removeLayers.sentence(edit), edits: [back, ...freed] },
    );
  },
  touched: (edit) => edit.layerIds.map((layerId) => placeOfLayer({ slideId: edit.slideId, layerId })),
  sentence: (edit) => `remove ${counted(edit.layerIds.length, 'layer')}`,
};

function withoutNamesOf(layer: Layer, gone: ReadonlySet<LayerId>): Layer {
  let free = layer;
  if (free.tether && gone.has(free.tether.to)) {
    const { tether: _gone, ...rest } = free;
    free = rest;
  }
  const { mask } = free;
  if (mask && mask.cuts !== 'below' && mask.cuts.some((id) => gone.has(id)))
    free = { ...free, mask: { ...mask, cuts: mask.cuts.filter((id) => !gone.has(id)) } };
  return free;
}
