import { execFileSync } from 'node:child_process';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import type { ClipFacts } from '../src/core/show/asset-facts';
import type { AssetId } from '../src/core/show/ids';
import type { ClipLayer } from '../src/core/show/layer';
import { slideFromAsset } from '../src/core/show/new-slide';
import type { SheetEntry } from '../src/server/assets/contact-sheet';
import {
  ask,
  dropFiles,
  handsOn,
  openApp,
  openBrowser,
  openPage,
  sendEdits,
  seriousIn,
  waitForText,
  type App,
  type Hands,
  type OpenPage,
} from './app';

const ID = 'lantern-regatta';
let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;
let folder: string;
let clip: SheetEntry;

const sheet = async () =>
  ((await (await ask(`${app.address}/api/v1/shows/${ID}/sheet`)).json()) as { entries: SheetEntry[] }).entries;
const clipNow = async (): Promise<ClipLayer> => {
  const slide = (await hands.stored()).slides.find(({ id }) => id === 'evening-slide')!;
  return slide.layers.find((layer): layer is ClipLayer => layer.kind === 'clip')!;
};
const copiesOf = async (asset: AssetId) =>
  (await sheet()).filter(({ fileName, assetId }) => fileName.startsWith('dusk, ') && assetId !== asset);

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-evened-'));
  app = await openApp({ seed: true, only: [1, 2] });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, ID);
  const file = path.join(folder, 'dusk.mp4');
  const made = ['-f', 'lavfi', '-i', 'testsrc=s=960x540:r=12:d=4', '-f', 'lavfi', '-i', 'sine=f=330:r=48000:d=4'];
  execFileSync('ffmpeg', ['-v', 'error', ...made, '-c:v', 'libx264', '-crf', '12', '-c:a', 'aac', '-y', file]);
  await page.goto(`${app.address}/shows/${ID}/gather`);
  await dropFiles(page, '[data-part=gather]', [file]);
  for (;;) {
    const found = (await sheet()).find(({ fileName, state }) => fileName === 'dusk.mp4' && state === 'ready');
    if (found) clip = found;
    if (found) break;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  const slide = slideFromAsset(clip.assetId, clip.facts!, 4000, () => 'evening-slide');
  await sendEdits(app.address, ID, [{ kind: 'add-slides', runs: [{ afterId: null, slides: [slide] }] }]);
  await hands.go('arrange', 'slide');
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

describe('a clip of twelve frames a second', () => {
  it('is a snag, whose way out is a copy that can be stopped while it is made', async () => {
    await page.waitForSelector('[data-part=snags]');
    await hands.key('!');
    await page.waitForSelector('[data-part=snag][data-kind=stuttering-clip]');
    await page.click('[data-part=snag][data-kind=stuttering-clip]');
    await page.waitForSelector('[data-part=even-drawn]');
    expect(await page.$('[data-part=try-fix]')).toBeNull();
    expect(await seriousIn(page)).toEqual([]);
    await page.click('[data-part=even-drawn]');
    await waitForText(page, '[data-part=evening-drawn]', /[1-9]\d? %[^]*left/);
    await page.click('[data-part=evening-drawn] button');
    await page.waitForSelector('[data-part=even-drawn]');
    expect(await copiesOf(clip.assetId)).toEqual([]);
    expect((await clipNow()).assetId).toBe(clip.assetId);
  });

  it('is seen with a copy in its place before that is taken; then the snag is gone, and comes back when it is undone', async () => {
    await page.click('[data-part=even-mixed]');
    await page.waitForSelector('[data-part=try-fix]');
    expect((await clipNow()).assetId).toBe(clip.assetId);
    await page.click('[data-part=try-fix]');
    await waitForText(page, '[data-part=seen-as]', /as it would be/);
    await page.click('[data-part=take-fix]');
    await page.waitForFunction(() => !document.querySelector('[data-part=snag][data-kind=stuttering-clip]'));
    const [copy] = await copiesOf(clip.assetId);
    expect(await clipNow()).toMatchObject({ assetId: copy!.assetId, trimStartMs: 0 });
    const facts = copy!.facts as ClipFacts;
    expect([facts.framesPerSecond, facts.widthPx, facts.hasSound]).toEqual([30, 960, true]);
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('[data-part=snags-room]'));
    await hands.key('Control', 'z');
    expect((await clipNow()).assetId).toBe(clip.assetId);
    await hands.key('!');
    await page.waitForSelector('[data-part=snag][data-kind=stuttering-clip]');
  });
});
