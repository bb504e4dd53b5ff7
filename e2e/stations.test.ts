import { createRequire } from 'node:module';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import { openApp, openBrowser, openPage, type App } from './app';

const axeSource = createRequire(`${process.cwd()}/package.json`).resolve('axe-core');

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

interface Violation { id: string; impact: string; nodes: { html: string }[] }

describe('every station', () => {
  it.each(['/', '/shows/lantern-regatta/gather', '/shows/lantern-regatta/arrange', '/shows/lantern-regatta/sound', '/shows/lantern-regatta/send', '/shows/nothing-here'])('%s can be used by everybody: no serious finding', async (route) => {
    const page = await openPage(browser);
    await page.setBypassCSP(true);
    await page.goto(app.address + route);
    await new Promise((resolve) => { setTimeout(resolve, 1200); });
    const slide = await page.$('[data-part=slide]');
    if (slide) await slide.click();
    expect(await seriousIn(page)).toEqual([]);
    expect(page.faults).toEqual([]);
    await page.close();
  });

  it.each(['Rostrum', 'Words', 'Light', 'Edge', 'Time'])('the bench’s %s, and the open seam beside it', async (tab) => {
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
  });
});

async function seriousIn(page: Page): Promise<unknown[]> {
  await page.addScriptTag({ path: axeSource });
  const found = await page.evaluate(async () => {
    const { axe } = window as unknown as { axe: { run(): Promise<{ violations: Violation[] }> } };
    return (await axe.run()).violations.map((violation) => ({ id: violation.id, impact: violation.impact, where: violation.nodes.slice(0, 3).map((node) => node.html.slice(0, 160)) }));
  });
  return found.filter((violation) => violation.impact === 'serious' || violation.impact === 'critical');
}
