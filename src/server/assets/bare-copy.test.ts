import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { probe, runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { bareCopy } from './bare-copy';
import { madeRaw } from './raw-file.testing';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-bare-'));
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const out = () => path.join(folder, 'out');
const picture = () => sharp({ create: { width: 48, height: 32, channels: 3, background: '#8090a0' } });
const NOTED = { IFD0: { Make: 'Slipway', Artist: 'Ilka of Port Ellery' } };
const says = async (file: string, what: string) => (await readFile(file)).includes(what);
/** Two seconds of a test picture, with a place and a name in it. */
const clip = async (name: string, ...more: readonly string[]) => {
  const file = path.join(folder, name);
  await runFfmpeg([
    ...['-f', 'lavfi', '-i', 'testsrc=size=64x48:rate=25:duration=2', '-f', 'lavfi', '-i', 'sine=duration=2'],
    ...['-metadata', 'location=+59.9139+010.7522/', '-metadata', 'comment=Ilka of Port Ellery'],
    ...['-metadata:s:v', 'handler_name=Ilka’s telephone', ...more, '-y', file],
  ]);
  return file;
};
const frames = async (file: string) =>
  (await readFile(await framesOf(file), 'utf8')).split('\n').filter((line) => /^\d,/.test(line));
const framesOf = async (file: string) => {
  await runFfmpeg(['-i', file, '-map', '0:v', '-f', 'framemd5', '-y', `${file}.md5`]);
  return `${file}.md5`;
};

describe('a file as it is handed on', () => {
  it('stays as it is when nothing is noted in it, when it is a drawing, and when it is none that is known', async () => {
    const plain = path.join(folder, 'plain.png');
    await picture().png().toFile(plain);
    const drawing = path.join(folder, 'drawing.svg');
    await writeFile(drawing, '<svg xmlns="http://www.w3.org/2000/svg" width="4" height="4"/>');
    const text = path.join(folder, 'letter.txt');
    await writeFile(text, 'Dear Ilka');
    for (const file of [plain, drawing, text]) expect(await bareCopy(file, out())).toBeNull();
  });
  it('says no more where a JPEG was taken, its pixels byte for byte', async () => {
    const file = path.join(folder, 'noted.jpg');
    await picture().withExif(NOTED).jpeg().toFile(file);
    expect([await says(file, 'Port Ellery'), await bareCopy(file, out())]).toEqual([true, '']);
    expect(await says(out(), 'Port Ellery')).toBe(false);
    expect(await sharp(out()).raw().toBuffer()).toEqual(await sharp(file).raw().toBuffer());
  });
  it.each([
    ['an opaque TIFF', false, '.jpg'],
    ['a TIFF something shines through', true, '.png'],
  ])('is written anew when it is %s, and looks the same', async (_name, shines, extension) => {
    const file = path.join(folder, 'scan.tif');
    const tiff = shines ? picture().ensureAlpha(0.5) : picture();
    // Makers lay notes of their own into such a file, wherever there is room.
    await writeFile(
      file,
      Buffer.concat([await tiff.tiff({ compression: 'lzw' }).toBuffer(), Buffer.from(NOTED.IFD0.Artist)]),
    );
    expect(await bareCopy(file, out())).toBe(extension);
    expect([await says(file, 'Port Ellery'), await says(out(), 'Port Ellery')]).toEqual([true, false]);
    const [was, is] = await Promise.all([file, out()].map((at) => sharp(at).raw().toBuffer()));
    expect(is!.length).toBe(was!.length);
    was!.forEach((value, at) => expect(Math.abs(value - is![at]!)).toBeLessThanOrEqual(2));
  });
  it('is upright when the file said how to turn it', async () => {
    const file = path.join(folder, 'turned.tif');
    await picture().withMetadata({ orientation: 6 }).tiff().toFile(file);
    await bareCopy(file, out());
    const { width, height, orientation } = await sharp(out()).metadata();
    expect([width, height, orientation ?? 1]).toEqual([32, 48, 1]);
  });
  it('is the picture a RAW file shows, upright, without the camera', async () => {
    const file = path.join(folder, 'shot.nef');
    const takenAt = '2024:05:06 07:08:09';
    await writeFile(file, await madeRaw({ maker: 'tiff-little', previews: [[2000, 1500]], orientation: 6, takenAt }));
    expect(await bareCopy(file, out())).toBe('.jpg');
    expect([await says(file, takenAt), await says(out(), takenAt)]).toEqual([true, false]);
    const { width, height } = await sharp(out()).metadata();
    expect([width, height]).toEqual([1500, 2000]);
  });
  it.each(['phone.mp4', 'phone.mov', 'tape.mkv', 'tape.avi'])(
    'keeps every frame of the clip %s and its sound, and nothing else',
    async (name) => {
      const file = await clip(name, '-c:v', 'mpeg4');
      expect(await bareCopy(file, out())).toBe(path.extname(name));
      for (const said of ['Port Ellery', '59.9139', 'telephone']) expect(await says(out(), said)).toBe(false);
      expect(await frames(out())).toEqual(await frames(file));
      expect((await probe(out())).streams.map(({ codec_type: type }) => type)).toEqual(['video', 'audio']);
    },
  );
  it('keeps how a clip is to be turned', async () => {
    const upright = await clip('upright.mp4', '-c:v', 'mpeg4');
    const file = path.join(folder, 'lying.mp4');
    await runFfmpeg(['-i', upright, '-c', 'copy', '-metadata:s:v', 'rotate=90', '-y', file]);
    expect(await bareCopy(file, out())).toBe('.mp4');
    const turnOf = async (at: string) => (await probe(at)).streams[0]!.side_data_list?.[0]?.rotation;
    expect(Math.abs((await turnOf(out())) ?? 0)).toBe(90);
    expect(await turnOf(out())).toBe(await turnOf(file));
  });
  it('goes on saying who made a sound, and no longer where', async () => {
    const file = path.join(folder, 'memo.m4a');
    await runFfmpeg([
      ...[
        '-f',
        'lavfi',
        '-i',
        'sine=duration=1',
        '-metadata',
        'artist=Ilka',
        '-metadata',
        'comment=+59.9139+010.7522/',
      ],
      ...['-y', file],
    ]);
    expect(await bareCopy(file, out())).toBe('.m4a');
    expect([await says(out(), 'Ilka'), await says(out(), '59.9139')]).toEqual([true, false]);
  });
});
