import { maybe, orNull } from '../../schema/schema';
import { CHOOSER, withChooser, type Chooser } from '../chosen';
import { isLit } from '../layer';
import type { Light } from '../light';
import { LIGHT } from '../schemas/light-schema';
import { atLayers, changeLayers, done, placeOfLayer, refused, type LayerAddress } from './changing';
import type { EditRecord } from './edit-record';

interface Entry extends LayerAddress {
  readonly light: Light | null;
  /** Who chose it: a hand when left out, and nobody when it is taken away. */
  readonly by?: Chooser | null;
}

export interface SetLight {
  readonly kind: 'set-light';
  readonly lights: readonly Entry[];
}

export const setLight: EditRecord<SetLight> = {
  kind: 'set-light',
  parts: { lights: atLayers<Entry>({ light: orNull(LIGHT), by: maybe(orNull(CHOOSER)) }) },
  apply(show, edit) {
    const { show: after, before } = changeLayers<Entry>(
      show,
      edit.lights,
      (layer, { light, by = light ? 'hand' : null }) => {
        if (!isLit(layer)) return layer;
        const { light: _before, ...rest } = layer;
        return withChooser(light ? { ...rest, light } : rest, 'light', by);
      },
      (layer, address) =>
        isLit(layer) ? { ...address, light: layer.light ?? null, by: layer.chosen?.light ?? null } : null,
    );
    return before.length > 0 ? done(after, { kind: 'set-light', lights: before }) : refused('layer-not-found');
  },
  touched: (edit) => edit.lights.map((entry) => placeOfLayer(entry, 'light')),
  sentence: (edit) =>
    edit.lights.length === 1 ? 'change the light' : `change the light of ${edit.lights.length} pictures`,
};
