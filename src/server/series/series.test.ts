import { copyFile, mkdir, mkdtemp, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { layerId, showId, slideId } from '../../core/show/ids';
import { emptyShow, type Show } from '../../core/show/show';
import { openServer, type RunningServer } from '../running-server';
import { keptPath } from './series-files';
import type { SeriesSeen } from './series-service';

const STUDIO = 'studio';
const PATTERN = showId('pattern');
const PICTURES = ['PE_0412.jpg', 'PE_0415.jpg', 'PE_0419.jpg', 'PE_0423.jpg'] as const;
const demo = (name: string) => path.resolve('demo/files', name);
let folder: string;
let server: RunningServer;

beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-series-'));
  process.env.TANAGER_DATA = path.join(folder, 'data');
  server = await openServer();
});
afterEach(async () => {
  await server.close();
  delete process.env.TANAGER_DATA;
  await rm(folder, { recursive: true, force: true });
});

/** A pattern of two slides of a second each, the first of which says a name. */
async function patternMade(): Promise<void> {
  await server.shows.put({
    ...emptyShow(PATTERN, 'Ada Quill'),
    frame: { widthPx: 320, heightPx: 180, rate: { frames: 10, seconds: 1 } },
  });
  for (const name of PICTURES.slice(0, 2)) await server.sheet.takeIn(PATTERN, demo(name), name, 'copy');
  await server.runner.idle('look');
  const ids = (await server.sheet.entries(PATTERN)).map(({ assetId }) => assetId);
  const slides = ids.map((assetId, at): Show['slides'][number] => ({
    id: slideId(`s${at}`),
    lengthMs: 1000,
    transition: { kind: 'cut' },
    backing: { kind: 'automatic' },
    layers: [
      { kind: 'picture', id: layerId(`p${at}`), assetId, move: { kind: 'still' } },
      ...(at === 0
        ? [{ kind: 'words' as const, id: layerId('w'), title: 'Ada Quill', subtitle: '', place: 'centre' as const }]
        : []),
    ],
    sounds: [],
  }));
  await edited(PATTERN, { kind: 'add-slides', runs: [{ afterId: null, slides }] });
}

let edits = 0;
async function edited(show: string, edit: object): Promise<void> {
  const { revision } = (await server.shows.load(showId(show)))!;
  const applied = await server.shows.applyEdits(
    showId(show),
    [{ editId: `edit-number-${(edits += 1)}`, edit }],
    revision,
  );
  expect(applied).toMatchObject({ refused: [] });
}

/** A series of two rows with a folder each, its files as a browser would have brought them. */
async function seriesMade(): Promise<string> {
  server.runner.start();
  await patternMade();
  const id = (await server.series.create(STUDIO, PATTERN))!;
  for (const [at, name] of PICTURES.entries()) {
    const part = path.join(folder, 'part');
    await copyFile(demo(name), part);
    await server.seriesFiles.take(id, part, `${at < 2 ? 'bo' : 'cy'}/${name}`);
  }
  const rows = [
    ['Bo Reed', 'bo'],
    ['Cy Fenn', 'cy'],
    ['Di Marsh', 'nobody'],
  ];
  expect(await server.series.change(STUDIO, id, { columns: ['Name', 'Pictures'], rows })).toBe(true);
  return id;
}

const seen = async (id: string): Promise<SeriesSeen> => (await server.series.find(STUDIO, id))!;
async function ended(id: string): Promise<SeriesSeen> {
  await server.runner.idle('series');
  return seen(id);
}
const filmIds = async (id: string) => (await seen(id)).rows.map(({ filmId }) => filmId);
const wordsIn = async (show: string) =>
  (await server.shows.load(showId(show)))!.show.slides.flatMap(({ layers }) =>
    layers.flatMap((layer) => (layer.kind === 'words' ? [layer.title] : [])),
  );

