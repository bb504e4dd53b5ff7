import { unreachable } from '../unreachable';
import type { EdgeShape, Shape } from './layer';

/** Shapes to cut a picture to, as SVG path data in a box of 100 × 100. */
export const EDGE_SHAPES = {
  arch: 'M2 100V50C2 20 24 1 50 1C76 1 98 20 98 50V100Z',
  leaf: 'M2 98C-4 40 34 2 98 2C104 60 66 98 2 98Z',
  heart: 'M50 97C18 72 1 52 1 30C1 13 13 3 27 3C37 3 46 9 50 19C54 9 63 3 73 3C87 3 99 13 99 30C99 52 82 72 50 97Z',
  cloud:
    'M24 92C10 92 1 82 1 70C1 59 8 51 18 49C17 30 31 14 49 14C63 14 75 23 79 36C91 37 99 47 99 62C99 79 88 92 72 92Z',
  lantern: 'M38 1H62V9C84 13 97 30 97 51C97 72 84 88 62 92V99H38V92C16 88 3 72 3 51C3 30 16 13 38 9Z',
  'torn paper':
    'M2 4L12 2L21 5L33 1L44 4L58 2L69 5L83 2L98 4L96 18L99 31L97 45L99 60L96 74L98 88L97 97L84 95L71 98L57 95L45 98L31 95L18 98L4 96L1 82L4 68L2 53L4 38L1 24L4 12Z',
  stamp: perforated(),
} as const;

/** A sheet with eight bites on each side, between whole corners. */
function perforated(): string {
  const from = [0, 1, 2, 3, 4, 5, 6, 7].map((bite) => 6.5 + 11 * bite);
  const side = (point: (along: number, inwards: number) => string, order: readonly number[], length: number) =>
    order.map((at) => `L${point(at, 0)}Q${point(at + length / 2, 9)} ${point(at + length, 0)}`).join('');
  const back = [...from].reverse().map((at) => at + 10);
  return `M0 0${side((x, y) => `${x} ${y}`, from, 10)}L100 0${side((y, x) => `${100 - x} ${y}`, from, 10)}L100 100${side((x, y) => `${x} ${100 - y}`, back, -10)}L0 100${side((y, x) => `${x} ${y}`, back, -10)}Z`;
}

/** The edge of a shape layer is its shape, not its box. */
export function edgeOfShape(shape: Shape): EdgeShape | null {
  switch (shape.kind) {
    case 'rectangle':
      return shape.radius ? { kind: 'rounded', radius: shape.radius } : null;
    case 'ellipse':
      return { kind: 'ellipse' };
    case 'polygon':
      return { kind: 'free', path: cornersPath(shape.sides, () => 1) };
    case 'star':
      return { kind: 'free', path: cornersPath(2 * shape.points, (index) => (index % 2 === 0 ? 1 : shape.depth)) };
    case 'free':
      return shape;
    default:
      return unreachable(shape);
  }
}

/** Corners on a circle that fills a box of 100 × 100, the first at the top. */
export function cornersPath(corners: number, radius: (index: number) => number): string {
  const points = Array.from({ length: corners }, (_, index) => {
    const angle = (2 * Math.PI * index) / corners - Math.PI / 2;
    const at = (way: number) => (50 + 50 * radius(index) * way).toFixed(4);
    return `${at(Math.cos(angle))} ${at(Math.sin(angle))}`;
  });
  return `M${points.join('L')}Z`;
}

export type EdgeShapeName = keyof typeof EDGE_SHAPES;

/** Points closer than this to the line between their neighbours are left out. In hundredths of the box. */
const FINENESS = 0.7;
const MOST_POINTS = 200;

/**
 * A closed line drawn by hand as a smooth path: points that say nothing are left out (Douglas and Peucker, 1973) and the rest are joined by curves through the
 * middles between them.
 *
 * @param points at least three, 0…100 across and down
 * @returns null when what was drawn encloses next to nothing
 */
export function pathOfHand(points: readonly { readonly x: number; readonly y: number }[]): string | null {
  const held = points.map(({ x, y }) => ({ x: Math.min(100, Math.max(0, x)), y: Math.min(100, Math.max(0, y)) }));
  const kept = thinned(held, FINENESS).slice(0, MOST_POINTS);
  if (kept.length < 3 || area(kept) < 25) return null;
  const middle = (a: { x: number; y: number }, b: { x: number; y: number }) =>
    `${round((a.x + b.x) / 2)} ${round((a.y + b.y) / 2)}`;
  const curves = kept.map(
    (point, index) => `Q${round(point.x)} ${round(point.y)} ${middle(point, kept[(index + 1) % kept.length]!)}`,
  );
  return `M${middle(kept.at(-1)!, kept[0]!)}${curves.join('')}Z`;
}

function thinned<Point extends { readonly x: number; readonly y: number }>(
  points: readonly Point[],
  fineness: number,
): Point[] {
  if (points.length < 3) return [...points];
  const [a, b] = [points[0]!, points.at(-1)!];
  let [furthest, at] = [0, 0];
  for (let index = 1; index < points.length - 1; index += 1) {
    const away = distance(points[index]!, a, b);
    if (away > furthest) [furthest, at] = [away, index];
  }
  if (furthest < fineness) return [a, b];
  return [...thinned(points.slice(0, at + 1), fineness).slice(0, -1), ...thinned(points.slice(at), fineness)];
}

function distance(p: { x: number; y: number }, a: { x: number; y: number }, b: { x: number; y: number }): number {
  const length = Math.hypot(b.x - a.x, b.y - a.y);
  return length < 1e-9
    ? Math.hypot(p.x - a.x, p.y - a.y)
    : Math.abs((b.x - a.x) * (a.y - p.y) - (a.x - p.x) * (b.y - a.y)) / length;
}

function area(points: readonly { readonly x: number; readonly y: number }[]): number {
  return (
    Math.abs(
      points.reduce((sum, point, index) => {
        const next = points[(index + 1) % points.length]!;
        return sum + point.x * next.y - next.x * point.y;
      }, 0),
    ) / 2
  );
}

function round(value: number): number {
  return Math.round(value * 10) / 10;
}
