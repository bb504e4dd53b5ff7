import { readFile } from 'node:fs/promises';
import { beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import type { LightValues } from '../../core/frame/frame-plan';
import { balanceMatrix, chromaGain, chromaShift, toneCurve, vibranceGain } from '../../core/light/tone';
import { bytesOf, loadKernels, type Kernels } from '../kernel-module';
import { blur as blurInFloats } from '../plates/gaussian';
import { NEUTRAL } from '../../core/frame/frame-plan';
import { lightPicture } from './light-planes';
import { planesFromPixels, type PicturePlanes } from './picture-planes';
import {
  blendOver,
  blurCel,
  clearCel,
  createCels,
  layOver,
  layShadow,
  makeMask,
  maskCel,
  runRect,
  type Cels,
} from './cels';
import { createSurface, fillSurface, pixelsOf, ycbcrOf, type Surface } from './surface';

// Looked up once: under the test runner every look at a global takes long.
const { abs, floor, log10, max, min, round, sqrt } = Math;

const [W, H] = [640, 360];
const WHOLE = { left: 0, top: 0, right: W, bottom: H };
let kernels: Kernels;
let cels: Cels;
let photographs: Uint8Array[];
beforeAll(async () => {
  kernels = await loadKernels(new Uint8Array(await readFile('public/drawing/kernels.wasm')));
  cels = createCels(kernels, W, H);
  photographs = await Promise.all(
    ['PE_0463.jpg', 'PE_0426.jpg'].map(
      async (name) =>
        new Uint8Array(await sharp(`demo/files/${name}`).autoOrient().resize(W, H).ensureAlpha().raw().toBuffer()),
    ),
  );
});

const pictureOf = (rgba: Uint8Array, hasTransparency = false): PicturePlanes =>
  planesFromPixels(kernels, { widthPx: W, heightPx: H, rgba, hasTransparency });
function rowsOf(plane: number, stride: number, width: number, height: number): Float64Array {
  const memory = bytesOf(kernels);
  return Float64Array.from(
    { length: width * height },
    (_, at) => memory[plane + floor(at / width) * stride + (at % width)]!,
  );
}
const lumaOf = (of: PicturePlanes) => rowsOf(of.y, of.yStride, W, H);
function psnr(got: ArrayLike<number>, wanted: ArrayLike<number>): number {
  let sum = 0;
  for (let at = 0; at < got.length; at += 1) sum += (got[at]! - wanted[at]!) ** 2;
  return sum === 0 ? Infinity : 10 * log10(255 ** 2 / (sum / got.length));
}
/** A cel that holds a picture with one transparency. */
function celOf(rgba: Uint8Array, alpha = 255): Surface {
  const cel = cels.take();
  clearCel(kernels, cel, runRect(WHOLE, cel)!);
  const planes = pictureOf(
    Uint8Array.from(rgba, (value, at) => (at % 4 === 3 ? alpha : value)),
    true,
  );
  for (let row = 0; row < H; row += 1)
    for (const plane of ['y', 'alpha'] as const)
      kernels.copyBytes(cel[plane] + row * cel.yStride, planes[plane] + row * planes.yStride, W);
  for (let row = 0; row < H / 2; row += 1)
    for (const plane of ['u', 'v', 'halfAlpha'] as const)
      kernels.copyBytes(cel[plane] + row * cel.cStride, planes[plane] + row * planes.cStride, W / 2);
  return cel;
}

describe('blur', () => {
  it.each([0.6, 1.7, 3.2, 7, 15, 40])('agrees with a sampled Gaussian in floats at a deviation of %d', (sigma) => {
    const picture = pictureOf(photographs[0]!);
    const wanted = Float32Array.from(lumaOf(picture));
    blurInFloats(wanted, W, H, sigma);
    blurCel(kernels, cels, picture, WHOLE, sigma);
    expect(psnr(lumaOf(picture), wanted)).toBeGreaterThan(48);
  });
  it.each([0, 16, 77, 235, 255])('leaves a plane of %d exactly as it is', (value) => {
    const surface = createSurface(kernels, W, H);
    for (const sigma of [1, 6, 60]) {
      kernels.fillPlane(surface.y, surface.yStride, W, H, value);
      blurCel(kernels, cels, surface, WHOLE, sigma);
      expect(new Set(lumaOf(surface))).toEqual(new Set([value]));
    }
  });
  it('shows no steps: a wide blur of a soft dark ramp rises evenly', () => {
    const rgba = Uint8Array.from({ length: W * H * 4 }, (_, at) =>
      at % 4 === 3 ? 255 : 20 + floor((10 * ((at >> 2) % W)) / W),
    );
    const picture = pictureOf(rgba);
    blurCel(kernels, cels, picture, WHOLE, 36);
    const luma = lumaOf(picture);
    const means = Array.from({ length: 30 }, (_, column) => {
      let sum = 0;
      for (let y = 0; y < H; y += 1) for (let x = 0; x < 16; x += 1) sum += luma[y * W + 80 + column * 16 + x]!;
      return sum / (16 * H);
    });
    const steps = means.slice(1).map((mean, index) => mean - means[index]!);
    const even = (means.at(-1)! - means[0]!) / steps.length;
    expect(even).toBeGreaterThan(0.1);
    for (const step of steps) expect(abs(step - even)).toBeLessThan(0.18);
  });
});

describe('masks', () => {
  const half = () =>
    Uint8Array.from({ length: W * H * 4 }, (_, at) => (at % 4 === 3 ? 255 : (at >> 2) % W < W / 2 ? 255 : 64));
  it.each([
    ['transparency', false, [255, 255]],
    ['brightness', false, [255, 64]],
    ['brightness', true, [0, 191]],
    ['transparency', true, [0, 0]],
  ] as const)('cut by %s, inverted %s', (by, inverted, wanted) => {
    const cutter = celOf(half());
    makeMask(kernels, cels, cutter, WHOLE, { by, inverted, featherPx: 0 });
    const memory = bytesOf(kernels);
    [100, 500].forEach((x, index) =>
      expect(abs(memory[cutter.alpha + 99 * cutter.yStride + x]! - wanted[index]!)).toBeLessThanOrEqual(1),
    );
    cels.giveBack(cutter);
  });
  it('weigh colour and transparency alike, so that a grey stays grey', () => {
    const cel = celOf(new Uint8Array(W * H * 4).fill(180));
    const cutter = celOf(half());
    makeMask(kernels, cels, cutter, WHOLE, { by: 'brightness', inverted: false, featherPx: 9 });
    maskCel(kernels, cel, cutter, WHOLE);
    const frame = createSurface(kernels, W, H);
    fillSurface(kernels, frame, '#404040');
    layOver(kernels, frame, cel, WHOLE, 1);
    for (const value of rowsOf(frame.u, frame.cStride, W / 2, H / 2)) expect(abs(value - 128)).toBeLessThanOrEqual(1);
    const luma = lumaOf(frame);
    expect(abs(luma[50 * W + 20]! - ycbcrOf('#b4b4b4').y)).toBeLessThanOrEqual(1);
    expect(
      abs(luma[50 * W + 620]! - (ycbcrOf('#b4b4b4').y * 64 + ycbcrOf('#404040').y * 191) / 255),
    ).toBeLessThanOrEqual(2);
    // Between them the feather falls without a step.
    const row = luma.subarray(50 * W + 290, 50 * W + 350);
    for (let at = 1; at < row.length; at += 1) expect(row[at - 1]! - row[at]!).toBeGreaterThanOrEqual(-1);
    cels.giveBack(cel);
    cels.giveBack(cutter);
  });
});

describe('a shadow', () => {
  it('falls where it is sent, in its colour and strength, by parts of a pixel too', () => {
    const cel = cels.take();
    clearCel(kernels, cel, runRect(WHOLE, cel)!);
    kernels.fillPlane(cel.alpha + 100 * cel.yStride + 200, cel.yStride, 100, 80, 255);
    const middleOf = (xPx: number) => {
      const frame = createSurface(kernels, W, H);
      fillSurface(kernels, frame, '#ffffff');
      layShadow(kernels, cels, frame, cel, runRect(WHOLE, frame)!, {
        xPx,
        yPx: 40,
        blurPx: 6,
        colour: '#000000',
        opacity: 0.5,
      });
      const luma = lumaOf(frame);
      const row = luma.subarray(180 * W, 181 * W);
      let [weight, moment] = [0, 0];
      // Over many rows: the grain that keeps soft shadows free of steps then evens out.
      luma.subarray(150 * W, 214 * W).forEach((value, at) => {
        weight += 235 - value;
        moment += (235 - value) * ((at % W) + 0.5);
      });
      expect(abs(row[round(250 + xPx)]! - 125.5)).toBeLessThanOrEqual(1.5);
      return moment / weight;
    };
    expect(middleOf(30)).toBeCloseTo(280, 0);
    expect(middleOf(30.5) - middleOf(30)).toBeCloseTo(0.5, 1);
    cels.giveBack(cel);
  });
});

describe('blend modes', () => {
  const formulas = {
    multiply: (b: number, s: number) => b * s,
    screen: (b: number, s: number) => b + s - b * s,
    overlay: (b: number, s: number) => (b <= 0.5 ? 2 * b * s : 1 - 2 * (1 - b) * (1 - s)),
    'soft-light': (b: number, s: number) =>
      s <= 0.5
        ? b - (1 - 2 * s) * b * (1 - b)
        : b + (2 * s - 1) * ((b <= 0.25 ? ((16 * b - 12) * b + 4) * b : sqrt(b)) - b),
    lighten: max,
    darken: min,
    add: (b: number, s: number) => min(1, b + s),
  };
  it.each(Object.keys(formulas) as (keyof typeof formulas)[])(
    '%s follows its formula on two photographs, half transparent',
    (mode) => {
      const back = pictureOf(photographs[0]!);
      const cel = celOf(photographs[1]!, 128);
      const [before, over] = [pixelsOf(kernels, back), pixelsOf(kernels, pictureOf(photographs[1]!))];
      blendOver(kernels, back, cel, WHOLE, 1, mode);
      const lumas: number[] = [];
      for (let at = 0; at < before.rgba.length; at += 4) {
        const [r, g, b] = [0, 1, 2].map((channel) => {
          const [x, y] = [before.rgba[at + channel]! / 255, over.rgba[at + channel]! / 255];
          return x + (formulas[mode](x, y) - x) * (128 / 255);
        }) as [number, number, number];
        lumas.push(16 + 219 * (0.2126 * r + 0.7152 * g + 0.0722 * b));
      }
      expect(psnr(lumaOf(back), lumas)).toBeGreaterThan(48);
      cels.giveBack(cel);
    },
  );
  it('over nothing leave the layer as it is', () => {
    const empty = cels.take();
    clearCel(kernels, empty, WHOLE);
    const cel = celOf(photographs[1]!);
    blendOver(kernels, empty, cel, WHOLE, 1, 'multiply');
    expect(psnr(lumaOf(empty), lumaOf(cel))).toBeGreaterThan(48);
    cels.giveBack(empty);
    cels.giveBack(cel);
  });
});

describe('light', () => {
  const lights: [string, Partial<LightValues>][] = [
    ['exposure', { exposure: 0.8 }],
    ['less exposure', { exposure: -1.5 }],
    ['contrast', { contrast: 0.8 }],
    ['shadows and highlights', { shadows: 0.7, highlights: -0.6 }],
    ['white balance', { temperature: 0.6, tint: -0.4 }],
    ['saturation', { saturation: 0.8 }],
    ['vibrance', { vibrance: 0.9 }],
    ['levels', { black: 0.08, white: 0.8 }],
    ['sepia', { sepia: 0.7 }],
    ['black and white', { blackAndWhite: 1 }],
    ['paling', { paling: 0.5 }],
    ['tone', { toneColour: '#33708f', toneAmount: 0.6 }],
  ];
  it.each(lights)('%s agrees with the same light in float64', (_, values) => {
    const light = { ...NEUTRAL, ...values };
    const picture = pictureOf(photographs[0]!);
    const [luma, us, vs] = [
      lumaOf(picture),
      rowsOf(picture.u, picture.cStride, W / 2, H / 2),
      rowsOf(picture.v, picture.cStride, W / 2, H / 2),
    ];
    const [matrix, curve, gain, vibrance, shift] = [
      balanceMatrix(light),
      toneCurve(light),
      chromaGain(light),
      vibranceGain(light),
      chromaShift(light),
    ];
    const balanced = (y: number, cb: number, cr: number) =>
      [0, 3, 6].map((row) => matrix[row]! * y + matrix[row + 1]! * cb + matrix[row + 2]! * cr) as [
        number,
        number,
        number,
      ];
    const clamp = (value: number) => min(1, max(0, value));
    const wantedLuma = Float64Array.from(luma, (value, at) => {
      const c = floor(at / W / 2) * (W / 2) + floor((at % W) / 2);
      return 16 + 219 * curve(clamp(balanced((value - 16) / 219, (us[c]! - 128) / 224, (vs[c]! - 128) / 224)[0]));
    });
    const wantedU = Float64Array.from(us, (_value, at) => {
      const top = 2 * floor(at / (W / 2)) * W + 2 * (at % (W / 2));
      const [y, cb, cr] = balanced(
        ((luma[top]! + luma[top + W]!) / 2 - 16) / 219,
        (us[at]! - 128) / 224,
        (vs[at]! - 128) / 224,
      );
      return min(
        255,
        max(0, 128 + 224 * (cb * gain(clamp(y)) * vibrance(2 * max(abs(cb), abs(cr))) + shift(clamp(y))[0])),
      );
    });
    lightPicture(kernels, picture, picture, light);
    expect(psnr(lumaOf(picture), wantedLuma)).toBeGreaterThan(48);
    expect(psnr(rowsOf(picture.u, picture.cStride, W / 2, H / 2), wantedU)).toBeGreaterThan(48);
  });
  it('that changes nothing changes nothing', () => {
    const picture = pictureOf(photographs[0]!);
    const before = lumaOf(picture);
    lightPicture(kernels, picture, picture, NEUTRAL);
    expect(psnr(lumaOf(picture), before)).toBeGreaterThan(60);
  });
});
