import { createWriteStream } from 'node:fs';
import { mkdir, mkdtemp, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { ZipFile } from 'yazl';
import { BUNDLE_NOTE, BUNDLE_SHOW, intakeSentence, type BundleIntake } from '../../core/bundles/bundle';
import { FORMAT_VERSION } from '../../core/show/format/version';
import { layerId, showId, slideId, type AssetId, type ShowId } from '../../core/show/ids';
import { emptyShow, type Show } from '../../core/show/show';
import { openStrangeArchive } from '../archive/strange-archive';
import { openServer, type RunningServer } from '../running-server';
import { parseShowFile } from '../schema/show-schema';
import { BUNDLE_LIMITS } from './bundle-file';

let folder: string;
const opened: RunningServer[] = [];
beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-bundles-'));
});
afterEach(async () => {
  for (const server of opened.splice(0)) await server.close();
  delete process.env.TANAGER_DATA;
  await rm(folder, { recursive: true, force: true });
});

/** An installation of its own, in which only whole shows are taken in. */
async function installation(name: string): Promise<RunningServer> {
  process.env.TANAGER_DATA = path.join(folder, name);
  const server = await openServer();
  opened.push(server);
  server.runner.start(['bundle']);
  return server;
}

async function brought(server: RunningServer, show: ShowId, name: string): Promise<AssetId> {
  const file = path.join(folder, name);
  await writeFile(file, `<svg xmlns="http://www.w3.org/2000/svg" width="10" height="10"><text>${name}</text></svg>`);
  await server.sheet.takeIn(show, file, name, 'copy');
  return (await server.sheet.entries(show)).find(({ fileName }) => fileName === name)!.assetId;
}

/** A show of three pictures with a version that was kept. */
async function madeShow(server: RunningServer): Promise<Show> {
  const id = showId('evening');
  await server.shows.put(emptyShow(id, 'An evening'));
  const slides: Show['slides'][number][] = [];
  for (const name of ['Ärger.svg', 'boat.svg', 'no ending'])
    slides.push({
      id: slideId(`s${slides.length}`),
      lengthMs: 5000,
      transition: { kind: 'cut' },
      backing: { kind: 'automatic' },
      layers: [{ kind: 'drawing', id: layerId(`l${slides.length}`), assetId: await brought(server, id, name) }],
      sounds: [],
    });
  const add = { kind: 'add-slides', runs: [{ afterId: null, slides }] };
  const applied = await server.shows.applyEdits(id, [{ editId: 'put-them-in', edit: add }], 0);
  expect(applied).toMatchObject({ refused: [] });
  const { show } = (await server.shows.load(id))!;
  await server.versions.keep(show, 'As the choir saw it', 'kept');
  return show;
}

async function saved(server: RunningServer, show: ShowId, as = 'evening.show.zip'): Promise<string> {
  const file = path.join(folder, as);
  const { bytes, byteCount } = (await server.bundles.write(show))!;
  await pipeline(bytes, createWriteStream(file));
  expect((await stat(file)).size).toBe(byteCount);
  return file;
}

/** Copies it first: what is taken over is gone from where it was. */
async function takenIn(server: RunningServer, file: string, studio = 'studio'): Promise<BundleIntake> {
  const copy = `${file}.${Math.random()}`;
  await writeFile(copy, await readFile(file));
  const id = await server.bundles.order(studio, copy, path.basename(file));
  await server.runner.idle('bundle');
  return (await server.bundles.list(studio)).find((one) => one.id === id)!;
}

/** The same bundle with other contents under some names; null leaves one out. */
async function changed(
  file: string,
  change: Readonly<Record<string, (text: string) => string | null>>,
): Promise<string> {
  const archive = await openStrangeArchive(file, BUNDLE_LIMITS);
  const zip = new ZipFile();
  for (const name of archive.names) {
    const text = await archive.text(name, 1e8);
    const key = Object.keys(change).find((part) => name.includes(part));
    const next = key === undefined ? text : change[key]!(text);
    if (next !== null) zip.addBuffer(Buffer.from(next), name);
  }
  archive.close();
  zip.end();
  const to = `${file}.changed`;
  await pipeline(zip.outputStream, createWriteStream(to));
  return to;
}

const shelf = async (server: RunningServer) => (await server.shows.shelf()).map(({ title }) => title);
/** What still waits to be unpacked, or lies about unpacked, a moment after all is done. */
async function waitingFiles(name: string): Promise<string[]> {
  const left = () => readdir(path.join(folder, name, 'bundles'));
  for (let tries = 0; tries < 40 && (await left()).length > 0; tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 50));
  return left();
}

