import { copyFile, mkdtemp, readFile, rm, truncate, writeFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { deflateSync, crc32 } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { isAlike } from '../../core/light/likeness';
import { assetId, showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { openBlobStore } from '../blobs/blob-store';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { openServer } from '../running-server';
import { clipSecond } from './derive';
import { lookAtFile } from './look-at-file';
import { readPictureFile } from './read-picture';

let folder: string;
const inFolder = (name: string) => path.join(folder, name);
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-intake-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

/** A PNG that says it has this many pixels and holds none: as small on disk as it would be large in memory. */
function pngOfSize(width: number, height: number): Buffer {
  const chunk = (type: string, data: Buffer) => {
    const body = Buffer.concat([Buffer.from(type), data]);
    const ends = Buffer.alloc(8);
    ends.writeUInt32BE(data.length, 0);
    const crc = Buffer.alloc(4);
    crc.writeUInt32BE((crc32 as (bytes: Buffer) => number)(body));
    return Buffer.concat([ends.subarray(0, 4), body, crc]);
  };
  const header = Buffer.alloc(13);
  header.writeUInt32BE(width, 0);
  header.writeUInt32BE(height, 4);
  header.set([8, 2, 0, 0, 0], 8);
  return Buffer.concat([
    Buffer.from([137, 80, 78, 71, 13, 10, 26, 10]),
    chunk('IHDR', header),
    chunk('IDAT', deflateSync(Buffer.alloc(1000))),
    chunk('IEND', Buffer.alloc(0)),
  ]);
}

describe('lookAtFile', () => {
  it.each<[string, () => Promise<unknown>, RegExp]>([
    ['nothing.jpg', () => writeFile(inFolder('nothing.jpg'), ''), /^The file is empty\./],
    [
      'letter.jpg',
      () => writeFile(inFolder('letter.jpg'), 'Dear harbour master, '.repeat(50)),
      /^This is not a picture, a clip or a sound/,
    ],
    ['page.png', () => writeFile(inFolder('page.png'), '%PDF-1.7\n%âãÏÓ\n1 0 obj'), /but a PDF file/],
    [
      'short.jpg',
      async () => {
        await copyFile('demo/files/PE_0412.jpg', inFolder('short.jpg'));
        await truncate(inFolder('short.jpg'), 90_000);
      },
      /^The file is cut short/,
    ],
    [
      'huge.png',
      () => writeFile(inFolder('huge.png'), pngOfSize(100_000, 100_000)),
      /^The picture is 100,000 × 100,000 pixels/,
    ],
    ['broken.png', () => writeFile(inFolder('broken.png'), pngOfSize(4000, 3000)), /cut short or damaged/],
    [
      'broken.mp4',
      async () => writeFile(inFolder('broken.mp4'), (await readFile('demo/files/PE_0489-boats.mp4')).subarray(0, 3000)),
      /damaged|no moving picture|cut short/,
    ],
    [
      'list.m3u8',
      () =>
        writeFile(
          inFolder('list.m3u8'),
          '#EXTM3U\n#EXT-X-TARGETDURATION:1\n#EXTINF:1,\nfile:///etc/hosts\n#EXT-X-ENDLIST\n',
        ),
      /^This is not a picture, a clip or a sound/,
    ],
  ])('refuses %s in one clear line', async (name, make, sentence) => {
    await make();
    await expect(lookAtFile(inFolder(name))).rejects.toMatchObject({
      name: 'UnusableFileError',
      message: expect.stringMatching(sentence),
    });
  });

  it('reads size, capture time and camera of an upright and of a turned photograph', async () => {
    expect((await lookAtFile('demo/files/PE_0412.jpg')).facts).toMatchObject({
      kind: 'picture',
      widthPx: 1920,
      heightPx: 1280,
      takenAt: expect.stringMatching(/^2025-06-14T20:30:\d\d$/),
      camera: 'Orrery F2',
      hasTransparency: false,
    });
    const stored = await sharp('demo/files/PE_0463.jpg').metadata();
    expect([stored.orientation, stored.width]).toEqual([6, 1280]);
    expect((await lookAtFile('demo/files/PE_0463.jpg')).facts).toMatchObject({ widthPx: 1920, heightPx: 1280 });
  });
  it('knows a see-through picture, a clip, a song with its tags and its length', async () => {
    expect((await lookAtFile('demo/files/regatta-emblem.png')).facts).toMatchObject({
      kind: 'picture',
      hasTransparency: true,
    });
    expect((await lookAtFile('demo/files/PE_0489-boats.mp4')).facts).toMatchObject({
      kind: 'clip',
      widthPx: 1280,
      heightPx: 720,
      lengthMs: 8000,
      hasSound: true,
    });
    const song = await lookAtFile('demo/files/harbour-reel.mp3');
    expect(song.facts).toMatchObject({ kind: 'sound', title: 'Harbour Reel' });
    expect(song.facts.kind === 'sound' && song.facts.lengthMs).toBeGreaterThan(150_000);
    expect(Math.max(...song.peaks!.values)).toBeGreaterThan(150);
  });
  it('never lets a film’s inside name other files to ffmpeg', async () => {
    // A playlist whose first bytes are those of an MP3, so that it is taken for a sound.
    await writeFile(inFolder('list.mp3'), `ID3\n#EXTM3U\n#EXTINF:1,\nfile:///etc/hosts\n`);
    await expect(lookAtFile(inFolder('list.mp3'))).rejects.toMatchObject({ name: 'UnusableFileError' });
    await writeFile(inFolder('concat.txt'), "ffconcat version 1.0\nfile '/etc/hosts'\n");
    const { GUARDED_INPUT } = await import('../ffmpeg/run-ffmpeg');
    await expect(runFfmpeg([...GUARDED_INPUT, '-i', inFolder('concat.txt'), '-f', 'null', '-'])).rejects.toMatchObject({
      name: 'FfmpegError',
    });
  });
});

describe('readPictureFile', () => {
  const source = () => sharp({ create: { width: 120, height: 80, channels: 3, background: { r: 200, g: 60, b: 30 } } });
  it.each<[string, () => Promise<unknown>, number]>([
    ['sixteen.png', () => source().toColourspace('rgb16').png().toFile(inFolder('sixteen.png')), 2],
    ['palette.gif', () => source().gif().toFile(inFolder('palette.gif')), 8],
    ['cmyk.jpg', () => source().toColourspace('cmyk').jpeg({ quality: 95 }).toFile(inFolder('cmyk.jpg')), 40],
    ['photo.webp', () => source().webp({ quality: 95 }).toFile(inFolder('photo.webp')), 6],
    ['photo.avif', () => source().avif({ quality: 90 }).toFile(inFolder('photo.avif')), 8],
    ['wide-gamut.png', () => source().withIccProfile('p3').png().toFile(inFolder('wide-gamut.png')), 3],
    ['scan.tiff', () => source().tiff().toFile(inFolder('scan.tiff')), 2],
  ])('reads %s as the sRGB it shows', async (name, make, tolerance) => {
    await make();
    expect((await lookAtFile(inFolder(name))).facts).toMatchObject({ kind: 'picture', widthPx: 120, heightPx: 80 });
    const pixels = await readPictureFile(inFolder(name), 60, 40);
    expect(pixels.rgba).toHaveLength(60 * 40 * 4);
    [200, 60, 30, 255].forEach((value, channel) =>
      expect(Math.abs(pixels.rgba[4 * 1234 + channel]! - value)).toBeLessThanOrEqual(tolerance),
    );
  });
  it('does so by the profile in the file: the same numbers without it would be another colour', async () => {
    const raw = await sharp(inFolder('wide-gamut.png'), { ignoreIcc: true }).raw().toBuffer();
    expect(Math.abs(raw[0]! - 200) + Math.abs(raw[1]! - 60)).toBeGreaterThan(12);
  });
  it('reads HEIC with the file’s own colour profile, decoded once and kept', async () => {
    await copyFile('src/server/assets/samples/two-colours.heic', inFolder('two.heic'));
    expect((await lookAtFile(inFolder('two.heic'))).facts).toMatchObject({
      kind: 'picture',
      widthPx: 240,
      heightPx: 160,
      takenAt: '2031-06-14T21:08:33',
      camera: 'Orrery F2',
    });
    expect(existsSync(inFolder('two.heic.decoded'))).toBe(true);
    const pixels = await readPictureFile(inFolder('two.heic'), 240, 160);
    const at = (x: number, y: number) => [...pixels.rgba.subarray(4 * (y * 240 + x), 4 * (y * 240 + x) + 3)];
    [32, 64, 192].forEach((value, channel) => expect(Math.abs(at(60, 40)[channel]! - value)).toBeLessThanOrEqual(8));
    [192, 64, 32].forEach((value, channel) => expect(Math.abs(at(180, 120)[channel]! - value)).toBeLessThanOrEqual(8));
  });
  it('refuses a HEIC file that is cut short in one clear line', async () => {
    await copyFile('src/server/assets/samples/two-colours.heic', inFolder('short.heic'));
    await truncate(inFolder('short.heic'), 900);
    await expect(lookAtFile(inFolder('short.heic'))).rejects.toMatchObject({
      name: 'UnusableFileError',
      message: expect.stringMatching(/^This HEIC picture cannot be read/),
    });
  });
  it('reads what somebody wrote into the file, and not what a camera leaves there', async () => {
    const saved = async (text: string, name: string) => {
      await sharp('demo/files/PE_0412.jpg')
        .resize(200)
        .withExif({ IFD0: { ImageDescription: text, Make: 'Orrery', Model: 'Orrery F2' } })
        .jpeg()
        .toFile(inFolder(name));
      return (await lookAtFile(inFolder(name))).facts;
    };
    expect(await saved('The crews at the slipway', 'captioned.jpg')).toMatchObject({
      caption: 'The crews at the slipway',
    });
    expect(await saved('ORRERY DIGITAL CAMERA', 'uncaptioned.jpg')).not.toHaveProperty('caption');
  });
  it('reads where it was taken, as somebody wrote it into the file', async () => {
    const xmp = (inside: string) =>
      `<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description rdf:about="" xmlns:photoshop="http://ns.adobe.com/photoshop/1.0/" xmlns:Iptc4xmpCore="http://iptc.org/std/Iptc4xmpCore/1.0/xmlns/">${inside}</rdf:Description></rdf:RDF></x:xmpmeta>`;
    const saved = async (inside: string, name: string) => {
      await sharp('demo/files/PE_0412.jpg').resize(200).withXmp(xmp(inside)).jpeg().toFile(inFolder(name));
      return (await lookAtFile(inFolder(name))).facts;
    };
    const whole =
      '<Iptc4xmpCore:Location>The old slip</Iptc4xmpCore:Location><photoshop:City>Marrow Quay</photoshop:City><photoshop:Country>Nowhere</photoshop:Country>';
    expect(await saved(whole, 'placed.jpg')).toMatchObject({ place: 'The old slip, Marrow Quay' });
    expect(await saved('<photoshop:Country>Nowhere</photoshop:Country>', 'country.jpg')).toMatchObject({
      place: 'Nowhere',
    });
    expect(await saved('<photoshop:City> </photoshop:City>', 'nowhere.jpg')).not.toHaveProperty('place');
  });
  it('knows one photograph saved twice, and tells its neighbours apart', async () => {
    await sharp('demo/files/PE_0412.jpg').resize(900).jpeg({ quality: 60 }).toFile(inFolder('again.jpg'));
    const likeness = async (file: string) => {
      const { facts } = await lookAtFile(file);
      return facts.kind === 'picture' ? facts.likeness! : '';
    };
    const original = await likeness('demo/files/PE_0412.jpg');
    expect(isAlike(original, await likeness(inFolder('again.jpg')))).toBe(true);
    for (const other of ['PE_0415.jpg', 'PE_0419.jpg', 'PE_0426.jpg', 'PE_0472.jpg'])
      expect(isAlike(original, await likeness(`demo/files/${other}`))).toBe(false);
  });
  it('reads a grey picture and one with its own transparency', async () => {
    await sharp({ create: { width: 50, height: 50, channels: 4, background: { r: 0, g: 0, b: 255, alpha: 0.5 } } })
      .png()
      .toFile(inFolder('half.png'));
    await sharp({ create: { width: 50, height: 50, channels: 3, background: '#777' } })
      .toColourspace('b-w')
      .png()
      .toFile(inFolder('grey.png'));
    const half = await readPictureFile(inFolder('half.png'), 20, 20);
    expect([half.hasTransparency, [...half.rgba.subarray(0, 4)]]).toEqual([true, [0, 0, 255, 128]]);
    expect([...(await readPictureFile(inFolder('grey.png'), 20, 20)).rgba.subarray(0, 4)]).toEqual([
      119, 119, 119, 255,
    ]);
  });
});

describe('the contact sheet', () => {
  it('takes files in, refuses bad ones, keeps each once, and goes on after the server ended', async () => {
    process.env.TANAGER_DATA = inFolder('data');
    const id = showId('sheet');
    const server = await openServer();
    await server.shows.put(emptyShow(id, 'Sheet'));
    await writeFile(inFolder('bad.jpg'), 'not a picture');
    const heard: string[] = [];
    server.events.listen(id, (event) => {
      if (event.kind === 'entry')
        heard.push(
          `${event.entry.fileName} ${event.entry.state} ${event.entry.facts?.kind ?? event.entry.problem?.slice(0, 21) ?? ''}`,
        );
    });
    const take = (file: string, name: string) => server.sheet.takeIn(id, file, name, 'copy');
    expect(
      await Promise.all([
        take('demo/files/PE_0412.jpg', 'one.jpg'),
        take('demo/files/PE_0489-boats.mp4', '../../boats.mp4'),
        take(inFolder('bad.jpg'), 'bad.jpg'),
      ]),
    ).toEqual(['added', 'added', 'added']);
    expect(await take('demo/files/PE_0412.jpg', 'the same again.jpg')).toBe('already-there');
    server.runner.start(['look']);
    await server.runner.idle('look');
    const entries = await server.sheet.entries(id);
    expect(entries.map((entry) => [entry.fileName, entry.state, entry.facts?.kind]).sort()).toEqual([
      ['../../boats.mp4', 'ready', 'clip'],
      ['bad.jpg', 'refused', undefined],
      ['one.jpg', 'ready', 'picture'],
    ]);
    // Open pages hear of each file twice: that it came, and what it is.
    expect(heard.sort()).toEqual([
      '../../boats.mp4 arrived ',
      '../../boats.mp4 ready clip',
      'bad.jpg arrived ',
      'bad.jpg refused This is not a picture',
      'one.jpg arrived ',
      'one.jpg ready picture',
    ]);
    const picture = entries.find((entry) => entry.facts?.kind === 'picture')!;
    const clip = entries.find((entry) => entry.facts?.kind === 'clip')!;
    expect((await sharp(await server.blobs.localDerived(picture.assetId, '320.jpg')).metadata()).width).toBe(320);
    expect([
      (await clipSecond(clip.assetId, 0, server.blobs))?.lengths.length,
      (await clipSecond(clip.assetId, 7, server.blobs))?.lengths.length,
      await clipSecond(clip.assetId, 8, server.blobs),
    ]).toEqual([30, 30, null]);
    expect(await server.blobs.hasDerived(clip.assetId, 'listening.opus')).toBe(true);
    // Only a refused line can be taken off: what may be in use stays.
    const refused = entries.find((entry) => entry.state === 'refused')!;
    expect([await server.sheet.takeOff(id, picture.id), await server.sheet.takeOff(id, refused.id)]).toEqual([
      false,
      true,
    ]);
    await server.close();

    const later = await openServer();
    await later.sheet.takeIn(id, 'demo/files/PE_0415.jpg', 'late.jpg', 'copy');
    await later.sheet.resume();
    later.runner.start(['look']);
    await later.runner.idle('look');
    expect((await later.sheet.entries(id)).every((entry) => entry.state === 'ready')).toBe(true);
    await later.close();
  });
});

describe('the blob store', () => {
  it('never makes a path of anything but a hash', async () => {
    const blobs = openBlobStore('/somewhere');
    for (const id of ['../../etc/passwd', '', 'a'.repeat(63), 'A'.repeat(64), `${'a'.repeat(62)}/.`])
      await expect(blobs.localFile(assetId(id))).rejects.toThrow(RangeError);
    expect(await blobs.localFile(assetId('ab'.repeat(32)))).toBe(`/somewhere/originals/ab/${'ab'.repeat(32)}`);
  });
});
