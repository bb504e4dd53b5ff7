import { object, orNull, type PartsOf, type Schema } from '../../schema/schema';
import type { Channel } from '../../keys/channel';
import type { Channels, Layer } from '../layer';
import { layerIn } from '../pile';
import { CHANNELS } from '../schemas/layer-schema';
import { changeLayers, done, LAYER_ADDRESS, placeOfLayer, refused, slideOf, type LayerAddress } from './changing';
import type { EditRecord } from './edit-record';

/** What is not named stays; null gives a channel back to what the layer does without it. */
export type ChannelChanges = { readonly [Name in keyof Channels]?: Channel | null };

export interface SetChannels extends LayerAddress {
  readonly kind: 'set-channels';
  readonly channels: ChannelChanges;
}

const CHANGES = Object.fromEntries(
  Object.entries(CHANNELS).map(([name, schema]): [string, Schema] => [
    name,
    schema.is === 'maybe' ? { is: 'maybe', of: orNull(schema.of) } : schema,
  ]),
) as unknown as PartsOf<ChannelChanges>;

export const setChannels: EditRecord<SetChannels> = {
  kind: 'set-channels',
  parts: { ...LAYER_ADDRESS, channels: object<ChannelChanges>(CHANGES) },
  apply(show, edit) {
    const names = Object.keys(edit.channels) as (keyof Channels)[];
    const { show: after, before } = changeLayers<SetChannels>(
      show,
      [edit],
      (layer, { channels }) => withChannels(layer, channels),
      (layer, address) => ({
        ...address,
        kind: 'set-channels',
        channels: Object.fromEntries(names.map((name) => [name, layer.channels?.[name] ?? null])),
      }),
    );
    const [was] = before;
    if (!was) return refused('layer-not-found');
    // An empty object for channels cannot be told from none at all by its channels.
    const layer = layerIn(slideOf(show, edit.slideId)!.layers, edit.layerId)!;
    const bare = layer.channels && Object.keys(layer.channels).length === 0;
    return done(after, bare ? { kind: 'put-layer', slideId: edit.slideId, layer } : was);
  },
  touched: (edit) => Object.keys(edit.channels).map((name) => placeOfLayer(edit, `channels/${name}/`)),
  sentence: () => 'move a layer',
};

/** A layer without channels has no empty object for them, so that what is taken back is as it was. */
function withChannels(layer: Layer, changes: ChannelChanges): Layer {
  const channels: Record<string, Channel> = { ...(layer.channels as Record<string, Channel> | undefined) };
  for (const [name, value] of Object.entries(changes)) {
    if (value === null || value === undefined) delete channels[name];
    else channels[name] = value;
  }
  const { channels: _before, ...rest } = layer;
  return Object.keys(channels).length > 0 ? { ...layer, channels } : rest;
}
