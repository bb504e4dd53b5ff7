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
  const fault = faultOfLayers(tied, (one) => `“${nameOf(one as LayerId)}”`);
  return fault && `${fault[0]!.toUpperCase()}${fault.slice(1)}.`;
}
