import { existsSync } from 'node:fs';
import { mkdir, mkdtemp, readdir, readFile, rm, utimes, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { assetId } from '../../core/show/ids';
import { openFilmFiles } from '../films/film-files';
import { createKeptFiles } from '../films/kept-files';
import { sharedKeptFiles } from '../films/shared-kept-files';
import { openBlobStore } from './blob-store';
import { keepRoom } from './keep-room';
import { KEYS, openObjectServer, type ObjectServer } from './object-server.testing';
import { isStoreUnreachable, objectSettings, openObjectStore, type ObjectStore } from './object-store';
import { sharedBlobs } from './shared-blobs';

let folder: string;
let server: ObjectServer;
let objects: ObjectStore & { close(): void };
const before = { ...process.env };

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-shared-'));
  server = await openObjectServer();
  Object.assign(process.env, { AWS_ACCESS_KEY_ID: KEYS.id, AWS_SECRET_ACCESS_KEY: KEYS.secret });
  objects = await openObjectStore({ bucket: 'films', endpoint: server.endpoint, region: 'us-east-1', prefix: 'one/' });
});
afterAll(async () => {
  objects.close();
  await server.close();
  process.env = before;
  await rm(folder, { recursive: true, force: true });
});

/** A machine with a folder of its own. */
const machine = (name: string) => sharedBlobs(openBlobStore(path.join(folder, name)), objects);
const written = async (name: string, bytes: Buffer | string) => {
  const file = path.join(folder, name);
  await writeFile(file, bytes);
  return file;
};
const textOf = (bytes: Uint8Array) => Buffer.from(bytes).toString();

describe('the settings of a store', () => {
  it('are none without a bucket, and put a folder before every name', () => {
    expect(objectSettings({} as NodeJS.ProcessEnv)).toBeNull();
    expect(
      objectSettings({
        TANAGER_S3_BUCKET: 'b',
        TANAGER_S3_ENDPOINT: 'http://s',
        TANAGER_S3_PREFIX: '/studio/a/',
      } as unknown as NodeJS.ProcessEnv),
    ).toEqual({ bucket: 'b', endpoint: 'http://s', region: 'us-east-1', prefix: 'studio/a/' });
  });
});

describe('a store of files', () => {
  it('takes and gives files of any size, whole or a part of them', async () => {
    const large = Buffer.alloc(20 * 1024 * 1024);
    for (let at = 0; at < large.length; at += 4) large.writeUInt32LE((at * 2654435761) >>> 0, at);
    for (const [key, bytes] of [
      ['small', Buffer.from('a few')],
      ['a/b c/ü+%', Buffer.from('with signs')],
      ['large', large],
      ['empty', Buffer.alloc(0)],
    ] as const) {
      await objects.put(key, await written('source', bytes));
      expect(server.objects.get(`one/${key}`)!.equals(bytes)).toBe(true);
      expect(await objects.find(key)).toMatchObject({ key, byteCount: bytes.length });
      expect(await objects.fetch(key, path.join(folder, 'back/here'))).toBe(true);
      expect((await readFile(path.join(folder, 'back/here'))).equals(bytes)).toBe(true);
    }
    const part = Buffer.concat(await (await objects.read('large', { from: 1_000_000, to: 1_000_010 }))!.toArray());
    expect(part.equals(large.subarray(1_000_000, 1_000_010))).toBe(true);
  });
  it('says what is not there, lists over its pages, and takes away', async () => {
    expect([await objects.find('nothing'), await objects.read('nothing')]).toEqual([null, null]);
    expect(await objects.fetch('nothing', path.join(folder, 'nothing'))).toBe(false);
    expect(existsSync(path.join(folder, 'nothing'))).toBe(false);
    for (let at = 0; at < 8; at += 1) await objects.put(`many/${at}`, await written('source', String(at)));
    const listed: string[] = [];
    for await (const { key } of objects.list('many/')) listed.push(key);
    expect(listed).toEqual([0, 1, 2, 3, 4, 5, 6, 7].map((at) => `many/${at}`));
    await objects.remove(listed.slice(1));
    expect([...server.objects.keys()].filter((key) => key.includes('many'))).toEqual(['one/many/0']);
  });
  it('is asked by those who know its secret only, and says in a sentence when it does not answer', async () => {
    process.env.AWS_SECRET_ACCESS_KEY = 'another';
    const stranger = await openObjectStore({
      bucket: 'films',
      endpoint: server.endpoint,
      region: 'us-east-1',
      prefix: '',
    });
    const fault = await stranger.put('x', await written('source', 'x')).catch((error: unknown) => error);
    process.env.AWS_SECRET_ACCESS_KEY = KEYS.secret;
    stranger.close();
    expect(isStoreUnreachable(fault)).toBe(true);
    expect(server.objects.has('x')).toBe(false);
    server.away = true;
    await expect(objects.ask()).rejects.toThrow('does not answer');
    server.away = false;
    await objects.ask();
  });
});

