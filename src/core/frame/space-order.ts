import { inSpace, type Eye, type Matrix4 } from './matrix';

type Spot = readonly [x: number, y: number, z: number];

/** Nearer than this many pixels two planes count as touching, not as one before the other. */
const TOUCHING_PX = 0.05;

/**
 * Puts planes that do not pass through each other in the order to draw them: those behind first. Two planes are compared by where the corners of one lie seen from
 * the other (Newell, Newell and Sancha, 1972); planes that settle nothing so go by their distance from the eye. Cost grows with the square of the number.
 *
 * @param box of an item: unit square to space
 */
export function farToNear<Item>(items: readonly Item[], box: (item: Item) => Matrix4, eye: Eye): Item[] {
  const planes = items.map((item) => planeOf(box(item), eye));
  const order = items.map((_, index) => index).sort((a, b) => planes[b]!.away - planes[a]!.away || a - b);
  const behind = order.map(() => new Set<number>());
  for (let a = 0; a < order.length; a += 1)
    for (let b = a + 1; b < order.length; b += 1) {
      const first = before(planes[order[a]!]!, planes[order[b]!]!, eye);
      if (first === 'second') behind[a]!.add(b);
      else if (first === 'first') behind[b]!.add(a);
    }
  // Depth-first, in order of distance: everything that must lie behind a plane is drawn before it. A ring of planes, which no order can satisfy, falls back to distance.
  const out: Item[] = [];
  const state = new Uint8Array(order.length);
  const visit = (at: number): void => {
    if (state[at] !== 0) return;
    state[at] = 1;
    for (const other of [...behind[at]!].sort((x, y) => x - y)) visit(other);
    state[at] = 2;
    out.push(items[order[at]!]!);
  };
  for (let at = 0; at < order.length; at += 1) visit(at);
  return out;
}

/** Whether the eye sees a box's front. */
export function facesEye(box: Matrix4, eye: Eye): boolean {
  return seenBy(planeOf(box, eye), [eye.x, eye.y, eye.distance]) > 0;
}

interface Plane {
  readonly corners: readonly Spot[];
  readonly normal: Spot;
  readonly away: number;
}

function planeOf(box: Matrix4, eye: Eye): Plane {
  const corners = [inSpace(box, 0, 0), inSpace(box, 1, 0), inSpace(box, 1, 1), inSpace(box, 0, 1)] as const;
  const [across, down] = [minus(corners[1], corners[0]), minus(corners[3], corners[0])];
  // With y downwards and z towards the viewer, this order makes an unturned box face the viewer.
  const normal = unit([
    across[1] * down[2] - across[2] * down[1],
    across[2] * down[0] - across[0] * down[2],
    across[0] * down[1] - across[1] * down[0],
  ]);
  const middle = inSpace(box, 0.5, 0.5);
  return { corners, normal, away: Math.hypot(middle[0] - eye.x, middle[1] - eye.y, middle[2] - eye.distance) };
}

/** Which of two planes is behind the other; null when they settle nothing. */
function before(a: Plane, b: Plane, eye: Eye): 'first' | 'second' | null {
  const sideOf = (plane: Plane, other: Plane): 'near' | 'far' | null => {
    const eyeSide = Math.sign(seenBy(plane, [eye.x, eye.y, eye.distance]));
    const sides = other.corners.map((corner) => eyeSide * seenBy(plane, corner));
    if (sides.every((side) => Math.abs(side) <= TOUCHING_PX)) return null;
    if (sides.every((side) => side >= -TOUCHING_PX)) return 'near';
    return sides.every((side) => side <= TOUCHING_PX) ? 'far' : null;
  };
  const bFromA = sideOf(a, b);
  if (bFromA) return bFromA === 'near' ? 'first' : 'second';
  const aFromB = sideOf(b, a);
  if (aFromB) return aFromB === 'near' ? 'second' : 'first';
  return null;
}

function seenBy(plane: Plane, point: Spot): number {
  const from = minus(point, plane.corners[0]!);
  return from[0] * plane.normal[0] + from[1] * plane.normal[1] + from[2] * plane.normal[2];
}

function minus(a: Spot, b: Spot): Spot {
  return [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
}

function unit(v: Spot): Spot {
  const length = Math.hypot(...v) || 1;
  return [v[0] / length, v[1] / length, v[2] / length];
}
