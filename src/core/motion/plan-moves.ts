import { unreachable } from '../unreachable';
import type { FactsById } from '../show/asset-facts';
import type { LayerId } from '../show/ids';
import type { FrameShape, Show } from '../show/show';
import { valueAt } from '../keys/channel';
import { everyLayer, type ClipLayer, type Move, type PictureLayer } from '../show/layer';
import type { SlideSpan } from '../timing/slide-span';
import { factsInUse } from './crop';
import { automaticMove, LARGEST_ENLARGEMENT, standingFraming, type MoveName, type MoveSubject, type PlannedMove } from './automatic-move';

/** Clips are seen moving and are forgiven more softness than a print. */
const CLIP_ENLARGEMENT = 3;

/** The move of every picture and clip in the show, by layer. Layers whose facts are unknown have none. */
export function planMoves(show: Show, facts: FactsById, spans: readonly SlideSpan[]): ReadonlyMap<LayerId, PlannedMove> {
  const moves = new Map<LayerId, PlannedMove>();
  let before: MoveName | null = null;
  show.slides.forEach((slide, index) => {
    const span = spans[index]!;
    for (const layer of everyLayer(slide.layers)) {
      if (layer.kind !== 'picture' && layer.kind !== 'clip') continue;
      const known = factsInUse(layer, facts.get(layer.assetId));
      if (!known || known.kind === 'sound') continue;
      const window = pictureWindow(layer, known, show.frame, span.leavesMs - span.startMs);
      const move = layer.kind === 'clip' ? still(known, CLIP_ENLARGEMENT, window) : planned(layer.move, known, span, layer.id, window);
      moves.set(layer.id, move);
      before = move.name;
    }
  });
  return moves;

  function planned(move: Move, size: MoveSubject, span: SlideSpan, id: LayerId, window: PictureWindow): PlannedMove {
    switch (move.kind) {
      case 'automatic': return automaticMove(size, window.shape, span.leavesMs - span.startMs, id, before, window.mustFill);
      case 'still': return still(size, LARGEST_ENLARGEMENT, window);
      case 'set': return { name: 'still', first: move.first, last: move.last };
      default: return unreachable(move);
    }
  }

  function still(size: MoveSubject, mostEnlargement: number, window: PictureWindow): PlannedMove {
    const framing = standingFraming(size, window.shape, mostEnlargement, window.mustFill);
    return { name: 'still', first: framing, last: framing };
  }
}

/** The box a picture is seen through. One that was given both its sides is filled, whatever that cuts away. */
export interface PictureWindow {
  readonly shape: FrameShape;
  readonly mustFill: boolean;
}

/** As it stands at the slide's start, in the frame's pixels. */
export function pictureWindow(layer: PictureLayer | ClipLayer, picture: MoveSubject, frame: FrameShape, seenMs: number): PictureWindow {
  const { width, height } = layer.channels ?? {};
  const widthPx = width === undefined ? null : valueAt(width, 0, seenMs) * frame.widthPx;
  const heightPx = height === undefined ? null : valueAt(height, 0, seenMs) * frame.heightPx;
  const aspect = picture.widthPx / picture.heightPx;
  if (widthPx === null && heightPx === null) return { shape: frame, mustFill: false };
  return { shape: { ...frame, widthPx: Math.max(1, widthPx ?? heightPx! * aspect), heightPx: Math.max(1, heightPx ?? widthPx! / aspect) }, mustFill: true };
}
