import { createHash, randomBytes } from 'node:crypto';
import { mkdtemp, readdir, readFile, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { HashingStore } from './hashing-store';
import { clearLeftOver } from './uploads';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-store-'));
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

const content = randomBytes(2_500_000);
const id = createHash('blake2b512').update(content).digest('hex').slice(0, 64);
/** In pieces as a network hands them over, broken off after them when `breaks`. */
async function* arriving(bytes: Buffer, breaks = false): AsyncGenerator<Buffer> {
  for (let from = 0; from < bytes.length; from += 65_536) yield bytes.subarray(from, from + 65_536);
  if (breaks) throw new Error('the connection broke');
}
async function begun(name: string): Promise<HashingStore> {
  await writeFile(path.join(folder, name), '');
  return new HashingStore(folder);
}
const kept = (name: string) => readFile(path.join(folder, name));

describe('HashingStore', () => {
  it('knows the hash of what came in one go, and tells it once', async () => {
    const store = await begun('whole');
    expect(await store.write(Readable.from(arriving(content)), 'whole', 0)).toBe(content.length);
    expect((await kept('whole')).equals(content)).toBe(true);
    expect([store.hashOf('whole'), store.hashOf('whole')]).toEqual([id, undefined]);
  });
  it('goes on hashing from part to part', async () => {
    const store = await begun('parts');
    for (const [from, to] of [
      [0, 1],
      [1, 1_100_000],
      [1_100_000, content.length],
    ] as const)
      expect(await store.write(Readable.from(arriving(content.subarray(from, to))), 'parts', from)).toBe(to);
    expect((await kept('parts')).equals(content)).toBe(true);
    expect(store.hashOf('parts')).toBe(id);
  });
  it('writes the last piece that arrived before a connection broke, and then leaves hashing to whoever reads the file', async () => {
    const store = await begun('broken');
    await expect(
      store.write(Readable.from(arriving(content.subarray(0, 1_200_000), true)), 'broken', 0),
    ).rejects.toThrow('the connection broke');
    expect((await kept('broken')).equals(content.subarray(0, 1_200_000))).toBe(true);
    expect(await store.write(Readable.from(arriving(content.subarray(1_200_000))), 'broken', 1_200_000)).toBe(
      content.length,
    );
    expect((await kept('broken')).equals(content)).toBe(true);
    expect(store.hashOf('broken')).toBeUndefined();
  });
  it('knows no hash of what another server began', async () => {
    await (await begun('older')).write(Readable.from(arriving(content.subarray(0, 1000))), 'older', 0);
    const later = new HashingStore(folder);
    await later.write(Readable.from(arriving(content.subarray(1000))), 'older', 1000);
    expect(later.hashOf('older')).toBeUndefined();
  });
  it('never trusts a hash that stands for another length than the file has', async () => {
    const store = await begun('again');
    await store.write(Readable.from(arriving(content)), 'again', 0);
    await store.write(Readable.from(arriving(content.subarray(500))), 'again', 500);
    expect((await kept('again')).equals(content)).toBe(true);
    expect(store.hashOf('again')).toBeUndefined();
  });
  it('says so when the disk is full', async () => {
    const store = new HashingStore('/dev');
    await expect(store.write(Readable.from(arriving(content)), 'full', 0)).rejects.toMatchObject({
      status_code: 507,
      body: expect.stringMatching(/no room left/),
    });
  });
});

describe('clearLeftOver', () => {
  it('removes what lay for more than a week, and nothing that may still be gone on with', async () => {
    const place = await mkdtemp(path.join(folder, 'left-'));
    const day = 24 * 3600;
    const now = Date.parse('2031-06-20T12:00:00Z') / 1000;
    for (const [name, days] of [
      ['old', 8],
      ['old.json', 9],
      ['slow', 2],
      ['slow.json', 12],
      ['recent', 6],
    ] as const) {
      await writeFile(path.join(place, name), 'part');
      await utimes(path.join(place, name), now - days * day, now - days * day);
    }
    await clearLeftOver(place, now * 1000);
    expect((await readdir(place)).sort()).toEqual(['recent', 'slow', 'slow.json']);
  });
});