describe('a series', () => {
  it('builds the show of a row to be looked at, makes films of the rows that can be made, and makes only what changed again', async () => {
    const id = await seriesMade();
    expect((await seen(id)).faults).toEqual([{ row: 3, grave: true, says: 'There is no folder “nobody”.' }]);
    expect(await server.series.prepare(STUDIO, id, 2)).toBe(true);
    const looked = (await ended(id)).rows[1]!;
    expect(looked).toMatchObject({ state: 'ready-to-make', title: 'Cy Fenn', filmId: null });
    expect(await wordsIn(looked.showId!)).toEqual(['Cy Fenn']);
    expect(await server.films.list(showId(looked.showId!))).toEqual([]);

    expect(await server.series.change(STUDIO, id, { screened: true })).toBe(true);
    expect(await server.series.start(STUDIO, id, null)).toBe(true);
    expect(await server.series.change(STUDIO, id, { rows: [], columns: ['x'] })).toMatch(/Stop that first/);
    const done = await ended(id);
    expect(done.state).toBe('done');
    expect(done.rows.map(({ state }) => state)).toEqual(['done', 'done', 'new']);
    expect(done.rows[1]!.showId).toBe(looked.showId);
    const bill = (await server.bills.find(done.billToken!))!;
    expect(bill.films.map(({ title }) => title).sort()).toEqual(['Bo Reed', 'Cy Fenn']);
    const { files } = (await server.series.filmFiles(STUDIO, id))!;
    expect([...files.keys()]).toEqual(['001 Bo Reed.mp4', '002 Cy Fenn.mp4']);
    for (const file of files.values()) expect((await stat(file)).size).toBeGreaterThan(1000);

    // The table says otherwise of one row: that film alone is made again.
    const before = await filmIds(id);
    const rows = [
      ['Bo Reed', 'bo'],
      ['Cy Fennimore', 'cy'],
    ];
    expect(await server.series.change(STUDIO, id, { columns: ['Name', 'Pictures'], rows })).toBe(true);
    expect(await server.series.start(STUDIO, id, null)).toBe(true);
    await ended(id);
    const after = await filmIds(id);
    expect(after[0]).toBe(before[0]);
    expect(after[1]).not.toBe(before[1]);
    expect(await wordsIn(looked.showId!)).toEqual(['Cy Fennimore']);
    // It stays one show, one screening, one line on the page.
    expect((await server.bills.find(done.billToken!))!.films.map(({ title }) => title).sort()).toEqual([
      'Bo Reed',
      'Cy Fennimore',
    ]);
  });

  it('leaves a show that was changed by hand as it is, whatever becomes of the pattern', async () => {
    const id = await seriesMade();
    await server.series.prepare(STUDIO, id, 1);
    await server.series.prepare(STUDIO, id, 2);
    const { rows } = await ended(id);
    await edited(rows[0]!.showId!, {
      kind: 'set-words',
      slideId: 's0',
      layerId: 'w',
      words: { title: 'Bo!', subtitle: '', place: 'top' },
    });
    await edited(PATTERN, { kind: 'set-lengths', lengths: [{ slideId: 's1', lengthMs: 700, by: 'hand' }] });
    await server.series.start(STUDIO, id, null);
    const after = await ended(id);
    expect(after.rows.map(({ byHand, state }) => [byHand, state])).toEqual([
      [true, 'done'],
      [false, 'done'],
      [false, 'new'],
    ]);
    expect(await wordsIn(rows[0]!.showId!)).toEqual(['Bo!']);
    const lengths = async (at: number) =>
      (await server.shows.load(showId(rows[at]!.showId!)))!.show.slides.map(({ lengthMs }) => lengthMs);
    expect([await lengths(0), await lengths(1)]).toEqual([
      [1000, 1000],
      [1000, 700],
    ]);
  });

  it('keeps what goes wrong with a file of one row to that row', async () => {
    const id = await seriesMade();
    const gone = path.join(folder, 'data/series', id, 'bo/PE_0412.jpg');
    await rm(gone);
    await mkdir(gone);
    await writeFile(path.join(gone, 'x'), '');
    // Listed as a file, and none when it is opened: as on a disk that fails.
    server.seriesFiles.paths = async () => ['bo/PE_0412.jpg', 'bo/PE_0415.jpg', 'cy/PE_0419.jpg', 'cy/PE_0423.jpg'];
    await server.series.prepare(STUDIO, id, 1);
    await server.series.prepare(STUDIO, id, 2);
    const { rows } = await ended(id);
    expect(rows.map(({ state, problem }) => [state, problem]).slice(0, 2)).toEqual([
      ['failed', '“bo/PE_0412.jpg” could not be read from the disk.'],
      ['ready-to-make', null],
    ]);
  });

  it('makes no film of one row another’s when rows are carried, taken out and added', async () => {
    const id = await seriesMade();
    await server.series.prepare(STUDIO, id, 1);
    await server.series.prepare(STUDIO, id, 2);
    const before = (await ended(id)).rows;
    const rows = [
      ['Eve Marsh', 'eve'],
      ['Cy Fenn', 'cy'],
    ];
    expect(await server.series.change(STUDIO, id, { columns: ['Name', 'Pictures'], rows })).toBe(true);
    const after = (await seen(id)).rows;
    expect(after.map(({ title, showId: of, state }) => [title, of, state])).toEqual([
      ['Eve Marsh', null, 'new'],
      ['Cy Fenn', before[1]!.showId, 'ready-to-make'],
    ]);
    // Whoever is not in the table any more keeps a show, on the shelf.
    const shelf = await server.shows.shelf();
    expect(shelf.find((entry) => entry.id === before[0]!.showId)).toMatchObject({ title: 'Bo Reed', series: null });
  });

  it('is stopped, and goes on with what is left; what failed in one row stays there', async () => {
    const id = await seriesMade();
    await writeFile(path.join(folder, 'broken'), 'no picture');
    await server.seriesFiles.take(id, path.join(folder, 'broken'), 'di/a.jpg');
    const rows = [
      ['Di', 'di'],
      ['Bo', 'bo'],
      ['Cy', 'cy'],
    ];
    await server.series.change(STUDIO, id, { columns: ['Name', 'Pictures'], rows });
    await server.series.start(STUDIO, id, null);
    for (let tries = 0; tries < 300; tries += 1) {
      if ((await seen(id)).rows.some(({ state }) => state === 'making')) break;
      await new Promise((resolve) => setTimeout(resolve, 30));
    }
    expect(await server.series.stop(STUDIO, id)).toBe(true);
    const stopped = await seen(id);
    expect(stopped.state).toBe('stopped');
    expect(
      stopped.rows.map(({ state }) => state).filter((state) => state === 'making' || state === 'preparing'),
    ).toEqual([]);
    await server.series.start(STUDIO, id, null);
    const done = await ended(id);
    expect(done.rows.map(({ state, problem }) => [state, problem])).toEqual([
      ['failed', 'None of the pictures in its folder can be used.'],
      ['done', null],
      ['done', null],
    ]);
  });

  it('is nothing of another studio’s, and takes its shows off the shelf when it goes, from where they come back', async () => {
    const id = await seriesMade();
    await server.series.prepare(STUDIO, id, 1);
    const { rows } = await ended(id);
    expect(await server.series.list('other')).toEqual([]);
    expect(await server.series.find('other', id)).toBeNull();
    expect(await server.series.change('other', id, { title: 'Mine' })).toBe(false);
    expect(await server.series.start('other', id, null)).toBe(false);
    expect(await server.series.stop('other', id)).toBe(false);
    expect(await server.series.remove('other', id)).toBe(false);
    expect(await server.series.takes('other', id)).toBe(false);
    const onShelf = async () => (await server.shows.shelf()).find((entry) => entry.id === rows[0]!.showId);
    expect(await onShelf()).toMatchObject({ place: 'shelf', series: id });
    expect(await server.series.remove(STUDIO, id)).toBe(true);
    expect(await onShelf()).toMatchObject({ place: 'removed', series: null });
    expect(await server.seriesFiles.paths(id, null)).toEqual([]);
    expect(await server.shows.setRemoved(showId(rows[0]!.showId!), false)).toBe(true);
    expect(await wordsIn(rows[0]!.showId!)).toEqual(['Bo Reed']);
  });

  it('says why nothing can be made: no table, no pattern, faults everywhere', async () => {
    server.runner.start(['look']);
    await patternMade();
    const id = (await server.series.create(STUDIO, PATTERN))!;
    expect(await server.series.start(STUDIO, id, null)).toMatch(/Nothing of the pattern changes/);
    await server.series.change(STUDIO, id, { columns: ['Name', 'Pictures'], rows: [['Bo', 'none']] });
    expect(await server.series.start(STUDIO, id, null)).toMatch(/Every row has a fault/);
    expect(await server.series.prepare(STUDIO, id, 1)).toBe('There is no folder “none”.');
    expect(await server.series.change(STUDIO, id, { columns: ['Name'] })).toMatch(/heads and rows/);
    expect(await server.series.change(STUDIO, id, { columns: ['Name'], rows: [['a', 'b']] })).toMatch(/more cells/);
    expect(await server.series.change(STUDIO, id, { folder: 'houses' })).toMatch(/no such folder/);
    await server.shows.setRemoved(PATTERN, true);
    expect(await server.series.start(STUDIO, id, null)).toMatch(/is not there any more/);
    expect((await seen(id)).faults).toMatchObject([{ row: 0, grave: true }]);
  });
});

