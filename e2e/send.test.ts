import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import type { FilmRow } from '../src/server/films/film-row';
import {
  ask,
  handsOn,
  makeFor,
  openApp,
  openBrowser,
  openPage,
  press,
  textOf,
  seriousIn,
  waitForText,
  type App,
  type Hands,
  type OpenPage,
} from './app';

let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;
const ID = 'lantern-regatta';

beforeAll(async () => {
  app = await openApp({ seed: true, only: [1, 2, 3, 4, 5, 6] });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, ID);
  await hands.go('send', 'make-film');
});
afterAll(async () => {
  await browser.close();
  await app.close();
});

const films = async () =>
  ((await (await ask(`${app.address}/api/v1/shows/${ID}/films`)).json()) as { films: FilmRow[] }).films;
const type = async (label: string, value: string) => {
  const field = await page.waitForSelector(`aria/${label}`);
  await field!.click({ count: 3 });
  await page.keyboard.type(value);
  await page.keyboard.press('Enter');
};
const ready = (count: number) =>
  page.waitForFunction(
    (wanted) => document.querySelectorAll('[data-part=film][data-state=ready]').length === wanted,
    { timeout: 300_000 },
    count,
  );

describe('what films are for', () => {
  it('is chosen with several cards at once, tried out on the machine, and kept for the next visit', async () => {
    await makeFor(page, 'phone', 'square');
    expect(await textOf(page, '[data-part=make-film]')).toBe('Make the two films');
    await waitForText(page, '[data-part=will-take]', /about \d+:\d\d, \d+(\.\d)? MB/);
    await waitForText(page, '[data-purpose=phone]', /about \d+(\.\d)? MB/);
    await page.reload();
    await page.waitForSelector('[data-purpose=square] input:checked');
    expect(await page.$$eval('[data-purpose] input:checked', (some) => some.length)).toBe(2);
  });
  it('says how many frames a second the films have, and changes that as one step', async () => {
    const frames = async () =>
      Number(/([\d,]+) frames/.exec(await textOf(page, '[data-part=film-facts]'))![1]!.replace(',', ''));
    const before = await frames();
    await page.locator('[data-part=show-rate] button').click();
    await page.locator('aria/25[role="option"]').click();
    expect((await hands.stored()).frame.rate).toEqual({ frames: 25, seconds: 1 });
    expect(Math.abs((await frames()) - (before * 25) / 30)).toBeLessThanOrEqual(1);
    await hands.key('Control', 'z');
    expect((await hands.stored()).frame.rate).toEqual({ frames: 30, seconds: 1 });
    expect(await frames()).toBe(before);
  });
  it('refuses numbers that do not go together with a sentence, and takes those that do', async () => {
    await page.click('[data-part=by-hand]');
    await page.waitForSelector('[data-part=by-hand-fields]');
    await type('To, seconds', '3');
    await type('From, seconds', '2.8');
    await waitForText(page, '[role=alert]', /half a second/);
    expect(await page.$eval('[data-part=take-by-hand]', (button) => (button as HTMLButtonElement).disabled)).toBe(true);
    await type('From, seconds', '0');
    await press(page, 'Shape 1:1');
    await type('Width in pixels', '320');
    expect(await page.$eval('aria/Height in pixels', (field) => (field as HTMLInputElement).value)).toBe('320');
    expect(await seriousIn(page)).toEqual([]);
    await page.click('[data-part=take-by-hand]');
    await waitForText(page, '[data-purpose=by-hand]', /320 × 320/);
  });
});

