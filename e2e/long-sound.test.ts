import { execFileSync } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import type { AssetFacts } from '../src/core/show/asset-facts';
import type { AssetId } from '../src/core/show/ids';
import { slideFromAsset } from '../src/core/show/new-slide';
import { ask, dropFiles, openApp, openBrowser, openPage, sendEdits, type App, type OpenPage } from './app';

const ID = 'lantern-regatta';
const MINUTES = 11;
/** What was started to sound: when on the device's clock, from where in its buffer, for how long, and how long that is, in seconds. */
type Started = readonly [when: number, offset: number, duration: number, whole: number];

let app: App;
let browser: Browser;
let page: OpenPage;
let folder: string;

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-long-'));
  app = await openApp({ seed: true, only: [1, 2] });
  browser = await openBrowser();
  page = await openPage(browser);
  await page.evaluateOnNewDocument(() => {
    const started: Started[] = [];
    Object.assign(window, { started });
    const start = AudioBufferSourceNode.prototype.start;
    AudioBufferSourceNode.prototype.start = function (when = 0, offset = 0, duration = 0) {
      started.push([when, offset, duration, this.buffer?.duration ?? 0]);
      start.call(this, when, offset, duration);
    };
  });
});
afterAll(async () => {
  await browser.close();
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

/** Pieces of a minute, as they were started. */
const started = () =>
  page.evaluate(() =>
    (window as unknown as { started: Started[] }).started.filter(([, , , whole]) => Math.abs(whole - 60) < 1),
  );
const untilStarted = (count: number) =>
  page.waitForFunction(
    (least: number) =>
      (window as unknown as { started: Started[] }).started.filter(([, , , whole]) => Math.abs(whole - 60) < 1)
        .length >= least,
    {},
    count,
  );

/** Waits until a file has been looked at. */
async function takenIn(name: string): Promise<{ assetId: AssetId; facts: AssetFacts }> {
  for (;;) {
    const { entries } = (await (await ask(`${app.address}/api/v1/shows/${ID}/sheet`)).json()) as {
      entries: { fileName: string; assetId: AssetId; facts: AssetFacts | null }[];
    };
    const found = entries.find(({ fileName }) => fileName === name);
    if (found?.facts) return { assetId: found.assetId, facts: found.facts };
    await new Promise((resolve) => {
      setTimeout(resolve, 300);
    });
  }
}

describe('a clip that sounds for more than ten minutes', () => {
  it('is heard a minute at a time, each minute right after the one before, from wherever it is watched', async () => {
    const file = path.join(folder, 'slipway.mp4');
    const made = ['-f', 'lavfi', '-i', `testsrc=s=64x36:r=4:d=${60 * MINUTES}`];
    const heard = ['-f', 'lavfi', '-i', `sine=f=330:r=48000:d=${60 * MINUTES}`];
    execFileSync('ffmpeg', ['-v', 'error', ...made, ...heard, '-c:v', 'libx264', '-c:a', 'aac', '-y', file]);
    await page.goto(`${app.address}/shows/${ID}/gather`);
    await dropFiles(page, '[data-part=gather]', [file]);
    const { assetId, facts } = await takenIn('slipway.mp4');
    const slide = slideFromAsset(assetId, facts, 4000, () => `long-${Math.random().toString(36).slice(2, 8)}`);
    await sendEdits(app.address, ID, [{ kind: 'add-slides', runs: [{ afterId: null, slides: [slide] }] }]);
    await page.goto(`${app.address}/shows/${ID}/arrange`);
    await page.waitForSelector(`[data-slide="${slide.id}"]`);
    await page.locator('aria/Watch[role="button"]').click();
    await page.waitForSelector('[data-part=watch-room] [data-playing=true]');
    await untilStarted(1);
    const before = (await started()).length;
    // Three quarters through a minute, so that the next one is had as well.
    const track = await page.$eval('[data-part=watch-room] [data-orientation=horizontal]', (line) => {
      const { x, y, width, height } = line.getBoundingClientRect();
      return { x, y: y + height / 2, width };
    });
    await page.mouse.click(track.x + (track.width * 285) / (60 * MINUTES + 10), track.y);
    await untilStarted(before + 2);
    const [first, second] = (await started()).slice(before) as [Started, Started];
    expect([first[3], second[3]]).toEqual([expect.closeTo(60, 2), expect.closeTo(60, 2)]);
    expect(first[1]).toBeGreaterThan(30);
    expect(first[1] + first[2]).toBeCloseTo(60, 3);
    expect(second[1]).toBeCloseTo(0, 3);
    expect(second[0]).toBeCloseTo(first[0] + first[2], 3);
    expect(page.faults).toEqual([]);
  });
});
