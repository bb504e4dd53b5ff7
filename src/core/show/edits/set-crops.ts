import { orNull } from '../../schema/schema';
import type { Framing } from '../../motion/framing';
import { moveOf, withMove, type Move } from '../layer';
import { CROP, MOVE } from '../schemas/layer-schema';
import { atLayers, changeLayers, done, placeOfLayer, refused, type LayerAddress } from './changing';
import type { EditRecord } from './edit-record';

interface Entry extends LayerAddress {
  readonly crop: Framing | null;
  readonly move: Move;
}

/** What is used of pictures' files, and the moves as they are under it (see `moveUnderCrop`). */
export interface SetCrops {
  readonly kind: 'set-crops';
  readonly crops: readonly Entry[];
}

export const setCrops: EditRecord<SetCrops> = {
  kind: 'set-crops',
  parts: { crops: atLayers<Entry>({ crop: orNull(CROP), move: MOVE }) },
  apply(show, edit) {
    const { show: after, before } = changeLayers<Entry>(
      show,
      edit.crops,
      (layer, { crop, move }) => {
        if (layer.kind !== 'picture' && layer.kind !== 'clip') return layer;
        const { crop: _before, ...rest } = layer;
        return withMove(crop ? { ...rest, crop } : rest, move);
      },
      (layer, address) =>
        layer.kind === 'picture' || layer.kind === 'clip'
          ? { ...address, crop: layer.crop ?? null, move: moveOf(layer) }
          : null,
    );
    return before.length > 0 ? done(after, { kind: 'set-crops', crops: before }) : refused('layer-not-found');
  },
  touched: (edit) => edit.crops.flatMap((entry) => [placeOfLayer(entry, 'crop'), placeOfLayer(entry, 'move')]),
  sentence: (edit) => (edit.crops.length === 1 ? 'crop the picture' : `crop ${edit.crops.length} pictures`),
};
