import { isMoving } from '../../core/keys/edit-keys';
import { channelAt, channelsOf } from '../../core/layers/channel-paths';
import type { LayerId } from '../../core/show/ids';
import type { Layer, Tether } from '../../core/show/layer';

/** What is remarkable about a layer, in a few words: what it cuts, what it follows, whether it moves. */
export function layerSays(layer: Layer, nameOf: (id: LayerId) => string): string {
  const said: string[] = [];
  if (layer.mask) {
    const { cuts } = layer.mask;
    said.push(
      cuts === 'below'
        ? 'cuts what lies below'
        : cuts.length === 0
          ? 'cuts nothing yet'
          : `cuts ${cuts.map((id) => `“${nameOf(id)}”`).join(', ')}`,
    );
  }
  if (layer.tether) said.push(`follows “${nameOf(layer.tether.to)}”: ${followed(layer.tether)}`);
  if (layer.kind === 'group') said.push(`${layer.layers.length} in it${layer.space ? ', in space' : ''}`);
  const moving = channelsOf(layer).filter(({ path }) => isMoving(channelAt(layer, path))).length;
  if (moving > 0) said.push('has keys');
  return said.join(' · ');
}

function followed({ position, along, size, turn, tilt, opacity }: Tether): string {
  const parts = [
    position && (along === 'x' ? 'left and right' : along === 'y' ? 'up and down' : 'place'),
    size && 'size',
    turn && 'turn',
    tilt && 'tilt',
    opacity && 'opacity',
  ].filter((part) => typeof part === 'string');
  return parts.length > 0 ? parts.join(', ') : 'nothing';
}
