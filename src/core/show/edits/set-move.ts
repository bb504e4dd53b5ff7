import { maybe, orNull } from '../../schema/schema';
import { CHOOSER, withChooser, type Chooser } from '../chosen';
import { MOVE } from '../schemas/layer-schema';
import { moveOf, withMove, type Move } from '../layer';
import { layerIn } from '../pile';
import { changeLayers, done, LAYER_ADDRESS, placeOfLayer, refused, slideOf, type LayerAddress } from './changing';
import type { EditRecord } from './edit-record';

export interface SetMove extends LayerAddress {
  readonly kind: 'set-move';
  readonly move: Move;
  /** Who chose it: a hand when left out, and nobody when it is automatic. */
  readonly by?: Chooser | null;
}

export const setMove: EditRecord<SetMove> = {
  kind: 'set-move',
  parts: { ...LAYER_ADDRESS, move: MOVE, by: maybe(orNull(CHOOSER)) },
  apply(show, edit) {
    const slide = slideOf(show, edit.slideId);
    if (!slide) return refused('slide-not-found');
    if (edit.move.kind === 'automatic' && layerIn(slide.layers, edit.layerId)?.kind === 'clip')
      return refused('clip-has-no-automatic-move');
    const { show: after, before } = changeLayers<SetMove>(
      show,
      [edit],
      (layer, { move, by = move.kind === 'automatic' ? null : 'hand' }) =>
        layer.kind === 'picture' || layer.kind === 'clip' ? withChooser(withMove(layer, move), 'move', by) : layer,
      (layer, address) =>
        layer.kind === 'picture' || layer.kind === 'clip'
          ? { ...address, kind: 'set-move', move: moveOf(layer), by: layer.chosen?.move ?? null }
          : null,
    );
    return before[0] ? done(after, before[0]) : refused('layer-not-found');
  },
  touched: (edit) => [placeOfLayer(edit, 'move')],
  sentence: () => 'change the move',
};
