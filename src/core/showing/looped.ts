import { withHeldMove } from '../motion/held-move';
import { NO_MOVES } from '../motion/plan-moves';
import type { PreparedShow } from '../frame/plan-frame';
import { slideId } from '../show/ids';
import { withChanged } from '../show/pile';
import { DEFAULT_TRANSITION, type Show } from '../show/show';
import { transitionLengthMs } from '../timing/slide-span';

/** A show that can go on from its end at its beginning without a jump. */
export interface Looped {
  readonly show: Show;
  /** Played to here … */
  readonly untilMs: number;
  /** … it goes on from here: the very same frame. */
  readonly againMs: number;
}

/**
 * The show with its first slide once more at its end, coming in over the last as it does over others (dissolving, if it was cut or began the show without a
 * transition of its own). When it has come in, the picture is that of the first slide as long after its beginning, so that the showing can go on there.
 */
export function looped({ show, spans, moves, lengthMs }: PreparedShow): Looped | null {
  const [first] = show.slides;
  const last = show.slides.at(-1);
  if (!first || !last || first === last) return null;
  const again = {
    ...first,
    id: slideId('once-more'),
    transition: first.transition.kind === 'cut' ? DEFAULT_TRANSITION : first.transition,
    // Seen as long as the first is, its picture moves as that does.
    lengthMs: spans[0]!.leavesMs - spans[0]!.startMs,
    layers: withChanged(first.layers, moves.get(first.id) ?? NO_MOVES, withHeldMove),
    sounds: [],
  };
  const comesMs = transitionLengthMs(again, last);
  return { show: { ...show, slides: [...show.slides, again] }, untilMs: lengthMs + comesMs, againMs: comesMs };
}
