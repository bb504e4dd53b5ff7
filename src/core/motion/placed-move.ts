import type { FrameShape } from '../show/show';
import type { Move } from '../show/layer';
import type { MoveSubject, PlannedMove } from './automatic-move';
import { fillFraming, fitFraming, scaled, type Framing } from './framing';

export type Standing = 'fill' | 'whole';
/** Which side of the picture lies at the frame's same side. */
export type Side = 'centre' | 'left' | 'right' | 'top' | 'bottom';
export const SIDES: readonly Side[] = ['centre', 'left', 'right', 'top', 'bottom'];

/** Where a picture stands that fills the frame, or is shown whole in it, put to a side. */
export function standing(
  picture: MoveSubject,
  frame: Pick<FrameShape, 'widthPx' | 'heightPx'>,
  how: Standing,
  side: Side,
): Framing {
  const framing = (how === 'fill' ? fillFraming : fitFraming)(
    picture.widthPx / picture.heightPx,
    frame.widthPx / frame.heightPx,
  );
  switch (side) {
    case 'centre':
      return framing;
    case 'left':
      return { ...framing, x: framing.width / 2 };
    case 'right':
      return { ...framing, x: 1 - framing.width / 2 };
    case 'top':
      return { ...framing, y: framing.height / 2 };
    case 'bottom':
      return { ...framing, y: 1 - framing.height / 2 };
  }
}

/** The move as it was, about another standing: its wider framing is that standing, the closer one as much closer as before. */
export function placedMove(move: Pick<PlannedMove, 'first' | 'last' | 'pace'>, place: Framing): Move {
  const { middle: _middle, ...pace } = move.pace ?? {};
  const ratio = Math.min(1, Math.max(0.2, move.last.width / move.first.width));
  const away = Math.min(1, Math.max(0.2, move.first.width / move.last.width));
  return move.last.width <= move.first.width
    ? { kind: 'set', ...pace, first: place, last: scaled(place, ratio) }
    : { kind: 'set', ...pace, first: scaled(place, away), last: place };
}

/** How the wider framing of a move stands; null when by neither. */
export function standingOf(
  move: Pick<PlannedMove, 'first' | 'last'>,
  picture: MoveSubject,
  frame: Pick<FrameShape, 'widthPx' | 'heightPx'>,
): { readonly how: Standing; readonly side: Side } | null {
  const wider = move.last.width <= move.first.width ? move.first : move.last;
  const near = (a: number, b: number) => Math.abs(a - b) < 1e-3;
  for (const how of ['fill', 'whole'] as const) {
    for (const side of SIDES) {
      const place = standing(picture, frame, how, side);
      if (
        near(place.x, wider.x) &&
        near(place.y, wider.y) &&
        near(place.width, wider.width) &&
        near(place.height, wider.height) &&
        wider.turnDegrees === 0
      )
        return { how, side };
    }
  }
  return null;
}
