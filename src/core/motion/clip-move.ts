import type { Focus } from '../focus/focus-facts';
import { framedAnyway } from '../focus/reframe';
import type { SetMove } from '../show/layer';
import { fillFraming, fitFraming, scaled, type Framing } from './framing';

/** How a clip is framed, by a word; none stands for how it stands by itself. */
export const CLIP_FRAMINGS = ['fill', 'whole', 'closer', 'back', 'to-right', 'to-left'] as const;
export type ClipFraming = (typeof CLIP_FRAMINGS)[number];

/** So much closer at the end than at the beginning, or the other way round: a clip moves by itself, so the frame does so gently. */
const CLOSER = 1.25;

/**
 * The move that a word stands for.
 *
 * @param clipAspect of what its crop leaves @param boxAspect of the box it is shown in @param focus what it is about, which the frame holds or goes to
 */
export function clipMove(
  framing: ClipFraming,
  clipAspect: number,
  boxAspect: number,
  focus: Focus | null = null,
): SetMove {
  const about = (size: Framing) => (focus ? framedAnyway(size, focus) : size);
  const fill = about(fillFraming(clipAspect, boxAspect));
  const near = about(scaled(fillFraming(clipAspect, boxAspect), 1 / CLOSER));
  const move = (first: Framing, last: Framing): SetMove => ({ kind: 'set', first, last });
  const beside = (x: -1 | 1): Framing => ({ ...near, x: 0.5 + (x * (1 - near.width)) / 2 });
  switch (framing) {
    case 'fill':
      return move(fill, fill);
    case 'whole': {
      const fit = fitFraming(clipAspect, boxAspect);
      return move(fit, fit);
    }
    case 'closer':
      return move(fill, near);
    case 'back':
      return move(near, fill);
    case 'to-right':
      return move(beside(-1), beside(1));
    case 'to-left':
      return move(beside(1), beside(-1));
  }
}

/** The word for a move; null for one that was set otherwise. */
export function clipFramingOf(
  move: SetMove,
  clipAspect: number,
  boxAspect: number,
  focus: Focus | null = null,
): ClipFraming | null {
  const near = (one: Framing, other: Framing) =>
    Math.abs(one.x - other.x) + Math.abs(one.y - other.y) + Math.abs(one.width - other.width) < 1e-6 &&
    one.turnDegrees === other.turnDegrees;
  const found = CLIP_FRAMINGS.find((framing) => {
    // One that was chosen before it was known what the clip is about stays what it is called.
    return [focus, null].some((of) => {
      const known = clipMove(framing, clipAspect, boxAspect, of);
      return near(known.first, move.first) && near(known.last, move.last);
    });
  });
  return found ?? null;
}
