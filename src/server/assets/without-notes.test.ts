import { describe, expect, it } from '@jest/globals';
import exifr from 'exifr';
import sharp from 'sharp';
import { withoutNotes } from './without-notes';

const NOTES = {
  IFD0: { Make: 'Slipway', Model: 'Ferry 3', Artist: 'Ilka of Port Ellery', Copyright: 'Ilka' },
  IFD2: { BodySerialNumber: '0042' },
  IFD3: { GPSLatitude: '54/1 12/1 0/1', GPSLatitudeRef: 'N', GPSLongitude: '10/1 3/1 0/1', GPSLongitudeRef: 'E' },
};
const picture = () => sharp({ create: { width: 60, height: 40, channels: 3, background: '#8090a0' } }).withExif(NOTES);
const pixels = (file: Uint8Array) => sharp(file).raw().toBuffer();
const says = async (file: Uint8Array): Promise<Record<string, unknown>> =>
  ((await exifr.parse(Buffer.from(file), true).catch(() => null)) ?? {}) as Record<string, unknown>;
/** Whether a place or a name is in it in any way. */
const isIn = (file: Uint8Array, words: string) => Buffer.from(file).includes(words);

describe('a picture without its notes', () => {
  it.each([
    ['jpeg', () => picture().jpeg().toBuffer()],
    ['progressive jpeg', () => picture().jpeg({ progressive: true }).toBuffer()],
    ['png', () => picture().png().toBuffer()],
    ['webp', () => picture().webp().toBuffer()],
  ])('%s: says neither where nor with what nor by whom, and shows the same to the bit', async (_name, make) => {
    const file = await make();
    expect(isIn(file, 'Slipway')).toBe(true);
    const bare = withoutNotes(file);
    for (const words of ['Slipway', 'Port Ellery', '0042', 'GPS']) expect(isIn(bare, words)).toBe(false);
    expect(Object.keys(await says(bare))).not.toEqual(expect.arrayContaining(['Make']));
    expect((await pixels(bare)).equals(await pixels(file))).toBe(true);
    // And once more there is nothing left to leave out.
    expect(withoutNotes(bare)).toBe(bare);
  });
  it.each((['jpeg', 'png', 'webp'] as const).flatMap((kind) => [3, 6, 8].map((turn) => [kind, turn] as const)))(
    '%s is still turned as %i says',
    async (kind, orientation) => {
      const file = await picture().withMetadata({ orientation }).withExifMerge(NOTES).toFormat(kind).toBuffer();
      const bare = withoutNotes(file);
      const [was, is] = [await sharp(file).metadata(), await sharp(bare).metadata()];
      expect([was.orientation, isIn(bare, 'Slipway'), is.orientation]).toEqual([orientation, false, orientation]);
      const upright = (of: Uint8Array) => sharp(of).autoOrient().raw().toBuffer();
      expect((await upright(bare)).equals(await upright(file))).toBe(true);
      expect(withoutNotes(bare)).toBe(bare);
    },
  );
  it('keeps its colour profile', async () => {
    const file = await picture().withIccProfile('p3').withExifMerge(NOTES).jpeg().toBuffer();
    const [was, is] = [await sharp(file).metadata(), await sharp(withoutNotes(file)).metadata()];
    expect(was.icc).toBeDefined();
    expect(is.icc?.equals(was.icc!)).toBe(true);
    expect(is.exif).toBeUndefined();
  });
  it('has nothing behind its end: neither a second picture nor a film', async () => {
    const file = Buffer.concat([
      await sharp({ create: { width: 8, height: 8, channels: 3, background: '#fff' } })
        .jpeg()
        .toBuffer(),
      Buffer.from('ftypmp42 Port Ellery'),
    ]);
    const bare = withoutNotes(file);
    expect([isIn(bare, 'Port Ellery'), bare.length]).toEqual([false, file.length - 20]);
  });
  it('is given back as it is when it has none, is of another kind, or is torn', async () => {
    const plain = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#fff' } })
      .png()
      .toBuffer();
    const torn = (await picture().jpeg().toBuffer()).subarray(0, 300);
    for (const file of [plain, Buffer.from('<svg/>'), Buffer.from(''), torn]) expect(withoutNotes(file)).toBe(file);
  });
});
