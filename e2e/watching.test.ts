import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import { slideSpans } from '../src/core/timing/slide-span';
import {
  handsOn,
  openApp,
  openBrowser,
  openPage,
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

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, 'lantern-regatta');
  await hands.go('arrange', 'slide');
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
});

const moment = () => page.$eval('[data-part=viewer]', (at) => Number((at as HTMLElement).dataset.moment));
const plays = (playing: boolean) => page.waitForSelector(`[data-part=viewer][data-playing=${playing}]`);
async function pick(label: string, option: string): Promise<void> {
  await page.locator(`aria/${label}[role="combobox"]`).click();
  await page.locator(`aria/${option}[role="option"]`).click();
}
const span = async (id: string) => {
  const { slides } = await hands.stored();
  return slideSpans(slides).find(({ slideId }) => slideId === id)!;
};

describe('watching while one works', () => {
  it('plays a transition by itself, from shortly before it to shortly after, and stops', async () => {
    await page.click('[data-slide=regatta-4] [role=img]');
    const { startMs, transitionMs } = await span('regatta-4');
    await pick('What Play plays', 'transition');
    await page.locator('aria/Play[role="button"]').click();
    await plays(true);
    expect(Math.abs((await moment()) - (startMs - 700))).toBeLessThan(900);
    await plays(false);
    expect(Math.abs((await moment()) - (startMs + transitionMs + 700))).toBeLessThan(120);
  });

  it('plays it over and over when it is asked to, until it is stopped', async () => {
    const { startMs } = await span('regatta-4');
    await page.click('[data-part=loop-play]');
    await page.locator('aria/Play[role="button"]').click();
    for (let round = 0; round < 2; round += 1) {
      await page.waitForFunction(
        (at) => Number((document.querySelector('[data-part=viewer]') as HTMLElement).dataset.moment) > at + 300,
        {},
        startMs,
      );
      await page.waitForFunction(
        (at) => Number((document.querySelector('[data-part=viewer]') as HTMLElement).dataset.moment) < at,
        {},
        startMs,
      );
    }
    await page.locator('aria/Pause[role="button"]').click();
    await plays(false);
    await page.click('[data-part=loop-play]');
  });

  it('goes at a quarter of the speed', async () => {
    await pick('What Play plays', 'slide');
    await pick('How fast it plays', '¼ ×');
    await page.locator('aria/Play[role="button"]').click();
    await plays(true);
    await new Promise((resolve) => setTimeout(resolve, 400));
    const [from, at] = [await moment(), performance.now()];
    await new Promise((resolve) => setTimeout(resolve, 1500));
    const share = ((await moment()) - from) / (performance.now() - at);
    expect(share).toBeGreaterThan(0.15);
    expect(share).toBeLessThan(0.35);
    await page.locator('aria/Pause[role="button"]').click();
    await plays(false);
    await pick('How fast it plays', '1 ×');
  });

  it('plays a part whose ends are set by keys', async () => {
    await pick('What Play plays', 'part');
    const end = (await page.waitForSelector('[aria-label="End of the part"]'))!;
    const at = await moment();
    const { startMs, endMs } = slideSpans((await hands.stored()).slides).find((one) => one.endMs > at)!;
    expect(Number(await end.evaluate((at) => at.getAttribute('aria-valuenow')))).toBeCloseTo(endMs, -2);
    await end.focus();
    for (let press = 0; press < 3; press += 1) await page.keyboard.press('PageDown');
    const until = Number(await end.evaluate((at) => at.getAttribute('aria-valuenow')));
    expect(until).toBeLessThan(endMs);
    await page.locator('aria/Play[role="button"]').click();
    await plays(true);
    await plays(false);
    expect(Math.abs((await moment()) - until)).toBeLessThan(120);
    expect(until).toBeGreaterThan(startMs);
    await pick('What Play plays', 'show');
  });
});

describe('two versions side by side', () => {
  it('play together, and lead to what differs', async () => {
    await hands.key('Control', 's');
    await page.waitForSelector('[data-part=keep-version]');
    await page.click('[data-part=keep-version]');
    await page.waitForSelector('[data-part=version]');
    await page.keyboard.press('Escape');
    await page.click('[data-slide=regatta-7] [role=img]');
    await hands.key('t');
    await page.keyboard.type('Only now');
    await page.keyboard.press('Enter');
    expect((await hands.stored()).slides.some((slide) => JSON.stringify(slide.layers).includes('Only now'))).toBe(true);
    await page.click('[data-part=versions]');
    await page.locator('[data-part=beside]').click();
    await page.waitForSelector('[data-part=beside-room] [data-part=side-then] canvas');
    await waitForText(page, '[data-part=differences]', /^1 slide differs\.$/);
    await page.click('[data-part=next-difference]');
    const { startMs, endMs } = await span('regatta-7');
    const at = Number(
      await page.$eval('[data-part=beside-room] [aria-label=Moment]', (thumb) => thumb.getAttribute('aria-valuenow')),
    );
    expect(at).toBeGreaterThan(startMs);
    expect(at).toBeLessThan(endMs);
    await page.click('[data-part=play-both]');
    await page.waitForFunction(
      (before) =>
        Number(document.querySelector('[data-part=beside-room] [aria-label=Moment]')!.getAttribute('aria-valuenow')) >
        before + 500,
      {},
      at,
    );
    await page.click('[data-part=play-both]');
    expect(await seriousIn(page)).toEqual([]);
    await page.keyboard.press('Escape');
  });
});
