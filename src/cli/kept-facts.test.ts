import { copyFile, mkdir, mkdtemp, readFile, readdir, rm, stat, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import sharp from 'sharp';
import { factsOf } from './kept-facts';

const before = process.env.TANAGER_FACTS;
let folder: string;
let picture: string;
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-facts-'));
  process.env.TANAGER_FACTS = path.join(folder, 'facts');
  picture = await drawn('one.jpg', 40);
});
afterEach(async () => {
  process.env.TANAGER_FACTS = before;
  await rm(folder, { recursive: true, force: true });
});

async function drawn(name: string, width: number): Promise<string> {
  const file = path.join(folder, name);
  await sharp({ create: { width, height: 30, channels: 3, background: '#806040' } })
    .jpeg()
    .toFile(file);
  return file;
}
const kept = () => readdir(path.join(folder, 'facts'));
const keptFile = async () => path.join(folder, 'facts', (await kept())[0]!);

describe('what commands find out about files', () => {
  it('is found once: the second time it is read, whatever the file is called now', async () => {
    const found = await factsOf(picture);
    expect(found).toMatchObject({ kind: 'picture', widthPx: 40, focus: {} });
    const kept = await keptFile();
    await writeFile(kept, JSON.stringify({ ...found, widthPx: 41 }));
    await copyFile(picture, path.join(folder, 'another name.jpg'));
    expect(await factsOf(path.join(folder, 'another name.jpg'))).toMatchObject({ widthPx: 41 });
  });
  it('goes when nobody asked about it for ninety days', async () => {
    await mkdir(path.join(folder, 'facts'));
    for (const [name, days] of [
      ['old.json', 91],
      ['young.json', 89],
    ] as const) {
      const file = path.join(folder, 'facts', name);
      await writeFile(file, '{}');
      const at = new Date(Date.now() - days * 86_400_000);
      await utimes(file, at, at);
    }
    jest.resetModules();
    const { factsOf: anew } = await import('./kept-facts');
    await anew(picture);
    const there = await kept();
    expect([there.includes('old.json'), there.includes('young.json'), there.length]).toEqual([false, true, 2]);
  });
  it('is found anew of a file that was changed under its name', async () => {
    await factsOf(picture);
    await drawn('one.jpg', 64);
    expect(await factsOf(picture)).toMatchObject({ widthPx: 64 });
    expect(await kept()).toHaveLength(2);
  });
  it('is found anew where what was kept is damaged, and nobody else can read it', async () => {
    const found = await factsOf(picture);
    const file = await keptFile();
    await writeFile(file, (await readFile(file)).subarray(0, 30));
    expect(await factsOf(picture)).toEqual(found);
    expect(JSON.parse(await readFile(file, 'utf8'))).toEqual(found);
    expect((await stat(file)).mode & 0o077).toBe(0);
  });
  it('is found all the same where it cannot be kept, and kept nowhere when nobody wants it', async () => {
    await writeFile(path.join(folder, 'a file'), '');
    process.env.TANAGER_FACTS = path.join(folder, 'a file', 'facts');
    expect(await factsOf(picture)).toMatchObject({ widthPx: 40 });
    process.env.TANAGER_FACTS = '';
    expect(await factsOf(picture)).toMatchObject({ widthPx: 40 });
    await expect(kept()).rejects.toThrow();
  });
  it('does not keep that a file cannot be used', async () => {
    const file = path.join(folder, 'broken.jpg');
    await writeFile(file, 'not a picture');
    await expect(factsOf(file)).rejects.toThrow();
    await copyFile(picture, file);
    expect(await factsOf(file)).toMatchObject({ widthPx: 40 });
  });
  it('is noted as asked for, so that only what nobody asks for goes', async () => {
    await factsOf(picture);
    const file = await keptFile();
    await utimes(file, new Date(2020, 0), new Date(2020, 0));
    await factsOf(picture);
    expect(Date.now() - (await stat(file)).mtimeMs).toBeLessThan(3_600_000);
  });
});
