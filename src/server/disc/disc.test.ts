import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterEach, beforeEach, describe, expect, it } from '@jest/globals';
import { eq } from 'drizzle-orm';
import { layerId, showId, slideId } from '../../core/show/ids';
import { emptyShow, type Show } from '../../core/show/show';
import { discs } from '../database/schema';
import { hashOfFile } from '../blobs/content-hash';
import { probeFilm } from '../films/probe-film';
import { openServer, type RunningServer } from '../running-server';
import { openStandIns, type StandIns } from '../stand-ins/open-stand-ins';
import type { DiscFar } from './disc-service';

const STUDIO = 'studio';
const SHOW = showId('regatta');
const SIZE = 3_000_000;
let folder: string;
let standIns: StandIns;
let server: RunningServer;

beforeEach(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-discs-'));
  process.env.TANAGER_DATA = path.join(folder, 'data');
  server = await openServer(async () => (standIns = await openStandIns(path.join(folder, 'stand-ins'), 0)));
});
afterEach(async () => {
  await server.close();
  delete process.env.TANAGER_DATA;
  await rm(folder, { recursive: true, force: true });
});

async function showMade(): Promise<void> {
  await server.shows.put({
    ...emptyShow(SHOW, 'Regatta'),
    frame: { widthPx: 320, heightPx: 180, rate: { frames: 25, seconds: 1 } },
  });
  await server.sheet.takeIn(SHOW, path.resolve('demo/files/PE_0412.jpg'), 'a.jpg', 'copy');
  server.runner.start(['look', 'proxy', 'focus']);
  await server.runner.idle('look');
  const [entry] = await server.sheet.entries(SHOW);
  const slides = [0, 1].map((at): Show['slides'][number] => ({
    ...{
      id: slideId(`s${at}`),
      lengthMs: 2000,
      transition: { kind: 'cut' },
      backing: { kind: 'automatic' },
      sounds: [],
    },
    layers: [{ kind: 'picture', id: layerId(`p${at}`), assetId: entry!.assetId, move: { kind: 'still' } }],
    chapter: `Part ${at + 1}`,
  }));
  const { revision } = (await server.shows.load(SHOW))!;
  const edit = { kind: 'add-slides', runs: [{ afterId: null, slides }] };
  expect(await server.shows.applyEdits(SHOW, [{ editId: 'the-first-edit-of-all', edit }], revision)).toMatchObject({
    refused: [],
  });
}

/** A disc whose image is there, though nothing was encoded for it. */
async function imageMade(): Promise<string> {
  await showMade();
  const id = (await server.discs.create(STUDIO, SHOW))!;
  const file = path.join(folder, 'data/discs', `${id}.iso`);
  await writeFile(file, Buffer.alloc(SIZE, 7));
  await server.db
    .update(discs)
    .set({ state: 'ready', imageHash: await hashOfFile(file), byteCount: SIZE })
    .where(eq(discs.id, id));
  return id;
}

async function pressDrive(form: Record<string, string>): Promise<void> {
  const cookie = `tanager-stand-ins=${standIns.keyOf(STUDIO)}`;
  await fetch(`${standIns.address}/disc-drive`, {
    method: 'POST',
    headers: { cookie },
    body: new URLSearchParams(form),
    redirect: 'manual',
  });
}
const fast = { speed: '0', fails: '0' };
const far = async (id: string): Promise<DiscFar> => (await server.discs.far(STUDIO, id))!;
async function until(id: string, right: (burns: DiscFar['burns']) => boolean): Promise<DiscFar['burns']> {
  for (const begunMs = performance.now(); ;) {
    const { burns } = await far(id);
    if (right(burns)) return burns;
    if (performance.now() - begunMs > 90_000) throw new Error(JSON.stringify(burns));
    await new Promise((resolve) => setTimeout(resolve, 60));
  }
}
const statesOf = (burns: DiscFar['burns']) => burns.map(({ state }) => state).toReversed();

