import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { lookAtFile } from './look-at-file';
import { madeRaw, type MadeRaw } from './raw-file.testing';
import { isRaw } from './raw-preview';
import { readPictureFile } from './read-picture';
import { redThenBlue, sensorRaw } from './sensor-raw.testing';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-raw-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});
const saved = async (name: string, content: Buffer) => {
  const file = path.join(folder, name);
  await writeFile(file, content);
  return file;
};
const MAKERS: MadeRaw['maker'][] = ['tiff-little', 'tiff-big', 'orf', 'rw2', 'raf', 'cr3', 'x3f'];
const SIZES = [
  [160, 120],
  [1800, 1200],
  [640, 424],
] as const;

describe('RAW files', () => {
  it.each(MAKERS)('of the sort %s are shown by the largest picture in them', async (maker) => {
    const file = await saved(`plain.${maker}`, await madeRaw({ maker, previews: SIZES }));
    expect((await lookAtFile(file)).facts).toMatchObject({ kind: 'picture', widthPx: 1800, heightPx: 1200, raw: true });
    expect(existsSync(`${file}.decoded`)).toBe(true);
  });
  it.each(['tiff-little', 'tiff-big', 'orf', 'rw2', 'cr3'] as const)(
    'of the sort %s are turned as they say, and say when and with what they were taken',
    async (maker) => {
      const file = await saved(`turned.${maker}`, await madeRaw({ maker, previews: SIZES, orientation: 6 }));
      expect((await lookAtFile(file)).facts).toMatchObject({
        widthPx: 1200,
        heightPx: 1800,
        camera: 'Orrery F2',
        ...(maker !== 'cr3' && { takenAt: '2031-06-14T21:08:33' }),
      });
      // A quarter to the right: what was at the left is on top.
      const { rgba } = await readPictureFile(file, 40, 60);
      expect([rgba[4 * (10 * 40 + 20)]! > 150, rgba[4 * (50 * 40 + 20)]! < 90]).toEqual([true, true]);
    },
  );
  it('are read again when the copy beside them is gone', async () => {
    const file = await saved('again.dng', await madeRaw({ maker: 'tiff-big', previews: SIZES, orientation: 8 }));
    await lookAtFile(file);
    const first = await readPictureFile(file, 40, 60);
    await rm(`${file}.decoded`);
    expect((await readPictureFile(file, 40, 60)).rgba).toEqual(first.rgba);
  });
  it.each<[string, () => Promise<Buffer>, RegExp]>([
    ['without a finished picture', () => madeRaw({ maker: 'raf', previews: [] }), /holds no finished picture/],
    [
      'with a thumbnail only',
      () => madeRaw({ maker: 'tiff-little', previews: [[160, 120]] }),
      /only a thumbnail \(160 × 120\)/,
    ],
    [
      'that are cut short in their picture',
      async () => (await madeRaw({ maker: 'rw2', previews: [[1800, 1200]] })).subarray(0, 6000),
      /cut short/,
    ],
  ])('%s are refused in a line', async (name, make, says) => {
    await expect(lookAtFile(await saved(name, await make()))).rejects.toMatchObject({
      name: 'UnusableFileError',
      message: expect.stringMatching(says),
    });
  });
  it.each([
    ['as it is', 1, 640, 480],
    ['turned as it says', 6, 480, 640],
  ] as const)(
    'without a picture of a film’s size are developed from what the sensor saw, %s',
    async (_, turn, widthPx, heightPx) => {
      const file = await saved(`sensor-${turn}.dng`, sensorRaw(640, 480, redThenBlue(640, 480), turn));
      expect((await lookAtFile(file)).facts).toMatchObject({
        ...{ kind: 'picture', widthPx, heightPx, raw: true, camera: 'Orrery F2', takenAt: '2031-06-14T21:08:33' },
      });
      const { rgba } = await readPictureFile(file, widthPx / 8, heightPx / 8);
      const at = (x: number, y: number) => [
        ...rgba.subarray(4 * (y * (widthPx / 8) + x), 4 * (y * (widthPx / 8) + x) + 3),
      ];
      // Red at the left; turned a quarter to the right, red at the top.
      const [red, blue] = [at(10, 10), turn === 1 ? at(60, 40) : at(40, 60)];
      expect(red[0]! - red[2]!).toBeGreaterThan(60);
      expect(blue[2]! - blue[0]!).toBeGreaterThan(60);
    },
  );
  it('are developed at half their size when that is wide enough for any film', async () => {
    const file = await saved('wide.dng', sensorRaw(5800, 480, redThenBlue(5800, 480)));
    expect((await lookAtFile(file)).facts).toMatchObject({ widthPx: 2900, heightPx: 240 });
  });
  it('of which a part of what the sensor saw is missing are refused as cut short, however the reader takes it', async () => {
    const whole = sensorRaw(640, 480, redThenBlue(640, 480));
    const isCutShort = { name: 'UnusableFileError', message: expect.stringMatching(/cut short/) };
    await expect(lookAtFile(await saved('half.dng', whole.subarray(0, whole.length / 2)))).rejects.toMatchObject(
      isCutShort,
    );
    await expect(lookAtFile(await saved('start.dng', whole.subarray(0, 5000)))).rejects.toMatchObject(isCutShort);
    const blank = sensorRaw(640, 480, (x, y, filter) => (y < 400 ? redThenBlue(640, 480)(x, y, filter) : 0));
    await expect(lookAtFile(await saved('blank.dng', blank))).rejects.toMatchObject(isCutShort);
  });
  it('are developed though a whole band of the sky is as bright as a sensor sees', async () => {
    const bright = sensorRaw(640, 480, (x, y, filter) => (y < 100 ? 65_535 : redThenBlue(640, 480)(x, y, filter)));
    expect((await lookAtFile(await saved('bright.dng', bright))).facts).toMatchObject({ widthPx: 640, heightPx: 480 });
  });
  it('with a picture of 1,920 px and more are shown as the camera saw fit, not developed', async () => {
    const preview = await madeRaw({ maker: 'tiff-little', previews: [[1920, 1280]] });
    const file = await saved('both.dng', Buffer.concat([sensorRaw(640, 480, redThenBlue(640, 480)), preview]));
    expect((await lookAtFile(file)).facts).toMatchObject({ widthPx: 1920, heightPx: 1280 });
  });
  it('whose maker marks a TIFF’s beginning are told by that', () => {
    for (const mark of ['IIII', 'MMMM', 'CR\u0002\0']) {
      const head = Buffer.concat([
        Buffer.from('II*\0\x10\0\0\0', 'latin1'),
        Buffer.from(mark, 'latin1'),
        Buffer.alloc(64),
      ]);
      expect(isRaw(head)).toBe(true);
    }
  });
  it('are told from TIFF pictures, which are read as they always were', async () => {
    const file = path.join(folder, 'picture.tif');
    await sharp({ create: { width: 1200, height: 800, channels: 3, background: '#205090' } })
      .tiff()
      .toFile(file);
    const { facts } = await lookAtFile(file);
    expect(facts).toMatchObject({ kind: 'picture', widthPx: 1200 });
    expect(facts).not.toHaveProperty('raw');
  });
});
