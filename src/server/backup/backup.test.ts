import { mkdir, mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { openBlobStore } from '../blobs/blob-store';
import { openDatabase } from '../database/open-database';
import { createEvents } from '../events';
import { FolderInUseError, lockFolder } from '../lock-folder';
import { createShowService } from '../shows/show-service';
import { backUp, bringBack, NoBackupError } from './backup';

let root: string;
let data: string;
let backup: string;
beforeEach(async () => {
  root = await mkdtemp(path.join(tmpdir(), 'tanager-backup-'));
  [data, backup] = [path.join(root, 'data'), path.join(root, 'kept')];
  await withShows(data, (shows) => shows.put(emptyShow(showId('regatta'), 'Regatta')));
  await bring(data, 'a picture');
  await mkdir(path.join(data, 'films', 'half.work'), { recursive: true });
  await writeFile(path.join(data, 'films', 'whole.mp4'), 'a film');
  await writeFile(path.join(data, 'films', 'half.work', 'segment.mp4'), 'part of one');
});
afterEach(() => rm(root, { recursive: true, force: true }));

async function withShows<Value>(
  folder: string,
  work: (shows: ReturnType<typeof createShowService>) => Promise<Value>,
): Promise<Value> {
  const database = await openDatabase(`file:${path.join(folder, 'tanager.db')}`);
  try {
    return await work(createShowService(database, createEvents()));
  } finally {
    database.close();
  }
}
async function bring(folder: string, content: string): Promise<string> {
  const file = path.join(root, 'arrived');
  await writeFile(file, content);
  const blobs = openBlobStore(path.join(folder, 'blobs'));
  const { id } = await blobs.take(file, 'copy');
  await blobs.putDerived(id, 'peaks', (part) => writeFile(part, 'drawn'));
  return id;
}
const titles = (folder: string) => withShows(folder, async (shows) => (await shows.shelf()).map((show) => show.title));

describe('a backup', () => {
  it('holds everything, also while a server works on it, and copies only what is new when it is made again', async () => {
    const open = await openDatabase(`file:${path.join(data, 'tanager.db')}`);
    expect(await backUp(data, backup)).toMatchObject({ fileCount: 3, copiedCount: 3, problems: [] });
    await createShowService(open, createEvents()).put(emptyShow(showId('later'), 'Later'));
    open.close();
    await bring(data, 'another picture');
    expect(await backUp(data, backup)).toMatchObject({ fileCount: 5, copiedCount: 2, problems: [] });
    await rm(data, { recursive: true });
    expect(await bringBack(backup, data)).toMatchObject({ fileCount: 5, movedTo: null, problems: [] });
    expect((await titles(data)).sort()).toEqual(['Later', 'Regatta']);
    expect(await readFile(path.join(data, 'films', 'whole.mp4'), 'utf8')).toBe('a film');
    expect(await readdir(path.join(data, 'films'))).toEqual(['whole.mp4']);
  });
  it('puts aside what lies where it is brought back to', async () => {
    await backUp(data, backup);
    await withShows(data, (shows) => shows.rename(showId('regatta'), 'Spoilt'));
    const { movedTo } = await bringBack(backup, data);
    expect([await titles(data), await titles(movedTo!)]).toEqual([['Regatta'], ['Spoilt']]);
  });
  it('says which files are damaged, and brings the others back', async () => {
    const id = await bring(data, 'a second picture');
    await backUp(data, backup);
    await writeFile(path.join(backup, 'blobs/originals', id.slice(0, 2), id), 'a second pictur!');
    const report = await bringBack(backup, path.join(root, 'elsewhere'));
    expect(report.problems).toEqual([expect.stringContaining(`${id} is damaged`)]);
    expect(await titles(path.join(root, 'elsewhere'))).toEqual(['Regatta']);
  });
  it('does not take copies that were decoded beside an original for damaged originals', async () => {
    const id = await bring(data, 'a RAW file');
    await writeFile(path.join(data, 'blobs/originals', id.slice(0, 2), `${id}.decoded`), 'its picture');
    await backUp(data, backup);
    expect((await bringBack(backup, path.join(root, 'elsewhere'))).problems).toEqual([]);
  });
  it('is not brought back under a server that works, nor from what is none', async () => {
    await backUp(data, backup);
    const lock = await lockFolder(data);
    await expect(bringBack(backup, data)).rejects.toThrow(FolderInUseError);
    await lock.release();
    await expect(bringBack(path.join(root, 'nothing'), data)).rejects.toThrow(NoBackupError);
    await rm(path.join(backup, 'backup.json'));
    await expect(bringBack(backup, data)).rejects.toThrow(/not finished/);
    await writeFile(path.join(backup, 'backup.json'), '{"format":"tanager-backup","version":2}');
    await expect(bringBack(backup, data)).rejects.toThrow(/newer version/);
    expect(await titles(data)).toEqual(['Regatta']);
    await expect(backUp(path.join(root, 'empty'), backup)).rejects.toThrow(/nothing to back up/);
  });
});
