import { mapped, type Matrix3 } from './matrix';

export interface Point {
  readonly x: number;
  readonly y: number;
}

/** A half plane of the screen: a·x + b·y + c is the signed distance to its border in pixels, positive inside. */
export interface HalfPlane {
  readonly a: number;
  readonly b: number;
  readonly c: number;
}

/** A convex polygon cut by another (Sutherland and Hodgman, 1974). Both in the same sense of turning. */
export function cutPolygon(polygon: readonly Point[], by: readonly Point[]): Point[] {
  const sense = Math.sign(area(by));
  return by.reduce<Point[]>(
    (left, from, index) => {
      const to = by[(index + 1) % by.length]!;
      const [a, b] = [-sense * (to.y - from.y), sense * (to.x - from.x)];
      return halfOf(left, { a, b, c: -(a * from.x + b * from.y) });
    },
    [...polygon],
  );
}

/** A polygon of a box's plane as half planes of the screen. Null where it reaches behind the eye or has no area. */
export function screenEdges(
  polygon: readonly Point[],
  toScreen: Matrix3,
): { edges: HalfPlane[]; points: Point[] } | null {
  const points = screenPolygon(polygon, toScreen);
  if (!points) return null;
  const sense = Math.sign(area(points));
  if (points.length < 3 || sense === 0) return null;
  const edges = points.flatMap((from, index): HalfPlane[] => {
    const to = points[(index + 1) % points.length]!;
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    if (length < 1e-6) return [];
    const a = (-sense * (to.y - from.y)) / length;
    const b = (sense * (to.x - from.x)) / length;
    return [{ a, b, c: -(a * from.x + b * from.y) }];
  });
  return { edges, points };
}

/** A polygon of a box's plane on the screen; null where it reaches behind the eye. */
export function screenPolygon(polygon: readonly Point[], toScreen: Matrix3): Point[] | null {
  const points: Point[] = [];
  for (const point of polygon) {
    const seen = mapped(toScreen, point.x, point.y);
    if (!(seen.w > NEAREST)) return null;
    points.push({ x: seen.x, y: seen.y });
  }
  return points;
}

/** The part of a convex polygon on the positive side of a line. */
export function halfOf(polygon: readonly Point[], { a, b, c }: HalfPlane): Point[] {
  const side = (point: Point) => a * point.x + b * point.y + c;
  const out: Point[] = [];
  polygon.forEach((point, index) => {
    const next = polygon[(index + 1) % polygon.length]!;
    const [here, there] = [side(point), side(next)];
    if (here >= 0) out.push(point);
    if ((here > 0 && there < 0) || (here < 0 && there > 0)) {
      const share = here / (here - there);
      out.push({ x: point.x + (next.x - point.x) * share, y: point.y + (next.y - point.y) * share });
    }
  });
  return withoutDoubles(out);
}

/** The part of a polygon of a box's plane that lies, on the screen, on the positive side of lines. Where a line runs on the screen it also runs on the plane. */
export function cutOnScreen(polygon: readonly Point[], toScreen: Matrix3, cuts: readonly HalfPlane[]): Point[] {
  const m = toScreen;
  return cuts.reduce<Point[]>(
    (left, { a, b, c }) =>
      halfOf(left, {
        a: a * m[0]! + b * m[3]! + c * m[6]!,
        b: a * m[1]! + b * m[4]! + c * m[7]!,
        c: a * m[2]! + b * m[5]! + c * m[8]!,
      }),
    [...polygon],
  );
}

/** Nearer to the eye than this share of its distance nothing is drawn. */
const NEAREST = 0.02;

export function area(polygon: readonly Point[]): number {
  return polygon.reduce((sum, point, index) => {
    const next = polygon[(index + 1) % polygon.length]!;
    return sum + (point.x * next.y - next.x * point.y) / 2;
  }, 0);
}

function withoutDoubles(points: readonly Point[]): Point[] {
  return points.filter((point, index) => {
    const before = points[(index + points.length - 1) % points.length]!;
    return points.length < 2 || Math.abs(point.x - before.x) > 1e-9 || Math.abs(point.y - before.y) > 1e-9;
  });
}
