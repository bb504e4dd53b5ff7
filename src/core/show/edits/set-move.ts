import { MOVE } from '../schemas/layer-schema';
import type { Move } from '../layer';
import { changeLayers, done, LAYER_ADDRESS, placeOfLayer, refused, slideOf, type LayerAddress } from './changing';
import type { EditRecord } from './edit-record';

export interface SetMove extends LayerAddress {
  readonly kind: 'set-move';
  readonly move: Move;
}

export const setMove: EditRecord<SetMove> = {
  kind: 'set-move',
  parts: { ...LAYER_ADDRESS, move: MOVE },
  apply(show, edit) {
    if (!slideOf(show, edit.slideId)) return refused('slide-not-found');
    const { show: after, before } = changeLayers<SetMove>(
      show,
      [edit],
      (layer, { move }) => (layer.kind === 'picture' ? { ...layer, move } : layer),
      (layer, address) => (layer.kind === 'picture' ? { ...address, kind: 'set-move', move: layer.move } : null),
    );
    return before[0] ? done(after, before[0]) : refused('layer-not-found');
  },
  touched: (edit) => [placeOfLayer(edit, 'move')],
  sentence: () => 'change the move',
};
