import { inSpace, inverse3, projected, type Eye, type Matrix4 } from './matrix';
import { area, cutPolygon, halfOf, screenPolygon, type HalfPlane, type Point } from './polygon';

/** A plane to draw, or a part of one: where each of `cuts` is positive on the screen. */
export interface Piece<Item> {
  readonly item: Item;
  readonly cuts: readonly HalfPlane[];
}

/** Planes that come nearer to each other than this count as touching, not as one before the other; in pixels of depth. */
const TOUCHING_PX = 0.05;
/** Overlaps smaller than this on the screen settle nothing, in square pixels: faces of a box share edges. */
const SMALLEST_OVERLAP_PX2 = 0.5;
/** Less than this of an overlap is none: sides of a box that meet along an edge. */
const BESIDE_PX = 0.02;
/** A part that goes on under what covers it reaches so far under, so that nothing shines through between. */
const TUCKED_PX = 1;
/** Cutting ends here: beyond it what is left unsettled goes by distance. */
const MOST_CUTS = 8;
const MOST_PIECES_A_PLANE = 6;

/**
 * Puts planes in the order to draw them, those behind first, and cuts planes that pass through each other where they cross. Two planes are compared only where
 * they overlap on the screen, by their depth at the corners of what they share: nearness (1/w) is linear on the screen, so that the corners settle all of it.
 * Where neither is nearer everywhere, one is cut along the line in which they cross (after Newell, Newell and Sancha, 1972); a ring of planes that each cover
 * the next is opened by cutting one of them along the side of another. Planes that lie in one plane keep the order they came in.
 *
 * @param box of an item: unit square to space
 */
export function farToNear<Item>(items: readonly Item[], box: (item: Item) => Matrix4, eye: Eye): Piece<Item>[] {
  const planes = items.map((item, index) => planeSeen(box(item), eye, index));
  // What is seen edge-on, or reaches behind the eye, is not drawn and covers nothing.
  const pieces = planes.filter((plane) => plane !== null);
  const most = MOST_PIECES_A_PLANE * pieces.length;
  const done: Seen[] = [];
  const waiting = [...pieces].reverse();
  for (let piece = waiting.pop(); piece; piece = waiting.pop()) {
    const cut = done.length + waiting.length < most ? cutThrough(piece, done) : null;
    if (cut) waiting.push(cut.near, cut.far);
    else done.push(piece);
  }
  return sorted(done, most).map(({ index, cuts }) => ({ item: items[index]!, cuts }));
}

/** Whether the eye sees a box's front. */
export function facesEye(box: Matrix4, eye: Eye): boolean {
  const corners = [inSpace(box, 0, 0), inSpace(box, 1, 0), inSpace(box, 0, 1)] as const;
  const across = minus(corners[1], corners[0]);
  const down = minus(corners[2], corners[0]);
  // With y downwards and z towards the viewer, this order makes an unturned box face the viewer.
  const normal = [
    across[1] * down[2] - across[2] * down[1],
    across[2] * down[0] - across[0] * down[2],
    across[0] * down[1] - across[1] * down[0],
  ] as const;
  const from = minus([eye.x, eye.y, eye.distance], corners[0]);
  return from[0] * normal[0] + from[1] * normal[1] + from[2] * normal[2] > 0;
}

type Spot = readonly [x: number, y: number, z: number];

/** A plane, or a part of one, as it is seen. */
interface Seen {
  readonly index: number;
  /** On the screen, convex. */
  readonly points: readonly Point[];
  readonly bounds: { readonly left: number; readonly right: number; readonly top: number; readonly bottom: number };
  /** 1/w at a place of the screen is a·x + b·y + c: the greater the nearer. */
  readonly nearness: HalfPlane;
  /** Of its corners. */
  readonly farthest: number;
  readonly nearest: number;
  /** How much nearness counts as nothing. */
  readonly touching: number;
  /** From the eye to its middle. */
  readonly away: number;
  readonly cuts: readonly HalfPlane[];
}

