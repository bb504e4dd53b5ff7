import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import sharp from 'sharp';
import type { KeptNote } from '../src/core/screening/guest-note';
import type { ScreeningRow } from '../src/server/screenings/screening-service';
import {
  ask,
  handsOn,
  openApp,
  openBrowser,
  openPage,
  press,
  seriousIn,
  textOf,
  waitForText,
  type App,
  type Hands,
  type OpenPage,
} from './app';

const SHOW = 'lantern-regatta';
const PHONE = { width: 360, height: 740, isMobile: true, hasTouch: true };
const PASSWORD = 'lanterns at dusk';

const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;
let screening: ScreeningRow;
/** The two qualities. */
let [fine, light] = ['', ''];

const asked = async <Answer>(path: string, body?: unknown): Promise<Answer> =>
  (await (
    await ask(`${app.address}/api/v1/shows/${SHOW}/${path}`, {
      method: body ? 'POST' : 'GET',
      headers: { 'content-type': 'application/json' },
      body: body ? JSON.stringify(body) : undefined,
    })
  ).json()) as Answer;
const ours = async () => (await asked<{ screenings: ScreeningRow[] }>('screenings')).screenings[0]!;
const notes = async () => (await asked<{ notes: KeptNote[] }>('notes')).notes;
const link = () => `${app.address}/s/${screening.token}`;
const answers = async (path = '') => (await fetch(link() + path)).status;

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  const spec = (heightPx: number) => ({
    purpose: 'by-hand',
    format: 'mp4',
    shape: '16:9',
    widthPx: (heightPx * 16) / 9,
    heightPx,
    rate: { frames: 15, seconds: 1 },
    quality: 'light',
    span: { fromMs: 0, toMs: 60_000 },
  });
  const { ids } = await asked<{ ids: [string, string] }>('films', { specs: [spec(360), spec(198)] });
  [fine, light] = ids;
  const ready = async () => {
    const { films } = await asked<{ films: { state: string }[] }>('films');
    return films.every(({ state }) => state === 'ready');
  };
  while (!(await ready())) await rest(500);
  page = await openPage(browser);
  hands = handsOn(app, page, SHOW);
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
});

/** A stranger’s browser: nothing of the studio’s is in it. */
async function stranger(): Promise<{ page: OpenPage; leave: () => Promise<void> }> {
  const context = await browser.createBrowserContext();
  const own = await openPage(context, 'stranger');
  return { page: own, leave: () => context.close() };
}

async function at(viewer: Page, seconds: number): Promise<void> {
  await viewer.waitForFunction(() => document.querySelector('video')!.readyState > 0);
  await viewer.$eval(
    'video',
    (video, to) =>
      new Promise((resolve) => {
        video.addEventListener('seeked', resolve, { once: true });
        video.currentTime = to;
      }),
    seconds,
  );
}

