import type { LightPlan } from '../../core/frame/frame-plan';
import type { PrintEffect } from '../../core/show/light';
import type { Pixels } from '../planes/picture-planes';
import { blur } from './gaussian';

/** Sharpening, red eyes and printmaking effects: worked out on the picture's pixels once. Reaches are shares of its width, so that every size of it looks alike. */
export function applyStillEffects(pixels: Pixels, light: LightPlan): Pixels {
  if (light.sharpen === 0 && !light.print && light.redEyes.length === 0) return pixels;
  const rgba = Uint8ClampedArray.from(pixels.rgba);
  const { widthPx, heightPx } = pixels;
  for (const spot of light.redEyes) darkenRedEye(rgba, widthPx, heightPx, spot);
  if (light.sharpen > 0) sharpen(rgba, widthPx, heightPx, light.sharpen);
  if (light.print && light.print.strength > 0)
    printmake(rgba, widthPx, heightPx, light.print.kind, light.print.strength);
  return { ...pixels, rgba };
}

function lumaOf(rgba: Uint8ClampedArray): Float32Array {
  return Float32Array.from(
    { length: rgba.length / 4 },
    (_, at) => (0.2126 * rgba[4 * at]! + 0.7152 * rgba[4 * at + 1]! + 0.0722 * rgba[4 * at + 2]!) / 255,
  );
}

function blurred(plane: Float32Array, widthPx: number, heightPx: number, sigma: number): Float32Array {
  const out = plane.slice();
  blur(out, widthPx, heightPx, Math.max(0.4, sigma));
  return out;
}

/** Red that much outweighs green and blue is taken down to them, softly towards the spot's rim. */
function darkenRedEye(
  rgba: Uint8ClampedArray,
  widthPx: number,
  heightPx: number,
  spot: { readonly x: number; readonly y: number; readonly radius: number },
): void {
  const [cx, cy, radius] = [spot.x * widthPx, spot.y * heightPx, spot.radius * widthPx];
  for (let y = Math.max(0, Math.floor(cy - radius)); y < Math.min(heightPx, cy + radius); y += 1) {
    for (let x = Math.max(0, Math.floor(cx - radius)); x < Math.min(widthPx, cx + radius); x += 1) {
      const away = Math.hypot(x + 0.5 - cx, y + 0.5 - cy) / radius;
      if (away >= 1) continue;
      const at = 4 * (y * widthPx + x);
      const [r, g, b] = [rgba[at]!, rgba[at + 1]!, rgba[at + 2]!];
      const other = (g + b) / 2;
      const redness = Math.min(1, Math.max(0, (r - 1.3 * other - 10) / 40));
      const share = redness * Math.min(1, 3 * (1 - away));
      rgba[at] = r + (other * 0.8 - r) * share;
      rgba[at + 1] = g + (g * 0.9 - g) * share;
      rgba[at + 2] = b + (b * 0.9 - b) * share;
    }
  }
}

function sharpen(rgba: Uint8ClampedArray, widthPx: number, heightPx: number, amount: number): void {
  const luma = lumaOf(rgba);
  const soft = blurred(luma, widthPx, heightPx, widthPx / 1300);
  for (let at = 0; at < luma.length; at += 1) {
    const by = 255 * 1.6 * amount * (luma[at]! - soft[at]!);
    for (let channel = 0; channel < 3; channel += 1) rgba[4 * at + channel] = rgba[4 * at + channel]! + by;
  }
}

type Shade = readonly [r: number, g: number, b: number];
const PAPER: Shade = [247, 243, 234];
const INK: Shade = [38, 36, 44];

const step = (low: number, high: number, value: number) => {
  const t = Math.min(1, Math.max(0, (value - low) / (high - low)));
  return t * t * (3 - 2 * t);
};
const between = (a: Shade, b: Shade, share: number): Shade => [
  a[0] + (b[0] - a[0]) * share,
  a[1] + (b[1] - a[1]) * share,
  a[2] + (b[2] - a[2]) * share,
];

function printmake(
  rgba: Uint8ClampedArray,
  widthPx: number,
  heightPx: number,
  kind: PrintEffect,
  strength: number,
): void {
  const shade = SHADES[kind](rgba, widthPx, heightPx);
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      const at = y * widthPx + x;
      const to = shade(at, x, y);
      for (let channel = 0; channel < 3; channel += 1) {
        const was = rgba[4 * at + channel]!;
        rgba[4 * at + channel] = was + (to[channel]! - was) * strength;
      }
    }
  }
}

type Shading = (at: number, x: number, y: number) => Shade;

/** Grain of paper, −1…1, the same everywhere and at every size: it is looked up by shares of the width. */
function grain(x: number, y: number, widthPx: number): number {
  const value =
    Math.sin(Math.floor((x / widthPx) * 1400) * 12.9898 + Math.floor((y / widthPx) * 1400) * 78.233) * 43758.5453;
  return 2 * (value - Math.floor(value)) - 1;
}

