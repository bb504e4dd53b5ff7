import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import { chord, openApp, openBrowser, openPage, seriousIn, type App } from './app';

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

describe('every station', () => {
  it.each([
    '/',
    '/shows/lantern-regatta/gather',
    '/shows/lantern-regatta/arrange',
    '/shows/lantern-regatta/sound',
    '/shows/lantern-regatta/send',
    '/shows/nothing-here',
  ])('%s can be used by everybody: no serious finding', async (route) => {
    const page = await openPage(browser);
    await page.setBypassCSP(true);
    await page.goto(app.address + route);
    await new Promise((resolve) => {
      setTimeout(resolve, 1200);
    });
    const slide = await page.$('[data-part=slide]');
    if (slide) await slide.click();
    expect(await seriousIn(page)).toEqual([]);
    expect(page.faults).toEqual([]);
    await page.close();
  });

  it.each(['Rostrum', 'Crop', 'Words', 'Light', 'Edge', 'Time'])(
    'the bench’s %s, and the open seam beside it',
    async (tab) => {
      const page = await openPage(browser);
      await page.setBypassCSP(true);
      await page.goto(`${app.address}/shows/lantern-regatta/arrange`);
      await page.locator('[data-slide=regatta-1] [role=img]').click();
      await page.locator(`aria/${tab}[role="tab"]`).click();
      expect(await seriousIn(page)).toEqual([]);
      await page.locator('aria/Transition into this slide: dissolve 1.0').click();
      await page.locator('aria/Transition[role="combobox"]').click();
      await page.locator('aria/wipe[role="option"]').click();
      await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
      expect(await seriousIn(page)).toEqual([]);
      await page.keyboard.press('Escape');
      await page.keyboard.down('Control');
      await page.keyboard.press('z');
      await page.keyboard.up('Control');
      await page.waitForSelector('[aria-label="Transition into this slide: dissolve 1.0"]');
      expect(page.faults).toEqual([]);
      await page.close();
    },
  );
});

describe('what opens over a station', () => {
  it.each<[string, string, readonly string[], string]>([
    [
      'a chosen print, its facts and marks',
      'gather',
      ['click [data-part=contact-sheet] [role=option]'],
      '[data-part=mark-keep]',
    ],
    ['the filter of the prints', 'gather', ['click [data-part=filter]'], '[aria-label="Which prints"][role=dialog]'],
    ['choosing one by one', 'gather', ['key v'], '[data-part=one-by-one]'],
    [
      'swapping a file',
      'gather',
      ['click [data-part=contact-sheet] [role=option]', 'click [data-part=swap]'],
      '[data-part=swap-with]',
    ],
    [
      'several chosen slides, and the tray',
      'arrange',
      ['click [data-slide=regatta-2] [role=img]', 'key Delete', 'key Shift+ArrowDown', 'key p'],
      '[data-part=tray] [role=option]',
    ],
    [
      'several pictures on a slide',
      'arrange',
      ['click [data-slide=regatta-1] [role=img]', 'key Shift+ArrowDown', 'key j', 'click aria/Pictures[role="tab"]'],
      '[data-part=pictures] ol',
    ],
    ['dark bars, as they are and trimmed', 'arrange', ['key Control+a', 'key x'], '[role=dialog]'],
    [
      'red eyes',
      'arrange',
      [
        'click [data-slide=regatta-4] [role=img]',
        'click aria/Light[role="tab"]',
        'click aria/red eyes',
        'click [data-part=red-eyes] button',
      ],
      '[data-part=red-eyes] button[aria-pressed]',
    ],
    [
      'a picture to lie behind',
      'arrange',
      ['click [data-slide=regatta-4] [role=img]', 'click aria/Time[role="tab"]', 'click aria/a picture[role="radio"]'],
      '[data-part=backing-with]',
    ],
    ['the palette', 'arrange', ['key Control+k'], '[cmdk-input]'],
    ['the keys', 'arrange', ['key ?'], '[role=dialog] dl'],
    ['the versions', 'arrange', ['click [data-part=versions]'], '[data-part=keep-version]'],
  ])('%s: no serious finding', async (_name, station, steps, part) => {
    const page = await openPage(browser);
    await page.setBypassCSP(true);
    await page.goto(`${app.address}/shows/lantern-regatta/${station}`);
    await page.waitForSelector(station === 'gather' ? '[role=option]' : '[data-part=slide]');
    for (const step of steps) {
      const [what, ...rest] = step.split(' ');
      if (what === 'click') await page.locator(rest.join(' ')).click();
      else await chord(page, ...rest[0]!.split('+'));
    }
    await page.waitForSelector(part);
    expect(await seriousIn(page)).toEqual([]);
    expect(page.faults).toEqual([]);
    await page.close();
  });
});