describe('files of a series', () => {
  it.each([
    ['ada/1.jpg', 'ada/1.jpg'],
    ['A\u0308rger/1.jpg', '\u00C4rger/1.jpg'],
    ['../1.jpg', null],
    ['ada/../../1.jpg', null],
    ['/etc/passwd', null],
    ['ada//1.jpg', null],
    ['ada\\1.jpg', null],
    ['ada/.hidden', null],
    ['ada/1.jpg\u0000', null],
    ['', null],
    [`${'a/'.repeat(30)}1.jpg`, null],
    [`${'a'.repeat(300)}.jpg`, null],
  ])('named %j are kept as %j', (told, kept) => {
    expect(keptPath(told)).toBe(kept);
  });
  it('are found below their own folder only', async () => {
    await mkdir(path.join(folder, 'data/series/one/ada'), { recursive: true });
    await writeFile(path.join(folder, 'data/series/one/ada/1.jpg'), 'x');
    await writeFile(path.join(folder, 'data/secret'), 'x');
    const place = await server.seriesFiles.place('one', null, 'ada/1.jpg');
    expect(await readFile(place!, 'utf8')).toBe('x');
    expect(await server.seriesFiles.place('one', null, '../../secret')).toBeNull();
    expect(await server.seriesFiles.place('one', null, 'ada/2.jpg')).toBeNull();
  });
});
