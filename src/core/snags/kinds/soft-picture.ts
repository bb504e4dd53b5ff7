import { softestLayers } from '../../motion/softness';
import { NO_MOVES } from '../../motion/plan-moves';
import { heldWithin } from '../calmed-move';
import { called, allOf, slidesOf } from '../helpers';
import type { SnagKind } from '../snag';

/** Twice as large as its pixels allow, a picture is soft from the last row. */
const GRAVE = 2.5;

export const softPicture: SnagKind = {
  title: 'Soft pictures',
  advice: 'Swap in a larger file, or show it smaller, beside others.',
  place: 'arrange',
  *find(look) {
    const { show, facts, moves } = look.prepared;
    for (const place of slidesOf(look.prepared))
      for (const { layer, enlargement } of softestLayers(
        place.slide,
        show.frame,
        facts,
        moves.get(place.slide.id) ?? NO_MOVES,
        place.span,
      ))
        yield {
          grave: enlargement >= GRAVE,
          slideId: place.slide.id,
          ...allOf(place),
          layerId: layer.id,
          assetId: layer.assetId,
          of: layer.id,
          sentence: `${called(look, layer.assetId)} is enlarged ${enlargement.toFixed(1)} times and looks soft.`,
        };
  },
  fixes({ prepared }, { slideId, layerId }) {
    if (!slideId || !layerId) return [];
    const closer = heldWithin(prepared, slideId, layerId);
    return [
      ...(closer
        ? [{ name: 'Zoom less far', edit: { kind: 'set-move' as const, slideId, layerId, move: closer } }]
        : []),
      {
        name: 'Let it move by itself',
        edit: { kind: 'set-move', slideId, layerId, move: { kind: 'automatic' } },
      },
    ];
  },
};
