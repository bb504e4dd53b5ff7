import { readFile } from 'node:fs/promises';
import { beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { loadKernels, type Kernels } from './kernel-module';
import { planesFromPixels, type PicturePlanes } from './planes/picture-planes';
import { createSurface } from './planes/surface';

// Looked up once: under the test runner every look at a global takes long.
const { abs, asin, cos, floor, log10, max, min } = Math;

const [WIDTH, HEIGHT] = [480, 270];
let kernels: Kernels;
let leaving: PicturePlanes;
let coming: PicturePlanes;
beforeAll(async () => {
  kernels = await loadKernels(new Uint8Array(await readFile('public/drawing/kernels.wasm')));
  const planes = async (file: string) =>
    planesFromPixels(kernels, {
      widthPx: WIDTH,
      heightPx: HEIGHT,
      hasTransparency: false,
      rgba: new Uint8Array(await sharp(file).resize(WIDTH, HEIGHT, { fit: 'fill' }).ensureAlpha().raw().toBuffer()),
    });
  [leaving, coming] = [await planes('demo/files/PE_0463.jpg'), await planes('demo/files/PE_0426.jpg')];
});

interface Turn {
  readonly dirX: number;
  readonly dirY: number;
  readonly fold: number;
  readonly radius: number;
  readonly ground: number;
  readonly paper: number;
}

/** The same page sample by sample in float64; null within a sample and a half of where one part of it meets another. */
function reference(
  a: Uint8Array,
  b: Uint8Array,
  stride: number,
  w: number,
  h: number,
  { dirX, dirY, fold, radius, ground, paper }: Turn,
  x: number,
  y: number,
): number | null {
  const at = (plane: Uint8Array, px: number, py: number) =>
    plane[min(h - 1, max(0, py)) * stride + min(w - 1, max(0, px))]!;
  const onPage = (px: number, py: number) => min(px, w - 1 - px, py, h - 1 - py);
  const near = (distance: number, reach: number) => max(0, 1 - distance / (3 * reach)) ** 2;
  const back = (px: number, py: number, shade: number) =>
    ground + (paper + (at(a, floor(px + 0.5), floor(py + 0.5)) - paper) * 0.12 - ground) * shade;
  const s = (x + 0.5) * dirX + (y + 0.5) * dirY;
  if (abs(s - fold) < 1.5 || abs(s - fold - radius) < 1.5) return null;
  if (s < fold) {
    const shift = Math.PI * radius + 2 * (fold - s);
    const inside = onPage(x + shift * dirX, y + shift * dirY);
    if (abs(inside) < 1.5) return null;
    return inside > 0
      ? back(x + shift * dirX, y + shift * dirY, 0.97)
      : ground + (at(a, x, y) - ground) * (1 - 0.3 * near(fold - s, radius));
  }
  const shadowed = ground + (at(b, x, y) - ground) * (1 - 0.45 * near(s - fold, 2.2 * radius));
  if (s > fold + radius) return shadowed;
  const angle = asin((s - fold) / radius);
  const [over, up] = [radius * (Math.PI - angle) - (s - fold), radius * angle - (s - fold)];
  const [overInside, upInside] = [onPage(x + over * dirX, y + over * dirY), onPage(x + up * dirX, y + up * dirY)];
  if (abs(overInside) < 1.5 || abs(upInside) < 1.5) return null;
  if (overInside > 0) return back(x + over * dirX, y + over * dirY, 0.62 + 0.35 * cos(angle - 0.35));
  if (upInside < 0) return shadowed;
  const [px, py] = [x + up * dirX, y + up * dirY];
  const [x0, y0] = [floor(px), floor(py)];
  const line = (row: number) => at(a, x0, row) + (at(a, x0 + 1, row) - at(a, x0, row)) * (px - x0);
  return ground + (line(y0) + (line(y0 + 1) - line(y0)) * (py - y0) - ground) * (1 - 0.5 * (1 - cos(angle)));
}

describe('a page that is turned', () => {
  const directions = {
    left: [0.976, 0.2147],
    right: [-0.976, 0.2147],
    up: [0.2147, 0.976],
    down: [0.2147, -0.976],
  } as const;
  it.each(Object.entries(directions))('agrees with float64, lifted towards the %s', (_, [dirX, dirY]) => {
    const out = createSurface(kernels, WIDTH, HEIGHT);
    const memory = new Uint8Array(kernels.memory.buffer);
    for (const [plane, width, height, stride, ground, paper] of [
      ['y', WIDTH, HEIGHT, leaving.yStride, 16, 220],
      ['u', WIDTH / 2, HEIGHT / 2, leaving.cStride, 128, 122],
    ] as const) {
      const reaches = [0, width * dirX, height * dirY, width * dirX + height * dirY];
      const radius = 0.09 * (abs(dirX) > abs(dirY) ? width : height);
      let [sum, count] = [0, 0];
      for (const share of [0.03, 0.2, 0.45, 0.7, 0.95]) {
        const turn: Turn = {
          dirX,
          dirY,
          fold: min(...reaches) + (max(...reaches) - min(...reaches)) * (1 - share),
          radius,
          ground,
          paper,
        };
        kernels.turnPagePlane(
          leaving[plane],
          coming[plane],
          out[plane],
          stride,
          width,
          height,
          dirX,
          dirY,
          turn.fold,
          radius,
          ground,
          paper,
        );
        const [a, b, got] = [
          memory.subarray(leaving[plane]),
          memory.subarray(coming[plane]),
          memory.subarray(out[plane]),
        ];
        for (let y = 0; y < height; y += 1)
          for (let x = 0; x < width; x += 1) {
            const wanted = reference(a, b, stride, width, height, turn, x, y);
            if (wanted === null) continue;
            sum += (got[y * stride + x]! - wanted) ** 2;
            count += 1;
          }
      }
      expect(count).toBeGreaterThan(4 * width * height);
      expect(10 * log10(255 ** 2 / (sum / count))).toBeGreaterThan(48);
    }
  });
  it('has no seam where its parts meet: a plane and paper of one value stay it but for shade', () => {
    const out = createSurface(kernels, WIDTH, HEIGHT);
    const grey = planesFromPixels(kernels, {
      widthPx: WIDTH,
      heightPx: HEIGHT,
      hasTransparency: false,
      rgba: new Uint8Array(WIDTH * HEIGHT * 4).fill(200),
    });
    kernels.turnPagePlane(grey.u, grey.u, out.u, grey.cStride, WIDTH / 2, HEIGHT / 2, 0.976, 0.2147, 120, 20, 128, 128);
    const memory = new Uint8Array(kernels.memory.buffer);
    for (let y = 0; y < HEIGHT / 2; y += 1)
      expect(
        memory.subarray(out.u + y * grey.cStride, out.u + y * grey.cStride + WIDTH / 2).every((value) => value === 128),
      ).toBe(true);
  });
});
