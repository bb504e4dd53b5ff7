import type { PictureSize, StencilLook, EdgePlan } from '../../core/frame/frame-plan';
import { cornersPath } from '../../core/show/edge-shapes';
import type { EdgeShape, Fill, Gradient, Shape } from '../../core/show/layer';
import type { Pixels } from '../planes/picture-planes';
import type { Drawing2d } from '../words/outline';
import { blur } from './gaussian';

/** A shape filled with a colour or a gradient, as pixels of its whole box. Gradients are worked out in floats and dithered by a fixed pattern, so that no steps show. */
export function paintShape(shape: Shape, fill: Fill<string>, size: PictureSize, drawing: Drawing2d): Pixels {
  const { widthPx, heightPx } = size;
  const path = shapePath(shape, widthPx, heightPx);
  const cover = path === null ? null : coverage(path, size, drawing);
  const colourAt = fill.kind === 'colour' ? plain(fill.colour) : gradientAt(fill, widthPx, heightPx);
  const rgba = new Uint8ClampedArray(4 * widthPx * heightPx);
  let seeThrough = cover !== null;
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const at = y * widthPx + x;
      const [r, g, b, a] = colourAt(x + 0.5, y + 0.5);
      const grain = fill.kind === 'colour' ? 0.5 : dither(x, y);
      rgba[4 * at] = Math.floor(r + grain);
      rgba[4 * at + 1] = Math.floor(g + grain);
      rgba[4 * at + 2] = Math.floor(b + grain);
      rgba[4 * at + 3] = Math.floor(a * (cover ? cover[at]! : 255) + grain);
      if (a < 1) seeThrough = true;
    }
  }
  return { widthPx, heightPx, rgba, hasTransparency: seeThrough };
}

/** White where a layer with this edge shows. */
export function paintStencil(look: StencilLook, drawing: Drawing2d): Pixels {
  const { widthPx, heightPx } = look.bitmap;
  const shorter = Math.min(widthPx, heightPx);
  const cover = Float32Array.from(
    coverage(edgePath(look.shape, widthPx, heightPx), look.bitmap, drawing, 2 * look.inset * shorter),
    (value) => value / 255,
  );
  return {
    widthPx,
    heightPx,
    rgba: white(look.feather > 0 ? feathered(cover, widthPx, heightPx, look.feather * shorter) : cover),
    hasTransparency: true,
  };
}

/** Inwards: nothing at the edge, all of it a feather's width inside. What lies outside the box counts as empty. */
function feathered(cover: Float32Array, widthPx: number, heightPx: number, widthOfFeather: number): Float32Array {
  const room = Math.ceil(widthOfFeather * 1.5);
  const [w, h] = [widthPx + 2 * room, heightPx + 2 * room];
  const roomy = new Float32Array(w * h);
  for (let y = 0; y < heightPx; y += 1)
    roomy.set(cover.subarray(y * widthPx, (y + 1) * widthPx), (y + room) * w + room);
  blur(roomy, w, h, Math.max(0.5, widthOfFeather / 2));
  const out = new Float32Array(widthPx * heightPx);
  for (let y = 0; y < heightPx; y += 1)
    for (let x = 0; x < widthPx; x += 1)
      out[y * widthPx + x] = Math.min(1, Math.max(0, 2 * roomy[(y + room) * w + x + room]! - 1));
  return out;
}

/** An outline's bitmap reaches beyond the box by its margin, in shares of the box. */
export interface PaintedOutline {
  readonly pixels: Pixels;
  readonly marginX: number;
  readonly marginY: number;
}

