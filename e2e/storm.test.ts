import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import type { Show } from '../src/core/show/show';
import type { VersionEntry } from '../src/server/shows/versions';
import { ask, openApp, openBrowser, openPage, textOf, waitForText, type App } from './app';

const ID = 'lantern-regatta';
let app: App;
let browser: Browser;

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
});
afterAll(async () => {
  await browser.close();
  await app.close();
});

const load = async () =>
  (await (await ask(`${app.address}/api/v1/shows/${ID}`)).json()) as { show: Show; revision: number };
const openArrange = async (on = browser): Promise<Page & { faults: string[] }> => {
  const page = await openPage(on);
  await page.goto(`${app.address}/shows/${ID}/arrange`);
  await page.waitForSelector('[data-part=slide]');
  return page;
};
const saved = (page: Page) => page.waitForSelector('[data-part=saving][data-state=saved]');
const rename = async (page: Page, title: string) => {
  // A tab in the back draws no frames, and puppeteer waits for one.
  await page.bringToFront();
  await page.click('[data-part=show-title]', { count: 3 });
  await page.keyboard.type(title);
  await page.keyboard.press('Enter');
};

describe('a server that is killed in a storm of edits', () => {
  it('has every edit it acknowledged, and the page delivers the rest when it is back', async () => {
    const page = await openArrange();
    const acknowledged: string[] = [];
    page.on('response', (response) => {
      if (!response.url().endsWith('/edits') || !response.ok()) return;
      const sent = JSON.parse(response.request().postData() ?? '{}') as {
        edits?: { edit: { kind: string; runs?: { slides: { id: string }[] }[] } }[];
      };
      for (const { edit } of sent.edits ?? [])
        acknowledged.push(...(edit.runs ?? []).flatMap((run) => run.slides.map((slide) => slide.id)));
    });
    await page.focus('[data-part=running-order]');
    const storm = async (count: number) => {
      for (let step = 0; step < count; step += 1) await page.keyboard.press('b');
    };
    await storm(30);
    const dying = storm(40);
    await new Promise((resolve) => {
      setTimeout(resolve, 350);
    });
    await app.killHard();
    await dying;
    const sure = [...acknowledged];
    await waitForText(page, '[data-part=saving]', /not connected/);
    await storm(5);
    await app.start();
    // Asked by itself, before the page has had its say.
    const kept = new Set((await load()).show.slides.map((slide) => slide.id as string));
    expect(sure.length).toBeGreaterThan(0);
    expect(sure.filter((id) => !kept.has(id))).toEqual([]);
    await saved(page);
    expect((await load()).show.slides).toHaveLength(25 + 75);
    await page.close();
  });
});

describe('a lost connection', () => {
  it('is said at once, before anything is changed, and so is its return', async () => {
    const page = await openArrange();
    await saved(page);
    await app.killHard();
    await waitForText(page, '[data-part=saving]', /not connected/);
    await app.start();
    await saved(page);
    // The viewer comes too, even when it was still being fetched.
    await page.waitForFunction(() => !document.querySelector('[data-part=viewer]')!.textContent!.includes('Preparing'));
    await page.close();
  });
});

describe('a browser that is killed in a storm of edits', () => {
  it('loses at most the last second', async () => {
    const doomed = await openBrowser();
    const page = await openArrange(doomed);
    const before = (await load()).show.slides.length;
    await page.focus('[data-part=running-order]');
    const pressed: number[] = [];
    const untilMs = Date.now() + 3000;
    while (Date.now() < untilMs) {
      await page.keyboard.press('b');
      pressed.push(Date.now());
    }
    const killedMs = Date.now();
    doomed.process()!.kill('SIGKILL');
    await new Promise((resolve) => {
      setTimeout(resolve, 1500);
    });
    const sure = pressed.filter((atMs) => atMs <= killedMs - 1000).length;
    expect(sure).toBeGreaterThan(5);
    expect((await load()).show.slides.length - before).toBeGreaterThanOrEqual(sure);
  });
});

describe('two windows on one show', () => {
  it('see each other’s work at once', async () => {
    const [one, other] = [await openArrange(), await openArrange()];
    await rename(one, 'Seen by both');
    await other.bringToFront();
    await other.waitForFunction(
      () => (document.querySelector('[data-part=show-title]') as HTMLInputElement).value === 'Seen by both',
      { timeout: 5000 },
    );
    expect([one.faults, other.faults]).toEqual([[], []]);
    await one.close();
    await other.close();
  });
  it('lose nothing when both change the same thing while one is cut off: one stands, the other is a version', async () => {
    const [one, other] = [await openArrange(), await openArrange()];
    const cutOff = await one.createCDPSession();
    await cutOff.send('Network.enable');
    await cutOff.send('Network.emulateNetworkConditions', {
      offline: true,
      latency: 0,
      downloadThroughput: -1,
      uploadThroughput: -1,
    });
    await rename(one, 'By the one cut off');
    await waitForText(one, '[data-part=saving]', /not connected/);
    await rename(other, 'By the other');
    await saved(other);
    expect((await load()).show.title).toBe('By the other');
    await cutOff.send('Network.emulateNetworkConditions', {
      offline: false,
      latency: 0,
      downloadThroughput: -1,
      uploadThroughput: -1,
    });
    await one.bringToFront();
    await saved(one);
    expect((await load()).show.title).toBe('By the one cut off');
    await waitForText(one, 'body', /Another window had changed the same thing/);
    await other.bringToFront();
    await other.waitForFunction(
      () => (document.querySelector('[data-part=show-title]') as HTMLInputElement).value === 'By the one cut off',
      { timeout: 5000 },
    );
    const { versions } = (await (await ask(`${app.address}/api/v1/shows/${ID}/versions`)).json()) as {
      versions: VersionEntry[];
    };
    const kept = (await (await ask(`${app.address}/api/v1/shows/${ID}/versions/${versions[0]!.id}`)).json()) as {
      content: Show;
    };
    expect([versions[0]!.name, kept.content.title]).toEqual(['As the other window left it', 'By the other']);
    expect(await textOf(one, '[data-part=saving]')).toBe('saved');
    await one.close();
    await other.close();
  });
});
