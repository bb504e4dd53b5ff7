'use client';

import type { PreparedShow } from '../../core/frame/plan-frame';
import { levelBy, levelEdit } from '../../core/motion/level';
import { Button } from '../kit/button';
import { useShow } from '../show/show-provider';
import type { LayerOnSlide } from './chosen-layers';

interface LevelFieldsProps {
  readonly layers: readonly LayerOnSlide[];
  readonly prepared: PreparedShow;
}

/** Offers to hang pictures level whose long lines say that they hang askew. */
export function LevelFields({ layers, prepared }: LevelFieldsProps) {
  const edit = useShow((state) => state.edit);
  const found = layers.flatMap(({ layer }) => levelBy(layer, prepared.facts.get(layer.assetId)) ?? []);
  const change = levelEdit(layers, prepared.facts);
  if (!change) return null;
  return (
    <p className="flex flex-wrap items-center gap-2" data-part="level">
      <Button className="h-7" onClick={() => edit(change)}>
        {layers.length === 1 ? 'hang it level' : `hang ${found.length} of ${layers.length} level`}
      </Button>
      <span className="text-soft">
        {layers.length === 1
          ? `Its long lines lean by ${Math.abs(found[0]!).toFixed(1)}° ${found[0]! < 0 ? 'clockwise' : 'anticlockwise'}.`
          : 'Their long lines lean.'}
      </span>
    </p>
  );
}