describe('a whole show as one file', () => {
  it('is the same show in another installation: slides, files by their names, versions', async () => {
    const here = await installation('here');
    const show = await madeShow(here);
    const file = await saved(here, show.id);
    const there = await installation('there');
    const intake = await takenIn(there, file);
    expect(intake).toMatchObject({ state: 'done', bad: [], fileCount: 3, title: 'An evening' });
    expect(intakeSentence(intake)).toBe('is here, with 3 files');
    const came = showId(intake.showId!);
    expect({ ...(await there.shows.load(came))!.show, id: show.id }).toEqual(show);
    const files = async (server: RunningServer, id: ShowId) =>
      (await server.sheet.entries(id)).map(({ assetId, fileName, byteCount }) => ({ assetId, fileName, byteCount }));
    expect(await files(there, came)).toEqual(await files(here, show.id));
    const [version] = await there.versions.list(came);
    expect(version).toMatchObject({ name: 'As the choir saw it', why: 'kept' });
    expect((await there.versions.load(came, version!.id))!.content.slides).toEqual(show.slides);
    expect(await waitingFiles('there')).toEqual([]);
  });
  it('is the same bytes each time, and a saved show like any other once it is unpacked', async () => {
    const here = await installation('here');
    const { id } = await madeShow(here);
    const [first, second] = [await saved(here, id, 'one.zip'), await saved(here, id, 'two.zip')];
    expect((await readFile(first)).equals(await readFile(second))).toBe(true);
    const archive = await openStrangeArchive(first, BUNDLE_LIMITS);
    const parsed = parseShowFile(JSON.parse(await archive.text(BUNDLE_SHOW, 1e7)));
    expect(parsed.ok).toBe(true);
    const files = Object.values((parsed as { value: { files: Record<string, string> } }).value.files);
    expect(archive.names).toEqual(expect.arrayContaining(files));
    expect(files.map((name) => path.extname(name)).sort()).toEqual(['', '.svg', '.svg']);
    archive.close();
  });
  it('stands beside the one it was made from, in the studio that took it in and no other', async () => {
    const here = await installation('here');
    const file = await saved(here, (await madeShow(here)).id);
    await takenIn(here, file);
    expect(await shelf(here)).toEqual(['An evening', 'An evening']);
    const theirs = await takenIn(here, file, 'another');
    expect(theirs.state).toBe('done');
    expect(await shelf(here)).toHaveLength(2);
    expect(await here.bundles.dismiss('another', (await here.bundles.list('studio'))[0]!.id)).toBe(false);
    expect(await here.bundles.list('another')).toHaveLength(1);
  });
  it('leaves nothing behind when the server ended before it had cleared up', async () => {
    const here = await installation('here');
    await here.close();
    await mkdir(path.join(folder, 'here', 'bundles', 'gone'), { recursive: true });
    await writeFile(path.join(folder, 'here', 'bundles', 'gone.zip'), 'left over');
    await installation('here');
    expect(await waitingFiles('here')).toEqual([]);
  });
  it('goes on after the server ended, and becomes one show', async () => {
    const here = await installation('here');
    const file = await saved(here, (await madeShow(here)).id);
    const there = await installation('there');
    await there.runner.drain();
    const copy = `${file}.copy`;
    await writeFile(copy, await readFile(file));
    await there.bundles.order('studio', copy, 'evening.show.zip');
    await there.close();
    const again = await installation('there');
    await again.runner.idle('bundle');
    expect(await shelf(again)).toEqual(['An evening']);
    expect((await again.bundles.list('studio'))[0]).toMatchObject({ state: 'done', bad: [] });
  });
});

