import type { Layer, PictureLayer } from '../show/layer';
import type { PlannedMove } from './automatic-move';

/** A picture whose move is worked out, with that move said: whatever else changes, it goes on as it is seen now. Others come back as they are. */
export function withHeldMove<Of extends Layer>(layer: Of, planned: PlannedMove | undefined): Of | PictureLayer {
  if (layer.kind !== 'picture' || layer.move.kind === 'set' || !planned) return layer;
  return { ...layer, move: { kind: 'set', first: planned.first, last: planned.last, ...planned.pace } };
}