describe('a disc', () => {
  it('is planned with what its shows have, changed within what a disc can be, and is of its studio alone', async () => {
    await showMade();
    const id = (await server.discs.create(STUDIO, SHOW))!;
    const seen = (await server.discs.find(STUDIO, id))!;
    expect(seen).toMatchObject({
      state: 'open',
      faults: [],
      isOld: false,
      films: [{ title: 'Regatta', lengthMs: 4000 }],
    });
    expect(seen.films[0]!.chapters.map(({ title }) => title)).toEqual(['Part 1', 'Part 2']);
    expect(seen.pages.map(({ kind }) => kind)).toEqual(['first', 'pictures']);
    expect(seen.mounts.map((mount) => mount.id)).toContain('low-sun');
    expect(await server.discs.change(STUDIO, id, { chaptersBy: 'none', menu: { buttons: 'left' } })).toBe(true);
    expect((await server.discs.find(STUDIO, id))!.pages).toHaveLength(1);
    expect(await server.discs.change(STUDIO, id, { title: ' ' })).toBe('A disc needs a title.');
    expect(await server.discs.change(STUDIO, id, { films: [{ showId: 'nobodys', title: '' }] })).toBe(
      'There is no such show.',
    );
    for (const other of [
      await server.discs.find('other', id),
      await server.discs.far('other', id),
      await server.discs.image('other', id),
    ])
      expect(other).toBeNull();
    expect(await server.discs.change('other', id, { title: 'x' })).toBe(false);
    expect(await server.discs.create('other', SHOW)).toBeNull();
    expect(await server.discs.list('other')).toEqual([]);
    expect(await server.discs.remove(STUDIO, id)).toBe(true);
    expect(await server.discs.list(STUDIO)).toEqual([]);
  });
  it('says so when one of its shows is gone, and is not begun', async () => {
    await showMade();
    const id = (await server.discs.create(STUDIO, SHOW))!;
    await server.shows.setRemoved(SHOW, true);
    expect((await server.discs.find(STUDIO, id))!.faults[0]).toMatch(/not on the shelf any more/);
    expect(await server.discs.start(STUDIO, id)).toMatch(/not on the shelf any more/);
    expect(await server.discs.change(STUDIO, id, { films: [] })).toBe(true);
    expect(await server.discs.start(STUDIO, id)).toMatch(/no film on it yet/);
  });
  it('is drawn page by page before anything of it is made, and has a label to print', async () => {
    await showMade();
    const id = (await server.discs.create(STUDIO, SHOW))!;
    const page = await server.discs.still(STUDIO, id, 1);
    expect(
      Buffer.from(page as Uint8Array)
        .subarray(1, 4)
        .toString(),
    ).toBe('PNG');
    expect(await server.discs.still(STUDIO, id, 9)).toBeNull();
    const label = (await server.discs.label(STUDIO, id)) as { pdf: Uint8Array };
    expect(Buffer.from(label.pdf).subarray(0, 5).toString()).toBe('%PDF-');
    expect(label.pdf.length).toBeGreaterThan(50_000);
    expect(await server.discs.change(STUDIO, id, { menu: { mount: 'gone' } })).toBe(true);
    expect(await server.discs.still(STUDIO, id, 0)).toMatch(/not there any more/);
    expect((await server.discs.find(STUDIO, id))!.faults).toEqual([expect.stringMatching(/^The mount of the menu/)]);
    expect(await server.discs.start(STUDIO, id)).toMatch(/^The mount of the menu/);
  }, 200_000);
  it('is made, told to be old once it was changed, and stopped in the middle with what was made before kept', async () => {
    await showMade();
    const id = (await server.discs.create(STUDIO, SHOW))!;
    expect(await server.discs.change(STUDIO, id, { chaptersBy: 'none', menu: { lengthMs: 6000 } })).toBe(true);
    expect(await server.discs.start(STUDIO, id)).toBe(true);
    expect(await server.discs.change(STUDIO, id, { title: 'x' })).toMatch(/Stop that first/);
    server.runner.start();
    await server.runner.idle('disc');
    const made = await far(id);
    expect(made).toMatchObject({
      state: 'ready',
      problem: null,
      report: { titleCount: 1, pageCount: 1, label: 'REGATTA' },
    });
    expect((await server.discs.find(STUDIO, id))!.isOld).toBe(false);
    await server.discs.change(STUDIO, id, { words: 'In June' });
    expect((await server.discs.find(STUDIO, id))!.isOld).toBe(true);
    expect(await server.discs.start(STUDIO, id)).toBe(true);
    expect(await server.discs.stop(STUDIO, id)).toBe(true);
    expect((await far(id)).state).toBe('ready');
    expect(await server.discs.image(STUDIO, id)).not.toBeNull();
    // A disc that came out of a backup has none.
    await rm(path.join(folder, 'data/discs', `${id}.iso`));
    expect([await server.discs.image(STUDIO, id), (await far(id)).byteCount]).toEqual([null, null]);
    expect(await server.discs.burn(STUDIO, id, 1)).toBe('Make the disc’s image first.');
  }, 200_000);
  it('shows no file that is not of its shows: a song somebody names is silent', async () => {
    await showMade();
    const id = (await server.discs.create(STUDIO, SHOW))!;
    await server.shows.put(emptyShow(showId('others'), 'Of others'), 'other');
    await server.sheet.takeIn(showId('others'), path.resolve('demo/files/harbour-reel.mp3'), 'a.mp3', 'copy');
    await server.runner.idle('look');
    const [song] = await server.sheet.entries(showId('others'));
    expect(await server.discs.change(STUDIO, id, { menu: { song: song!.assetId, lengthMs: 6000 } })).toBe(true);
    const { file } = (await server.discs.moving(STUDIO, id, 0)) as { file: string };
    expect((await probeFilm(file)).sound).toBeUndefined();
  }, 200_000);
});

