import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, ElementHandle } from 'puppeteer-core';
import type { Show } from '../src/core/show/show';
import {
  type App,
  ask,
  filmMade,
  dropFiles,
  letIn,
  openApp,
  openBrowser,
  openPage,
  type OpenPage,
  press,
  seriousIn,
  waitForText,
} from './app';

const SHOW = 'lantern-regatta';
let here: App;
let there: App;
let browser: Browser;
let page: OpenPage;
let folder: string;
let file: string;

const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const bytesOf = async (answer: Response) => Buffer.from(await answer.arrayBuffer());
const showAt = async (app: App, id: string) =>
  ((await (await ask(`${app.address}/api/v1/shows/${id}`)).json()) as { show: Show }).show;

/** A quarter of a minute of a show as a film, made anew. */
async function filmOf(app: App, id: string): Promise<Buffer> {
  const film = await filmMade(app, id, { quality: 'good', span: { fromMs: 0, toMs: 16_000 } });
  return bytesOf(await ask(`${app.address}/api/v1/films/${film}/file`));
}

/** Until what its pictures are about and what its songs sound like is known. */
async function known(app: App, id: string): Promise<void> {
  type Entry = { state: string; facts: { kind: string; focus?: unknown; listening?: unknown } | null };
  for (;;) {
    const { entries } = (await (await ask(`${app.address}/api/v1/shows/${id}/sheet`)).json()) as { entries: Entry[] };
    const all = entries.every(
      ({ state, facts }) =>
        state === 'ready' &&
        (facts?.kind === 'picture'
          ? facts.focus !== undefined
          : facts?.kind !== 'sound' || facts.listening !== undefined),
    );
    if (all && entries.length > 0) return;
    await rest(500);
  }
}

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-bundle-'));
  file = path.join(folder, 'regatta.show.zip');
  here = await openApp({ seed: true, only: [1, 2, 21] });
  there = await openApp();
  browser = await openBrowser();
  page = await openPage(browser);
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await here.close();
  await there.close();
  await rm(folder, { recursive: true, force: true });
});

/** Two servers under one name share what a browser holds. */
async function at(app: App): Promise<void> {
  await letIn(page, app.address);
  await page.goto(app.address);
}

describe('a show as one file', () => {
  it('is saved from the shelf; a download that broke off goes on where it was', async () => {
    await at(here);
    await press(page, 'What to do with “Lantern Regatta of Port Ellery”');
    const link = await (await page.waitForSelector('[data-part=save-bundle]'))!.evaluate(
      (element) => (element as HTMLAnchorElement).href,
    );
    await page.keyboard.press('Escape');
    const whole = await ask(link);
    const bytes = await bytesOf(whole);
    expect(Number(whole.headers.get('content-length'))).toBe(bytes.length);
    expect(whole.headers.get('content-disposition')).toContain('Lantern%20Regatta%20of%20Port%20Ellery.show.zip');
    const from = Math.floor(bytes.length * 0.6);
    const tag = whole.headers.get('etag')!;
    const more = await ask(link, { headers: { range: `bytes=${from}-`, 'if-range': tag } });
    expect([more.status, more.headers.get('content-range')]).toEqual([
      206,
      `bytes ${from}-${bytes.length - 1}/${bytes.length}`,
    ]);
    expect((await bytesOf(more)).equals(bytes.subarray(from))).toBe(true);
    // Another show by now: it begins anew.
    const other = await ask(link, { headers: { range: `bytes=${from}-`, 'if-range': '"another"' } });
    expect(other.status).toBe(200);
    await other.body!.cancel();
    await writeFile(file, bytes);
  });
  it('dropped on another shelf is the same show, and its film the same to the byte', async () => {
    await at(there);
    await dropFiles(page, '[data-part=shelf-page]', [file]);
    await page.waitForSelector('[data-part=bundle][data-state=done]');
    await waitForText(page, '[data-part=bundle]', /Lantern Regatta of Port Ellery is here, with \d+ files/);
    await page.waitForSelector('[data-part=shelf-show]');
    expect(await seriousIn(page)).toEqual([]);
    const id = (await page.$eval('[data-part=open-bundle]', (element) => (element as HTMLAnchorElement).href))
      .split('/')
      .at(-1)!;
    const [one, other] = [await showAt(here, SHOW), await showAt(there, id)];
    expect({ ...other, id: SHOW }).toEqual(one);
    await known(here, SHOW);
    await known(there, id);
    expect((await filmOf(there, id)).equals(await filmOf(here, SHOW))).toBe(true);
  });
  it('that is none, or was cut off, says why; nothing comes on the shelf, and its line is put away', async () => {
    const cut = path.join(folder, 'cut.show.zip');
    const bytes = await readFile(file);
    await writeFile(cut, bytes.subarray(0, bytes.length - 1000));
    await at(there);
    const shows = (await page.$$('[data-part=shelf-show]')).length;
    const picker = (await page.waitForSelector('[data-part=bundle-picker]')) as ElementHandle<HTMLInputElement>;
    await picker.uploadFile(cut);
    await page.waitForSelector('[data-part=bundle][data-state=failed]');
    await waitForText(
      page,
      '[data-part=bundle][data-state=failed]',
      /cut\.show\.zip It is no ZIP file, or not all of it is there/,
    );
    expect((await page.$$('[data-part=shelf-show]')).length).toBe(shows);
    await press(page, 'Put the line of cut.show.zip away');
    await page.waitForFunction(() => !document.querySelector('[data-part=bundle][data-state=failed]'));
  });
});
