import { orNull } from '../../schema/schema';
import type { Layer } from '../layer';
import { SHAPE_CORRECTION, SHAPE_NAME } from '../schemas/layer-schema';
import type { ShapeCorrection, ShapeName } from '../shape';
import { atLayers, changeLayers, done, placeOfLayer, refused, type LayerAddress } from './changing';
import type { EditRecord } from './edit-record';

interface Entry extends LayerAddress {
  readonly shape: ShapeName;
  /** Null takes it away: the layer is as it is in the show’s own shape. */
  readonly correction: ShapeCorrection | null;
}

/** How layers are framed and placed in another shape of the frame. */
export interface SetShape {
  readonly kind: 'set-shape';
  readonly corrections: readonly Entry[];
}

export const setShape: EditRecord<SetShape> = {
  kind: 'set-shape',
  parts: { corrections: atLayers<Entry>({ shape: SHAPE_NAME, correction: orNull(SHAPE_CORRECTION) }) },
  apply(show, edit) {
    // One layer may be corrected for several shapes in one step, and a step changes a layer once.
    let after = show;
    const back: Entry[] = [];
    for (const entry of edit.corrections) {
      const changed = changeLayers<Entry>(
        after,
        [entry],
        (layer, { shape, correction }) => withCorrection(layer, shape, correction),
        (layer, address) => ({
          ...address,
          shape: entry.shape,
          correction: layer.shapes?.[entry.shape] ?? null,
        }),
      );
      after = changed.show;
      back.unshift(...changed.before);
    }
    return back.length > 0 ? done(after, { kind: 'set-shape', corrections: back }) : refused('layer-not-found');
  },
  touched: (edit) => edit.corrections.map((entry) => placeOfLayer(entry, `shapes/${entry.shape}`)),
  sentence: (edit) =>
    `correct ${edit.corrections.length === 1 ? 'a layer' : `${edit.corrections.length} layers`} for another shape`,
};

function withCorrection(layer: Layer, shape: ShapeName, correction: ShapeCorrection | null): Layer {
  const { shapes, ...rest } = layer;
  const { [shape]: _before, ...others } = shapes ?? {};
  const next = correction ? { ...others, [shape]: correction } : others;
  return (Object.keys(next).length > 0 ? { ...rest, shapes: next } : rest) as Layer;
}
