import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { sql } from 'drizzle-orm';
import { showId, type AssetId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { openBlobStore, type BlobStore } from '../blobs/blob-store';
import { openDatabase, type OpenDatabase } from '../database/open-database';
import { films, sheetEntries } from '../database/schema';
import { createEvents } from '../events';
import { createClearing, type Clearing } from './clearing';
import { createShowService, type ShowService } from './show-service';
import { createVersionService } from './versions';

const LATER = () => Date.now() + 3_600_000;
let folder: string;
let database: OpenDatabase;
let blobs: BlobStore;
let shows: ShowService;
let clearing: Clearing;
let removedFilms: string[];
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-clearing-'));
  database = await openDatabase(`file:${path.join(folder, 'studio.db')}`);
  blobs = openBlobStore(path.join(folder, 'blobs'));
  shows = createShowService(database, createEvents());
  removedFilms = [];
  clearing = createClearing({
    database,
    blobs,
    endFilm: async () => {},
    removeFilmFile: async (id) => void removedFilms.push(id),
    forgetSegments: async () => {},
    now: LATER,
  });
  for (const id of ['kept', 'gone']) await shows.put(emptyShow(showId(id), id));
});
afterEach(async () => {
  database.close();
  await rm(folder, { recursive: true, force: true });
});

async function bring(content: string, ...onto: string[]): Promise<AssetId> {
  const file = path.join(folder, 'arrived');
  await writeFile(file, content);
  const { id, byteCount } = await blobs.take(file, 'copy');
  for (const show of onto)
    await database.db.insert(sheetEntries).values({
      id: `${show} ${content}`,
      showId: show,
      assetId: id,
      fileName: content,
      byteCount,
      state: 'ready',
      addedAt: 0,
    });
  return id;
}
const film = (id: string, show: string, byteCount: number) =>
  database.db.insert(films).values({
    id,
    showId: show,
    title: '',
    heightPx: 720,
    rateFrames: 30,
    state: 'ready',
    frameCount: 1,
    byteCount,
    orderedAt: 0,
  });

describe('clearing away', () => {
  it('takes shows that were taken off the shelf, with their films, and the files that no other show has', async () => {
    const [shared, own, others] = [
      await bring('both have it', 'kept', 'gone'),
      await bring('only that one', 'gone'),
      await bring('the other', 'kept'),
    ];
    await film('first', 'gone', 1000);
    await film('second', 'kept', 2000);
    await createVersionService(database).keep(emptyShow(showId('gone'), 'gone'), 'As shown', 'kept');
    expect(Object.fromEntries((await shows.shelf()).map((entry) => [entry.id, entry.byteCount]))).toEqual({
      kept: 12 + 9 + 2000,
      gone: 12 + 13 + 1000,
    });
    expect(await clearing.look('studio')).toEqual({ showCount: 0, filmCount: 0, fileCount: 0, byteCount: 0 });

    await shows.setRemoved(showId('gone'), true);
    const unused = { showCount: 1, filmCount: 1, fileCount: 1, byteCount: 1013 };
    expect(await clearing.look('studio')).toEqual(unused);
    expect(await clearing.look('another')).toMatchObject({ showCount: 0 });
    expect(await clearing.clear('studio')).toEqual(unused);
    expect((await shows.shelf()).map((entry) => entry.id)).toEqual(['kept']);
    expect(removedFilms).toEqual(['first']);
    expect([await blobs.cameAt(shared), await blobs.cameAt(own), await blobs.cameAt(others)]).toEqual([
      expect.any(Number),
      null,
      expect.any(Number),
    ]);
    expect(await shows.setRemoved(showId('gone'), false)).toBe(false);
    expect(await clearing.clear('studio')).toMatchObject({ showCount: 0, byteCount: 0 });
  });
  it('leaves a file that came only now: it may be about to be laid on another sheet', async () => {
    const id = await bring('just in', 'gone');
    await shows.setRemoved(showId('gone'), true);
    const careful = createClearing({
      database,
      blobs,
      endFilm: async () => {},
      removeFilmFile: async () => {},
      forgetSegments: async () => {},
    });
    expect(await careful.clear('studio')).toMatchObject({ showCount: 1, fileCount: 0 });
    expect(await blobs.cameAt(id)).not.toBeNull();
  });
  it('takes nothing away when one row cannot go', async () => {
    await bring('a picture', 'gone');
    await film('film', 'gone', 5);
    await shows.setRemoved(showId('gone'), true);
    await database.db.run(
      sql`create trigger stuck before delete on shows begin select raise(abort, 'the disk is full'); end`,
    );
    const before = await clearing.look('studio');
    await expect(clearing.clear('studio')).rejects.toThrow();
    expect(await clearing.look('studio')).toEqual(before);
    expect(before).toMatchObject({ showCount: 1, filmCount: 1, fileCount: 1 });
    expect(removedFilms).toEqual([]);
  });
});
