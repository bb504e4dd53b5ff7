import { bottom, right, shareWithin, type Box } from '../focus/box';
import { focusInUse } from '../focus/focus-in-use';
import { windowOf } from '../focus/reframe';
import type { PreparedShow } from '../frame/plan-frame';
import type { PlannedMove } from '../motion/automatic-move';
import type { AssetId, LayerId, SlideId } from '../show/ids';
import { everyLayer, type ClipLayer, type Layer, type PictureLayer } from '../show/layer';
import { shapeName } from '../show/shape';

/** A picture, or a clip, that loses something in another shape of the frame. */
export interface LostPicture {
  readonly slideId: SlideId;
  readonly slideIndex: number;
  readonly layerId: LayerId;
  readonly assetId: AssetId;
  /** How much of the picture is seen in the shape, and in the show’s own, 0…1. */
  readonly seen: number;
  readonly seenOwn: number;
  /** Something the picture is about is cut. */
  readonly cutsFocus: boolean;
  /** A person has corrected it for this shape. */
  readonly corrected: boolean;
}

/** Less than this more is lost in any picture whose frame changes; it would not be noticed. */
const LEAST_LOST = 0.22;
/** What a picture is about counts as cut when less of it is seen. */
const LEAST_OF_FOCUS = 0.92;

/**
 * The pictures that lose something when the show is seen in another shape, in the order of the slides.
 *
 * @param own the show in its own shape
 * @param shaped the same show in the other one
 */
export function lostInShape(own: PreparedShow, shaped: PreparedShow): LostPicture[] {
  const name = shapeName(shaped.show.frame);
  return own.show.slides.flatMap((slide, slideIndex) => {
    const moves = shaped.moves.get(slide.id);
    return [...everyLayer(slide.layers)].flatMap((layer): LostPicture[] => {
      const facts = isFramed(layer) ? own.facts.get(layer.assetId) : undefined;
      const [move, ownMove] = [moves?.get(layer.id), own.moves.get(slide.id)?.get(layer.id)];
      if (!isFramed(layer) || !facts || facts.kind === 'sound' || !move || !ownMove) return [];
      const [seen, seenOwn] = [seenOf(move), seenOf(ownMove)];
      const shapedLayer = layerIn(shaped, slideIndex, layer.id) ?? layer;
      const about = focusInUse(shapedLayer, facts, own.show.focus?.[layer.assetId])?.about;
      const cutsFocus = about !== undefined && shareWithin(about, unionOf(move)) < LEAST_OF_FOCUS;
      const corrected = layer.shapes?.[name] !== undefined;
      if (!corrected && !cutsFocus && seenOwn - seen < LEAST_LOST) return [];
      return [
        {
          slideId: slide.id,
          slideIndex,
          layerId: layer.id,
          assetId: layer.assetId,
          seen,
          seenOwn,
          cutsFocus,
          corrected,
        },
      ];
    });
  });
}

function layerIn({ show }: PreparedShow, slideIndex: number, id: LayerId): PictureLayer | ClipLayer | null {
  for (const layer of everyLayer(show.slides[slideIndex]!.layers)) if (layer.id === id && isFramed(layer)) return layer;
  return null;
}

const isFramed = (layer: Layer): layer is PictureLayer | ClipLayer => layer.kind === 'picture' || layer.kind === 'clip';

/** The part of the picture that is seen at one time or another of its move. */
function unionOf({ first, last }: PlannedMove): Box {
  const [a, b] = [windowOf(first), windowOf(last)];
  const left = Math.max(0, Math.min(a.left, b.left));
  const top = Math.max(0, Math.min(a.top, b.top));
  return {
    left,
    top,
    width: Math.min(1, Math.max(right(a), right(b))) - left,
    height: Math.min(1, Math.max(bottom(a), bottom(b))) - top,
  };
}

const seenOf = (move: PlannedMove) => {
  const { width, height } = unionOf(move);
  return Math.max(0, width) * Math.max(0, height);
};
