import type { FrameShape } from '../show/show';
import { fillFraming, fitFraming, scaled, type Framing } from './framing';
import { seedOf } from './seed';

/** A picture is never shown larger than this many film pixels for each of its own. */
export const LARGEST_ENLARGEMENT = 1.5;

export type MoveName = 'closer' | 'away' | 'left' | 'right' | 'up' | 'down' | 'still';

export interface PlannedMove {
  readonly name: MoveName;
  readonly first: Framing;
  readonly last: Framing;
}

export interface MoveSubject {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** Share of the picture that filling the frame may cut away before the picture is rather shown whole on its backing. */
const MOST_CUT_BY_FILLING = 0.3;
/** A picture so much longer than it is wide, or higher, is not shown whole but travelled along. */
const PANORAMA_ASPECT = 2.2;
/** Shares of the framing a second, by eye: slow enough to look at what passes. */
const TRAVEL_PER_SECOND = 0.11;
/** What is seen at once is so much of its length at most; otherwise there is nothing to travel. */
const MOST_SEEN_OF_LENGTH = 0.85;
/** Zoom a second and its bounds, chosen by eye: alive at 3 s, never hasty at 12 s. */
const ZOOM_PER_SECOND = 0.024;
const LEAST_ZOOM = 0.06;
const MOST_ZOOM = 0.22;
/** Heads are nearer the upper edge than feet to the lower. */
const ANCHOR_Y = 0.44;

/**
 * The move a picture makes when nobody set one: slow, inside the picture when it fills the frame, whole on its backing when it does not,
 * and never enlarged past `LARGEST_ENLARGEMENT`.
 *
 * @param seed any text; the same text gives the same move
 * @param unlike the neighbour's move, which this one will not repeat
 * @param mustFill the frame is a window that shows no backing
 */
export function automaticMove(
  picture: MoveSubject,
  frame: FrameShape,
  lengthMs: number,
  seed: string,
  unlike: MoveName | null,
  mustFill = false,
): PlannedMove {
  const pictureAspect = picture.widthPx / picture.heightPx;
  const frameAspect = frame.widthPx / frame.heightPx;
  const smallestWidth = frame.widthPx / (LARGEST_ENLARGEMENT * picture.widthPx);
  const zoom = Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, (lengthMs / 1000) * ZOOM_PER_SECOND));
  const fill = fillFraming(pictureAspect, frameAspect);
  const cut = 1 - fill.width * fill.height;
  const fills = mustFill || (fill.width >= smallestWidth * (1 + LEAST_ZOOM / 2) && cut <= MOST_CUT_BY_FILLING);
  const along = mustFill ? [] : movesAlong(fill, pictureAspect, smallestWidth, lengthMs);
  const moves =
    along.length > 0
      ? along
      : fills
        ? movesInside(fill, Math.min(1, Math.max(fill.width / (1 + zoom), smallestWidth) / fill.width), zoom)
        : movesWhole(fitFraming(pictureAspect, frameAspect), smallestWidth, zoom);
  const others = moves.filter((move) => move.name !== unlike);
  return others[Math.floor(seedOf(seed, 1) * others.length)]!;
}

/**
 * Where a picture that does not move stands: filling the frame when little is cut by it, else whole.
 *
 * @param mostEnlargement film pixels for each picture pixel up to which it may fill the frame
 */
export function standingFraming(
  picture: MoveSubject,
  frame: FrameShape,
  mostEnlargement: number,
  mustFill = false,
): Framing {
  const pictureAspect = picture.widthPx / picture.heightPx;
  const frameAspect = frame.widthPx / frame.heightPx;
  const smallestWidth = frame.widthPx / (mostEnlargement * picture.widthPx);
  const fill = fillFraming(pictureAspect, frameAspect);
  if (mustFill || (fill.width >= smallestWidth && 1 - fill.width * fill.height <= MOST_CUT_BY_FILLING))
    return inside({ ...fill, y: ANCHOR_Y });
  const fit = fitFraming(pictureAspect, frameAspect);
  return scaled(fit, Math.max(1, smallestWidth / fit.width));
}

/**
 * Moves along a panorama or a tall strip, also a small one, which then has room beside it. None for other pictures, and none when hardly anything of it
 * would be out of sight.
 */