function planeSeen(box: Matrix4, eye: Eye, index: number): Seen | null {
  const toScreen = projected(box, eye);
  const points = screenPolygon(WHOLE, toScreen);
  const back = inverse3(toScreen);
  if (!points || !back || Math.abs(area(points)) < SMALLEST_OVERLAP_PX2) return null;
  const middle = inSpace(box, 0.5, 0.5);
  const nearness = { a: back[6]!, b: back[7]!, c: back[8]! };
  return {
    index,
    points,
    bounds: boundsOf(points),
    nearness,
    ...reachOf(points, nearness),
    touching: TOUCHING_PX / eye.distance,
    away: Math.hypot(middle[0] - eye.x, middle[1] - eye.y, middle[2] - eye.distance),
    cuts: [],
  };
}

const WHOLE: readonly Point[] = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
];

/** What two planes share on the screen, and by how much the first is nearer there, least and most. Null when they share nothing. */
function compared(a: Seen, b: Seen): { least: number; most: number } | null {
  if (
    a.bounds.right <= b.bounds.left ||
    b.bounds.right <= a.bounds.left ||
    a.bounds.bottom <= b.bounds.top ||
    b.bounds.bottom <= a.bounds.top
  )
    return null;
  if (areApart(a.points, b.points) || areApart(b.points, a.points)) return null;
  // All of one is nearer than all of the other: where exactly they overlap does not matter.
  const [least, most] = [a.farthest - b.nearest, a.nearest - b.farthest];
  if (least > a.touching || most < -a.touching) return { least, most };
  const shared = cutPolygon(a.points, b.points);
  if (shared.length < 3 || Math.abs(area(shared)) < SMALLEST_OVERLAP_PX2) return null;
  const line = between(a.nearness, b.nearness);
  const apart = shared.map((point) => at(line, point));
  return { least: Math.min(...apart), most: Math.max(...apart) };
}

/** Whether one of a convex polygon's sides has all of another beyond it, touching or nearly so: then they share nothing that can be seen. */
function areApart(polygon: readonly Point[], other: readonly Point[]): boolean {
  const sense = Math.sign(area(polygon));
  for (let index = 0; index < polygon.length; index += 1) {
    const from = polygon[index]!;
    const to = polygon[(index + 1) % polygon.length]!;
    const [a, b] = [-sense * (to.y - from.y), sense * (to.x - from.x)];
    const least = BESIDE_PX * Math.hypot(a, b);
    if (other.every((point) => a * (point.x - from.x) + b * (point.y - from.y) <= least)) return true;
  }
  return false;
}

function reachOf(points: readonly Point[], nearness: HalfPlane): { farthest: number; nearest: number } {
  const corners = points.map((point) => at(nearness, point));
  return { farthest: Math.min(...corners), nearest: Math.max(...corners) };
}

/** The piece in two where it passes through one that is settled; null when it passes through none. */
function cutThrough(piece: Seen, settled: readonly Seen[]): { near: Seen; far: Seen } | null {
  if (piece.cuts.length >= MOST_CUTS) return null;
  for (const other of settled) {
    if (other.index === piece.index) continue;
    const apart = compared(piece, other);
    if (!apart || apart.least >= -piece.touching || apart.most <= piece.touching) continue;
    const cut = cutAlong(piece, between(piece.nearness, other.nearness));
    if (cut) return cut;
  }
  return null;
}

/** `near` is where the line is positive; `far` reaches a little under it. Null when one of them would be nothing. */
function cutAlong(piece: Seen, { a, b, c }: HalfPlane): { near: Seen; far: Seen } | null {
  const length = Math.hypot(a, b);
  if (!(length > 0)) return null;
  const line = { a: a / length, b: b / length, c: c / length };
  const back = { a: -line.a, b: -line.b, c: -line.c };
  const [near, far] = [halfOf(piece.points, line), halfOf(piece.points, back)];
  if (Math.abs(area(near)) < SMALLEST_OVERLAP_PX2 || Math.abs(area(far)) < SMALLEST_OVERLAP_PX2) return null;
  const part = (points: readonly Point[], cut: HalfPlane): Seen => ({
    ...piece,
    points,
    bounds: boundsOf(points),
    ...reachOf(points, piece.nearness),
    cuts: [...piece.cuts, cut],
  });
  return { near: part(near, line), far: part(far, { ...back, c: back.c + TUCKED_PX }) };
}

