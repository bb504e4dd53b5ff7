import { withHeldMove } from '../motion/held-move';
import { NO_MOVES } from '../motion/plan-moves';
import { withChanged } from '../show/pile';
import type { Show } from '../show/show';
import { filledSlide } from '../words/fields';
import type { PreparedShow } from './plan-frame';

/**
 * A slide by itself as a show of its own: what is seen of it from its first moment to its last, without what comes before and after. Its pictures move as they do
 * in the show. Without sound.
 */
export function aloneShow({ show, facts, spans, moves }: PreparedShow, index: number): Show {
  const slide = filledSlide(show, facts, index);
  const { startMs, leavesMs } = spans[index]!;
  const planned = moves.get(slide.id) ?? NO_MOVES;
  const layers = withChanged(slide.layers, planned, withHeldMove);
  const { captionLook: _captions, ...rest } = show;
  return {
    ...rest,
    cues: [],
    slides: [{ ...slide, lengthMs: leavesMs - startMs, transition: { kind: 'cut' }, layers, sounds: [] }],
  };
}
