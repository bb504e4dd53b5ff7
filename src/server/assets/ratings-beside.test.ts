import { copyFile, mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { xmpOf } from '../../core/interchange/xmp';
import { showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { openServer, type RunningServer } from '../running-server';

const SHOW = showId('evening');
let folder: string;
let server: RunningServer;
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-beside-'));
  process.env.TANAGER_DATA = path.join(folder, 'data');
  process.env.TANAGER_FOLDER = path.join(folder, 'disk');
  await mkdir(path.join(folder, 'disk/card'), { recursive: true });
  server = await openServer();
});
afterEach(async () => {
  await server.close();
  delete process.env.TANAGER_DATA;
  delete process.env.TANAGER_FOLDER;
  await rm(folder, { recursive: true, force: true });
});

describe('ratings beside pictures', () => {
  it('come with a folder of the server’s disk, and are no files of the show themselves', async () => {
    const card = (name: string) => path.join(folder, 'disk/card', name);
    await copyFile('demo/files/PE_0412.jpg', card('PE_0412.jpg'));
    await copyFile('demo/files/PE_0415.jpg', card('PE_0415.jpg'));
    await writeFile(card('PE_0412.xmp'), xmpOf('linger'));
    await writeFile(card('PE_0415.jpg.xmp'), 'torn');
    await server.shows.put(emptyShow(SHOW, 'An evening'));
    expect(await server.folders.start(SHOW, 'card')).toBe('begun');
    expect(server.folders.progress(SHOW)?.fileCount).toBe(2);
    for (let tries = 0; tries < 200 && server.folders.progress(SHOW); tries += 1)
      await new Promise((resolve) => setTimeout(resolve, 20));
    const entries = await server.sheet.entries(SHOW);
    expect(entries.map(({ fileName, rating }) => [fileName, rating])).toEqual([
      ['PE_0412.jpg', 5],
      ['PE_0415.jpg', undefined],
    ]);
    expect(
      await server.sheet.rate(
        SHOW,
        new Map([
          ['pe_0415.xmp', -1],
          ['nobody.xmp', 3],
        ]),
      ),
    ).toBe(1);
    expect((await server.sheet.entries(SHOW)).map(({ rating }) => rating)).toEqual([5, -1]);
  });
});
