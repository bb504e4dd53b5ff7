import { describe, expect, it } from '@jest/globals';
import { assetId } from '../../core/show/ids';
import type { PictureReader } from '../picture-reader';
import { readCroppedClip, rgbaOf } from './read-cropped-clip';

const CLIP = assetId('1'.repeat(64));
/** A frame in whose pixels one can read where they lie: red rises to the right, green downwards; blue is which frame it is. */
const reader = (sizes: string[] = []): PictureReader => ({
  readPicture: () => Promise.reject(new Error('a clip is no picture')),
  readClipFrame(_id, clipFrame, widthPx, heightPx) {
    sizes.push(`${widthPx}×${heightPx}`);
    const rgba = new Uint8Array(4 * widthPx * heightPx);
    for (let y = 0; y < heightPx; y += 1)
      for (let x = 0; x < widthPx; x += 1)
        rgba.set([(255 * (x + 0.5)) / widthPx, (255 * (y + 0.5)) / heightPx, clipFrame, 255], 4 * (y * widthPx + x));
    return Promise.resolve({ widthPx, heightPx, rgba, hasTransparency: false });
  },
});
const crop = (x: number, y: number, width: number, height: number, turnDegrees = 0) => ({
  framing: { x, y, width, height, turnDegrees },
  ofWidthPx: 640,
  ofHeightPx: 360,
});
const seen = async (of: ReturnType<typeof crop>, size: { widthPx: number; heightPx: number }, sizes?: string[]) => {
  const read = rgbaOf(await readCroppedClip(reader(sizes), { assetId: CLIP, crop: of, size, clipFrame: 7 }));
  const at = (x: number, y: number) => [
    ...read.rgba.subarray(4 * (y * read.widthPx + x), 4 * (y * read.widthPx + x) + 3),
  ];
  return { read, at };
};

describe('a cropped frame of a clip', () => {
  it('is the part that was asked for, at the size that was asked for, of one whole frame', async () => {
    const sizes: string[] = [];
    const { read, at } = await seen(crop(0.75, 0.5, 0.5, 1), { widthPx: 320, heightPx: 360 }, sizes);
    expect([read.widthPx, read.heightPx, sizes]).toEqual([320, 360, ['640×360']]);
    const [left, right] = [at(0, 0), at(319, 359)];
    expect(Math.abs(left[0]! - 128)).toBeLessThanOrEqual(1);
    expect([left[2], Math.round(right[0]! / 255), Math.round(right[1]! / 255)]).toEqual([7, 1, 1]);
  });
  it('lies on its side where it was turned by a quarter', async () => {
    const { read, at } = await seen(crop(0.5, 0.5, 360 / 640, 640 / 360, 90), { widthPx: 180, heightPx: 320 });
    expect([read.widthPx, read.heightPx]).toEqual([180, 320]);
    // A crop turned clockwise shows the frame turned anticlockwise: its right side lies above.
    expect(at(90, 2)[0]).toBeGreaterThan(240);
    expect(at(90, 317)[0]).toBeLessThan(15);
  });
  it('is straightened between the pixels', async () => {
    const { at } = await seen(crop(0.5, 0.5, 0.5, 0.5, 10), { widthPx: 320, heightPx: 180 });
    const expected = (x: number, y: number) => {
      const turn = (10 * Math.PI) / 180;
      const [u, v] = [x + 0.5 - 160, y + 0.5 - 90];
      return (255 * (320 + Math.cos(turn) * u - Math.sin(turn) * v)) / 640;
    };
    for (const [x, y] of [
      [20, 20],
      [160, 90],
      [300, 160],
    ] as const)
      expect(Math.abs(at(x, y)[0]! - expected(x, y))).toBeLessThan(1.6);
  });
  it('without a crop is read as it is', async () => {
    const sizes: string[] = [];
    await readCroppedClip(reader(sizes), {
      assetId: CLIP,
      crop: null,
      size: { widthPx: 64, heightPx: 36 },
      clipFrame: 3,
    });
    expect(sizes).toEqual(['64×36']);
  });
});
