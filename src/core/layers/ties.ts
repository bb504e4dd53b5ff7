import type { LayerId } from '../show/ids';
import type { Layer } from '../show/layer';
import { faultOfLayers } from '../show/layer-faults';
import { withChanged } from '../show/pile';

/** What would be wrong with a pile in which a layer has another tether or mask, as a sentence with the layers’ names; null when nothing would be. */
export function faultOfTie(
  layers: readonly Layer[],
  id: LayerId,
  tie: Pick<Layer, 'tether'> | Pick<Layer, 'mask'>,
  nameOf: (id: LayerId) => string,
): string | null {
  const tied = withChanged(layers, new Map([[id, tie]]), (layer, more) => ({ ...layer, ...more }));
  const fault = faultOfLayers(tied);
  if (!fault) return null;
  const named = fault.replace(/[\w-]+/g, (word) => {
    const known = tied.length > 0 && isId(tied, word);
    return known ? `“${nameOf(word as LayerId)}”` : word;
  });
  return `${named[0]!.toUpperCase()}${named.slice(1)}.`;
}

function isId(layers: readonly Layer[], word: string): boolean {
  return layers.some((layer) => layer.id === word || (layer.kind === 'group' && isId(layer.layers, word)));
}
