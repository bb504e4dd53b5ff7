import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import type { PublicationRow } from '../src/core/publishing/publication';
import {
  type App,
  ask,
  filmMade,
  openApp,
  openBrowser,
  openPage,
  type OpenPage,
  press,
  screened,
  seriousIn,
  waitForText,
} from './app';

const SHOW = 'lantern-regatta';
let app: App;
let browser: Browser;
let page: OpenPage;
let film: string;
let token: string;

const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
const route = (more: string) => `${app.address}/api/v1/shows/${SHOW}${more}`;
const rows = async () =>
  ((await (await ask(route('/publications'))).json()) as { publications: PublicationRow[] }).publications;

async function until(kind: string, right: (row: PublicationRow) => boolean): Promise<PublicationRow> {
  for (let tries = 0; tries < 400; tries += 1) {
    const found = (await rows()).find((one) => one.kind === kind);
    if (found && right(found)) return found;
    await rest(100);
  }
  throw new Error(`it never came to that: ${JSON.stringify(await rows())}`);
}

async function inSend(): Promise<void> {
  await page.goto(`${app.address}/shows/${SHOW}/send`);
  await page.waitForSelector('[data-part=send-screening-on]:enabled');
}
async function sendOn(how: string): Promise<void> {
  // What stands behind another page is not drawn, and waits for ever to be clicked.
  await page.bringToFront();
  await page.click('[data-part=send-screening-on]');
  await page.waitForSelector('[data-part=send-on]');
  await press(page, how);
}
/** Through the door of a stand-in. */
async function behind(door: string): Promise<Page> {
  const to = await page.$eval(`[data-part=door-${door}]`, (element) => (element as HTMLAnchorElement).href);
  return opened(to);
}
/** A page into which the looking for barriers can be put: those of the stand-ins let no script in. */
async function opened(to: string): Promise<Page> {
  const other = await browser.newPage();
  await other.setBypassCSP(true);
  await other.setViewport({ width: 1280, height: 800 });
  await other.goto(to);
  return other;
}
async function setSwitches(host: Page, values: Record<string, string>): Promise<void> {
  for (const [name, value] of Object.entries(values))
    await host.$eval(
      `[name=${name}]`,
      (field, next) => {
        (field as HTMLInputElement).value = next;
      },
      value,
    );
  await Promise.all([host.waitForNavigation(), host.click('form.switches button')]);
}
/** From Tanager to the place’s own page and back. */
async function signInThere(): Promise<void> {
  await page.waitForSelector('[data-part=sign-in-there]:enabled');
  await Promise.all([page.waitForNavigation(), page.click('[data-part=sign-in-there]')]);
  await waitForText(page, 'h1', /Tanager asks to be let in/);
  const desk = await opened(page.url());
  expect(await seriousIn(desk)).toEqual([]);
  await desk.close();
  await page.bringToFront();
  await page.type('[name=called]', ' of the harbour');
  await Promise.all([page.waitForNavigation(), page.click('button.main')]);
  await page.waitForSelector('[data-part=send-screening-on]:enabled');
  await waitForText(page, 'body', /You are signed in there/);
}

beforeAll(async () => {
  app = await openApp({ seed: true, only: [1, 2, 21] });
  browser = await openBrowser();
  page = await openPage(browser);
  film = await filmMade(app, SHOW, { quality: 'best', span: { fromMs: 0, toMs: 8000 } });
  token = await screened(app, SHOW, film);
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
});

