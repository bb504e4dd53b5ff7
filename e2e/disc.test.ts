import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import type { Show } from '../src/core/show/show';
import {
  type App,
  ask,
  openApp,
  openBrowser,
  openPage,
  type OpenPage,
  press,
  sendEdits,
  sending,
  seriousIn,
  textOf,
} from './app';

const SHOW = 'lantern-regatta';
let app: App;
let browser: Browser;
let page: OpenPage;
let disc: string;

interface Far {
  readonly state: string;
  readonly report: { readonly pressCount: number } | null;
  readonly driveDoor: string;
  readonly burns: readonly {
    readonly state: string;
    readonly serial: string | null;
    readonly problem: string | null;
  }[];
}
const route = () => `${app.address}/api/v1/discs/${disc}`;
const far = async () => (await (await ask(`${route()}/far`)).json()) as Far;
async function until(right: (now: Far) => boolean): Promise<Far> {
  for (;;) {
    const now = await far();
    if (right(now)) return now;
    await new Promise((resolve) => setTimeout(resolve, 150));
  }
}
const placeNow = () => page.$eval('[data-part=television-screen]', (screen) => (screen as HTMLElement).dataset.place);
const says = () => textOf(page, '[data-part=television-says]');
async function drive(form: Record<string, string>): Promise<void> {
  const door = new URL((await far()).driveDoor);
  const entered = await fetch(door, { redirect: 'manual' });
  const cookie = entered.headers.get('set-cookie')!.split(';')[0]!;
  await fetch(`${door.origin}/disc-drive`, {
    method: 'POST',
    headers: { cookie },
    body: new URLSearchParams(form),
    redirect: 'manual',
  });
}

/** Two slides of two seconds, so that a film takes seconds. */
async function shortShow(): Promise<void> {
  const { show } = (await (await ask(`${app.address}/api/v1/shows/${SHOW}`)).json()) as { show: Show };
  const slideIds = show.slides.slice(2).map(({ id }) => id);
  const left = show.slides.slice(0, 2).map(({ id }) => id);
  await sendEdits(app.address, SHOW, [
    { kind: 'remove-slides', slideIds },
    { kind: 'set-lengths', lengths: left.map((slideId) => ({ slideId, lengthMs: 2000, by: null })) },
  ]);
}

beforeAll(async () => {
  app = await openApp({ seed: true });
  await shortShow();
  browser = await openBrowser();
  page = await openPage(browser);
  await page.goto(`${app.address}/shows/${SHOW}/send`);
});
afterAll(async () => {
  await browser.close();
  await app.close();
});

describe('a video disc', () => {
  it('is begun from Send, and its menu is gone through with a remote before anything is made', async () => {
    await page.locator('[data-part=begin-disc]').click();
    await page.waitForSelector('[data-part=disc]');
    disc = new URL(page.url()).pathname.split('/').at(-1)!;
    await page.waitForSelector('[data-part=menu-page]');
    expect(await placeNow()).toBe('page 1, button 1');
    await press(page, 'each slide');
    await page.waitForFunction(() => document.querySelector('[data-part=disc-fit]')?.textContent?.includes('At most'));
    await page.waitForFunction(() =>
      document.querySelector('[data-part=television-says]')?.textContent?.includes('of 2'),
    );
    await page.focus('[data-part=television-screen]');
    await page.keyboard.press('ArrowDown');
    expect(await says()).toContain('page 1 of 2: Scenes');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-place="page 2, button 1"]');
    await page.keyboard.press('ArrowRight');
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-place="film 1, chapter 2"]');
    await page.keyboard.press('End');
    expect(await placeNow()).toBe('page 1, button 1');
    // The points that are lit are the disc's own.
    const lit = await page.$eval('[data-part=lit]', (canvas) => {
      const { width, height } = canvas as HTMLCanvasElement;
      const { data } = (canvas as HTMLCanvasElement).getContext('2d')!.getImageData(0, 0, width, height);
      return { width, height, count: data.filter((_, at) => at % 4 === 3).filter((alpha) => alpha > 0).length };
    });
    expect(lit).toMatchObject({ width: 720, height: 576 });
    expect(lit.count).toBeGreaterThan(400);
    expect(await seriousIn(page)).toEqual([]);
  });
  it('is changed, and what cannot be is said with nothing lost', async () => {
    const twice = [SHOW, SHOW].map((showId) => ({ showId, title: '' }));
    const refused = await ask(route(), sending('PATCH', { films: twice }));
    expect(refused.status).toBe(409);
    expect(await refused.json()).toEqual({ problem: 'That show is on the disc already.' });
    expect((await ask(route(), sending('PATCH', { menu: { lengthMs: 6000, song: null } }))).status).toBe(200);
    await page.reload();
    await page.waitForSelector('[data-part=menu-page]');
    await page.type('[aria-label="Below its title"]', 'In June');
    await page.keyboard.press('Enter');
    await page.waitForFunction(
      async (path) => ((await (await fetch(path)).json()) as { plan: { words: string } }).plan.words === 'In June',
      {},
      new URL(route()).pathname,
    );
  });
  it('is made, going on after the power was cut in the middle, and every button of the image was tried', async () => {
    await page.locator('[data-part=make-disc]').click();
    await page.waitForSelector('[data-part=disc-progress][data-stage=films]');
    await app.killHard();
    await app.start();
    const made = await until(({ state }) => state !== 'making');
    expect(made.state).toBe('ready');
    expect(made.report!.pressCount).toBeGreaterThan(40);
    await page.reload();
    await page.waitForSelector('[data-part=disc-report]');
    expect(await textOf(page, '[data-part=disc-report]')).toContain('all lead where they should');
    const head = await ask(`${route()}/image`, { method: 'GET', headers: { range: 'bytes=32769-32773' } });
    expect([head.status, await head.text()]).toEqual([206, 'CD001']);
    expect((await ask(`${route()}/label`)).headers.get('content-type')).toBe('application/pdf');
  });
  it('is burned on a drive that fails at sixty percent, and then on one that does not', async () => {
    await drive({ speed: '0', fails: '60' });
    await drive({ put: 'one' });
    await page.locator('[data-part=burn]').click();
    await page.waitForSelector('[data-part=copy][data-state=failed]');
    expect(await textOf(page, '[data-part=copy]')).toContain('The drive broke off at 60 %. That disc is spoilt');
    await page.locator('[data-part=burn]').click();
    await page.waitForSelector('[data-part=copy][data-state=waits]');
    await drive({ put: 'one' });
    await page.waitForSelector('[data-part=copy][data-state=done]');
    const { burns } = await far();
    expect(burns.map(({ state }) => state)).toEqual(['done', 'failed']);
    expect(burns[0]!.serial).toMatch(/^TN[0-9A-F]{10}$/);
  });
  it('is found on the shelf', async () => {
    await page.goto(app.address);
    await page.waitForSelector('[data-part=disc-lines] a');
    expect(await textOf(page, '[data-part=disc-lines]')).toContain('a video disc, one film, its image is made');
  });
});
