import { createHash } from 'node:crypto';
import { copyFile, mkdtemp, readFile, rm, truncate, writeFile } from 'node:fs/promises';
import { createWriteStream, readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { probeFilm } from '../src/server/films/probe-film';
import {
  ask,
  chord,
  dropFiles,
  openApp,
  openBrowser,
  openPage,
  press,
  textOf,
  waitForText,
  type App,
  makeFor,
} from './app';

const PICTURES = readdirSync('demo/files')
  .filter((name) => /^PE_.*\.jpg$/.test(name))
  .sort()
  .slice(0, 12)
  .map((name) => path.resolve('demo/files', name));

let app: App;
let browser: Browser;
let page: Page & { faults: string[] };
let folder: string;
let show: string;

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-evening-'));
  app = await openApp();
  browser = await openBrowser();
  page = await openPage(browser);
});
afterAll(async () => {
  await browser.close();
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

/** File names of the slides from the top, as the order shows them. */
const order = () =>
  page.$$eval('[data-part=slide]', (rows) =>
    rows
      .map((row) => ({
        index: Number(row.getAttribute('aria-rowindex')),
        picture: row.querySelector('img')?.getAttribute('src')?.slice(14, 22) ?? 'blank',
      }))
      .sort((a, b) => a.index - b.index)
      .map((row) => row.picture),
  );
const saved = () => page.waitForSelector('[data-part=saving][data-state=saved]');
const stored = async () =>
  (await (await ask(`${app.address}/api/v1/shows/${show}`)).json()) as {
    show: { slides: { lengthMs: number; layers: { kind: string; title?: string }[] }[]; title: string };
  };

describe('an evening: from a folder of pictures and a song to a film', () => {
  it('starts a show on an empty shelf', async () => {
    await page.goto(app.address);
    expect(await textOf(page, 'main')).toContain('An evening’s pictures become a film');
    await press(page, 'Start the first show');
    await page.waitForSelector('[data-part=gather]');
    show = page.url().split('/').at(-2)!;
  });

  it('takes in twelve pictures and a song dropped at once, and names each bad file in one line without stopping', async () => {
    await writeFile(path.join(folder, 'letter.jpg'), 'Dear harbour master');
    await writeFile(path.join(folder, 'nothing.png'), '');
    await copyFile('demo/files/PE_0499.jpg', path.join(folder, 'cut-short.jpg'));
    await truncate(path.join(folder, 'cut-short.jpg'), 60_000);
    await dropFiles(page, '[data-part=gather]', [
      ...PICTURES,
      path.resolve('demo/files/harbour-reel.mp3'),
      ...['letter.jpg', 'nothing.png', 'cut-short.jpg'].map((name) => path.join(folder, name)),
    ]);
    await waitForText(page, '[data-part=tally]', /12 pictures[\s\S]*1 sound/);
    await page.waitForFunction(() => document.querySelectorAll('[data-part=refused] li').length === 3);
    const lines = await textOf(page, '[data-part=refused]');
    expect(lines).toMatch(/letter\.jpg\s+This is not a picture/);
    expect(lines).toMatch(/nothing\.png\s+The file is empty/);
    expect(lines).toMatch(/cut-short\.jpg\s+The file is cut short/);
  });

  it('gives the same file once when it comes again', async () => {
    await dropFiles(page, '[data-part=gather]', [PICTURES[0]!]);
    await waitForText(page, '[data-part=refused]', /already on the sheet/);
    expect(await textOf(page, '[data-part=tally]')).toContain('12 pictures');
  });

  it('chooses a range, shows the facts, and lays prints into the order', async () => {
    const prints = await page.$$('[data-part=contact-sheet] [role=option]');
    expect(prints).toHaveLength(12);
    await prints[1]!.click();
    await page.keyboard.down('Shift');
    await prints[4]!.click();
    await page.keyboard.up('Shift');
    expect(await page.$$eval('[aria-selected=true]', (all) => all.length)).toBe(4);
    expect(await textOf(page, 'aside')).toMatch(/1920 × 1280[\s\S]*Orrery F2/);
    await page.keyboard.press('Escape');
    await press(page, 'Lay into the order');
    await press(page, 'Play under the show');
    await saved();
    expect((await stored()).show.slides).toHaveLength(12);
  });

  it('stands in time order, with show and music side by side, and can be made to end together', async () => {
    await press(page, 'Arrange');
    await page.waitForSelector('[data-part=running-order]');
    expect(await textOf(page, '[data-part=lengths]')).toMatch(
      /12 slides[\s\S]*show 1:00[\s\S]*music 2:3\d\s+goes on\s+1:3\d/,
    );
  });

  it('changes the order by dragging and by keyboard, undoes and does again, and shows the same after a reload', async () => {
    const before = await order();
    const from = (await (await page.$$('[data-part=slide] [role=img]'))[0]!.boundingBox())!;
    const rows = await page.$$('[data-part=slide]');
    const to = (await rows[2]!.boundingBox())!;
    await page.mouse.move(from.x + 40, from.y + 40);
    await page.mouse.down();
    for (let step = 1; step <= 12; step += 1)
      await page.mouse.move(from.x + 40, from.y + 40 + ((to.y + to.height - 8 - from.y - 40 + 30) * step) / 12);
    await new Promise((resolve) => {
      setTimeout(resolve, 200);
    });
    await page.mouse.up();
    await saved();
    const dragged = await order();
    expect(dragged.slice(0, 3)).toEqual([before[1], before[2], before[0]]);

    await (await page.$$('[data-part=slide]'))[0]!.click();
    await page.keyboard.down('Alt');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.up('Alt');
    expect((await order()).slice(0, 3)).toEqual([before[2], before[1], before[0]]);
    await page.keyboard.down('Control');
    await page.keyboard.press('z');
    await page.keyboard.press('z');
    expect((await order()).slice(0, 3)).toEqual(before.slice(0, 3));
    await page.keyboard.press('y');
    await page.keyboard.up('Control');
    expect((await order()).slice(0, 3)).toEqual(dragged.slice(0, 3));
    await saved();
    await page.reload();
    await page.waitForSelector('[data-part=slide]');
    expect((await order()).slice(0, 3)).toEqual(dragged.slice(0, 3));
    // What could be undone and done again before still can.
    await page.waitForSelector('aria/Undo: move a slide');
    await chord(page, 'Control', 'z');
    expect((await order()).slice(0, 3)).toEqual(before.slice(0, 3));
    await chord(page, 'Control', 'y');
    expect((await order()).slice(0, 3)).toEqual(dragged.slice(0, 3));
    await saved();
  });

  it('takes a typed length, a title in place, a duplicate, a blank slide and a removal', async () => {
    await page.locator('aria/Length of slide 1 in seconds').click();
    await page.keyboard.type('2.5');
    await page.keyboard.press('Enter');
    await (await page.$$('[data-part=slide]'))[0]!.click({ offset: { x: 30, y: 100 } });
    await page.keyboard.press('t');
    await page.waitForSelector('[data-part=title]');
    await page.keyboard.type('Lanterns & rain');
    await page.keyboard.press('Escape');
    await page.keyboard.down('Control');
    await page.keyboard.press('d');
    await page.keyboard.up('Control');
    await page.keyboard.press('b');
    await saved();
    expect((await stored()).show.slides).toHaveLength(14);
    await page.keyboard.press('Delete');
    await saved();
    const { slides } = (await stored()).show;
    expect(slides).toHaveLength(13);
    expect(slides[0]).toMatchObject({
      lengthMs: 2500,
      layers: [{ kind: 'picture' }, { kind: 'words', title: 'Lanterns & rain' }],
    });
    expect(slides[1]).toMatchObject({
      lengthMs: 2500,
      layers: [{ kind: 'picture' }, { kind: 'words', title: 'Lanterns & rain' }],
    });
  });

  it('says that a title is too long and leaves what was typed to be shortened; Escape gives the old one back', async () => {
    const typed = () => page.$eval('[data-part=show-title]', (input) => (input as HTMLInputElement).value.length);
    const before = await typed();
    await page.click('[data-part=show-title]', { count: 3 });
    await page.keyboard.type('x'.repeat(301));
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.body.textContent!.includes('title can have 300 letters at most'));
    expect(await typed()).toBe(301);
    await page.focus('[data-part=show-title]');
    await page.keyboard.press('Escape');
    expect(await typed()).toBe(before);
  });

  it('sees in a second tab what the first one does', async () => {
    const second = await openPage(browser);
    await second.goto(page.url());
    await second.waitForSelector('[data-part=slide]');
    await page.bringToFront();
    await page.locator('[data-part=show-title]').fill('Port Ellery');
    await page.keyboard.press('Enter');
    await second.bringToFront();
    await second.waitForFunction(
      () => (document.querySelector('[data-part=show-title]') as HTMLInputElement).value === 'Port Ellery',
      { timeout: 5000 },
    );
    expect(second.faults).toEqual([]);
    await second.close();
    await page.bringToFront();
  });

  it('plays in the viewer and in the room for watching, pictures and all', async () => {
    await page.waitForFunction(() => !document.querySelector('[data-part=viewer]')!.textContent!.includes('Preparing'));
    await press(page, 'Watch');
    await page.waitForSelector('[data-part=watch-room] [data-playing=true]');
    await page.waitForFunction(
      () =>
        Number(document.querySelector('[data-part=watch-room] [data-part=viewer]')!.getAttribute('data-moment')) > 1500,
      { timeout: 20_000 },
    );
    const shot = await (await page.$('[data-part=watch-room] canvas'))!.screenshot();
    const { default: sharp } = await import('sharp');
    const { channels } = await sharp(shot).stats();
    expect(Math.min(...channels.slice(0, 3).map((channel) => channel.stdev))).toBeGreaterThan(12);
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => document.querySelector('[data-part=watch-room]') === null);
  });

  it('makes a film that goes on although the server is killed, of exactly the frames it should have, and hands it over', async () => {
    await press(page, 'Send');
    await page.waitForSelector('[data-part=send]');
    await makeFor(page, 'web');
    await press(page, 'Make the film');
    await page.waitForSelector('[data-part=film][data-state=making]');
    await waitForText(page, '[data-part=film]', /frame/);
    await new Promise((resolve) => {
      setTimeout(resolve, 6000);
    });
    await app.killHard();
    await app.start();
    await page.reload();
    await page.waitForSelector('[data-part=film][data-state=ready]', { timeout: 180_000 });
    const href = (await page.$eval('[data-part=download]', (link) => link.getAttribute('href')))!;
    const answer = await ask(app.address + href);
    expect([
      answer.status,
      answer.headers.get('content-disposition'),
      Number(answer.headers.get('content-length')) > 100_000,
    ]).toEqual([200, expect.stringContaining('Port%20Ellery%20%E2%80%93%20Web%20page.mp4'), true]);
    const file = path.join(folder, 'film.mp4');
    await pipeline(Readable.fromWeb(answer.body as never), createWriteStream(file));
    const film = await probeFilm(file);
    // Eleven pictures of five seconds and two of two and a half.
    expect(film.video).toMatchObject({ codec_name: 'h264', width: 1280, height: 720, nb_read_frames: String(60 * 30) });
    expect(film.sound).toMatchObject({ codec_name: 'aac' });
    expect(Math.abs(Number(film.sound!.duration) - 60)).toBeLessThan(0.03);
  });

  it('plays the film on its screening page, and nowhere without the link', async () => {
    await page.click('[data-part=screen-film]');
    await page.waitForSelector('[data-part=screening-dialog]');
    await page.keyboard.press('Escape');
    const link = (await page.$eval('[data-part=screening-link]', (element) => element.getAttribute('href')))!;
    const viewer = await openPage(browser);
    await viewer.goto(app.address + link);
    expect(await textOf(viewer, 'h1')).toBe('Port Ellery');
    expect(await viewer.$eval('body', (body) => body.innerText)).not.toMatch(/tanager/i);
    const length = await viewer.$eval(
      'video',
      (video) =>
        new Promise<number>((resolve) => {
          const element = video as HTMLVideoElement;
          if (element.readyState > 0) resolve(element.duration);
          element.addEventListener('loadedmetadata', () => resolve(element.duration));
        }),
    );
    expect(length).toBeCloseTo(60, 1);
    const range = await ask(`${app.address}/api/v1/screenings/${link.split('/').at(-1)}/film`, {
      headers: { range: 'bytes=0-99' },
    });
    expect([range.status, range.headers.get('content-length')]).toEqual([206, '100']);
    expect((await ask(`${app.address}/s/${'x'.repeat(24)}`)).status).toBe(404);
    await viewer.close();
  });

  it('met no error on the way', () => expect(page.faults).toEqual([]));
});

