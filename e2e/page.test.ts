import { mkdir, mkdtemp, rename, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { pathToFileURL } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import sharp from 'sharp';
import type { FilmRow } from '../src/server/films/film-row';
import { openStrangeArchive } from '../src/server/archive/strange-archive';
import {
  ask,
  handsOn,
  makeFor,
  openApp,
  openBrowser,
  openPage,
  seriousIn,
  textOf,
  waitForText,
  type App,
  type OpenPage,
} from './app';

const ID = 'lantern-regatta';
/** Words, a picture on its blur, the clip, a dissolve. */
const MOMENTS = [3000, 11_400, 16_000, 20_000, 26_000];
const FRAME = { width: 1280, height: 720 };

let app: App;
let browser: Browser;
let page: OpenPage;
let folder: string;
const stills: Buffer[] = [];

beforeAll(async () => {
  app = await openApp({ seed: true, only: [1, 2, 3, 12, 21] });
  browser = await openBrowser();
  page = await openPage(browser);
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-page-'));
});
afterAll(async () => {
  await browser.close();
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

async function unpack(file: string): Promise<string> {
  const zip = await openStrangeArchive(file, { mostEntries: 1000, mostBytes: 1e9 });
  for (const name of zip.names) {
    const to = path.join(folder, name);
    await mkdir(path.dirname(to), { recursive: true });
    await zip.unpack(name, folder, 'unpacked');
    await rename(path.join(folder, 'unpacked'), to);
  }
  return path.join(
    folder,
    zip.names.find((name) => name.endsWith('/index.html'))!,
  );
}

/** dB over the colours of two pictures. */
async function likeness(one: Buffer, other: Buffer): Promise<number> {
  const raw = (picture: Buffer) =>
    sharp(picture).resize(FRAME.width, FRAME.height, { fit: 'fill' }).removeAlpha().raw().toBuffer();
  const [a, b] = [await raw(one), await raw(other)];
  let sum = 0;
  for (let at = 0; at < a.length; at += 1) sum += (a[at]! - b[at]!) ** 2;
  return 10 * Math.log10((255 * 255) / Math.max(1e-9, sum / a.length));
}

const seek = (momentMs: number) =>
  page.$eval(
    '#moment',
    (slider, value) => {
      (slider as HTMLInputElement).value = String(value);
      slider.dispatchEvent(new Event('input'));
    },
    momentMs,
  );
const drawnAt = (momentMs: number) =>
  page.waitForFunction(
    (wanted) => (document.querySelector('#frame canvas') as HTMLElement | null)?.dataset.moment === String(wanted),
    {},
    momentMs,
  );
const moment = () => page.$eval('#moment', (slider) => Number((slider as HTMLInputElement).value));
const focusOf = () => page.evaluate(() => document.activeElement?.id);

describe('a show as a page', () => {
  let index: string;
  const asked: string[] = [];

  it('is made at the Send station like any film, and fetched as a ZIP', async () => {
    await handsOn(app, page, ID).go('send', 'make-film');
    await makeFor(page, 'page');
    await waitForText(page, '[data-purpose=page]', /Page to keep[\s\S]*about \d+(\.\d)? MB/);
    await page.click('[data-part=make-film]');
    await page.waitForSelector('[data-part=film][data-state=ready]', { timeout: 300_000 });
    expect(await textOf(page, '[data-part=films]')).toMatch(/Page that plays|Page to keep/);
    for (const at of MOMENTS)
      stills.push(Buffer.from(await (await ask(`${app.address}/api/v1/shows/${ID}/still?at=${at}`)).arrayBuffer()));
    const { films } = (await (await ask(`${app.address}/api/v1/shows/${ID}/films`)).json()) as { films: FilmRow[] };
    const answer = await ask(`${app.address}/api/v1/films/${films[0]!.id}/file`);
    expect(answer.headers.get('content-type')).toBe('application/zip');
    expect(answer.headers.get('content-disposition')).toContain('Page%20to%20keep.zip');
    const file = path.join(folder, 'page.zip');
    await writeFile(file, Buffer.from(await answer.arrayBuffer()));
    index = await unpack(file);
  });
  it('opens from a disk with the server gone, and asks nothing of any line', async () => {
    await app.end();
    await page.close();
    page = await openPage(browser, 'stranger');
    page.on('request', (request) => asked.push(request.url()));
    await page.goto(pathToFileURL(index).href);
    await drawnAt(0);
    expect(await page.title()).toBe('Lantern Regatta of Port Ellery');
    expect(await textOf(page, '#begin')).toBe('Play');
    expect(await focusOf()).toBe('begin');
    expect(await seriousIn(page)).toEqual([]);
  });
  it('shows what the film shows', async () => {
    for (const [at, momentMs] of MOMENTS.entries()) {
      await seek(momentMs);
      await drawnAt(momentMs);
      const shot = Buffer.from(await (await page.$('#frame canvas'))!.screenshot());
      expect(await likeness(shot, stills[at]!)).toBeGreaterThan(29);
    }
  });
  it('plays pictures and sound together, and goes on, back and to its ends by keys', async () => {
    await seek(0);
    await page.click('#begin');
    await page.waitForFunction(() => Number((document.getElementById('moment') as HTMLInputElement).value) > 2500);
    const apart = await page.evaluate(
      () =>
        Number((document.getElementById('moment') as HTMLInputElement).value) -
        1000 * document.querySelector('audio')!.currentTime,
    );
    expect(Math.abs(apart)).toBeLessThan(120);
    expect(await textOf(page, '#play')).toBe('Pause');
    await page.keyboard.press('ArrowRight');
    await page.waitForFunction(() => Number((document.getElementById('moment') as HTMLInputElement).value) > 7500);
    await page.keyboard.press(' ');
    await waitForText(page, '#play', /^Play$/);
    const held = await moment();
    await page.keyboard.press('ArrowLeft');
    expect(await moment()).toBe(held - 5000);
    await page.keyboard.press('End');
    await waitForText(page, '#play', /Once more/);
    await page.keyboard.press('Home');
    await drawnAt(0);
    expect(page.faults).toEqual([]);
    expect(asked.filter((url) => !/^(file|blob|data):/.test(url))).toEqual([]);
  });
  it('fits another window, and draws for it', async () => {
    await page.setViewport({ width: 390, height: 780 });
    await page.waitForFunction(() => document.querySelector('canvas')!.getBoundingClientRect().width === 390);
    await seek(3000);
    await drawnAt(3000);
    const bar = await page.$eval('#bar', (part) => part.getBoundingClientRect().right);
    expect(bar).toBeLessThanOrEqual(390);
    await page.setViewport({ width: 1280, height: 800 });
  });
  it('says what is wrong when a part of it was left behind', async () => {
    await rename(path.join(path.dirname(index), 'parts/drawing.js'), path.join(folder, 'away.js'));
    await page.reload();
    await waitForText(page, '#says', /Unpack the whole folder/);
    await rename(path.join(folder, 'away.js'), path.join(path.dirname(index), 'parts/drawing.js'));
  });
});
