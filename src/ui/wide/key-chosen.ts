import type { ColumnKey } from '../../core/layers/column-keys';
import type { Column } from '../../core/layers/columns';
import type { Layer } from '../../core/show/layer';
import type { ChosenKey } from './wide-store';

/** The key that is meant by a column and a moment. */
export function keyChosen(
  keys: readonly ColumnKey[],
  chosen: ChosenKey | null,
  layer: Layer,
  column: Column,
): ColumnKey | null {
  if (!chosen || chosen.layerId !== layer.id || chosen.columnId !== column.id) return null;
  return keys.reduce<ColumnKey | null>(
    (best, key) =>
      Math.abs(key.ms - chosen.ms) < 20 && (!best || Math.abs(key.ms - chosen.ms) < Math.abs(best.ms - chosen.ms))
        ? key
        : best,
    null,
  );
}
