import type { MovePace } from '../show/layer';
import type { FrameShape } from '../show/show';
import { bottom, centre, right, shareWithin, type Box } from '../focus/box';
import type { Focus } from '../focus/focus-facts';
import { framed, framedAnyway, roomFor, roomOnPicture, windowOf, within } from '../focus/reframe';
import { fillFraming, fitFraming, scaled, type Framing } from './framing';
import { seedOf } from './seed';

/** A picture is never shown larger than this many film pixels for each of its own. */
export const LARGEST_ENLARGEMENT = 1.5;

export type MoveName = 'closer' | 'away' | 'left' | 'right' | 'up' | 'down' | 'still';

export interface PlannedMove {
  readonly name: MoveName;
  readonly first: Framing;
  readonly last: Framing;
  /** Of a move that was set; others settle from first to last all the time they are seen. */
  readonly pace?: MovePace;
}

export interface MoveSubject {
  readonly widthPx: number;
  readonly heightPx: number;
}

/** How much pictures move by themselves in a show. */
export type Temperament = 'calm' | 'even' | 'lively';
export const TEMPERAMENTS: readonly Temperament[] = ['calm', 'even', 'lively'];

/** What else a move depends on. */
export interface MoveAround {
  /** The neighbour's move, which this one will not repeat. */
  readonly unlike?: MoveName | null;
  /** The frame is a window that shows no backing. */
  readonly mustFill?: boolean;
  /** What the picture is about, and what of it may not be cut. */
  readonly focus?: Focus | null;
  readonly temperament?: Temperament;
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
/**
 * How much of that a temperament takes; however lively, the limits below hold.
 */
const SHARE_OF: Record<Temperament, number> = { calm: 0.6, even: 1, lively: 1.6 };
/** Zoom a second on the average of a move. Travel along a panorama stays at `TRAVEL_PER_SECOND`, a frame's width in nine seconds: film-makers allow seven for a pan whose detail is to be followed. */
const MOST_ZOOM_PER_SECOND = 0.04;
/** So much of what a picture is about is seen at the closest. */
const LEAST_SEEN_OF_FOCUS = 0.96;
/** Moves with less to them than this are none. */
const LEAST_PAN = 0.03;
const LEAST_TILT = 0.05;

/**
 * The move a picture makes when nobody set one: slow; towards what it is about, or beginning there and opening out; inside the picture when it fills the frame,
 * whole on its backing when it does not or when filling would cut a face; and never enlarged past `LARGEST_ENLARGEMENT`. A face is all in sight from beginning
 * to end or all out of it.
 *
 * @param seed any text; the same text gives the same move
 */
export function automaticMove(
  picture: MoveSubject,
  frame: FrameShape,
  lengthMs: number,
  seed: string,
  { unlike = null, mustFill = false, focus = null, temperament = 'even' }: MoveAround = {},
): PlannedMove {
  const pictureAspect = picture.widthPx / picture.heightPx;
  const frameAspect = frame.widthPx / frame.heightPx;
  const smallestWidth = frame.widthPx / (LARGEST_ENLARGEMENT * picture.widthPx);
  const share = SHARE_OF[temperament];
  const seconds = lengthMs / 1000;
  const wanted = share * Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, seconds * ZOOM_PER_SECOND));
  const zoom = Math.min(wanted, seconds * MOST_ZOOM_PER_SECOND);
  const fill = fillFraming(pictureAspect, frameAspect);
  const cut = 1 - fill.width * fill.height;
  const isLargeEnough = fill.width >= smallestWidth * (1 + LEAST_ZOOM / 2);
  const wide = mustFill ? framedAnyway(fill, focus) : framed(fill, focus);
  const fills = wide !== null && (mustFill || (isLargeEnough && cut <= MOST_CUT_BY_FILLING));
  const along = mustFill ? [] : movesAlong(fill, pictureAspect, smallestWidth, Math.min(1, share) * seconds, focus);
  const tightness = Math.min(1, Math.max(fill.width / (1 + zoom), smallestWidth) / fill.width);
  const inside = along.length === 0 && fills ? movesInside(wide, tightness, zoom, focus) : [];
  const near = mustFill || fills ? null : nearFraming(picture, frame, LARGEST_ENLARGEMENT, focus);
  const moves =
    [along, inside, near ? movesNear(near, zoom, focus) : []].find((some) => some.length > 0) ??
    movesWhole(fitFraming(pictureAspect, frameAspect), smallestWidth, zoom);
  // A window that leaves no room to move stands still.
  if (mustFill && inside.length === 0) return { name: 'still', first: wide!, last: wide! };
  const others = moves.filter((move) => move.name !== unlike);
  const from = others.length > 0 ? others : moves;
  return from[Math.floor(seedOf(seed, 1) * from.length)]!;
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
  { mustFill = false, focus = null }: Pick<MoveAround, 'mustFill' | 'focus'> = {},
): Framing {
  const pictureAspect = picture.widthPx / picture.heightPx;
  const frameAspect = frame.widthPx / frame.heightPx;
  const smallestWidth = frame.widthPx / (mostEnlargement * picture.widthPx);
  const fill = fillFraming(pictureAspect, frameAspect);
  if (mustFill) return framedAnyway(fill, focus);
  const standing = framed(fill, focus);
  if (standing && fill.width >= smallestWidth && 1 - fill.width * fill.height <= MOST_CUT_BY_FILLING) return standing;
  const fit = fitFraming(pictureAspect, frameAspect);
  return nearFraming(picture, frame, mostEnlargement, focus) ?? scaled(fit, Math.max(1, smallestWidth / fit.width));
}