export function paintOutline(look: NonNullable<EdgePlan['outline']>, drawing: Drawing2d): PaintedOutline {
  const { widthPx: w, heightPx: h } = look.bitmap;
  const line = look.width * Math.min(w, h);
  const margin = look.where === 'inside' ? 2 : Math.ceil(line) + 3;
  const [widthPx, heightPx] = [w + 2 * margin, h + 2 * margin];
  const canvas = drawing.open(widthPx, heightPx);
  const { context } = canvas;
  const path = drawing.path(edgePath(look.shape, w, h));
  context.translate(margin, margin);
  context.strokeStyle = look.colour;
  context.fillStyle = look.colour;
  context.lineJoin = look.shape === null ? 'miter' : 'round';
  context.lineWidth = look.where === 'centre' ? line : 2 * line;
  context.stroke(path);
  if (look.where !== 'centre') {
    context.globalCompositeOperation = look.where === 'inside' ? 'destination-in' : 'destination-out';
    context.fill(path);
  }
  return {
    pixels: { widthPx, heightPx, rgba: canvas.pixels(), hasTransparency: true },
    marginX: margin / w,
    marginY: margin / h,
  };
}

/** Black that grows towards the corners; laid over a box by its strength. */
export function paintVignette(): Pixels {
  const side = 512;
  const rgba = new Uint8ClampedArray(4 * side * side);
  for (let y = 0; y < side; y += 1) {
    for (let x = 0; x < side; x += 1) {
      const away = Math.hypot((2 * x + 1) / side - 1, (2 * y + 1) / side - 1) / Math.SQRT2;
      const share = Math.min(1, Math.max(0, (away - 0.35) / 0.65));
      rgba[4 * (y * side + x) + 3] = Math.floor(255 * 0.85 * share * share * (3 - 2 * share) + dither(x, y));
    }
  }
  return { widthPx: side, heightPx: side, rgba, hasTransparency: true };
}

function white(cover: Float32Array): Uint8ClampedArray {
  const rgba = new Uint8ClampedArray(4 * cover.length).fill(255);
  for (let at = 0; at < cover.length; at += 1) rgba[4 * at + 3] = Math.round(cover[at]! * 255);
  return rgba;
}

/** @param rimPx so broad a line along the path is left out, half of it inside */
function coverage(path: string, size: PictureSize, drawing: Drawing2d, rimPx = 0): Uint8Array {
  const canvas = drawing.open(size.widthPx, size.heightPx);
  canvas.context.fillStyle = '#ffffff';
  canvas.context.fill(drawing.path(path));
  if (rimPx > 0) {
    canvas.context.globalCompositeOperation = 'destination-out';
    canvas.context.lineJoin = 'round';
    canvas.context.lineWidth = rimPx;
    canvas.context.stroke(drawing.path(path));
  }
  const pixels = canvas.pixels();
  return Uint8Array.from({ length: size.widthPx * size.heightPx }, (_, at) => pixels[4 * at + 3]!);
}

/** Null for a plain rectangle, which is its box. */
function shapePath(shape: Shape, w: number, h: number): string | null {
  switch (shape.kind) {
    case 'rectangle':
      return shape.radius ? roundedPath(w, h, shape.radius * Math.min(w, h)) : null;
    case 'ellipse':
      return ellipsePath(w, h);
    case 'polygon':
      return scaledPath(
        cornersPath(shape.sides, () => 1),
        w,
        h,
      );
    case 'star':
      return scaledPath(
        cornersPath(2 * shape.points, (index) => (index % 2 === 0 ? 1 : shape.depth)),
        w,
        h,
      );
    case 'free':
      return scaledPath(shape.path, w, h);
  }
}

export function edgePath(shape: EdgeShape | null, w: number, h: number): string {
  if (!shape) return `M0 0H${w}V${h}H0Z`;
  if (shape.kind === 'rounded') return roundedPath(w, h, shape.radius * Math.min(w, h));
  return shape.kind === 'ellipse' ? ellipsePath(w, h) : scaledPath(shape.path, w, h);
}

