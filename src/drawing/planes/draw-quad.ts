import { inverse3, times3, type Matrix3 } from '../../core/frame/matrix';
import { screenEdges, type HalfPlane, type Point } from '../../core/frame/polygon';
import type { Kernels } from '../kernel-module';
import { drawUpright } from './draw-upright';
import type { PicturePlanes } from './picture-planes';
import type { Surface } from './surface';

/** A part of the frame in whole samples: [left, right) × [top, bottom). */
export interface Rect {
  readonly left: number;
  readonly top: number;
  readonly right: number;
  readonly bottom: number;
}

/** Most corners a layer's outline can have: a box cut by a crop and by its picture. */
const MOST_EDGES = 16;
/** Of an order before its edges; see the kernel. */
const FIELDS = 27;

export const WHOLE_BOX: readonly Point[] = [
  { x: 0, y: 0 },
  { x: 1, y: 0 },
  { x: 1, y: 1 },
  { x: 0, y: 1 },
];

/**
 * Draws a picture through a box seen on the screen.
 *
 * @param toScreen the box (unit square) to pixels of the surface
 * @param toSamples the box to the picture's samples, whose first has its middle at (0, 0)
 * @param outline the part of the box to draw, convex
 * @param opacity 0…1
 */
export function drawQuad(
  kernels: Kernels,
  surface: Surface,
  picture: PicturePlanes,
  toScreen: Matrix3,
  toSamples: Matrix3,
  outline: readonly Point[],
  opacity: number,
): void {
  if (outline.length < 3 || outline.length > MOST_EDGES || opacity <= 0) return;
  const seen = screenEdges(outline, toScreen);
  const back = inverse3(toScreen);
  if (!seen || !back) return;
  const bounds = evenRect(rectAround(seen.points, 1), surface);
  if (!bounds) return;
  const map = times3(toSamples, back);
  if (isUpright(map, surface) && seen.edges.every(({ a, b }) => Math.min(Math.abs(a), Math.abs(b)) < 1e-6)) {
    const [xs, ys] = [seen.points.map(({ x }) => x), seen.points.map(({ y }) => y)];
    const reach = { left: Math.min(...xs), right: Math.max(...xs), top: Math.min(...ys), bottom: Math.max(...ys) };
    drawUpright(
      kernels,
      surface,
      picture,
      { scale: map[0]! / map[8]!, offset: map[2]! / map[8]! + 0.5 },
      { scale: map[4]! / map[8]!, offset: map[5]! / map[8]! + 0.5 },
      reach,
      Math.min(1, opacity),
    );
    return;
  }
  const draw = (
    sources: readonly [number, number, number],
    stride: number,
    width: number,
    height: number,
    targets: readonly [number, number, number],
    targetStride: number,
    rect: Rect,
    matrix: Matrix3,
    edges: readonly HalfPlane[],
  ) => {
    const order = new Float64Array(kernels.memory.buffer, kernels.quadOrder(), FIELDS + 3 * MOST_EDGES);
    order.set([
      ...sources,
      stride,
      width,
      height,
      ...targets,
      targetStride,
      Math.min(1, opacity),
      rect.left,
      rect.top,
      rect.right,
      rect.bottom,
      edges.length,
      ...matrix,
    ]);
    edges.forEach((edge, index) => order.set([edge.a, edge.b, edge.c], FIELDS + 3 * index));
    kernels.drawQuad();
  };
  draw(
    [picture.y, 0, picture.alpha],
    picture.yStride,
    picture.widthPx,
    picture.heightPx,
    [surface.y, 0, surface.alpha],
    surface.yStride,
    bounds,
    map,
    seen.edges,
  );
  if (surface.u === 0) return;
  // Chroma sample (i, j) of the frame has its middle at luma (2i + ½, 2j + 1), and so has that of the picture: the same map between halved places.
  const chromaMap = times3([0.5, 0, 0, 0, 0.5, -0.25, 0, 0, 1], times3(map, [2, 0, -0.5, 0, 2, 0, 0, 0, 1]));
  const chromaEdges = seen.edges.map(({ a, b, c }) => ({ a, b, c: (c - 0.5 * a) / 2 }));
  const chromaRect = { left: bounds.left / 2, top: bounds.top / 2, right: bounds.right / 2, bottom: bounds.bottom / 2 };
  draw(
    [picture.u, picture.v, picture.halfAlpha],
    picture.cStride,
    (picture.widthPx + 1) >> 1,
    (picture.heightPx + 1) >> 1,
    [surface.u, surface.v, surface.halfAlpha],
    surface.cStride,
    chromaRect,
    chromaMap,
    chromaEdges,
  );
}

/** Whether a map of the surface neither turns, leans nor flips, to less than a thousandth of a sample. */
function isUpright(map: Matrix3, { widthPx, heightPx }: Surface): boolean {
  const [m0, m1, , m3, m4, , m6, m7, m8] = map.map((value) => value / map[8]!) as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  const depth = Math.abs(m6) * widthPx + Math.abs(m7) * heightPx;
  return (
    m8 === 1 &&
    m0 > 0 &&
    m4 > 0 &&
    Math.abs(m1) * heightPx < 1e-3 &&
    Math.abs(m3) * widthPx < 1e-3 &&
    depth * Math.max(m0 * widthPx, m4 * heightPx) < 1e-3
  );
}

/** A cel or picture of which only the transparency counts: drawn from or to, it is one full-size plane. */
export function transparencyOf(planes: PicturePlanes): PicturePlanes {
  return { ...planes, y: planes.alpha, u: 0, v: 0, alpha: 0, halfAlpha: 0 };
}

/** The whole bitmap in the whole box. */
export function bitmapSamples(bitmap: { readonly widthPx: number; readonly heightPx: number }): Matrix3 {
  return [bitmap.widthPx, 0, -0.5, 0, bitmap.heightPx, -0.5, 0, 0, 1];
}

export function rectAround(points: readonly Point[], room: number): Rect {
  return {
    left: Math.floor(Math.min(...points.map((point) => point.x)) - room),
    top: Math.floor(Math.min(...points.map((point) => point.y)) - room),
    right: Math.ceil(Math.max(...points.map((point) => point.x)) + room),
    bottom: Math.ceil(Math.max(...points.map((point) => point.y)) + room),
  };
}

/** The rectangle on the surface, rows in pairs; null when nothing is left of it. */
function evenRect(rect: Rect, surface: { readonly widthPx: number; readonly heightPx: number }): Rect | null {
  const out = {
    left: Math.max(0, rect.left) & ~1,
    top: Math.max(0, rect.top) & ~1,
    right: Math.min(surface.widthPx, (rect.right + 1) & ~1),
    bottom: Math.min(surface.heightPx, (rect.bottom + 1) & ~1),
  };
  return out.left < out.right && out.top < out.bottom ? out : null;
}