describe('files by content that several machines share', () => {
  it('come from the store on a machine that does not have them, once even when asked for twice', async () => {
    const [one, other] = [machine('one'), machine('other')];
    const { id } = await one.take(await written('picture', 'a picture'), 'move');
    server.asked.length = 0;
    const [file] = await Promise.all([other.localFile(id), other.localFile(id)]);
    expect(await readFile(file, 'utf8')).toBe('a picture');
    expect(server.asked).toEqual([`GET one/originals/${id}`]);
    expect(Buffer.concat(await other.read(id).toArray()).toString()).toBe('a picture');
    expect(await machine('third').cameAt(id)).not.toBeNull();
    expect(await machine('third').cameAt(assetId('f'.repeat(64)))).toBeNull();
  });
  it('take what was made of them along: several at once, one by one, and parts without the rest', async () => {
    const [one, other] = [machine('one'), machine('other')];
    const { id } = await one.take(await written('clip', 'a clip'), 'move');
    await one.deriveInto(id, async (into) => {
      await writeFile(path.join(into, 'frames.mjpeg'), '0123456789');
      await writeFile(path.join(into, '320.jpg'), 'small');
    });
    await one.putDerived(id, '960.jpg', (part) => writeFile(part, 'larger'));
    expect(await other.hasDerived(id, '960.jpg')).toBe(true);
    expect(await other.hasDerived(id, '2880.jpg')).toBe(false);
    expect(textOf(await other.readDerived(id, 'frames.mjpeg', { from: 2, to: 5 }))).toBe('234');
    expect(textOf(await other.readDerived(id, 'frames.mjpeg', { from: 40, to: 50 }))).toBe('');
    expect(existsSync(path.join(folder, 'other/derived', id.slice(0, 2), id, 'frames.mjpeg'))).toBe(false);
    expect(textOf(await other.readDerived(id, '320.jpg'))).toBe('small');
    expect(await readFile(await other.localDerived(id, '960.jpg'), 'utf8')).toBe('larger');
    await expect(other.readDerived(id, 'no', { from: 0, to: 1 })).rejects.toMatchObject({ code: 'ENOENT' });
    await one.remove(id);
    expect([...server.objects.keys()].filter((key) => key.includes(id))).toEqual([]);
  });
  it('are not taken in while the store does not answer, and are once it does', async () => {
    const one = machine('one');
    server.away = true;
    const fault = await one.take(await written('late', 'late'), 'move').catch((error: unknown) => error);
    expect(isStoreUnreachable(fault)).toBe(true);
    // It lies where it came from.
    expect(await readFile(path.join(folder, 'late'), 'utf8')).toBe('late');
    server.away = false;
    const { id } = await one.take(await written('late', 'late'), 'copy');
    expect(await readFile(await machine('other').localFile(id), 'utf8')).toBe('late');
  });
});

describe('copies of what lies elsewhere', () => {
  it('go when there are too many, those used longest ago first, and none that was used lately', async () => {
    const place = path.join(folder, 'copies');
    await mkdir(path.join(place, 'aa'), { recursive: true });
    const hoursAgo = (hours: number) => new Date(Date.now() - hours * 3600_000);
    for (const [name, hours] of [
      ['old', 40],
      ['older', 50],
      ['late', 1],
    ] as const) {
      await writeFile(path.join(place, 'aa', name), Buffer.alloc(1000));
      await utimes(path.join(place, 'aa', name), hoursAgo(hours), hoursAgo(hours));
    }
    expect(await keepRoom(place, 2500)).toBe(1000);
    expect((await readdir(path.join(place, 'aa'))).toSorted()).toEqual(['late', 'old']);
    expect(await keepRoom(place, 0)).toBe(1000);
    expect(await readdir(path.join(place, 'aa'))).toEqual(['late']);
  });
});

describe('parts of films and films that several machines share', () => {
  const NAME = `${'a'.repeat(40)}.mp4`;
  const keptOn = (name: string, now?: () => number) => {
    const place = path.join(folder, `kept-${name}`);
    return sharedKeptFiles(createKeptFiles(place), objects, place, now);
  };
  it('are drawn by one and lent by another', async () => {
    await keptOn('one').put(NAME, await written('segment', 'frames'));
    const lent = path.join(folder, 'lent.mp4');
    const other = keptOn('other');
    expect(await other.lend(NAME, lent)).toBe(true);
    expect(await readFile(lent, 'utf8')).toBe('frames');
    server.asked.length = 0;
    expect(await other.lend(NAME, lent)).toBe(true);
    expect(server.asked).toEqual([]);
    expect(await other.lend(`${'b'.repeat(40)}.mp4`, lent)).toBe(false);
    await keptOn('one', () => Date.parse('2027-06-01')).prune();
    expect(await keptOn('third').lend(NAME, lent)).toBe(false);
  });
  it('a film lies elsewhere until a program needs a path, and goes from both', async () => {
    await mkdir(path.join(folder, 'films-one'));
    await mkdir(path.join(folder, 'films-other'));
    const [one, other] = ['one', 'other'].map((name) => openFilmFiles(path.join(folder, `films-${name}`), objects));
    await writeFile(one!.place('f.mp4'), 'a film');
    await one!.keep('f.mp4');
    expect(await one!.elsewhere('f.mp4')).toBeNull();
    const there = (await other!.elsewhere('f.mp4'))!;
    expect(there.byteCount).toBe(6);
    expect(Buffer.concat(await (await there.read({ from: 2, to: 6 }))!.toArray()).toString()).toBe('film');
    expect(await readFile(await other!.local('f.mp4'), 'utf8')).toBe('a film');
    expect(await other!.elsewhere('f.mp4')).toBeNull();
    await other!.remove('f.', '.work');
    expect([existsSync(other!.place('f.mp4')), await objects.find('films/f.mp4')]).toEqual([false, null]);
  });
});