describe('copies of a disc', () => {
  it('are burned one after the other as blank discs are put in, each read back and compared, each with its own number', async () => {
    const id = await imageMade();
    server.runner.start();
    await pressDrive(fast);
    expect(await server.discs.burn(STUDIO, id, 2)).toBe(true);
    const [, waiting] = await until(id, (burns) => burns.some(({ problem }) => problem !== null));
    expect(waiting!.problem).toBe('Put a blank disc into the drive.');
    await pressDrive({ put: 'written' });
    await until(id, (burns) => burns.some(({ problem }) => /not blank/.test(problem ?? '')));
    await pressDrive({ put: 'one' });
    expect(statesOf(await until(id, (burns) => burns.some(({ state }) => state === 'done')))).toEqual([
      'done',
      'waits',
    ]);
    expect(await server.discs.remove(STUDIO, id)).toMatch(/Stop them first/);
    await pressDrive({ put: 'two' });
    const done = await until(id, (burns) => burns.every(({ state }) => state === 'done'));
    expect(new Set(done.map(({ serial }) => serial)).size).toBe(2);
  });
  it('that fail at sixty percent, are scratched or do not fit are no good, and say why; the others go on', async () => {
    const id = await imageMade();
    server.runner.start();
    await pressDrive({ ...fast, fails: '60' });
    await pressDrive({ put: 'one' });
    await server.discs.burn(STUDIO, id, 3);
    const [, , spoilt] = await until(id, (burns) => burns.some(({ state }) => state === 'failed'));
    expect(spoilt).toMatchObject({
      state: 'failed',
      problem: 'The drive broke off at 60 %. That disc is spoilt; put in another one.',
    });
    await pressDrive({ ...fast, scratches: 'on' });
    await pressDrive({ put: 'one' });
    const [, scratched] = await until(id, (burns) => burns.filter(({ state }) => state === 'failed').length === 2);
    expect(scratched!.problem).toMatch(/^What was read back is not what was written/);
    await pressDrive(fast);
    await pressDrive({ put: 'one' });
    expect(
      statesOf(await until(id, (burns) => burns.every(({ state }) => state === 'failed' || state === 'done'))),
    ).toEqual(['failed', 'failed', 'done']);
  });
  it('are stopped one by one, and a disc that was being written when the server ended is told to be spoilt', async () => {
    const id = await imageMade();
    server.runner.start();
    // Slowly: three megabytes take half a second.
    await pressDrive({ speed: '4', fails: '0' });
    await pressDrive({ put: 'one' });
    await server.discs.burn(STUDIO, id, 2);
    const burns = await until(id, (now) => now.some(({ state }) => state === 'writing'));
    const writing = burns.find(({ state }) => state === 'writing')!;
    expect(await server.discs.stopBurn(STUDIO, id, writing.id)).toBe(true);
    expect(await server.discs.stopBurn(STUDIO, id, writing.id)).toBe(false);
    expect((await far(id)).burns.find((one) => one.id === writing.id)).toMatchObject({
      state: 'stopped',
      problem: /spoilt/ as never,
    });
    await pressDrive({ put: 'one' });
    await until(id, (now) => now.some(({ state }) => state === 'writing'));
    await server.close();
    server = await openServer(async () => (standIns = await openStandIns(path.join(folder, 'stand-ins'), 0)));
    server.runner.start();
    const after = await until(id, (now) => now.every(({ state }) => state === 'failed' || state === 'stopped'));
    expect(after.find(({ state }) => state === 'failed')!.problem).toMatch(/server ended while it was written/);
  });
});
