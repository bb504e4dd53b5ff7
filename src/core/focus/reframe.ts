import type { Framing } from '../motion/framing';
import { bottom, centre, right, shareWithin, type Box } from './box';
import { cutCount } from './focus-of';
import type { Focus } from './focus-facts';

/** Heads are nearer the upper edge than feet to the lower: the middle of what matters stands so much of the framing above its centre. */
const ABOVE_CENTRE = 0.06;
/** Air over a head, as a share of the framing. */
const HEADROOM = 0.03;
/** Where a picture of which nothing is known stands: a little above its middle. */
const USUAL = { x: 0.5, y: 0.44 };

export type Size = Pick<Framing, 'width' | 'height'>;

/** An upright framing as a box; it may reach beyond the picture. */
export function windowOf({ x, y, width, height }: Framing): Box {
  return { left: x - width / 2, top: y - height / 2, width, height };
}

/** Where the centre of a framing may lie along one axis. */
export interface Room {
  readonly least: number;
  readonly most: number;
}

/** So that the framing lies on the picture. */
export function roomOnPicture(size: number): Room {
  return size >= 1 ? { least: 0.5, most: 0.5 } : { least: size / 2, most: 1 - size / 2 };
}

/** So that it also holds every face, and what the picture is about if that is possible; null when faces cannot be held. */
export function roomFor(focus: Focus | null, size: Size): { readonly across: Room; readonly down: Room } | null {
  if (!focus) return roomHolding([], size);
  return roomHolding([...focus.whole, focus.about], size) ?? roomHolding(focus.whole, size);
}

function roomHolding(boxes: readonly Box[], size: Size): { readonly across: Room; readonly down: Room } | null {
  const across = roomAlong(boxes, size.width, (box) => box.left, right);
  const down = roomAlong(boxes, size.height, (box) => box.top, bottom);
  return across && down ? { across, down } : null;
}

function roomAlong(
  boxes: readonly Box[],
  size: number,
  from: (box: Box) => number,
  to: (box: Box) => number,
): Room | null {
  const room = roomOnPicture(size);
  const least = Math.max(room.least, ...boxes.map((box) => to(box) - size / 2));
  const most = Math.min(room.most, ...boxes.map((box) => from(box) + size / 2));
  const slack = 1e-9;
  return least <= most + slack ? { least: Math.min(least, most), most } : null;
}

export const within = ({ least, most }: Room, value: number) => Math.min(most, Math.max(least, value));

/**
 * A framing of a size on a picture, standing for what the picture is about and cutting no face.
 *
 * @returns null when a face would be cut wherever it stood
 */
export function framed(size: Size, focus: Focus | null): Framing | null {
  // What a person says it is about is seen, even if a face then is not – cut it is not.
  if (focus?.from === 'person' && !roomHolding([...focus.whole, focus.about], size)) {
    const said = leastCut(size, focus, true);
    if (said) return said;
  }
  const room = roomFor(focus, size);
  if (room) return { ...at(size, focus, room), width: size.width, height: size.height, turnDegrees: 0 };
  // Not all faces fit. Whole or not at all is allowed, too, as long as what the picture is about is seen.
  return focus && leastCut(size, focus, true);
}

/** The same for a window that must be filled: where no face is cut, or else the fewest and the least of what matters is lost. */
export function framedAnyway(size: Size, focus: Focus | null): Framing {
  return framed(size, focus) ?? leastCut(size, focus!, false)!;
}

function at(
  size: Size,
  focus: Focus | null,
  room: { readonly across: Room; readonly down: Room },
): { x: number; y: number } {
  const wanted = focus ? centre(focus.about) : USUAL;
  // People and animals that are taller than the framing are seen from their heads downwards.
  const y =
    focus?.from === 'subjects' && focus.about.height > size.height
      ? focus.about.top + (0.5 - HEADROOM) * size.height
      : wanted.y + (focus ? ABOVE_CENTRE * size.height : 0);
  return { x: within(room.across, wanted.x), y: within(room.down, y) };
}

/** Places tried along each axis. */
const TRIED = 24;

function leastCut(size: Size, focus: Focus, uncut: boolean): Framing | null {
  const [across, down] = [roomOnPicture(size.width), roomOnPicture(size.height)];
  const wanted = centre(focus.about);
  let best: { framing: Framing; cost: number } | null = null;
  for (let row = 0; row <= TRIED; row += 1)
    for (let column = 0; column <= TRIED; column += 1) {
      const x = across.least + ((across.most - across.least) * column) / TRIED;
      const y = down.least + ((down.most - down.least) * row) / TRIED;
      const framing = { x, y, width: size.width, height: size.height, turnDegrees: 0 };
      const window = windowOf(framing);
      const cut = cutCount(focus.whole, window);
      const seen = shareWithin(focus.about, window);
      const left = focus.whole.filter((box) => shareWithin(box, window) < 0.5).length;
      if (uncut && (cut > 0 || seen < 0.98)) continue;
      const cost = 10 * cut + 6 * (1 - seen) + 3 * left + Math.hypot(x - wanted.x, y - wanted.y);
      if (!best || cost < best.cost) best = { framing, cost };
    }
  return best && best.framing;
}
