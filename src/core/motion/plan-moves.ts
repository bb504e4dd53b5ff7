import { unreachable } from '../unreachable';
import type { FactsById } from '../show/asset-facts';
import type { LayerId } from '../show/ids';
import type { Move, Show } from '../show/show';
import type { SlideSpan } from '../timing/slide-span';
import { automaticMove, LARGEST_ENLARGEMENT, standingFraming, type MoveName, type MoveSubject, type PlannedMove } from './automatic-move';

/** Clips are seen moving and are forgiven more softness than a print. */
const CLIP_ENLARGEMENT = 3;

/** The move of every picture and clip in the show, by layer. Layers whose facts are unknown have none. */
export function planMoves(show: Show, facts: FactsById, spans: readonly SlideSpan[]): ReadonlyMap<LayerId, PlannedMove> {
  const moves = new Map<LayerId, PlannedMove>();
  let before: MoveName | null = null;
  show.slides.forEach((slide, index) => {
    const span = spans[index]!;
    for (const layer of slide.layers) {
      if (layer.kind === 'words') continue;
      const known = facts.get(layer.assetId);
      if (!known || known.kind === 'sound') continue;
      const move = layer.kind === 'clip' ? still(known, CLIP_ENLARGEMENT) : planned(layer.move, known, span, layer.id);
      moves.set(layer.id, move);
      before = move.name;
    }
  });
  return moves;

  function planned(move: Move, size: MoveSubject, span: SlideSpan, id: LayerId): PlannedMove {
    switch (move.kind) {
      case 'automatic': return automaticMove(size, show.frame, span.leavesMs - span.startMs, id, before);
      case 'still': return still(size, LARGEST_ENLARGEMENT);
      case 'set': return { name: 'still', first: move.first, last: move.last };
      default: return unreachable(move);
    }
  }

  function still(size: MoveSubject, mostEnlargement: number): PlannedMove {
    const framing = standingFraming(size, show.frame, mostEnlargement);
    return { name: 'still', first: framing, last: framing };
  }
}