describe('an upload that was cut off', () => {
  it('goes on where it stopped, also when the server was killed meanwhile', async () => {
    const bytes = await readFile('demo/files/PE_0499.jpg');
    const half = Math.floor(bytes.length / 2);
    const base64 = (text: string) => Buffer.from(text).toString('base64');
    const tus = { 'tus-resumable': '1.0.0' };
    const created = await ask(`${app.address}/api/v1/uploads`, {
      method: 'POST',
      headers: {
        ...tus,
        'upload-length': String(bytes.length),
        'upload-metadata': `filename ${base64('late.jpg')},show ${base64(show)}`,
      },
    });
    expect(created.status).toBe(201);
    const place = new URL(created.headers.get('location')!, app.address).href;
    const send = (from: number, part: Buffer) =>
      ask(place, {
        method: 'PATCH',
        headers: { ...tus, 'upload-offset': String(from), 'content-type': 'application/offset+octet-stream' },
        body: new Uint8Array(part),
      });
    expect((await send(0, bytes.subarray(0, half))).status).toBe(204);
    await app.killHard();
    await app.start();
    const asked = await ask(place, { method: 'HEAD', headers: tus });
    expect(asked.headers.get('upload-offset')).toBe(String(half));
    expect((await send(half, bytes.subarray(half))).status).toBe(204);
    const entries = (
      (await (await ask(`${app.address}/api/v1/shows/${show}/sheet`)).json()) as { entries: { fileName: string }[] }
    ).entries;
    expect(entries.map((entry) => entry.fileName)).toContain('late.jpg');
  });
  it('comes in one request when it is small, and is known by its content', async () => {
    const bytes = await readFile('demo/files/regatta-still.jpg');
    const base64 = (text: string) => Buffer.from(text).toString('base64');
    const headers = {
      'tus-resumable': '1.0.0',
      'content-type': 'application/offset+octet-stream',
      'upload-length': String(bytes.length),
      'upload-metadata': `filename ${base64('at once.jpg')},show ${base64(show)}`,
    };
    const sent = await ask(`${app.address}/api/v1/uploads`, { method: 'POST', headers, body: new Uint8Array(bytes) });
    expect([sent.status, sent.headers.get('upload-offset')]).toEqual([201, String(bytes.length)]);
    const entries = (
      (await (await ask(`${app.address}/api/v1/shows/${show}/sheet`)).json()) as {
        entries: { fileName: string; assetId: string }[];
      }
    ).entries;
    expect(entries.find((entry) => entry.fileName === 'at once.jpg')?.assetId).toBe(
      createHash('blake2b512').update(bytes).digest('hex').slice(0, 64),
    );
    expect(
      (
        await ask(`${app.address}/api/v1/uploads`, { method: 'POST', headers, body: new Uint8Array(bytes) })
      ).headers.get('x-outcome'),
    ).toBe('already-there');
  });
  it('is refused for a show there is not', async () => {
    const answer = await ask(`${app.address}/api/v1/uploads`, {
      method: 'POST',
      headers: {
        'tus-resumable': '1.0.0',
        'upload-length': '10',
        'upload-metadata': `filename ${Buffer.from('x.jpg').toString('base64')},show ${Buffer.from('none').toString('base64')}`,
      },
    });
    expect(answer.status).toBe(404);
  });
});

