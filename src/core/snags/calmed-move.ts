import { LARGEST_ENLARGEMENT } from '../motion/automatic-move';
import { factsInUse, heldInside, liesInside } from '../motion/crop';
import { scaled, type Framing } from '../motion/framing';
import { NO_MOVES, pictureWindow } from '../motion/plan-moves';
import type { PreparedShow } from '../frame/plan-frame';
import type { LayerId, SlideId } from '../show/ids';
import type { PictureLayer, SetMove } from '../show/layer';
import { layerIn } from '../show/pile';

interface PictureAt {
  readonly layer: PictureLayer;
  readonly size: { readonly widthPx: number; readonly heightPx: number };
  readonly window: { readonly widthPx: number; readonly heightPx: number };
  readonly mustFill: boolean;
}

/** A picture layer with the size of what its crop leaves and of the window it is seen through. */
export function pictureAt({ show, facts, spans }: PreparedShow, slideId: SlideId, layerId: LayerId): PictureAt | null {
  const index = show.slides.findIndex((slide) => slide.id === slideId);
  const layer = index < 0 ? null : layerIn(show.slides[index]!.layers, layerId);
  const size = layer?.kind === 'picture' ? factsInUse(layer, facts.get(layer.assetId)) : null;
  if (layer?.kind !== 'picture' || size?.kind !== 'picture') return null;
  const { leavesMs, startMs } = spans[index]!;
  const { shape, mustFill } = pictureWindow(layer, size, show.frame, leavesMs - startMs);
  return { layer, size, window: shape, mustFill };
}

/** The move a picture makes, said, with each of its framings changed. */
function withFramings(
  prepared: PreparedShow,
  slideId: SlideId,
  layerId: LayerId,
  change: (framing: Framing) => Framing,
): SetMove | null {
  const move = (prepared.moves.get(slideId) ?? NO_MOVES).get(layerId);
  if (!move) return null;
  const { middle, ...pace } = move.pace ?? {};
  return {
    kind: 'set',
    first: change(move.first),
    last: change(move.last),
    ...pace,
    ...(middle && { middle: { ...middle, framing: change(middle.framing) } }),
  };
}

/** A picture's move, its framings opened until none is enlarged beyond what looks sharp and moved so that they lie on the picture where they did; null when it has none. */
export function heldWithin(prepared: PreparedShow, slideId: SlideId, layerId: LayerId): SetMove | null {
  const at = pictureAt(prepared, slideId, layerId);
  if (!at) return null;
  const least = at.window.widthPx / (LARGEST_ENLARGEMENT * at.size.widthPx);
  return withFramings(prepared, slideId, layerId, (framing) => {
    const opened = framing.width < least ? scaled(framing, least / framing.width) : framing;
    return opened.width <= 1 && opened.height <= 1 && liesInside(framing, at.size)
      ? heldInside(opened, at.size)
      : opened;
  });
}

/** A picture's move with every framing moved, and made smaller where it must be, so that it lies on the picture. */
export function keptOnPicture(prepared: PreparedShow, slideId: SlideId, layerId: LayerId): SetMove | null {
  const at = pictureAt(prepared, slideId, layerId);
  return at && withFramings(prepared, slideId, layerId, (framing) => heldInside(framing, at.size));
}
