import { copyFile, mkdir, mkdtemp, rename, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { layerId, showId, slideId, type AssetId } from '../../core/show/ids';
import { emptyShow, type Show } from '../../core/show/show';
import { openServer, type RunningServer } from '../running-server';

const SHOW = showId('evening');
let folder: string;
let server: RunningServer;
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-missing-'));
  process.env.TANAGER_DATA = path.join(folder, 'data');
  process.env.TANAGER_FOLDER = path.join(folder, 'disk');
  await mkdir(path.join(folder, 'disk/old/deep'), { recursive: true });
  server = await openServer();
  server.runner.start(['look']);
});
afterEach(async () => {
  await server.close();
  delete process.env.TANAGER_DATA;
  delete process.env.TANAGER_FOLDER;
  await rm(folder, { recursive: true, force: true });
});

/** A show of two pictures, and one more on its sheet. */
async function madeShow(): Promise<AssetId[]> {
  await server.shows.put(emptyShow(SHOW, 'An evening'));
  for (const name of ['a.svg', 'b.svg', 'c.svg']) {
    const file = path.join(folder, name);
    await writeFile(file, `<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><text>${name}</text></svg>`);
    await server.sheet.takeIn(SHOW, file, name, 'copy');
  }
  await server.runner.idle('look');
  const ids = (await server.sheet.entries(SHOW)).map(({ assetId }) => assetId);
  const slides = ids.slice(0, 2).map((assetId, index): Show['slides'][number] => ({
    ...{
      id: slideId(`s${index}`),
      lengthMs: 1000,
      transition: { kind: 'cut' },
      backing: { kind: 'automatic' },
      sounds: [],
    },
    layers: [{ kind: 'drawing', id: layerId(`l${index}`), assetId }],
  }));
  await server.shows.applyEdits(
    SHOW,
    [{ editId: 'put-them-in', edit: { kind: 'add-slides', runs: [{ afterId: null, slides }] } }],
    0,
  );
  return ids;
}
const missing = async () => server.missing.of((await server.shows.load(SHOW))!.show);
const looked = async (place: string) => {
  expect(await server.missing.look((await server.shows.load(SHOW))!.show, place)).toBe(true);
  for (let tries = 0; tries < 200 && !server.missing.search(SHOW)!.ended; tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 10));
  return server.missing.search(SHOW);
};

describe('files that are not there any more', () => {
  it('are told with where they are used, and found again by content, whatever they are called and wherever they lie, all at once', async () => {
    const ids = await madeShow();
    expect(await missing()).toEqual([]);
    for (const id of ids) await rm(await server.blobs.localFile(id));
    expect((await missing()).map(({ fileName, uses }) => [fileName, uses.slides])).toEqual([
      ['a.svg', [1]],
      ['b.svg', [2]],
      ['c.svg', []],
    ]);
    await rename(path.join(folder, 'a.svg'), path.join(folder, 'disk/old/deep/IMG_0001.svg'));
    await rename(path.join(folder, 'c.svg'), path.join(folder, 'disk/old/c.svg'));
    // Of the same size and name, and another picture.
    await writeFile(
      path.join(folder, 'disk/old/b.svg'),
      `<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><text>X.svg</text></svg>`,
    );
    expect(await looked('old')).toEqual({ looked: 3, fileCount: 3, found: 2, ended: true });
    expect((await missing()).map(({ fileName }) => fileName)).toEqual(['b.svg']);
    expect((await server.sheet.entries(SHOW)).map(({ fileName }) => fileName)).toEqual(['a.svg', 'b.svg', 'c.svg']);
    await copyFile(path.join(folder, 'b.svg'), path.join(folder, 'disk/b.svg'));
    expect((await looked(''))!.found).toBe(1);
    expect(await missing()).toEqual([]);
  });
  it('that were never on the sheet are found too; what was brought and is no file for a show is not missing', async () => {
    const ids = await madeShow();
    await server.sheet.takeIn(SHOW, path.join(folder, 'a.svg'), 'a.svg', 'copy');
    await writeFile(path.join(folder, 'broken.jpg'), 'no picture');
    await server.sheet.takeIn(SHOW, path.join(folder, 'broken.jpg'), 'broken.jpg', 'copy');
    await server.runner.idle('look');
    const { sheetEntries } = await import('../database/schema');
    const { eq } = await import('drizzle-orm');
    await server.db.delete(sheetEntries).where(eq(sheetEntries.assetId, ids[1]!));
    expect((await missing()).map(({ assetId, fileName, uses }) => [assetId, fileName, uses.slides])).toEqual([
      [ids[1], null, [2]],
    ]);
    await copyFile(path.join(folder, 'b.svg'), path.join(folder, 'disk/moved.svg'));
    expect((await looked(''))!.found).toBe(1);
    expect(await missing()).toEqual([]);
  });
  it('are looked for below the folder that was opened only', async () => {
    await madeShow();
    const { show } = (await server.shows.load(SHOW))!;
    expect(await server.missing.look(show, '../data')).toBe(false);
    expect(await server.missing.look(show, 'nowhere')).toBe(false);
    expect(server.missing.search(SHOW)).toBeNull();
  });
});
