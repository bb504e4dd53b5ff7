import { copyFile, mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, ElementHandle } from 'puppeteer-core';
import { xmpOf } from '../src/core/interchange/xmp';
import {
  type App,
  ask,
  handsOn,
  openApp,
  openBrowser,
  openPage,
  type OpenPage,
  press,
  seriousIn,
  textOf,
  waitForText,
} from './app';

const SHOW = 'lantern-regatta';
const GONE = ['PE_0412.jpg', 'PE_0440.jpg', 'harbour-reel.mp3'];
let app: App;
let browser: Browser;
let page: OpenPage;
let folder: string;

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-moved-'));
  const sheet = (await (await ask(`${app.address}/api/v1/shows/${SHOW}/sheet`)).json()) as {
    entries: { assetId: string; fileName: string }[];
  };
  for (const { assetId, fileName } of sheet.entries)
    if (GONE.includes(fileName)) await rm(path.join(app.dataFolder, 'blobs/originals', assetId.slice(0, 2), assetId));
  await mkdir(path.join(folder, 'old disk/2025'), { recursive: true });
  await copyFile('demo/files/PE_0412.jpg', path.join(folder, 'old disk/2025/renamed.jpg'));
  await copyFile('demo/files/PE_0440.jpg', path.join(folder, 'old disk/PE_0440.jpg'));
  await copyFile('demo/files/PE_0415.jpg', path.join(folder, 'old disk/another.jpg'));
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

describe('files that are not there any more', () => {
  it('are told before a film is made, with where they are used, and found again under another name, all in one search', async () => {
    await page.goto(`${app.address}/shows/${SHOW}/send`);
    await waitForText(
      page,
      '[data-part=missing]',
      /3 files are not there any more; 3 are used in the show and would be missing from a film/,
    );
    await press(page, 'Look for them');
    await page.waitForSelector('[data-part=missing-dialog]');
    expect(await seriousIn(page)).toEqual([]);
    const said = await textOf(page, '[data-part=missing-dialog]');
    expect(said).toMatch(/PE_0412\.jpg\s+\S+ KB\s+slide 1/);
    expect(said).toMatch(/harbour-reel\.mp3\s+\S+ MB\s+the music/);
    const picker = (await page.waitForSelector(
      '[data-part=missing-picker]',
    )) as unknown as ElementHandle<HTMLInputElement>;
    await picker.uploadFile(path.join(folder, 'old disk'));
    await waitForText(page, '[data-part=missing-said]', /2 of 3 found; they come back to their places/);
    await waitForText(page, '[data-part=missing-dialog]', /harbour-reel/);
    await page.waitForFunction(() => document.querySelectorAll('[data-part=missing-file]').length === 1);
    const { missing } = (await (await ask(`${app.address}/api/v1/shows/${SHOW}/missing`)).json()) as {
      missing: { fileName: string }[];
    };
    expect(missing.map(({ fileName }) => fileName)).toEqual(['harbour-reel.mp3']);
    const sheet = (await (await ask(`${app.address}/api/v1/shows/${SHOW}/sheet`)).json()) as {
      entries: { fileName: string }[];
    };
    expect(sheet.entries.map(({ fileName }) => fileName)).not.toContain('renamed.jpg');
  });
});

describe('ratings from elsewhere', () => {
  it('come in files beside pictures, become marks as one step, and go out again as such files', async () => {
    await page.goto(`${app.address}/shows/${SHOW}/gather`);
    const hands = handsOn(app, page, SHOW);
    const before = (await hands.stored()).marks ?? {};
    for (const [name, mark] of [
      ['PE_0415.xmp', 'linger'],
      ['PE_0419.jpg.xmp', 'leave-out'],
    ] as const)
      await writeFile(path.join(folder, name), xmpOf(mark));
    const picker = (await page.waitForSelector(
      '[data-part=file-picker]',
    )) as unknown as ElementHandle<HTMLInputElement>;
    await picker.uploadFile(path.join(folder, 'PE_0415.xmp'), path.join(folder, 'PE_0419.jpg.xmp'));
    await waitForText(page, '[data-part=ratings]', /2 pictures were rated elsewhere: linger 1, leave out 1/);
    expect(await page.$('[data-part=refused]')).toBeNull();
    await page.click('[data-part=take-ratings]');
    await page.waitForFunction(() => !document.querySelector('[data-part=ratings]'));
    const after = (await hands.stored()).marks!;
    expect(Object.keys(after)).toHaveLength(Object.keys(before).length + 2);
    const zip = Buffer.from(await (await ask(`${app.address}/api/v1/shows/${SHOW}/marks`)).arrayBuffer());
    for (const name of ['PE_0415.xmp', 'PE_0419.xmp', 'PE_0412.xmp']) expect(zip.includes(name)).toBe(true);
    await hands.key('Control', 'z');
    expect((await hands.stored()).marks).toEqual(before);
  });
});
