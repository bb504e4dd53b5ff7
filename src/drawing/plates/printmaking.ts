import type { PrintEffect } from '../../core/show/light';
import { smooth } from '../../core/light/running-mean';

// Looked up once: these run for every pixel.
const { floor, imul, max, min, round, sin, tanh } = Math;

/**
 * Pictures as if they were drawn, cut or painted: worked out on a picture's pixels once. Reaches are shares of its width, so that every size of it looks alike.
 *
 * Lines are found as a difference of Gaussians with a soft threshold (Winnemöller, Kyprianidis and Olsen 2012); flat colours by the weighted Kuwahara filter
 * (Papari, Petkov and Campisi 2007); watercolour's pigment follows Bousseau, Kaplan, Thollot and Sillion 2006.
 */
export function printmake(
  rgba: Uint8ClampedArray,
  widthPx: number,
  heightPx: number,
  kind: PrintEffect,
  strength: number,
): void {
  const shade = SHADES[kind]({ rgba, widthPx, heightPx });
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

interface Source {
  readonly rgba: Uint8ClampedArray;
  readonly widthPx: number;
  readonly heightPx: number;
}

type Shade = readonly [r: number, g: number, b: number];
type Shading = (at: number, x: number, y: number) => Shade;

const PAPER: Shade = [247, 243, 234];
const INK: Shade = [38, 36, 44];

const step = (low: number, high: number, value: number) => {
  const t = min(1, max(0, (value - low) / (high - low)));
  return t * t * (3 - 2 * t);
};
const between = (a: Shade, b: Shade, share: number): Shade => [
  a[0] + (b[0] - a[0]) * share,
  a[1] + (b[1] - a[1]) * share,
  a[2] + (b[2] - a[2]) * share,
];

/** Brightness by BT.709’s weights, 0…1. */
export function lumaOf(rgba: Uint8ClampedArray): Float32Array {
  const luma = new Float32Array(rgba.length / 4);
  for (let at = 0; at < luma.length; at += 1)
    luma[at] = (0.2126 * rgba[4 * at]! + 0.7152 * rgba[4 * at + 1]! + 0.0722 * rgba[4 * at + 2]!) / 255;
  return luma;
}

function smoothed(plane: Float32Array, { widthPx, heightPx }: Source, sigma: number): Float32Array {
  const out = plane.slice();
  smooth(out, widthPx, heightPx, max(0.6, sigma));
  return out;
}

/** How dark lines and what is darker than its surroundings are to be drawn, 0 paper…1 ink. */
function lines(luma: Float32Array, source: Source, { reach, sharpness, at: threshold, softness }: Lines): Float32Array {
  const fine = smoothed(luma, source, reach * source.widthPx);
  const wide = smoothed(luma, source, 1.6 * reach * source.widthPx);
  const ink = new Float32Array(luma.length);
  for (let at = 0; at < luma.length; at += 1) {
    const value = fine[at]! + sharpness * (fine[at]! - wide[at]!);
    ink[at] = value >= threshold ? 0 : -tanh((value - threshold) / softness);
  }
  return ink;
}

interface Lines {
  /** Of a line, as a share of the width. */
  readonly reach: number;
  readonly sharpness: number;
  /** What is darker is ink. */
  readonly at: number;
  readonly softness: number;
}

/** Brightness as the eye takes it: stretched to the whole range, and told a little against the surroundings, so that a dark picture has light in it too. */
function evened(luma: Float32Array, source: Source): Float32Array {
  const wide = smoothed(luma, source, source.widthPx / 12);
  const counts = new Uint32Array(256);
  for (let at = 0; at < luma.length; at += 1) counts[round(255 * luma[at]!)]! += 1;
  const level = (share: number) => {
    let sum = 0;
    for (let value = 0; value < 256; value += 1) if ((sum += counts[value]!) >= share * luma.length) return value / 255;
    return 1;
  };
  const [black, white] = [level(0.02), level(0.98)];
  const range = max(0.25, white - black);
  const out = new Float32Array(luma.length);
  for (let at = 0; at < luma.length; at += 1) {
    const own = (luma[at]! - black) / range;
    const around = (wide[at]! - black) / range;
    out[at] = min(1, max(0, own + 0.35 * (0.5 - around)));
  }
  return out;
}

/** Noise of the paper, −1…1, soft between points that lie `cells` to the width: the same everywhere and at every size. */
function paper(x: number, y: number, widthPx: number, cells: number): number {
  const [px, py] = [(x / widthPx) * cells, (y / widthPx) * cells];
  const [ix, iy] = [floor(px), floor(py)];
  const [fx, fy] = [px - ix, py - iy];
  const [sx, sy] = [fx * fx * (3 - 2 * fx), fy * fy * (3 - 2 * fy)];
  const above = dealt(ix, iy) + (dealt(ix + 1, iy) - dealt(ix, iy)) * sx;
  const below = dealt(ix, iy + 1) + (dealt(ix + 1, iy + 1) - dealt(ix, iy + 1)) * sx;
  return above + (below - above) * sy;
}

/** −1…1 for a pair of whole numbers. */
function dealt(x: number, y: number): number {
  let hash = imul(x, 0x27d4eb2d) ^ imul(y, 0x165667b1);
  hash = imul(hash ^ (hash >>> 15), 0x2c1b3c6d);
  hash = imul(hash ^ (hash >>> 12), 0x297a2d39);
  return ((hash ^ (hash >>> 15)) >>> 0) / 2147483648 - 1;
}

type Colours = readonly [Float32Array, Float32Array, Float32Array];

/**
 * Colours flattened within areas, crisp at their borders: of the four squares that touch a place the even ones count. Sums over squares come from tables of sums.
 *
 * @param reach of a square, as a share of the width
 */
function flattened({ rgba, widthPx, heightPx }: Source, reach: number): Colours {
  const radius = max(1, round(reach * widthPx));
  const stride = widthPx + 1;
  const tables = [0, 1, 2, 3].map(() => new Float64Array(stride * (heightPx + 1)));
  for (let y = 0; y < heightPx; y += 1) {
    const row = [0, 0, 0, 0];
    for (let x = 0; x < widthPx; x += 1) {
      const at = 4 * (y * widthPx + x);
      const [r, g, b] = [rgba[at]! / 255, rgba[at + 1]! / 255, rgba[at + 2]! / 255];
      const to = (y + 1) * stride + x + 1;
      row[0]! += r;
      row[1]! += g;
      row[2]! += b;
      row[3]! += r * r + g * g + b * b;
      for (let table = 0; table < 4; table += 1) tables[table]![to] = tables[table]![to - stride]! + row[table]!;
    }
  }
  const [reds, greens, blues, squares] = tables as [Float64Array, Float64Array, Float64Array, Float64Array];
  const out: Colours = [0, 1, 2].map(() => new Float32Array(widthPx * heightPx)) as never;
  for (let y = 0; y < heightPx; y += 1) {
    for (let x = 0; x < widthPx; x += 1) {
      let [weights, r, g, b] = [0, 0, 0, 0];
      for (let square = 0; square < 4; square += 1) {
        const left = max(0, square & 1 ? x : x - radius);
        const right = min(widthPx, 1 + (square & 1 ? x + radius : x));
        const top = max(0, square & 2 ? y : y - radius);
        const bottom = min(heightPx, 1 + (square & 2 ? y + radius : y));
        const [a, c, d, e] = [
          top * stride + left,
          top * stride + right,
          bottom * stride + left,
          bottom * stride + right,
        ];
        const count = 1 / ((right - left) * (bottom - top));
        const mr = (reds[e]! - reds[d]! - reds[c]! + reds[a]!) * count;
        const mg = (greens[e]! - greens[d]! - greens[c]! + greens[a]!) * count;
        const mb = (blues[e]! - blues[d]! - blues[c]! + blues[a]!) * count;
        const spread = (squares[e]! - squares[d]! - squares[c]! + squares[a]!) * count - mr * mr - mg * mg - mb * mb;
        const evenness = 1 / (1e-4 + max(0, spread));
        const weight = evenness * evenness;
        weights += weight;
        r += weight * mr;
        g += weight * mg;
        b += weight * mb;
      }
      const at = y * widthPx + x;
      out[0][at] = r / weights;
      out[1][at] = g / weights;
      out[2][at] = b / weights;
    }
  }
  return out;
}

const lumaOfColours = ([r, g, b]: Colours) => r.map((red, at) => 0.2126 * red + 0.7152 * g[at]! + 0.0722 * b[at]!);

const SHADES: Record<PrintEffect, (source: Source) => Shading> = {
  // A pencil leaves what is darker than its surroundings: the picture divided by its blurred self, with hatching in the shadows.
  pencil(source) {
    const { rgba, widthPx } = source;
    const luma = lumaOf(rgba);
    const soft = smoothed(luma, source, widthPx / 140);
    return (at, x, y) => {
      const line = min(1, (luma[at]! + 0.02) / (soft[at]! + 0.02));
      const hatch = 0.5 + 0.5 * sin(((x + 0.8 * y) / widthPx) * 900 + 2 * paper(x, y, widthPx, 230));
      const shadow = step(0.55, 0.1, soft[at]!) * (0.25 + 0.35 * hatch);
      const dark = min(1, max(0, 1 - line ** 3 + shadow + 0.06 * paper(x, y, widthPx, 1400) * shadow));
      return between(PAPER, [62, 60, 62], dark);
    };
  },
  // Three washes of thinned ink with soft borders, darker where a wash dries.
  'ink-wash'(source) {
    const { rgba, widthPx } = source;
    const luma = smoothed(lumaOf(rgba), source, widthPx / 420);
    const wide = smoothed(luma, source, widthPx / 130);
    return (at, x, y) => {
      const value = luma[at]! + 0.01 * paper(x, y, widthPx, 350);
      const wash = 0.3 * step(0.72, 0.62, value) + 0.3 * step(0.46, 0.37, value) + 0.32 * step(0.24, 0.15, value);
      const rim = 2.2 * max(0, wide[at]! - luma[at]!);
      return between(PAPER, [32, 42, 62], min(1, wash + rim));
    };
  },
  // Ink and paper and nothing between: lines and darks are left standing, middle tones are cut in strokes that grow broader with the light, lights are cut away.
  linocut(source) {
    const { rgba, widthPx } = source;
    const tone = evened(lumaOf(rgba), source);
    const line = lines(tone, source, { reach: 1 / 900, sharpness: 14, at: 0.36, softness: 0.04 });
    const soft = smoothed(tone, source, widthPx / 320);
    return (at, x, y) => {
      const stroke = sin(((0.78 * x + y) / widthPx) * 620 + 1.6 * paper(x, y, widthPx, 14));
      // Where it is dark enough to be hatched at all, and not so dark that it is left whole.
      const hatch = stroke > 3.4 * (soft[at]! - 0.16) - 0.62 ? step(0.64, 0.6, soft[at]!) : 0;
      return between(PAPER, INK, max(step(0.35, 0.65, line[at]!), hatch));
    };
  },
  // Pigment in water: colours flat within areas whose borders waver, darker where they dried and where the paper is low, the lightest left as paper.
  watercolour(source) {
    const { widthPx, heightPx } = source;
    const colours = flattened(source, 1 / 210);
    const luma = lumaOfColours(colours);
    const soft = smoothed(luma, source, widthPx / 500);
    const wide = smoothed(luma, source, widthPx / 110);
    return (_at, x, y) => {
      const waver = widthPx / 620;
      const fromX = round(x + waver * paper(x, y, widthPx, 90) + 0.5 * waver * paper(x, y, widthPx, 260));
      const fromY = round(y + waver * paper(x + 999, y, widthPx, 90) + 0.5 * waver * paper(x + 999, y, widthPx, 260));
      const at = min(heightPx - 1, max(0, fromY)) * widthPx + min(widthPx - 1, max(0, fromX));
      const value = luma[at]!;
      // Where one area ends at a lighter one its pigment gathered; it runs in large clouds and settles in the paper’s grain.
      const pooled = 1.3 * step(0.015, 0.12, wide[at]! - soft[at]!);
      const clouds = 0.28 * paper(x, y, widthPx, 9) + 0.16 * paper(x, y, widthPx, 31);
      const grain = 0.2 * paper(x, y, widthPx, 420) + 0.1 * paper(x, y, widthPx, 900);
      const density = max(0, 1 + pooled + clouds + grain);
      // Lifted towards paper first: watercolour has no black and keeps its lights.
      const light = (channel: Float32Array) => {
        const vivid = min(1, max(0, value + 1.25 * (channel[at]! - value)));
        const lifted = 0.16 + 0.84 * vivid;
        return min(1, max(0, lifted - (density - 1) * lifted * (1 - lifted)));
      };
      const bare = step(0.86, 0.97, value);
      const tint = (channel: Float32Array, sheet: number) => {
        const painted = light(channel) * sheet;
        return painted + (sheet * (1 - 0.02 * grain) - painted) * bare;
      };
      return [tint(colours[0], PAPER[0]), tint(colours[1], PAPER[1]), tint(colours[2], PAPER[2])];
    };
  },
  // Few flat, strong colours, and lines where things end.
  poster(source) {
    const { rgba } = source;
    const colours = flattened(source, 1 / 380);
    const luma = lumaOfColours(colours);
    const line = lines(lumaOf(rgba), source, { reach: 1 / 1300, sharpness: 16, at: 0.1, softness: 0.06 });
    const LEVELS = 5;
    return (at) => {
      const value = luma[at]!;
      const place = min(LEVELS - 0.01, value * LEVELS);
      const level = (floor(place) + step(0.4, 0.6, place - floor(place))) / LEVELS;
      const left = 1 - 0.92 * step(0.2, 0.7, line[at]!);
      const tint = (channel: Float32Array) => 255 * min(1, max(0, level + 1.55 * (channel[at]! - value))) * left;
      return [tint(colours[0]), tint(colours[1]), tint(colours[2])];
    };
  },
};
