import { copyFile, mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { hashOfFile } from '../server/blobs/content-hash';
import { findCommand } from './find-command';
import { UsageError } from './usage-error';

const demo = (name: string) => path.resolve('demo/files', name);
let folder: string;
let out = '';
let told = '';
async function run(...args: string[]): Promise<number> {
  out = '';
  told = '';
  return findCommand(args, { folder, out: (text) => void (out += text), tell: (text) => void (told += text) });
}
const files = async () =>
  (JSON.parse(await readFile(path.join(folder, 'show.json'), 'utf8')) as { files: Record<string, string> }).files;

beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-find-'));
  await mkdir(path.join(folder, 'moved/deep'), { recursive: true });
  const hash = await hashOfFile(demo('PE_0412.jpg'));
  const slide = (id: string, assetId: string) => ({
    ...{ id, lengthMs: 1000, transition: { kind: 'cut' }, backing: { kind: 'automatic' }, sounds: [] },
    layers: [{ kind: 'picture', id: `p-${id}`, assetId, move: { kind: 'still' } }],
  });
  await writeFile(
    path.join(folder, 'show.json'),
    JSON.stringify({
      ...{ format: 'tanager-show', version: 7, id: 'x', title: '', defaultLengthMs: 1000, cues: [], methods: {} },
      frame: { widthPx: 320, heightPx: 180, rate: { frames: 10, seconds: 1 } },
      files: { [hash]: 'old/dusk.jpg', pies: 'old/pies.jpg' },
      slides: [slide('a', hash), slide('b', 'pies')],
    }),
  );
});
afterEach(async () => {
  await rm(folder, { recursive: true, force: true });
});

describe('tanager find', () => {
  it('finds what was moved by its content, or where that is not known by its name, and writes where it is now', async () => {
    await copyFile(demo('PE_0412.jpg'), path.join(folder, 'moved/deep/renamed.jpg'));
    await copyFile(demo('PE_0415.jpg'), path.join(folder, 'moved/dusk.jpg'));
    await copyFile(demo('PE_0423.jpg'), path.join(folder, 'moved/Pies.JPG'));
    expect(await run('show.json', 'moved', '--json')).toBe(0);
    expect(JSON.parse(out)).toEqual({ found: 2, missing: [] });
    expect(Object.values(await files())).toEqual(['moved/deep/renamed.jpg', 'moved/Pies.JPG']);
    expect(await run('show.json', 'moved')).toBe(0);
    expect(told).toBe('Everything is where the show says.\n');
  });
  it('guesses nothing: two of one name, and another of the right name, are not it', async () => {
    await copyFile(demo('PE_0415.jpg'), path.join(folder, 'moved/dusk.jpg'));
    for (const place of ['moved/pies.jpg', 'moved/deep/pies.jpg'])
      await copyFile(demo('PE_0423.jpg'), path.join(folder, place));
    const before = await readFile(path.join(folder, 'show.json'), 'utf8');
    expect(await run('show.json', 'moved')).toBe(3);
    expect(told).toBe('old/dusk.jpg: not found\nold/pies.jpg: not found\n');
    expect(await readFile(path.join(folder, 'show.json'), 'utf8')).toBe(before);
  });
  it('says what it was not given', async () => {
    await expect(run('show.json')).rejects.toThrow(UsageError);
    await expect(run('show.json', 'nowhere')).rejects.toThrow(/there is no such folder/);
    await expect(run('none.json', 'moved')).rejects.toThrow(/there is no such file/);
  });
});
