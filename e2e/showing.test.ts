import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { ask, openApp, openBrowser, openPage, press, seriousIn, waitForText, type App, type OpenPage } from './app';

const SHOW = 'lantern-regatta';
let app: App;
let browser: Browser;
let presenter: OpenPage;
let projector: Page;

beforeAll(async () => {
  app = await openApp({ seed: true, hall: true });
  // A desk's screen, and a projector beside it.
  browser = await openBrowser(['--screen-info={0,0 1280x800}{1280,0 1280x720}']);
  const devtools = await browser.target().createCDPSession();
  await devtools.send('Browser.setPermission', {
    permission: { name: 'window-management' },
    setting: 'granted',
    origin: app.address,
  });
  presenter = await openPage(browser);
});
afterAll(async () => {
  expect(presenter.faults.filter((fault) => !/Failed to load|ERR_|fetch/.test(fault))).toEqual([]);
  await browser.close();
  await app.close();
});

async function edit(...edits: object[]): Promise<void> {
  const url = `${app.address}/api/v1/shows/${SHOW}`;
  const { revision } = (await (await ask(url)).json()) as { revision: number };
  const body = {
    knownRevision: revision,
    edits: edits.map((one, n) => ({ editId: `for-the-showing-${revision}-${n}`, edit: one })),
  };
  const answer = await ask(`${url}/edits`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: app.address },
    body: JSON.stringify(body),
  });
  expect(answer.status).toBe(200);
}

const projected = (state: string) => projector.waitForSelector(`[data-part=projector]${state}`);
const moment = () => projector.$eval('[data-part=projector]', (at) => Number((at as HTMLElement).dataset.moment));
async function openProjector(): Promise<Page> {
  const opened = new Promise<Page>((resolve) => {
    presenter.once('popup', (page) => resolve(page!));
  });
  await presenter.click('[data-part=open-projector]');
  const page = await opened;
  await page.waitForSelector('[data-part=projector][data-ready=true]');
  return page;
}