describe('what comes from elsewhere', () => {
  const post = (headers: Record<string, string>, body = '{"title":"x"}') =>
    ask(`${app.address}/api/v1/shows`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', ...headers },
      body,
    });
  it('is refused from another site’s page and under another name', async () => {
    expect((await post({ origin: 'http://elsewhere.example' })).status).toBe(403);
    const { request } = await import('node:http');
    const status = await new Promise<number | undefined>((resolve) => {
      request(`${app.address}/api/v1/shows/${show}`, { headers: { host: 'elsewhere.example' } }, (response) =>
        resolve(response.statusCode),
      ).end();
    });
    expect(status).toBe(403);
  });
  it.each([
    ['{', 400],
    ['{"title":7}', 422],
    ['{"title":"x","more":1}', 422],
  ])('is answered with a sentence when it is %s', async (body, status) => {
    const answer = await post({}, body);
    expect([answer.status, typeof ((await answer.json()) as { problem: string }).problem]).toEqual([status, 'string']);
  });
  it.each([
    '/api/pictures/..%2f..%2fetc%2fpasswd',
    '/api/pictures/abc',
    `/api/sounds/${'a'.repeat(64)}`,
    '/api/v1/films/..%2fx/file',
    '/api/clips/x/0',
  ])('finds nothing at %s', async (url) => {
    expect((await ask(app.address + url)).status).toBe(404);
  });
});