describe('a bundle that is not as it should be', () => {
  it('loses the files that are not what they were, says which, and the right one given again takes its place', async () => {
    const here = await installation('here');
    const show = await madeShow(here);
    const [first, second] = await here.sheet.entries(show.id);
    const file = await changed(await saved(here, show.id), {
      [first!.assetId]: (text) => text.replace('Ärger', 'other'),
      [second!.assetId]: () => null,
    });
    const there = await installation('there');
    const intake = await takenIn(there, file);
    expect(intake).toMatchObject({
      state: 'done',
      bad: [
        { name: first!.fileName, problem: 'It is not what it was: its content does not fit its name.' },
        { name: second!.fileName, problem: 'It is not in there.' },
      ],
    });
    expect(intakeSentence(intake)).toBe('is here; 2 of its 3 files are not as they were');
    const came = showId(intake.showId!);
    const states = async () =>
      (await there.sheet.entries(came)).map(({ fileName, state }) => `${fileName} ${state}`).sort();
    expect(await states()).toEqual(
      [`${first!.fileName} refused`, `${second!.fileName} refused`, 'no ending arrived'].sort(),
    );
    await brought(there, came, second!.fileName);
    expect(await states()).toContain(`${second!.fileName} arrived`);
    expect((await there.sheet.entries(came)).length).toBe(3);
  });
  it('that only names a file’s content gets nothing of it, though it lies here', async () => {
    const here = await installation('here');
    const show = await madeShow(here);
    const [first] = await here.sheet.entries(show.id);
    const file = await changed(await saved(here, show.id), { [first!.assetId]: () => null });
    const intake = await takenIn(here, file, 'another');
    const entry = (await here.sheet.entries(showId(intake.showId!))).find(({ assetId }) => assetId === first!.assetId);
    expect(entry).toMatchObject({ state: 'refused', problem: 'It is not in there.' });
  });
  it('keeps the show when a version in it is damaged, and says so', async () => {
    const here = await installation('here');
    const file = await changed(await saved(here, (await madeShow(here)).id), { 'versions/1': () => '{"name":"x"}' });
    const intake = await takenIn(await installation('there'), file);
    expect(intake).toMatchObject({
      state: 'done',
      bad: [{ name: 'A version', problem: expect.stringMatching(/damaged/) }],
    });
  });
  it.each<[string, Readonly<Record<string, (text: string) => string | null>>, RegExp]>([
    ['is no show', { [BUNDLE_SHOW]: () => null }, /no show that was saved as one file/],
    [
      'was made by a newer version',
      { [BUNDLE_NOTE]: (text) => text.replace('"version":1', '"version":2') },
      /newer version of Tanager/,
    ],
    [
      'holds a show of a newer version',
      { [BUNDLE_SHOW]: (text) => text.replace(`"version":${FORMAT_VERSION}`, '"version":999') },
      /newer version of Tanager/,
    ],
    ['holds no JSON', { [BUNDLE_NOTE]: () => 'nothing' }, /bundle\.json cannot be read/],
    [
      'holds a show that is none',
      { [BUNDLE_SHOW]: (text) => text.replace('"slides":[', '"slides":[7,') },
      /The show in it is damaged/,
    ],
  ])('and %s is refused with a sentence; nothing of it stays', async (_what, change, says) => {
    const here = await installation('here');
    const file = await changed(await saved(here, (await madeShow(here)).id), change);
    const there = await installation('there');
    const intake = await takenIn(there, file);
    expect(intake).toMatchObject({ state: 'failed', showId: null });
    expect(intakeSentence(intake)).toMatch(says);
    expect(await shelf(there)).toEqual([]);
    expect(await waitingFiles('there')).toEqual([]);
  });
  it('and leads out of its folder, or was cut off, is refused before anything is unpacked', async () => {
    const here = await installation('here');
    const file = await saved(here, (await madeShow(here)).id);
    const bytes = await readFile(file);
    const cut = `${file}.cut`;
    await writeFile(cut, bytes.subarray(0, bytes.length - 40));
    for (let at = bytes.indexOf('files/'); at >= 0; at = bytes.indexOf('files/', at + 1)) bytes.write('../../', at);
    const leads = `${file}.leads`;
    await writeFile(leads, bytes);
    const there = await installation('there');
    for (const bad of [cut, leads]) expect((await takenIn(there, bad)).state).toBe('failed');
    expect(await shelf(there)).toEqual([]);
  });
});

describe('a show of which files are gone', () => {
  it('is saved with those that are there, and says which are not, here and where it is taken in', async () => {
    const here = await installation('here');
    const show = await madeShow(here);
    const [first] = await here.sheet.entries(show.id);
    await here.blobs.remove(first!.assetId);
    const written = (await here.bundles.write(show.id))!;
    written.bytes.destroy();
    expect(written.missing).toEqual([first!.fileName]);
    const intake = await takenIn(await installation('there'), await saved(here, show.id));
    expect(intake).toMatchObject({ state: 'done', bad: [{ name: first!.fileName, problem: 'It is not in there.' }] });
    expect(await here.bundles.write(showId('nowhere'))).toBeNull();
  });
});
