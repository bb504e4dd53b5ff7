import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import {
  type App,
  ask,
  filmMade,
  sending,
  openApp,
  openBrowser,
  openPage,
  type OpenPage,
  press,
  seriousIn,
  waitForText,
} from './app';

const SHOW = 'lantern-regatta';
let app: App;
let browser: Browser;
let page: OpenPage;
let client: OpenPage;
let link: string;

const route = (more: string) => `${app.address}/api/v1/shows/${SHOW}${more}`;

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  const film = await filmMade(app, SHOW);
  for (const change of [{ title: 'The boats' }, { title: 'The fireworks', password: 'lanterns at dusk' }]) {
    const { id } = (await (await ask(route('/screenings'), sending('POST', { films: [film] }))).json()) as {
      id: string;
    };
    await ask(route(`/screenings/${id}`), sending('PATCH', change));
  }
});
afterAll(async () => {
  expect([page.faults, client.faults]).toEqual([[], []]);
  await browser.close();
  await app.close();
});

describe('a page of several films', () => {
  it('is made in Send of whatever screenings the studio has, in a chosen order', async () => {
    await page.goto(`${app.address}/shows/${SHOW}/send`);
    await page.waitForSelector('[data-part=open-bills]');
    await page.click('[data-part=open-bills]');
    await page.waitForSelector('[data-part=make-bill]');
    await page.type('[data-part=bills] input', 'The regatta in two films');
    await page.type('[data-part=bills] textarea', 'With love from the harbour.');
    const films = () =>
      page.$$eval('[data-part=bills] fieldset li', (all) => all.map((one) => one.textContent!.split(' ·')[0]!.trim()));
    for (const name of ['The boats', 'The fireworks'])
      await page.locator(`[data-part=bills] fieldset label ::-p-text(${name})`).click();
    expect(await films()).toEqual(['The boats', 'The fireworks']);
    await press(page, 'The fireworks earlier');
    expect(await films()).toEqual(['The fireworks', 'The boats']);
    expect(await seriousIn(page)).toEqual([]);
    await page.click('[data-part=make-bill]');
    await waitForText(page, '[data-part=bill-line]', /The regatta in two films 2 films/);
    link = await page.$eval('[data-part=bill-link]', (element) => (element as HTMLAnchorElement).href);
  });
  it('is whole on a phone and without scripts; a film with a password says nothing of itself', async () => {
    client = await openPage(await browser.createBrowserContext(), 'stranger');
    await client.setViewport({ width: 360, height: 740, isMobile: true, hasTouch: true });
    await client.goto(link);
    expect(
      await client.$$eval('[data-part=billed-film]', (all) => all.map((one) => (one as HTMLElement).innerText)),
    ).toEqual([
      expect.stringMatching(/^A private screening\s+It asks for its password\.$/),
      expect.stringMatching(/^The boats\s+0:04$/),
    ]);
    expect(await client.evaluate(() => document.documentElement.scrollWidth)).toBe(360);
    expect(await seriousIn(client)).toEqual([]);
    expect(await client.evaluate(() => document.body.innerText)).not.toMatch(/fireworks|Tanager/);
    await client.setJavaScriptEnabled(false);
    await client.reload();
    await Promise.all([client.waitForNavigation(), client.click('[data-part=billed-film]:last-child a')]);
    expect(await client.$eval('video', (film) => (film as HTMLVideoElement).controls)).toBe(true);
    await client.setJavaScriptEnabled(true);
  });
  it('leads nowhere once it is shut', async () => {
    await page.click('[data-part=shut-bill]');
    await waitForText(page, '[data-part=bill-line]', /shut: its link leads nowhere/);
    const answer = await client.goto(link);
    expect(answer!.status()).toBe(404);
    await waitForText(client, 'body', /There are no films here/);
  });
});