describe('making films', () => {
  it('lists what was made with its true figures, to be compared, and says so on the page', async () => {
    await makeFor(page, 'by-hand');
    await page.click('[data-part=make-film]');
    await waitForText(page, '[data-sonner-toaster]', /The film is ready: By hand/);
    await ready(1);
    const [film] = await films();
    expect(film).toMatchObject({ state: 'ready', frameCount: 90, spec: { shape: '1:1', widthPx: 320, heightPx: 320 } });
    expect(film!.likeness).toBeGreaterThan(0.9);
    expect(await textOf(page, '[data-part=films]')).toMatch(/By hand[\s\S]*320 × 320[\s\S]*0:03[\s\S]*KB[\s\S]*%/);
  });
  it('makes only what has changed: a title at the end leaves what comes before as it was', async () => {
    await makeFor(page, 'phone');
    await page.click('[data-part=make-film]');
    await page.waitForSelector('[data-part=film][data-state=making] [data-part=glimpse]', { timeout: 120_000 });
    // The page can go and come meanwhile.
    await page.reload();
    await page.waitForSelector('[data-part=film][data-state=making] [data-part=pieces]');
    await ready(2);
    const last = (await hands.stored()).slides.at(-1)!;
    const answer = await ask(`${app.address}/api/v1/shows/${ID}/edits`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: app.address },
      body: JSON.stringify({
        knownRevision: 0,
        edits: [
          {
            editId: 'a-title-at-the-end',
            edit: {
              kind: 'set-words',
              slideId: last.id,
              layerId: 'late-words',
              words: { title: 'Good night', subtitle: '', place: 'bottom-left' },
            },
          },
        ],
      }),
    });
    expect(answer.status).toBe(200);
    await page.click('[data-part=make-film]');
    await ready(3);
    const [again] = await films();
    expect(again!.framesKept / again!.frameCount).toBeGreaterThan(0.6);
    expect(again!.framesKept).toBeLessThan(again!.frameCount);
    expect(await page.waitForSelector('[data-part=likeness-chart]')).not.toBeNull();
  });
  it('sorts by what a column says', async () => {
    const widths = () =>
      page.$$eval('[data-part=films] [data-part=film] td:nth-child(2)', (cells) =>
        cells.map((cell) => Number.parseInt(cell.textContent ?? '', 10)),
      );
    await page.click('[data-sort=shape]');
    const once = await widths();
    await page.click('[data-sort=shape]');
    expect([once, await widths()]).toEqual([
      [960, 960, 320],
      [320, 960, 960],
    ]);
    expect(await page.$eval('th:has([data-sort=shape])', (head) => head.getAttribute('aria-sort'))).toBe('ascending');
    expect(await seriousIn(page)).toEqual([]);
  });
  it('stops, and is made after all from where it was', async () => {
    await makeFor(page, 'web');
    await page.click('[data-part=make-film]');
    await page.waitForFunction(
      () => document.querySelector('[data-part=pieces]')?.getAttribute('data-pieces')?.includes('m'),
      {
        timeout: 120_000,
      },
    );
    await press(page, 'Stop');
    await page.waitForSelector('[data-part=film][data-state=cancelled]');
    await page.click('[data-part=make-again]');
    await page.waitForFunction(() =>
      document.querySelector('[data-part=pieces]')?.getAttribute('data-pieces')?.includes('k'),
    );
    await ready(4);
    expect((await films()).find(({ spec }) => spec.purpose === 'web')!.framesKept).toBeGreaterThan(0);
  });
});

describe('another shape', () => {
  it('shows what is lost in it, and lets a picture be framed otherwise for it alone', async () => {
    const before = await hands.stored();
    await makeFor(page, 'upright');
    const lost = () => page.$eval('[data-part=lost]', (part) => Number(part.getAttribute('data-lost')));
    await page.waitForSelector('[data-part=lost]');
    const count = await lost();
    expect(count).toBeGreaterThan(0);
    await page.click('[data-part=lost] button');
    await page.waitForSelector('[data-part=correcting]');
    await press(page, 'Show all of it');
    await waitForText(page, '[data-part=correcting]', /shows 100 %/);
    expect(await seriousIn(page)).toEqual([]);
    await page.keyboard.press('Escape');
    await page.waitForFunction(
      (was) => Number(document.querySelector('[data-part=lost]')?.getAttribute('data-lost')) === was - 1,
      {},
      count,
    );
    const corrected = (await hands.stored()).slides.flatMap(({ layers }) => layers as unknown as { shapes?: object }[]);
    expect(corrected.filter(({ shapes }) => shapes).map(({ shapes }) => shapes)).toEqual([
      { '9:16': { move: { kind: 'set', first: expect.anything(), last: expect.anything() } } },
    ]);
    await hands.key('Control', 'z');
    expect(await hands.stored()).toEqual(before);
    expect(page.faults).toEqual([]);
  });
  it('is what the viewer shows when it is asked to, with the frame to take home', async () => {
    await hands.go('arrange', 'viewer');
    await press(page, 'Shape it is seen in');
    await (await page.waitForSelector('[role=option]::-p-text(9:16)'))!.click();
    await page.waitForSelector('[data-part=viewer][data-shape="9:16"] canvas');
    const href = (await page.$eval('[data-part=still]', (link) => link.getAttribute('href')))!;
    const answer = await ask(app.address + href);
    const bytes = new Uint8Array(await answer.arrayBuffer());
    expect([answer.status, answer.headers.get('content-type')]).toEqual([200, 'image/png']);
    expect(new DataView(bytes.buffer).getUint32(16)).toBe(1080);
    expect(page.faults).toEqual([]);
  });
});