describe('a screening', () => {
  it('is opened from the table of films, with both qualities, a call and what viewers may', async () => {
    await hands.go('send', 'film');
    await page.waitForSelector('[data-part=screen-film]');
    await page.click('[data-part=screen-film]');
    await page.waitForSelector('[data-part=screening-dialog]');
    expect(await seriousIn(page)).toEqual([]);
    await page.click('[data-part=screening-dialog] li input:not(:checked)');
    await page.locator('::-p-text(download the film)').click();
    await page.type('[aria-label="Words on pause and at the end"]', 'Order prints');
    await page.type('[aria-label="Where the words lead"]', 'https://harrowlane.example/prints');
    await page.click('[aria-label="Title of the screening"]');
    await page.keyboard.type('For the harbour choir');
    await page.click('[data-part=embed-code]');
    const until = Date.now() + 10_000;
    do screening = await ours();
    while ((screening.films.length < 2 || !screening.call || !screening.title) && Date.now() < until);
    expect(screening).toMatchObject({
      title: 'For the harbour choir',
      mayTake: true,
      call: { words: 'Order prints', to: 'https://harrowlane.example/prints' },
    });
    expect(screening.films).toHaveLength(2);
    expect(await page.$eval('[data-part=embed-code]', (code) => (code as HTMLTextAreaElement).value)).toContain(
      `/s/${screening.token}/embed`,
    );
    await page.keyboard.press('Escape');
  });
  it('shows the film on a phone, by keyboard, in the studio’s name and none of ours', async () => {
    const { page: viewer, leave } = await stranger();
    await viewer.setViewport(PHONE);
    await viewer.goto(link());
    expect(await textOf(viewer, 'h1')).toBe('For the harbour choir');
    expect(await viewer.$eval('html', (html) => html.outerHTML.replaceAll(/\/_next\/[^"]*/g, ''))).not.toMatch(
      /Tanager|tanager\.svg/,
    );
    expect(await seriousIn(viewer)).toEqual([]);
    expect(await viewer.evaluate(() => document.documentElement.scrollWidth)).toBe(360);
    // The phone is narrow: the lighter one fills it.
    await viewer.waitForFunction((id) => document.querySelector('video')!.dataset.film === id, {}, light);
    await at(viewer, 20);
    await viewer.$eval('video', async (video) => {
      video.muted = true;
      await video.play();
      await new Promise((resolve) => {
        setTimeout(resolve, 1500);
      });
      video.pause();
    });
    expect(await textOf(viewer, '[data-part=call]')).toContain('Order prints');
    expect(await seriousIn(viewer)).toEqual([]);
    await viewer.select('[data-part=quality]', fine);
    await viewer.waitForFunction(() => document.querySelector('video')!.videoWidth > 352);
    expect(await viewer.$eval('video', (video) => Math.round(video.currentTime))).toBeGreaterThanOrEqual(20);
    expect(
      (await fetch(`${app.address}/api/v1/screenings/${screening.token}/film?take`)).headers.get('content-disposition'),
    ).toMatch(/attachment/);
    await leave();
    // What played from 20 s on was told when the page was left.
    const until = Date.now() + 5000;
    while ((await ours()).viewings === 0 && Date.now() < until) await rest(100);
    const { curve } = await asked<{ curve: number[] }>(`screenings/${screening.id}/watched`);
    expect((await ours()).viewings).toBe(1);
    expect(curve.findIndex((share) => share > 0)).toBe(33);
    expect(curve.reduce((sum, share) => sum + share, 0) * 0.6).toBeCloseTo(1.5, 0);
  });
  it('shows the film without scripts', async () => {
    const { page: viewer, leave } = await stranger();
    await viewer.setJavaScriptEnabled(false);
    await viewer.goto(link());
    await viewer.setJavaScriptEnabled(true);
    const src = await viewer.$eval('video', (video) => [video.controls, video.src, video.poster]);
    expect(src[0]).toBe(true);
    expect((await fetch(String(src[1]), { headers: { range: 'bytes=0-9' } })).status).toBe(206);
    expect((await fetch(String(src[2]))).status).toBe(200);
    await leave();
  });
});

describe('the guest book', () => {
  it('brings a wish at 0:42 to the slide the film showed then, within two seconds', async () => {
    await hands.go('arrange', 'slide');
    const { page: viewer, leave } = await stranger();
    await viewer.setViewport(PHONE);
    await viewer.goto(link());
    await at(viewer, 42);
    await viewer.locator('::-p-text(A wish)').click();
    await viewer.type('[data-part=note-form] textarea', 'Please without this picture.');
    await viewer.type('[data-part=note-form] input[name=name]', 'Ilka');
    await viewer.click('[data-part=note-form] button[type=submit]');
    await waitForText(viewer, '[data-part=note-says]', /your wish has arrived/);
    const sentAt = Date.now();
    const [note] = await notes();
    expect(note).toMatchObject({ atMs: 42_000, kind: 'wish', name: 'Ilka' });
    const { slides } = await hands.stored();
    const number = slides.findIndex(({ id }) => id === note!.slideId);
    await page.evaluate((row) => {
      document.querySelector('[data-part=running-order]')!.scrollTo(0, 132 * row);
    }, number - 2);
    await page.waitForSelector(`[data-slide=${note!.slideId}] [data-part=row-notes]`);
    expect(Date.now() - sentAt).toBeLessThan(2000);
    await leave();
  });
  it('is answered and done at the slide, and the viewer reads it', async () => {
    const [note] = await notes();
    await page.click(`[data-slide=${note!.slideId}] [data-part=row-notes]`);
    await page.waitForSelector('[data-part=notes-here]');
    expect(await seriousIn(page)).toEqual([]);
    await press(page, 'Answer');
    await page.keyboard.type('It is gone now.');
    await page.click('[data-part=notes-here] button[type=submit]');
    await waitForText(page, '[data-part=note-answer]', /It is gone now/);
    await page.locator('[data-part=notes-here] ::-p-text(Done)').click();
    await page.waitForSelector('[data-part=note][data-state=done]');
    await page.keyboard.press('Escape');
    const { page: viewer, leave } = await stranger();
    await viewer.goto(link());
    await waitForText(viewer, '[data-part=guest-answer]', /It is gone now/);
    await leave();
  });
  it('stays with its slide, and where it was when that is taken out', async () => {
    const [note] = await notes();
    const before = (await hands.stored()).slides;
    const number = before.findIndex(({ id }) => id === note!.slideId);
    await page.click(`[data-slide=${note!.slideId}] [role=img]`);
    await page.keyboard.press('Delete');
    const left = before[number - 1]!.id;
    await page.waitForSelector(`[data-slide=${left}] [data-part=row-notes]`);
    await page.click(`[data-slide=${left}] [data-part=row-notes]`);
    await waitForText(page, '[data-part=notes-here]', /The slide it was written at is gone/);
    await page.keyboard.press('Escape');
    await hands.key('Control', 'z');
    await page.waitForSelector(`[data-slide=${note!.slideId}] [data-part=row-notes]`);
  });
  it('holds links back, refuses programs and floods, and loses nothing that was typed', async () => {
    const note = (words: string, more = {}) =>
      fetch(`${app.address}/api/v1/screenings/${screening.token}/note`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ atMs: 1000, kind: 'note', name: 'Bo', words, ...more }),
      });
    expect(await (await note('www.lenses.example')).json()).toMatchObject({ held: true });
    expect((await note('Hello', { website: 'x' })).status).toBe(422);
    expect((await note('Late', { atMs: 9e6 })).status).toBe(422);
    expect((await note(' ')).status).toBe(422);
    expect((await note('x'.repeat(2000))).status).toBe(422);
    const flood = await Promise.all(Array.from({ length: 12 }, () => note('Hello')));
    expect(flood.filter(({ status }) => status === 429).length).toBeGreaterThan(3);
    const { page: viewer, leave } = await stranger();
    await viewer.goto(link());
    await viewer.waitForSelector('[data-part=guest-note]');
    await viewer.type('[data-part=note-form] textarea', 'What a day');
    await viewer.type('[data-part=note-form] input[name=name]', 'Bo');
    await viewer.click('[data-part=note-form] button[type=submit]');
    await waitForText(viewer, '[data-part=note-says]', /many notes in a short time/);
    expect(await viewer.$eval('[data-part=note-form] textarea', (field) => field.value)).toBe('What a day');
    await leave();
  });
});