/** A frame that is no wider than this for its height, and a picture that is so much wider than the frame, go together badly: shown whole, it is a band across the frame. */
const NARROW_FRAME = 1.25;
const MUCH_WIDER = 1.3;
/** Of such a picture so much of its width is seen at least, and so much when nothing is known of it. */
const LEAST_NEAR = 0.4;
const USUAL_NEAR = 0.68;
/** Room left at either side of what the picture is about, as a share of the picture. */
const BESIDE_FOCUS = 0.04;
const NEAR_STEPS = 16;

/**
 * A wide picture in an upright or square frame: as near as what it is about allows, which stays in sight with every face; its upper and lower edge are seen. Null
 * for other pictures, and when nearly all of it has to be seen.
 */
function nearFraming(
  picture: MoveSubject,
  frame: Pick<FrameShape, 'widthPx' | 'heightPx'>,
  mostEnlargement: number,
  focus: Focus | null,
): Framing | null {
  const pictureAspect = picture.widthPx / picture.heightPx;
  const frameAspect = frame.widthPx / frame.heightPx;
  if (frameAspect > NARROW_FRAME || pictureAspect < frameAspect * MUCH_WIDER) return null;
  const fill = fillFraming(pictureAspect, frameAspect);
  const smallestWidth = frame.widthPx / (mostEnlargement * picture.widthPx);
  const least = Math.max(
    fill.width,
    smallestWidth,
    LEAST_NEAR,
    focus ? focus.about.width + 2 * BESIDE_FOCUS : USUAL_NEAR,
  );
  for (let step = 0; step < NEAR_STEPS; step += 1) {
    const width = least + ((1 - least) * step) / NEAR_STEPS;
    if (width > MOST_SEEN_OF_LENGTH) return null;
    const framing = framed({ width, height: (width * pictureAspect) / frameAspect }, focus);
    if (framing && cutsNone({ first: framing, last: framing }, focus)) return framing;
  }
  return null;
}

/** Moves about such a framing: nearer, away, and across the picture towards what it is about. */
function movesNear(near: Framing, zoom: number, focus: Focus | null): PlannedMove[] {
  const wide = scaled(near, Math.min(1 + zoom * 0.8, 1 / near.width));
  const moves: PlannedMove[] = [
    { name: 'closer', first: wide, last: near },
    { name: 'away', first: near, last: wide },
    ...pans('x', near, zoom * 1.2, focus),
  ];
  return moves
    .filter(({ first, last }) => first.width !== last.width || first.x !== last.x)
    .filter((move) => cutsNone(move, focus));
}

/**
 * Moves along a panorama or a tall strip, also a small one, which then has room beside it. It ends or begins at what the picture is about. None for other
 * pictures, none when hardly anything would be out of sight, and none when a face would pass the frame's edge on the way.
 */
