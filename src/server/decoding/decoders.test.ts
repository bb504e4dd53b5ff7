import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { createDecoders, type Decoders } from './decoders';

let folder: string;
let decoders: Decoders;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-decoders-'));
  decoders = createDecoders(2);
});
afterAll(async () => {
  decoders.close();
  await rm(folder, { recursive: true, force: true });
});

const LIMITS = { timeMs: 6000, memoryBytes: 1024 ** 3 };
const look = (file: string, limits = LIMITS) => decoders.run({ kind: 'look', file, derivedFolder: folder }, limits);
const file = async (name: string, content: string | Buffer) => {
  await writeFile(path.join(folder, name), content);
  return path.join(folder, name);
};
const svg = (inside: string) => `<svg xmlns="http://www.w3.org/2000/svg" width="4000" height="4000">${inside}</svg>`;

/** Ten times as much at each of ten levels. */
const useBomb = () => {
  const levels = Array.from(
    { length: 10 },
    (_, level) => `<g id="l${level + 1}">${`<use href="#l${level}"/>`.repeat(10)}</g>`,
  );
  return svg(`<defs><rect id="l0" width="1" height="1"/>${levels.join('')}</defs><use href="#l10"/>`);
};
const morphology = () =>
  svg(
    `<filter id="f">${'<feMorphology operator="dilate" radius="900"/><feGaussianBlur stdDeviation="400"/>'.repeat(30)}</filter><rect width="4000" height="4000" filter="url(#f)"/>`,
  );

/** A TIFF that says it has 16,384² pixels and holds a thousand bytes. */
function emptyTiff(): Buffer {
  const entries = [
    [256, 4, 16_384],
    [257, 4, 16_384],
    [258, 3, 8],
    [259, 3, 1],
    [262, 3, 1],
    [273, 4, 200],
    [277, 3, 1],
    [278, 4, 16_384],
    [279, 4, 800],
  ] as const;
  const bytes = Buffer.alloc(1000);
  bytes.write('II*\0\x08\0\0\0', 'latin1');
  bytes.writeUInt16LE(entries.length, 8);
  entries.forEach(([tag, type, value], index) => {
    const at = 10 + 12 * index;
    bytes.writeUInt16LE(tag, at);
    bytes.writeUInt16LE(type, at + 2);
    bytes.writeUInt32LE(1, at + 4);
    bytes.writeUInt32LE(value, at + 8);
  });
  return bytes;
}

describe('reading strangers’ files', () => {
  it('tells what a file is and writes what browsers need of it', async () => {
    const looked = await look(path.resolve('demo/files/PE_0412.jpg'));
    expect(looked).toMatchObject({ mime: 'image/jpeg', facts: { kind: 'picture', widthPx: 1920 } });
    expect(await readdir(folder)).toContain('320.jpg');
  });
  it.each<[string, () => string]>([
    ['filters in filters', morphology],
    ['what is used ten times over, ten times over', useBomb],
  ])('sets aside a drawing of %s once it takes too long, and goes on reading others', async (name, make) => {
    const hostile = await file(`${name.slice(0, 6)}.svg`, make());
    const refused = look(hostile).then(
      () => 'taken',
      (error: Error) => error.message,
    );
    const [said, beside] = await Promise.all([refused, look(path.resolve('demo/files/PE_0415.jpg'))]);
    expect(said).toMatch(/set aside|cannot be read|cut short/);
    expect(beside.facts.kind).toBe('picture');
    expect((await look(path.resolve('demo/files/PE_0419.jpg'))).facts.kind).toBe('picture');
  });
  it('sets aside a drawing that is quick when small and holds a film up when large', async () => {
    const inside = `<filter id="f">${'<feMorphology operator="dilate" radius="900"/>'.repeat(40)}</filter><rect width="4000" height="4000" filter="url(#f)"/>`;
    await expect(look(await file('grows.svg', svg(inside)), { ...LIMITS, timeMs: 60_000 })).rejects.toThrow(/too long/);
  });
  it('sets aside what takes more memory than it may', async () => {
    const large = await file('large.svg', morphology());
    await expect(look(large, { timeMs: 60_000, memoryBytes: 1 })).rejects.toThrow(/memory/);
  });
  it('refuses a picture that has a header and next to nothing else', async () => {
    await expect(look(await file('empty.tiff', emptyTiff()))).rejects.toThrow(/cut short/);
  });
  it('refuses a clip of two pictures six hours apart before it is unpacked', async () => {
    const sparse = path.join(folder, 'sparse.mkv');
    await runFfmpeg([
      '-f',
      'lavfi',
      '-i',
      'color=c=red:s=64x64:r=1:d=2',
      '-vf',
      'setpts=N*21600/TB',
      '-fps_mode',
      'passthrough',
      '-y',
      sparse,
    ]);
    await expect(look(sparse)).rejects.toThrow(/only 2 pictures for 360 minutes/);
    expect((await readdir(folder)).filter((name) => name.startsWith('frames'))).toEqual([]);
  });
  it('leaves nothing half written behind', async () => {
    expect((await readdir(folder)).filter((name) => name.endsWith('.part'))).toEqual([]);
  });
});