describe('who comes in', () => {
  it('is asked for the password, with and without scripts; the film is not there before', async () => {
    await hands.go('send', 'film');
    await (await page.waitForSelector('[data-part=screening-settings]'))!.click();
    await page.type('[aria-label="Password of the screening"]', PASSWORD);
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      () => !!document.querySelector('[aria-label="Password of the screening"][placeholder^="is set"]'),
    );
    const film = `/api/v1/screenings/${screening.token}/film`;
    expect([(await fetch(app.address + film)).status, await answers('/embed')]).toEqual([404, 404]);
    const { page: viewer, leave } = await stranger();
    await viewer.setJavaScriptEnabled(false);
    await viewer.goto(link());
    expect(await viewer.title()).toBe('A private screening');
    for (const [said, says] of [
      ['lanterns', /not the password/],
      [PASSWORD, /For the harbour choir/],
    ] as const) {
      await viewer.type('input[name=password]', said);
      await Promise.all([viewer.waitForNavigation(), viewer.keyboard.press('Enter')]);
      expect(await viewer.content()).toMatch(says);
    }
    const cookies = await viewer.cookies();
    expect(cookies).toMatchObject([{ httpOnly: true, sameSite: 'Lax' }]);
    const cookie = `${cookies[0]!.name}=${cookies[0]!.value}`;
    expect((await fetch(app.address + film, { headers: { cookie, range: 'bytes=0-9' } })).status).toBe(206);
    await leave();
  });
  it('guesses in vain: links are not there, passwords are refused after a few', async () => {
    const guesses = await Promise.all(
      Array.from({ length: 200 }, (_, index) => fetch(`${app.address}/s/${String(index).padStart(24, 'x')}`)),
    );
    expect(new Set(guesses.map(({ status }) => status))).toEqual(new Set([404]));
    const said = async (password: string) =>
      (
        await fetch(`${app.address}/api/v1/screenings/${screening.token}/entry`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ password }),
        })
      ).status;
    const statuses: number[] = [];
    for (let tries = 0; tries < 14; tries += 1) statuses.push(await said(`guess ${tries}`));
    expect(statuses.at(0)).toBe(403);
    expect(statuses.at(-1)).toBe(429);
    expect(await said(PASSWORD)).toBe(429);
  });
  it('finds nothing once it is shut', async () => {
    await page.click('[data-part=shut]');
    await waitForText(page, '[data-part=shut]', /Open it again/);
    expect(await answers()).toBe(404);
    await page.click('[data-part=shut]');
    await waitForText(page, '[data-part=shut]', /Shut it now/);
    await page.locator('[data-part=screening-dialog] ::-p-text(None)').click();
    await page.waitForFunction(
      () => !!document.querySelector('[aria-label="Password of the screening"][placeholder^="none"]'),
    );
    expect(await answers()).toBe(200);
  });
});