const SHADES: Record<PrintEffect, (rgba: Uint8ClampedArray, widthPx: number, heightPx: number) => Shading> = {
  // A pencil leaves what is darker than its surroundings: the picture divided by its blurred self, with hatching in the shadows.
  pencil(rgba, widthPx, heightPx) {
    const luma = lumaOf(rgba);
    const soft = blurred(luma, widthPx, heightPx, widthPx / 140);
    return (at, x, y) => {
      const line = Math.min(1, (luma[at]! + 0.02) / (soft[at]! + 0.02));
      const hatch = 0.5 + 0.5 * Math.sin(((x + 0.8 * y) / widthPx) * 900 + 2 * grain(x / 6, y / 6, widthPx));
      const shadow = step(0.55, 0.1, soft[at]!) * (0.25 + 0.35 * hatch);
      const dark = Math.min(1, Math.max(0, 1 - line ** 3 + shadow + 0.06 * grain(x, y, widthPx) * shadow));
      return between(PAPER, [62, 60, 62], dark);
    };
  },
  // Three washes of thinned ink with soft borders, darker where a wash dries.
  'ink-wash'(rgba, widthPx, heightPx) {
    const luma = blurred(lumaOf(rgba), widthPx, heightPx, widthPx / 420);
    const wide = blurred(luma, widthPx, heightPx, widthPx / 130);
    return (at, x, y) => {
      const value = luma[at]! + 0.01 * grain(x / 4, y / 4, widthPx);
      const wash = 0.3 * step(0.72, 0.62, value) + 0.3 * step(0.46, 0.37, value) + 0.32 * step(0.24, 0.15, value);
      const rim = 2.2 * Math.max(0, wide[at]! - luma[at]!);
      return between(PAPER, [32, 42, 62], Math.min(1, wash + rim));
    };
  },
  // Black and white, told apart against the surroundings; the middle tones are cut in slanting lines that grow broader with the light.
  linocut(rgba, widthPx, heightPx) {
    const luma = blurred(lumaOf(rgba), widthPx, heightPx, widthPx / 600);
    const soft = blurred(luma, widthPx, heightPx, widthPx / 50);
    return (at, x, y) => {
      const tone = luma[at]! + 0.8 * (luma[at]! - soft[at]!);
      const cut = Math.sin(((0.82 * x + y) / widthPx) * 460 + 1.5 * Math.sin((y / widthPx) * 30));
      const level = tone - 0.4 + 0.2 * cut * step(0.34, 0.12, Math.abs(tone - 0.4));
      return between(INK, PAPER, step(-0.03, 0.03, level));
    };
  },
  // Colours run within soft areas, pool at their borders and leave the paper's grain.
  watercolour(rgba, widthPx, heightPx) {
    const sigma = widthPx / 260;
    const [r, g, b] = [0, 1, 2].map((channel) =>
      blurred(
        Float32Array.from({ length: rgba.length / 4 }, (_, at) => rgba[4 * at + channel]! / 255),
        widthPx,
        heightPx,
        sigma,
      ),
    ) as [Float32Array, Float32Array, Float32Array];
    const luma = lumaOf(rgba);
    const wide = blurred(luma, widthPx, heightPx, sigma * 3);
    return (at, x, y) => {
      const value = 0.2126 * r[at]! + 0.7152 * g[at]! + 0.0722 * b[at]!;
      // Six levels with soft borders between.
      const levels = 6;
      const place = value * levels;
      const flat = (Math.floor(place) + step(0.3, 0.7, place - Math.floor(place))) / levels;
      const pooled = 1 - Math.min(0.5, 3 * Math.max(0, wide[at]! - value));
      const paper = 1 + 0.05 * grain(x, y, widthPx);
      const tint = (channel: number) =>
        255 * Math.min(1, (0.14 + 0.86 * (flat + 1.35 * (channel - value))) * pooled * paper);
      return [tint(r[at]!), tint(g[at]!), tint(b[at]!)];
    };
  },
  // Few flat, strong colours with dark contours.
  poster(rgba, widthPx, heightPx) {
    const luma = blurred(lumaOf(rgba), widthPx, heightPx, widthPx / 600);
    const wide = blurred(luma, widthPx, heightPx, widthPx / 240);
    return (at) => {
      const levels = 4;
      const value = luma[at]!;
      const place = value * levels;
      const flat = Math.min(1, (Math.floor(place) + step(0.42, 0.58, place - Math.floor(place))) / levels);
      const contour = 1 - step(0.03, 0.09, wide[at]! - value);
      const tint = (channel: number) =>
        255 * Math.min(1, Math.max(0, (flat + 1.8 * (rgba[4 * at + channel]! / 255 - value)) * contour));
      return [tint(0), tint(1), tint(2)];
    };
  },
};