describe('sending a screening on', () => {
  it('by letter: addresses are looked at while they are typed, and what is typed stays when the window is closed', async () => {
    await inSend();
    await sendOn('By letter');
    expect(await seriousIn(page)).toEqual([]);
    await page.type('[aria-label=To]', 'ilka@example.org, tom');
    await waitForText(page, '[data-part=letter-form]', /“tom” is no e-mail address/);
    expect(await page.$('[data-part=send-letters]:enabled')).toBeNull();
    await press(page, 'Close');
    await sendOn('By letter');
    expect(await page.$eval('[aria-label=To]', (field) => (field as HTMLTextAreaElement).value)).toBe(
      'ilka@example.org, tom',
    );
  });
  it('letters rest a moment, can be stopped, and those that go arrive in the post room with the link', async () => {
    await page.type('[aria-label=To]', '@example.org');
    await waitForText(page, '[data-part=send-letters]', /Send 2 letters/);
    await page.click('[data-part=send-letters]');
    await waitForText(page, '[data-part=went-out]', /goes out in \d+ s/);
    await press(page, 'Stop Lantern Regatta of Port Ellery to tom@example.org');
    await waitForText(page, '[data-part=went-out]', /stopped/);
    await waitForText(page, '[data-part=went-out]', /was delivered/);
    expect(await seriousIn(page)).toEqual([]);
    const room = await behind('mail');
    await waitForText(room, '[data-part=letters]', /ilka@example\.org/);
    expect(await room.$eval('[data-part=letters]', (list) => list.textContent)).not.toContain('tom@');
    expect(await seriousIn(room)).toEqual([]);
    const frame = await (await room.waitForSelector('iframe'))!.contentFrame();
    const link = await frame.$eval('a', (element) => (element as HTMLAnchorElement).href);
    expect(link).toBe(`${app.address}/s/${token}`);
    await room.goto(link);
    await room.waitForSelector('video');
    await room.setViewport({ width: 360, height: 740 });
    await room.goto(await page.$eval('[data-part=door-mail]', (element) => (element as HTMLAnchorElement).href));
    expect(await room.evaluate(() => document.documentElement.scrollWidth)).toBe(360);
    await room.close();
  });
  it('to a video host: signing in there, two failures, a crash in the middle of the line – and it is there, whole and once', async () => {
    await sendOn('To a video host');
    await signInThere();
    const host = await behind('video');
    await host.bringToFront();
    expect(await seriousIn(host)).toEqual([]);
    await setSwitches(host, { failNext: '2', slowKilobytes: '25', preparingSeconds: '1' });
    await sendOn('To a video host');
    await page.waitForSelector('[data-part=send-video]:enabled');
    expect(await seriousIn(page)).toEqual([]);
    await waitForText(page, '[data-part=channel-room]', /^The film takes \d.* [KM]B; \d.* of 2000 MB is free there\.$/);
    await page.click('[data-part=send-video]');
    await waitForText(page, '[data-part=went-out]', /tried 2 times; again in \d+ s: .*Out of breath/);
    await until('video', ({ state, progress }) => state === 'working' && progress?.step === 'handing-over');
    await rest(700);
    await app.killHard();
    await app.start();
    const there = await until('video', ({ state }) => state === 'there');
    const file = async (address: string) => Buffer.from(await (await ask(address)).arrayBuffer());
    const shown = Buffer.from(await (await fetch(`${there.address}/file`)).arrayBuffer());
    expect(shown.equals(await file(`${app.address}/api/v1/films/${film}/file`))).toBe(true);
    await host.reload();
    expect(
      await host.$$eval('[data-part=video]', (all) => all.map((one) => (one as HTMLElement).dataset.state)),
    ).toEqual(['ready']);
    await host.close();
  });
  it('as a post, with a card that shows the film’s title and picture', async () => {
    await inSend();
    await sendOn('As a post');
    await signInThere();
    await sendOn('As a post');
    await page.waitForSelector('[data-part=send-post]:enabled');
    await page.click('[data-part=send-post]');
    await until('post', ({ state }) => state === 'there');
    const wall = await behind('post');
    await waitForText(wall, '[data-part=card]', /Lantern Regatta of Port Ellery/);
    await wall.waitForFunction(
      () => (document.querySelector('[data-part=card] img') as HTMLImageElement).naturalWidth > 0,
    );
    expect(await seriousIn(wall)).toEqual([]);
    await wall.close();
  });
});