function movesAlong(
  fill: Framing,
  pictureAspect: number,
  smallestWidth: number,
  seconds: number,
  focus: Focus | null,
): PlannedMove[] {
  const across = pictureAspect >= PANORAMA_ASPECT;
  if (!across && pictureAspect > 1 / PANORAMA_ASPECT) return [];
  const framing = scaled(fill, Math.max(1, smallestWidth / fill.width));
  const seen = across ? framing.width : framing.height;
  if (seen > MOST_SEEN_OF_LENGTH) return [];
  const by = Math.min(1 - seen, seen * TRAVEL_PER_SECOND * seconds);
  const at = (place: number): Framing => (across ? { ...framing, x: place, y: 0.5 } : { ...framing, x: 0.5, y: place });
  const span = (begin: number, end: number) => {
    const [first, last] = [at(begin), at(end)];
    const names = across ? (['left', 'right'] as const) : (['up', 'down'] as const);
    return { name: names[end > begin ? 1 : 0], first, last };
  };
  if (!focus) {
    const [begin, end] = [0.5 - by / 2, 0.5 + by / 2];
    return [span(begin, end), span(end, begin)];
  }
  const room = roomOnPicture(seen);
  const about = centre(focus.about);
  const there = within(room, across ? about.x : about.y);
  return [within(room, there - by), within(room, there + by)]
    .filter((away) => Math.abs(away - there) > 0.3 * by)
    .flatMap((away) => [span(away, there), span(there, away)])
    .filter((move) => cutsNone(move, focus));
}

/** Moves of a picture that fills the frame; `tightness` is the smallest framing over the largest. */
function movesInside(wide: Framing, tightness: number, zoom: number, focus: Focus | null): PlannedMove[] {
  const close = closest(wide, tightness, focus);
  const moves: PlannedMove[] = [];
  if (close.width < wide.width)
    moves.push({ name: 'closer', first: wide, last: close }, { name: 'away', first: close, last: wide });
  // A pan goes along the longer room: across a wide picture without cutting its height, otherwise in the tight framing.
  moves.push(...pans('x', wide.width < 0.9 ? wide : close, zoom * 1.2, focus));
  moves.push(...pans('y', wide.height < 0.93 ? wide : close, zoom, focus));
  return moves.filter((move) => cutsNone(move, focus));
}

/** As near as the move comes to what the picture is about: near enough to feel it, never so near that it is cut. */
function closest(wide: Framing, tightness: number, focus: Focus | null): Framing {
  for (let step = 0; step < 6; step += 1) {
    const factor = tightness + ((1 - tightness) * step) / 6;
    const framing = framed(scaled(wide, factor), focus);
    if (!framing) continue;
    const seen = focus ? shareWithin(focus.about, windowOf(framing)) : 1;
    const before = focus ? shareWithin(focus.about, windowOf(wide)) : 1;
    if (seen >= Math.min(before, LEAST_SEEN_OF_FOCUS) - 1e-9 && cutsNone({ first: wide, last: framing }, focus))
      return framing;
  }
  return wide;
}

/** Both ways along an axis. With something to see one end is where that stands; nothing that may not be cut leaves the frame on the way. */
function pans(axis: 'x' | 'y', framing: Framing, zoom: number, focus: Focus | null): PlannedMove[] {
  const size = axis === 'x' ? framing.width : framing.height;
  const free = roomFor(focus, framing);
  const room = free ? (axis === 'x' ? free.across : free.down) : { least: framing[axis], most: framing[axis] };
  const by = Math.min(room.most - room.least, zoom * size);
  if (by <= (axis === 'x' ? LEAST_PAN : LEAST_TILT)) return [];
  const middle = within({ least: room.least + by / 2, most: room.most - by / 2 }, focus ? framing[axis] : 0.5);
  const [low, high] = [
    { ...framing, [axis]: middle - by / 2 },
    { ...framing, [axis]: middle + by / 2 },
  ];
  const [toLow, toHigh] = axis === 'x' ? (['left', 'right'] as const) : (['up', 'down'] as const);
  return [
    { name: toLow, first: high, last: low },
    { name: toHigh, first: low, last: high },
  ];
}

/** Whether every face is all in sight, or all out of it on one side, from beginning to end. The edges of a framing move steadily, so its ends tell. */
export function cutsNone({ first, last }: Pick<PlannedMove, 'first' | 'last'>, focus: Focus | null): boolean {
  const [a, b] = [windowOf(first), windowOf(last)];
  const slack = 1e-6;
  return (focus?.whole ?? []).every((box) => {
    const isIn = (window: Box) =>
      box.left >= window.left - slack &&
      right(box) <= right(window) + slack &&
      box.top >= window.top - slack &&
      bottom(box) <= bottom(window) + slack;
    if (isIn(a) && isIn(b)) return true;
    return [
      (window: Box) => right(box) <= window.left + slack,
      (window: Box) => box.left >= right(window) - slack,
      (window: Box) => bottom(box) <= window.top + slack,
      (window: Box) => box.top >= bottom(window) - slack,
    ].some((isOut) => isOut(a) && isOut(b));
  });
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
