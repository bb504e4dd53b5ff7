import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { readPictureFile } from './read-picture';
import { shrinksUnevenly } from './resample';

const DARK = 20;
const LIT = 230;
interface Dots {
  readonly widthPx: number;
  readonly heightPx: number;
  readonly spots: readonly (readonly [x: number, y: number])[];
  readonly sigma: number;
  readonly rgb: Buffer;
}

/** Soft round dots at places between pixels, some near the edges. */
function dots(widthPx: number, heightPx: number): Dots {
  const sigma = Math.max(5, widthPx / 160);
  const spots = [
    [0.2, 0.3],
    [0.503, 0.497],
    [0.831, 0.712],
    [0.07, 0.9],
    [0.91, 0.1],
  ].map(([x, y]) => [x! * widthPx, y! * heightPx] as const);
  const rgb = Buffer.alloc(3 * widthPx * heightPx);
  for (let y = 0; y < heightPx; y += 1)
    for (let x = 0; x < widthPx; x += 1) {
      let light = 0;
      for (const [cx, cy] of spots) {
        const away = (x + 0.5 - cx) ** 2 + (y + 0.5 - cy) ** 2;
        if (away < (5 * sigma) ** 2) light = Math.max(light, Math.exp(-away / (2 * sigma * sigma)));
      }
      rgb.fill(Math.round(DARK + (LIT - DARK) * light), 3 * (y * widthPx + x), 3 * (y * widthPx + x) + 3);
    }
  return { widthPx, heightPx, spots, sigma, rgb };
}

/** Where the dots lie, in shares of the picture. */
function centres(
  of: Dots,
  rgba: Uint8Array | Uint8ClampedArray,
  widthPx: number,
  heightPx: number,
): (readonly [x: number, y: number])[] {
  const [sx, sy] = [widthPx / of.widthPx, heightPx / of.heightPx];
  return of.spots.map(([x, y]) => {
    const [cx, cy] = [x * sx, y * sy];
    const reach = 4.5 * of.sigma * Math.max(sx, sy) + 2;
    let [sum, sumX, sumY] = [0, 0, 0];
    for (let row = Math.max(0, Math.floor(cy - reach)); row < Math.min(heightPx, cy + reach); row += 1)
      for (let column = Math.max(0, Math.floor(cx - reach)); column < Math.min(widthPx, cx + reach); column += 1) {
        const weight = Math.max(0, rgba[4 * (row * widthPx + column)]! - DARK - 8);
        sum += weight;
        sumX += weight * (column + 0.5);
        sumY += weight * (row + 0.5);
      }
    return [sumX / sum / widthPx, sumY / sum / heightPx] as const;
  });
}

/** How far the dots lie from where they lie in the file, at most, in pixels of what was read. What compressing did to them is in the file. */
function worstShift(
  { of, inFile }: Picture,
  rgba: Uint8Array | Uint8ClampedArray,
  widthPx: number,
  heightPx: number,
): number {
  return Math.max(
    ...centres(of, rgba, widthPx, heightPx).flatMap(([x, y], index) => [
      Math.abs(x - inFile[index]![0]) * widthPx,
      Math.abs(y - inFile[index]![1]) * heightPx,
    ]),
  );
}

interface Picture {
  readonly name: string;
  readonly file: string;
  readonly of: Dots;
  readonly inFile: readonly (readonly [x: number, y: number])[];
}

let folder: string;
const pictures: Picture[] = [];
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-resample-'));
  for (const drawing of [dots(1501, 1003), dots(640, 427)]) {
    const drawn = sharp(drawing.rgb, { raw: { width: drawing.widthPx, height: drawing.heightPx, channels: 3 } });
    for (const format of ['png', 'jpeg', 'webp'] as const) {
      const file = path.join(folder, `${drawing.widthPx}.${format}`);
      await drawn.clone()[format]({ quality: 95 }).toFile(file);
      const { data } = await sharp(file).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      const inFile = centres(drawing, data, drawing.widthPx, drawing.heightPx);
      pictures.push({ name: `${format} of ${drawing.widthPx} px`, file, of: drawing, inFile });
    }
  }
});
afterAll(() => rm(folder, { recursive: true, force: true }));