describe('other sites', () => {
  it('may frame the film alone, and are told how', async () => {
    const embedded = await fetch(`${link()}/embed`);
    expect(embedded.headers.get('content-security-policy')).toContain('frame-ancestors *');
    expect(embedded.headers.get('x-frame-options')).toBeNull();
    const whole = await fetch(link());
    expect(whole.headers.get('content-security-policy')).toContain("frame-ancestors 'none'");
    expect(whole.headers.get('x-frame-options')).toBe('DENY');
    const html = await whole.text();
    expect(html).toMatch(/property="og:title" content="For the harbour choir"/);
    const oembed = /href="([^"]*oembed[^"]*)"/.exec(html)![1]!.replaceAll('&amp;', '&');
    const told = (await (await fetch(`${oembed}&maxwidth=320`)).json()) as Record<string, unknown>;
    expect(told).toMatchObject({ version: '1.0', type: 'video', width: 320, height: 180 });
    expect(told.html).toContain(`${link()}/embed`);
    const picture = await fetch(String(told.thumbnail_url));
    expect(picture.headers.get('content-type')).toBe('image/jpeg');
    const { width, height } = await sharp(await picture.arrayBuffer()).metadata();
    expect([told.thumbnail_width, told.thumbnail_height]).toEqual([width, height]);
    expect(
      (await fetch(`${app.address}/api/v1/oembed?url=${encodeURIComponent(`${app.address}/s/guess`)}`)).status,
    ).toBe(404);
  });
});