/** Behind before near, by depth-first search from the farthest on; a ring is opened where it closes. */
function sorted(pieces: readonly Seen[], most: number): Seen[] {
  const order = [...pieces].sort((a, b) => b.away - a.away || a.index - b.index);
  const out: Seen[] = [];
  const state = new Map<Seen, 'open' | 'done'>();
  const path: Seen[] = [];
  const behind = new Map<Seen, Seen[]>(order.map((piece) => [piece, []]));
  order.forEach((one, index) => {
    for (const other of order.slice(index + 1)) {
      const farther = fartherOf(one, other);
      if (farther) behind.get(farther === one ? other : one)!.push(farther);
    }
  });
  for (const piece of order) {
    const ring = visit(piece);
    if (!ring) continue;
    const opened = order.length < most ? ringOpened(ring) : null;
    if (opened) return sorted([...pieces.filter((one) => one !== opened.whole), ...opened.parts], most);
    ring.forEach((one) => state.delete(one));
    path.length = 0;
    // Nothing opens it: by distance, as the order already is.
    for (const one of order) if (state.get(one) !== 'done') out.push(one);
    return out;
  }
  return out;

  function visit(piece: Seen): Seen[] | null {
    if (state.get(piece) === 'done') return null;
    if (state.get(piece) === 'open') return path.slice(path.indexOf(piece));
    state.set(piece, 'open');
    path.push(piece);
    for (const other of behind.get(piece)!) {
      const ring = visit(other);
      if (ring) return ring;
    }
    path.pop();
    state.set(piece, 'done');
    out.push(piece);
    return null;
  }
}

/** Which of two has to be drawn before the other; null when they share nothing. */
function fartherOf(one: Seen, other: Seen): Seen | null {
  const apart = compared(one, other);
  if (!apart) return null;
  // In one plane: as they lie in the pile.
  if (apart.least >= -one.touching && apart.most <= one.touching) return one.index < other.index ? one : other;
  if (apart.least >= -one.touching) return other;
  return apart.most <= one.touching || -apart.least > apart.most ? one : other;
}

/** A piece of a ring in two, so that neither part both covers one and is covered by another of the ring. */
function ringOpened(ring: readonly Seen[]): { whole: Seen; parts: readonly Seen[] } | null {
  for (const [at, piece] of ring.entries()) {
    if (piece.cuts.length >= MOST_CUTS) continue;
    // `ring[at + 1]` is behind the piece, `ring[at − 1]` has it behind itself.
    const [below, above] = [ring[(at + 1) % ring.length]!, ring[(at + ring.length - 1) % ring.length]!];
    for (const other of [below, above])
      for (const side of sidesOf(other.points)) {
        const cut = cutAlong(piece, side);
        if (!cut) continue;
        const parts = [cut.near, cut.far];
        if (parts.every((part) => compared(part, below) === null || compared(part, above) === null))
          return { whole: piece, parts };
      }
  }
  return null;
}

function sidesOf(points: readonly Point[]): HalfPlane[] {
  return points.map((from, index) => {
    const to = points[(index + 1) % points.length]!;
    const [a, b] = [from.y - to.y, to.x - from.x];
    return { a, b, c: -(a * from.x + b * from.y) };
  });
}

function between(one: HalfPlane, other: HalfPlane): HalfPlane {
  return { a: one.a - other.a, b: one.b - other.b, c: one.c - other.c };
}

function at({ a, b, c }: HalfPlane, { x, y }: Point): number {
  return a * x + b * y + c;
}

function boundsOf(points: readonly Point[]): Seen['bounds'] {
  const [xs, ys] = [points.map(({ x }) => x), points.map(({ y }) => y)];
  return { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
}

function minus(a: Spot, b: Spot): Spot {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
}