function roundedPath(w: number, h: number, radius: number): string {
  const r = Math.min(radius, w / 2, h / 2);
  return `M${r} 0H${w - r}A${r} ${r} 0 0 1 ${w} ${r}V${h - r}A${r} ${r} 0 0 1 ${w - r} ${h}H${r}A${r} ${r} 0 0 1 0 ${h - r}V${r}A${r} ${r} 0 0 1 ${r} 0Z`;
}

function ellipsePath(w: number, h: number): string {
  return `M0 ${h / 2}A${w / 2} ${h / 2} 0 0 1 ${w} ${h / 2}A${w / 2} ${h / 2} 0 0 1 0 ${h / 2}Z`;
}

/** SVG path data from a box of 100 × 100; arcs keep their flags. Numbers are taken by their place in each command. */
export function scaledPath(path: string, w: number, h: number): string {
  const [sx, sy] = [w / 100, h / 100];
  return path.replace(/([a-zA-Z])([^a-zA-Z]*)/g, (_, command: string, rest: string) => {
    const numbers = [...rest.matchAll(/-?\d*\.?\d+(?:e[-+]?\d+)?/gi)].map(([text]) => Number(text));
    const kind = command.toUpperCase();
    const scaled = numbers.map((value, index) => {
      if (kind === 'H') return value * sx;
      if (kind === 'V') return value * sy;
      if (kind !== 'A') return value * (index % 2 === 0 ? sx : sy);
      const place = index % 7;
      return place === 0 || place === 5 ? value * sx : place === 1 || place === 6 ? value * sy : value;
    });
    return command + scaled.map((value) => Number(value.toFixed(3))).join(' ');
  });
}

type Colour = readonly [r: number, g: number, b: number, a: number];

function plain(colour: string): () => Colour {
  const value = parsed(colour, 1);
  return () => value;
}

function parsed(colour: string, opacity: number): Colour {
  const [r, g, b] = [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16)) as [number, number, number];
  return [r, g, b, opacity];
}

/** The gradient's colour at a place of a box, between stops weighed by their transparency, so that a clear stop tints nothing. */
export function gradientAt(gradient: Gradient<string>, w: number, h: number): (x: number, y: number) => Colour {
  const stops = gradient.stops.map((stop) => ({ at: stop.at, colour: parsed(stop.colour, stop.opacity ?? 1) }));
  const angle = ((gradient.angleDegrees ?? 0) * Math.PI) / 180;
  const [cos, sin] = [Math.cos(angle), Math.sin(angle)];
  const reach = Math.abs(w * cos) + Math.abs(h * sin);
  const share = (x: number, y: number): number => {
    const [dx, dy] = [x - w / 2, y - h / 2];
    if (gradient.kind === 'linear') return 0.5 + (dx * cos + dy * sin) / reach;
    if (gradient.kind === 'radial') return Math.hypot(dx / (w / 2), dy / (h / 2)) / Math.SQRT2;
    const turn = (Math.atan2(dx, -dy) - angle) / (2 * Math.PI);
    return turn - Math.floor(turn);
  };
  return (x, y) => {
    const at = share(x, y);
    const next = stops.findIndex((stop) => stop.at > at);
    if (next === 0) return stops[0]!.colour;
    if (next < 0) return stops.at(-1)!.colour;
    const [from, to] = [stops[next - 1]!, stops[next]!];
    const part = (at - from.at) / (to.at - from.at);
    const a = from.colour[3] + (to.colour[3] - from.colour[3]) * part;
    if (a === 0) return [0, 0, 0, 0];
    const mix = (index: 0 | 1 | 2) =>
      (from.colour[index] * from.colour[3] * (1 - part) + to.colour[index] * to.colour[3] * part) / a;
    return [mix(0), mix(1), mix(2), a];
  };
}

/** 0…1, an even mixture that repeats nowhere near (interleaved gradient noise, Jimenez 2014); the same everywhere. */
export function dither(x: number, y: number): number {
  const value = 52.9829189 * ((0.06711056 * x + 0.00583715 * y) % 1);
  return value - Math.floor(value);
}