function movesAlong(fill: Framing, pictureAspect: number, smallestWidth: number, lengthMs: number): PlannedMove[] {
  const across = pictureAspect >= PANORAMA_ASPECT;
  if (!across && pictureAspect > 1 / PANORAMA_ASPECT) return [];
  const framing = scaled(fill, Math.max(1, smallestWidth / fill.width));
  const seen = across ? framing.width : framing.height;
  if (seen > MOST_SEEN_OF_LENGTH) return [];
  const by = Math.min(1 - seen, seen * TRAVEL_PER_SECOND * (lengthMs / 1000));
  const at = (shift: number): Framing =>
    across ? { ...framing, x: 0.5 + shift, y: 0.5 } : { ...framing, x: 0.5, y: 0.5 + shift };
  const [begin, end] = [at(-by / 2), at(by / 2)];
  return across
    ? [
        { name: 'right', first: begin, last: end },
        { name: 'left', first: end, last: begin },
      ]
    : [
        { name: 'down', first: begin, last: end },
        { name: 'up', first: end, last: begin },
      ];
}

/** Moves of a picture that fills the frame; `tightness` is the smallest framing over the largest. */
function movesInside(fill: Framing, tightness: number, zoom: number): PlannedMove[] {
  const tight = scaled(fill, tightness);
  const wide = inside({ ...fill, y: ANCHOR_Y });
  const close = inside({ ...tight, y: ANCHOR_Y });
  const moves: PlannedMove[] = [
    { name: 'closer', first: wide, last: close },
    { name: 'away', first: close, last: wide },
  ];
  // A pan goes along the longer room: across a wide picture without cutting its height, otherwise in the tight framing.
  const across = fill.width < 0.9 ? fill : tight;
  const acrossBy = Math.min(1 - across.width, zoom * across.width * 1.2);
  if (acrossBy > 0.03) {
    const leftEnd = inside({ ...across, x: 0.5 - acrossBy / 2, y: ANCHOR_Y });
    const rightEnd = inside({ ...across, x: 0.5 + acrossBy / 2, y: ANCHOR_Y });
    moves.push({ name: 'left', first: rightEnd, last: leftEnd }, { name: 'right', first: leftEnd, last: rightEnd });
  }
  const down = fill.height < 0.93 ? fill : tight;
  const downBy = Math.min(1 - down.height, zoom * down.height);
  if (downBy > 0.05) {
    const upperEnd = inside({ ...down, y: 0.5 - downBy / 2 });
    const lowerEnd = inside({ ...down, y: 0.5 + downBy / 2 });
    moves.push({ name: 'up', first: lowerEnd, last: upperEnd }, { name: 'down', first: upperEnd, last: lowerEnd });
  }
  return moves;
}

/** Moves of a picture that is shown whole with room around it; it never touches the frame's edge. */
function movesWhole(fit: Framing, smallestWidth: number, zoom: number): PlannedMove[] {
  const close = scaled(fit, Math.max(1.04, smallestWidth / fit.width));
  const wide = scaled(close, 1 + zoom * 0.8);
  const room = { across: (wide.width - 1) / 2, down: (wide.height - 1) / 2 };
  const steady = scaled(close, 1 + zoom * 0.4);
  const acrossBy = Math.min((steady.width - 1) * 0.8, steady.width * zoom * 0.3);
  const downBy = Math.min((steady.height - 1) * 0.8, steady.height * zoom * 0.3);
  const moves: PlannedMove[] = [
    { name: 'closer', first: wide, last: close },
    { name: 'away', first: close, last: wide },
  ];
  const leftEnd = { ...steady, x: 0.5 - acrossBy / 2 };
  const rightEnd = { ...steady, x: 0.5 + acrossBy / 2 };
  if (room.across >= room.down)
    moves.push({ name: 'left', first: leftEnd, last: rightEnd }, { name: 'right', first: rightEnd, last: leftEnd });
  const upperEnd = { ...steady, y: 0.5 - downBy / 2 };
  const lowerEnd = { ...steady, y: 0.5 + downBy / 2 };
  if (room.down > room.across)
    moves.push({ name: 'up', first: upperEnd, last: lowerEnd }, { name: 'down', first: lowerEnd, last: upperEnd });
  return moves;
}

/** The framing shifted so that it lies on the picture. */
function inside(framing: Framing): Framing {
  const clamp = (centre: number, size: number) => Math.min(1 - size / 2, Math.max(size / 2, centre));
  return { ...framing, x: clamp(framing.x, framing.width), y: clamp(framing.y, framing.height) };
}