/** Even sizes from far smaller to far larger, the picture's own among them. */
const sizesOf = ({ widthPx, heightPx }: Dots) =>
  Array.from({ length: 40 }, (_, index) => {
    const width = index === 0 ? widthPx : 2 * Math.round((widthPx * 0.2 * 1.06 ** index) / 2);
    return [width, Math.max(2, 2 * Math.round((width * heightPx) / widthPx / 2))] as const;
  });

describe('a picture read at any size', () => {
  it('lies where it was, to a fiftieth of a pixel, whatever its format', async () => {
    const shifts: Record<string, number> = {};
    for (const picture of pictures)
      for (const [widthPx, heightPx] of sizesOf(picture.of)) {
        const { rgba } = await readPictureFile(picture.file, widthPx, heightPx);
        const shift = worstShift(picture, rgba, widthPx, heightPx);
        // WebP leaves a little noise about the dots, which their centres feel.
        if (shift > (picture.name.startsWith('webp') ? 0.04 : 0.02)) shifts[`${picture.name} at ${widthPx}`] = shift;
      }
    expect(shifts).toEqual({});
  });
  it('lies where it was when a part of it is read', async () => {
    const picture = pictures[0]!;
    const { file, of } = picture;
    const part = {
      left: 0,
      top: 0,
      widthPx: of.widthPx,
      heightPx: of.heightPx,
      ofWidthPx: of.widthPx,
      ofHeightPx: of.heightPx,
    };
    for (const [widthPx, heightPx] of [
      [700, 468],
      [2200, 1470],
    ] as const) {
      const { rgba } = await readPictureFile(file, widthPx, heightPx, part);
      expect(worstShift(picture, rgba, widthPx, heightPx)).toBeLessThan(0.02);
    }
  });
  it('goes on to its very edge when it is enlarged, and keeps its transparency clean', async () => {
    const file = path.join(folder, 'half.png');
    // Red that is seen at the left, green that is not at the right.
    const pixels = Buffer.alloc(4 * 40 * 20);
    for (let at = 0; at < 40 * 20; at += 1) pixels.set(at % 40 < 20 ? [200, 0, 0, 255] : [0, 255, 0, 0], 4 * at);
    await sharp(pixels, { raw: { width: 40, height: 20, channels: 4 } })
      .png()
      .toFile(file);
    const { rgba, hasTransparency } = await readPictureFile(file, 120, 60);
    const at = (x: number, y: number) => [...rgba.subarray(4 * (120 * y + x), 4 * (120 * y + x) + 4)];
    expect(hasTransparency).toBe(true);
    for (const [x, y] of [
      [0, 0],
      [0, 59],
      [30, 0],
      [30, 59],
    ] as const)
      expect(at(x, y)).toEqual([200, 0, 0, 255]);
    for (const y of [0, 59]) expect(at(119, y)[3]).toBe(0);
    for (let x = 0; x < 120; x += 1) {
      const [red, green, , alpha] = at(x, 30);
      if (alpha! > 96) expect([Math.abs(red! - 200) <= 12, green! <= 12]).toEqual([true, true]);
    }
  });
});

describe('shrinking while decoding', () => {
  it.each([
    ['jpeg', 4352, 2901, 500, true],
    ['jpeg', 4352, 2904, 500, false],
    ['jpeg', 6000, 4000, 320, false],
    ['jpeg', 6000, 4001, 5000, false],
    ['webp', 3001, 2000, 700, true],
    ['png', 4352, 2901, 500, false],
  ])('of a %s of %d × %d for %d px bends it: %s', (format, widthPx, heightPx, wanted, bends) => {
    expect(shrinksUnevenly(format, { widthPx, heightPx }, wanted)).toBe(bends);
  });
});