describe('a showing in a hall', () => {
  it('begins on the presenter’s word in a window of its own on the other screen, with everything fetched beforehand', async () => {
    await edit(
      { kind: 'set-waits', slides: [{ slideId: 'regatta-2', waits: true }] },
      {
        kind: 'set-lengths',
        lengths: ['regatta-1', 'regatta-2', 'regatta-3'].map((slideId) => ({ slideId, lengthMs: 2500 })),
      },
    );
    await presenter.goto(`${app.address}/showing/${SHOW}`, { waitUntil: 'load' });
    await waitForText(presenter, '[data-part=showing-said]', /No projector is open/);
    expect(await seriousIn(presenter)).toEqual([]);
    projector = await openProjector();
    await waitForText(presenter, '[data-part=showing-said]', /Everything is fetched/);
    // The first click in its window lets it sound; it does not go on by it.
    await projector.mouse.click(300, 300);
    await projected('[data-phase=before]');
    expect(await projector.evaluate(() => [screenX, screenY, screen.width, screen.height])).toEqual([
      1280, 0, 1280, 720,
    ]);
    await projector.waitForFunction(() => document.fullscreenElement !== null);
    await presenter.click('[data-part=next]');
    await projected('[data-phase=running]');
    await presenter.waitForSelector('[data-part=presenter][data-phase=running]');
    await presenter.waitForFunction(() => /^0:0[1-9]/.test(document.querySelector('[data-part=gone]')!.textContent!));
  });

  it('waits on the slide that says so, at its last moment, and goes on by the key of a presenter’s remote', async () => {
    await projected('[data-phase=waiting]');
    expect(await moment()).toBeGreaterThan(4800);
    expect(await moment()).toBeLessThan(5001);
    await presenter.waitForSelector('[data-part=presenter][data-phase=waiting][data-slide="2"]');
    await projector.bringToFront();
    await projector.keyboard.press('PageDown');
    await projected('[data-phase=running]');
    await projector.waitForFunction(
      () => Number((document.querySelector('[data-part=projector]') as HTMLElement).dataset.moment) > 5100,
    );
  });

  it('goes black and back, holds, and goes to a slide by its number and by its picture', async () => {
    await presenter.bringToFront();
    await presenter.click('[data-part=black]');
    await projected('[data-black=true]');
    await presenter.click('[data-part=black]');
    await projected('[data-black=false]');
    await presenter.click('[data-part=hold]');
    await projected('[data-phase=held]');
    const held = await moment();
    await new Promise((resolve) => setTimeout(resolve, 500));
    expect(await moment()).toBe(held);
    await presenter.type('[data-part=go-to]', '7');
    await presenter.keyboard.press('Enter');
    await presenter.waitForSelector('[data-part=presenter][data-slide="7"][data-phase=running]');
    await presenter.click('[data-part=shelf-slide][aria-label^="4:"]');
    await presenter.waitForSelector('[data-part=presenter][data-slide="4"]');
    await presenter.click('[data-part=test]');
    await projector.waitForSelector('[data-part=test-screen]');
    await presenter.click('[data-part=test]');
    await projector.waitForFunction(() => !document.querySelector('[data-part=test-screen]'));
  });

  it('is run by a phone that typed the code, also after the presenter’s window was closed', async () => {
    await presenter.click('[data-part=invite]');
    const code = await (await presenter.waitForSelector('[data-part=hall-code]'))!.evaluate((at) =>
      at.textContent!.trim(),
    );
    const address = await presenter.$eval('[data-part=hall-address]', (at) => at.textContent!.trim());
    const { port } = new URL(address);
    const context = await browser.createBrowserContext();
    const remote = await context.newPage();
    // Only so that the checker of accessibility can be put into it.
    await remote.setBypassCSP(true);
    await remote.setViewport({ width: 360, height: 740 });
    await remote.goto(`http://127.0.0.1:${port}/`, { waitUntil: 'load' });
    await remote.type('#code', code === '111111' ? '222222' : '111111');
    await press(remote, 'Let me in');
    await waitForText(remote, '[role=alert]', /not the code/);
    await remote.type('#code', code);
    await press(remote, 'Let me in');
    await waitForText(remote, '#slide', /^\d+ of 25$/);
    expect(await remote.evaluate(() => document.documentElement.scrollWidth)).toBe(360);
    expect(await seriousIn(remote)).toEqual([]);
    await presenter.goto('about:blank');
    const before = await moment();
    await remote.click('[data-do=next]');
    await projector.waitForFunction(
      (was) => Number((document.querySelector('[data-part=projector]') as HTMLElement).dataset.moment) > was + 1000,
      {},
      before,
    );
    await remote.click('[data-do=black]');
    await projected('[data-black=true]');
    await remote.waitForSelector('[data-do=black][aria-pressed=true]');
    await remote.click('[data-do=black]');
    await projected('[data-black=false]');
    await context.close();
  });

  it('goes on when the server is killed, through slides it has not shown yet', async () => {
    await presenter.goto(`${app.address}/showing/${SHOW}`, { waitUntil: 'load' });
    // A presenter’s window that is opened again finds the projector as it is.
    await presenter.waitForSelector('[data-part=presenter][data-phase=running]');
    await app.killHard();
    await projector.bringToFront();
    for (const key of ['PageDown', 'PageDown', 'PageDown'] as const) {
      const before = await moment();
      await projector.keyboard.press(key);
      await projector.waitForFunction(
        (was) => Number((document.querySelector('[data-part=projector]') as HTMLElement).dataset.moment) > was + 1200,
        {},
        before,
      );
      const drawn = await projector.screenshot({ encoding: 'base64' });
      // A frame that was not drawn is black, and packs to next to nothing.
      expect(drawn.length).toBeGreaterThan(100_000);
    }
    await presenter.bringToFront();
    await presenter.click('[data-part=hold]');
    await projected('[data-phase=held]');
    await app.start();
  });
});
