import { inverse3, times3, type Matrix3 } from '../../core/frame/matrix';
import { screenEdges, type HalfPlane, type Point } from '../../core/frame/polygon';
import type { Kernels } from '../kernel-module';
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

export const WHOLE_BOX: readonly Point[] = [{ x: 0, y: 0 }, { x: 1, y: 0 }, { x: 1, y: 1 }, { x: 0, y: 1 }];

/**
 * Draws a picture through a box seen on the screen.
 *
 * @param toScreen the box (unit square) to pixels of the surface
 * @param toSamples the box to the picture's samples, whose first has its middle at (0, 0)
 * @param outline the part of the box to draw, convex
 * @param opacity 0…1
 */
export function drawQuad(kernels: Kernels, surface: Surface, picture: PicturePlanes, toScreen: Matrix3, toSamples: Matrix3, outline: readonly Point[], opacity: number): void {
  if (outline.length < 3 || outline.length > MOST_EDGES || opacity <= 0) return;
  const seen = screenEdges(outline, toScreen);
  const back = inverse3(toScreen);
  if (!seen || !back) return;
  const bounds = evenRect(rectAround(seen.points, 1), surface);
  if (!bounds) return;
  const map = times3(toSamples, back);
  const draw = (sources: readonly [number, number, number], stride: number, width: number, height: number, targets: readonly [number, number, number], targetStride: number, rect: Rect, matrix: Matrix3, edges: readonly HalfPlane[]) => {
    const order = new Float64Array(kernels.memory.buffer, kernels.quadOrder(), FIELDS + 3 * MOST_EDGES);
    order.set([...sources, stride, width, height, ...targets, targetStride, Math.min(1, opacity), rect.left, rect.top, rect.right, rect.bottom, edges.length, ...matrix]);
    edges.forEach((edge, index) => order.set([edge.a, edge.b, edge.c], FIELDS + 3 * index));
    kernels.drawQuad();
  };
  draw([picture.y, 0, picture.alpha], picture.yStride, picture.widthPx, picture.heightPx, [surface.y, 0, surface.alpha], surface.yStride, bounds, map, seen.edges);
  // Chroma sample (i, j) of the frame has its middle at luma (2i + ½, 2j + 1), and so has that of the picture: the same map between halved places.
  const chromaMap = times3([0.5, 0, 0, 0, 0.5, -0.25, 0, 0, 1], times3(map, [2, 0, -0.5, 0, 2, 0, 0, 0, 1]));
  const chromaEdges = seen.edges.map(({ a, b, c }) => ({ a, b, c: (c - 0.5 * a) / 2 }));
  const chromaRect = { left: bounds.left / 2, top: bounds.top / 2, right: bounds.right / 2, bottom: bounds.bottom / 2 };
  draw([picture.u, picture.v, picture.halfAlpha], picture.cStride, (picture.widthPx + 1) >> 1, (picture.heightPx + 1) >> 1, [surface.u, surface.v, surface.halfAlpha], surface.cStride, chromaRect, chromaMap, chromaEdges);
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
