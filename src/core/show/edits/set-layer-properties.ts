import { object, orNull, type PartsOf, type Schema } from '../../schema/schema';
import type { Layer, LayerParts } from '../layer';
import { LAYER_PROPERTIES } from '../schemas/layer-schema';
import { changeLayers, done, LAYER_ADDRESS, placeOfLayer, refused, type LayerAddress } from './changing';
import type { EditRecord } from './edit-record';

type Named = Omit<LayerParts, 'id' | 'channels' | 'edge' | 'shapes' | 'chosen'>;

/** What is not named stays; null takes it away. */
export type LayerProperties = { readonly [Name in keyof Named]?: Named[Name] | null };

/** A layer's name, whether it is hidden or locked, how it blends, what it masks and what it follows. */
export interface SetLayerProperties extends LayerAddress {
  readonly kind: 'set-layer-properties';
  readonly properties: LayerProperties;
}

const PROPERTIES = Object.fromEntries(
  Object.entries(LAYER_PROPERTIES).map(([name, schema]): [string, Schema] => [
    name,
    schema.is === 'maybe' ? { is: 'maybe', of: orNull(schema.of) } : schema,
  ]),
) as unknown as PartsOf<LayerProperties>;

export const setLayerProperties: EditRecord<SetLayerProperties> = {
  kind: 'set-layer-properties',
  parts: { ...LAYER_ADDRESS, properties: object<LayerProperties>(PROPERTIES) },
  apply(show, edit) {
    const names = Object.keys(edit.properties) as (keyof LayerProperties)[];
    const { show: after, before } = changeLayers<SetLayerProperties>(
      show,
      [edit],
      (layer, { properties }) => withProperties(layer, properties),
      (layer, address) => ({
        ...address,
        kind: 'set-layer-properties',
        properties: Object.fromEntries(names.map((name) => [name, layer[name] ?? null])),
      }),
    );
    return before[0] ? done(after, before[0]) : refused('layer-not-found');
  },
  touched: (edit) => Object.keys(edit.properties).map((name) => placeOfLayer(edit, name)),
  sentence({ properties }) {
    if ('name' in properties) return 'name a layer';
    if ('hidden' in properties) return properties.hidden ? 'hide a layer' : 'show a layer';
    if ('locked' in properties) return properties.locked ? 'lock a layer' : 'unlock a layer';
    if ('mask' in properties) return 'change a mask';
    return 'tether' in properties ? 'change a tether' : 'change a layer';
  },
};

function withProperties(layer: Layer, properties: LayerProperties): Layer {
  const changed: Record<string, unknown> = { ...layer };
  for (const [name, value] of Object.entries(properties)) {
    if (value === null || value === undefined) delete changed[name];
    else changed[name] = value;
  }
  return changed as unknown as Layer;
}
