import { execFile } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { promisify } from 'node:util';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import { assetIdsOfSlides, type Show, type Slide } from '../src/core/show/show';
import {
  ask,
  chord,
  dropFiles,
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

const SHOW = 'lantern-regatta';
let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;
let folder: string;

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-reuse-'));
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, SHOW);
});
afterAll(async () => {
  expect(page.faults.filter((fault) => !/422/.test(fault))).toEqual([]);
  await browser.close();
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

const text = (slides: readonly Slide[]) => JSON.stringify(slides);
/** Slides of the running order chosen from one to another, by their numbers. */
async function choose(from: number, to = from): Promise<void> {
  const row = (number: number) => `[data-part=slide][aria-rowindex="${number}"]`;
  await page.click(`${row(from)} [role=img][aria-roledescription]`);
  if (to === from) return;
  await page.keyboard.down('Shift');
  await page.click(`${row(to)} [role=img][aria-roledescription]`);
  await page.keyboard.up('Shift');
}
const tab = (name: string) => page.locator(`[role=tab] ::-p-text(${name})`).click();
async function until(test: (show: Show) => boolean): Promise<Show> {
  for (let tries = 0; tries < 80; tries += 1) {
    const show = await hands.stored();
    if (test(show)) return show;
    await new Promise((resolve) => setTimeout(resolve, 250));
  }
  throw new Error('the show never came to be so');
}

describe('mounts', () => {
  let before: Show;
  it('are seen with the chosen pictures, say how many they take, and are laid as one step', async () => {
    await hands.go('arrange', 'slide');
    before = await hands.stored();
    await choose(2, 4);
    await hands.key('a');
    await page.waitForSelector('[data-part=mounts]');
    await page.click('[data-mount=album-page]');
    await waitForText(page, '[data-part=mount-count]', /takes 2 to 4 pictures; 3 are chosen/);
    await page.waitForSelector('[data-part=picked-mount] [data-part=build-preview]');
    expect(await seriousIn(page)).toEqual([]);
    const names = await page.$$eval('[data-part=windows] li', (windows) => windows.length);
    expect(names).toBe(3);
    await page.click('[aria-label="On the page 1: change with the next"]');
    await page.click('[data-part=lay-mount]');
    const show = await until(({ slides }) => slides.some(({ mounted }) => mounted?.mount.id === 'album-page'));
    expect(show.slides).toHaveLength(before.slides.length - 2);
    const page1 = show.slides[1]!;
    const pictures = page1.layers.flatMap((layer) => (layer.kind === 'picture' ? [layer.assetId] : []));
    const [first, second, third] = before.slides.slice(1, 4).map((slide) => assetIdsOfSlides([slide])[0]);
    expect(pictures).toEqual([second, first, third]);
  });
  it('have their words and lengths changed in one form, and come off with what lay there standing again', async () => {
    await choose(2);
    await tab('Mount');
    const field = '[data-part=mount-tab] textarea';
    await page.waitForSelector(field);
    await page.click(field, { count: 3 });
    await page.type(field, 'Written by hand');
    const written = await until(({ slides }) =>
      slides[1]!.layers.some((layer) => layer.kind === 'words' && layer.title === 'Written by hand'),
    );
    expect(written.slides[1]!.mounted?.before).toHaveLength(3);
    await page.click('[data-part=take-mount-off]');
    const off = await until(({ slides }) => slides.length === before.slides.length);
    expect(text(off.slides) === text(before.slides)).toBe(true);
    expect(off.cues).toEqual(before.cues);
  });
});

describe('plumage', () => {
  let first: Show;
  it('dresses the show at a click with the order showing it, and back is what it was', async () => {
    await hands.go('arrange', 'slide');
    await hands.key('d');
    await page.waitForSelector('[data-part=plumage][data-loaded=true]');
    await page.click('[data-plumage=swan]');
    first = await until(({ plumage }) => plumage?.is.id === 'swan');
    expect(
      first.slides.some(({ transition }) => transition.kind === 'burn' || transition.kind === 'blur-through'),
    ).toBe(true);
    expect(await seriousIn(page)).toEqual([]);
    for (const id of ['magpie', 'owl', 'finch', 'heron', 'kingfisher', 'swan']) {
      await page.click(`[data-plumage=${id}]`);
      await until(({ plumage }) => plumage?.is.id === id);
    }
    expect(JSON.stringify(await hands.stored()) === JSON.stringify(first)).toBe(true);
  });
  it('varies what nobody pinned, and gives back what differs', async () => {
    await page.click('[data-part=vary]');
    const varied = await until(({ plumage }) => plumage?.seed === 1);
    expect(text(varied.slides)).not.toBe(text(first.slides));
    await choose(3);
    await page.locator('[data-part=plumage] button ::-p-text(Pin the chosen)').click();
    const pinned = await until(({ slides }) => slides[2]!.chosen?.transition === 'hand');
    await page.click('[data-part=vary]');
    const again = await until(({ plumage }) => plumage?.seed === 2);
    expect(again.slides[2]).toEqual(pinned.slides[2]);
    await waitForText(page, '[data-part=plumage]', /differ/);
    await page.locator('[data-part=plumage] button ::-p-text(Give all back)').click();
    await waitForText(page, '[data-part=plumage]', /Everything is as the plumage has it/);
    expect((await hands.stored()).slides[2]!.chosen?.transition).toBe('look');
  });
  it('comes off as one step, and Undo puts it on again', async () => {
    const worn = await hands.stored();
    await page.click('[data-part=undress]');
    await until(({ plumage }) => plumage === undefined);
    await chord(page, 'Control', 'z');
    const back = await until(({ plumage }) => plumage !== undefined);
    expect(back).toEqual(worn);
  });
});

describe('the studio', () => {
  it('keeps a name and a logo, which stand in a show at both ends and over all of it', async () => {
    await page.goto(`${app.address}/studio`);
    await page.waitForSelector('[data-part=studio][data-loaded=true]');
    await page.locator('aria/name').fill('Harrow Lane Pictures');
    const picker = (await page.$('[data-part=logo-picker]'))! as unknown as { uploadFile(file: string): Promise<void> };
    await picker.uploadFile(path.resolve('demo/files/regatta-emblem.png'));
    await page.waitForSelector('[data-part=logo] img');
    await waitForText(page, '[data-part=studio-saved]', /^saved$/);
    await page.locator('aria/Font of titles').click();
    await page.locator('[role=option] ::-p-text(Cinzel)').click();
    await waitForText(page, '[data-part=studio-saved]', /^saved$/);
    const { profile } = (await (await ask(`${app.address}/api/v1/studio`)).json()) as {
      profile: { name: string; letters?: { title: string } };
    };
    expect([profile.name, profile.letters?.title]).toEqual(['Harrow Lane Pictures', 'cinzel']);
    expect(await seriousIn(page)).toEqual([]);
    await hands.go('arrange', 'slide');
    await hands.key('d');
    await page.waitForSelector('[data-part=studio-parts]:enabled');
    for (const label of ['logo to begin with', 'logo at the end', 'watermark'])
      await page.locator(`[data-part=studio-parts] label ::-p-text(${label})`).click();
    const show = await until(
      ({ slides, watermark }) =>
        watermark !== undefined &&
        slides[0]!.mounted?.mount.id === 'logo-in' &&
        slides.at(-1)!.mounted?.mount.id === 'logo-out',
    );
    expect(assetIdsOfSlides([show.slides[0]!])).toEqual([show.watermark!.assetId]);
    const still = await ask(`${app.address}/api/v1/shows/${SHOW}/still?at=20000&height=360`);
    expect(still.status).toBe(200);
  });
  it('keeps a slide as a mount, hands it on as a file and takes it in again; a broken one gets one clear line', async () => {
    await choose(2);
    await chord(page, 'Shift', 'A');
    await page.waitForSelector('[data-part=keep-mount]');
    await page.type('#mount-name', 'Our own page');
    expect(await seriousIn(page)).toEqual([]);
    await page.click('[data-part=keep-mount-do]');
    await waitForText(page, 'body', /is kept: you find it among the mounts/);
    const { mounts } = (await (await ask(`${app.address}/api/v1/mounts`)).json()) as { mounts: { id: string }[] };
    const file = path.join(folder, 'own.zip');
    await writeFile(
      file,
      Buffer.from(await (await ask(`${app.address}/api/v1/mounts/${mounts[0]!.id}/file`)).arrayBuffer()),
    );
    await page.goto(`${app.address}/studio`);
    await waitForText(page, '[data-part=kept-mounts]', /Our own page/);
    await page.locator('aria/Remove “Our own page”').click();
    await waitForText(page, '[data-part=kept-mounts]', /None yet/);
    const bring = async (name: string) => {
      const picker = (await page.$('[data-part=mount-picker]'))! as unknown as {
        uploadFile(one: string): Promise<void>;
      };
      await picker.uploadFile(name);
    };
    const broken = path.join(folder, 'broken.zip');
    await writeFile(broken, (await readFile(file)).subarray(0, 200));
    await bring(broken);
    await waitForText(page, 'body', /“broken.zip” was not taken. It is no ZIP file, or not all of it is there./);
    await bring(file);
    await waitForText(page, '[data-part=kept-mounts]', /Our own page/);
  });
});

describe('one’s own transitions', () => {
  const seam = (number: number) => page.click(`[data-part=slide][aria-rowindex="${number}"] [data-part=seam]`);
  const transitionOf = (show: Show, number: number) => show.slides[number - 1]!.transition;
  it('are kept from one that was changed, seen moving between the real pictures, and used elsewhere', async () => {
    await hands.go('arrange', 'slide');
    await seam(3);
    await page.waitForSelector('[data-part=transition]');
    await page.locator('aria/Transition').click();
    await page.locator('[role=option] ::-p-text(iris)').click();
    await page.click('[data-part=keep-transition]');
    await page.locator('aria/Name of the transition').fill('Our iris');
    await page.click('[data-part=keep-transition-do]');
    const kept = await until((show) => transitionOf(show, 3).kind === 'iris' && 'kept' in transitionOf(show, 3));
    await page.keyboard.press('Escape');
    await seam(4);
    await page.locator('aria/Transition').click();
    await page.locator('[role=option] ::-p-text(see them)').click();
    await page.waitForSelector('[data-part=own-transitions] canvas');
    await page.waitForFunction(() => {
      const canvas = document.querySelector('[data-part=own-transitions] canvas') as HTMLCanvasElement;
      return canvas.width > 150 && (canvas.getContext('2d')!.getImageData(20, 20, 1, 1).data[3] ?? 0) > 0;
    });
    expect(await seriousIn(page)).toEqual([]);
    await page.locator('[data-part=own-transitions] ::-p-text(Our iris)').click();
    const used = await until((show) => transitionOf(show, 4).kind === 'iris');
    expect(transitionOf(used, 4)).toEqual(transitionOf(kept, 3));
  });
  it('when one is changed and kept again, the others change only when that is wanted', async () => {
    await page.keyboard.press('Escape');
    await hands.go('arrange', 'slide');
    await seam(4);
    await page.locator('aria/Direction').click();
    await page.locator('[role=option] ::-p-text(close)').click();
    await page.locator('[data-part=keep-change]').click();
    const own = await until((show) => 'direction' in transitionOf(show, 4));
    await waitForText(page, 'body', /“Our iris” is kept/);
    expect(transitionOf(own, 3)).not.toHaveProperty('direction');
    await page.locator('button ::-p-text(Change 1 more seam)').click();
    const both = await until((show) => 'direction' in transitionOf(show, 3));
    expect([transitionOf(both, 3), transitionOf(both, 4)].map((one) => 'kept' in one && one.kept)).toEqual(
      Array(2).fill((transitionOf(await hands.stored(), 4) as { kept?: string }).kept),
    );
  });
});

describe('a starting point', () => {
  it('makes a show of a dropped folder in one go, which can be sent as it is', async () => {
    await page.goto(app.address);
    await page.click('[data-part=begin-with]');
    await page.locator('[role=menuitem] ::-p-text(A wedding)').click();
    await page.waitForSelector('[data-part=start]');
    const id = /shows\/([\w-]+)\//.exec(page.url())![1]!;
    await page.keyboard.press('Escape');
    const files = ['PE_0412', 'PE_0415', 'PE_0419', 'PE_0423', 'PE_0426', 'PE_0431'].map(
      (name) => `demo/files/${name}.jpg`,
    );
    await dropFiles(page, '[data-part=gather]', files);
    await waitForText(page, '[data-part=tally]', /6 pictures/);
    await page.click('[data-part=open-start]');
    await page.waitForSelector('[data-part=start] [data-part=build-preview]');
    await page.click('[data-start=wedding]');
    await page.click('#start-title', { count: 3 });
    await page.type('#start-title', 'Mila and Oskar');
    await waitForText(page, '[data-part=start-tally]', /slides, about/);
    expect(await seriousIn(page)).toEqual([]);
    await page.click('[data-part=start-make]');
    await page.waitForSelector('[data-part=slide]');
    const of = handsOn(app, page, id);
    const show = await of.stored();
    expect([show.title, show.plumage?.is.id, show.slides[0]!.mounted?.role]).toEqual([
      'Mila and Oskar',
      'swan',
      'opener',
    ]);
    expect(show.slides[0]!.layers.some((layer) => layer.kind === 'words' && layer.title === 'Mila and Oskar')).toBe(
      true,
    );
    expect(show.slides.length).toBeGreaterThan(3);
  });
});

describe('on the command line', () => {
  const tanager = async (...args: string[]) =>
    promisify(execFile)(process.execPath, ['scripts/tanager.mjs', ...args], {
      env: { ...process.env, TANAGER_DATA: path.join(folder, 'cli') },
    });
  it('mounts are listed, shown, taken in and handed on', async () => {
    const listed = JSON.parse((await tanager('mounts', 'list', '--json')).stdout) as { id: string }[];
    expect(listed.length).toBeGreaterThanOrEqual(30);
    expect((await tanager('mounts', 'show', 'tiles')).stdout).toMatch(/2 pictures: .* windows Tile 1, Tile 2/);
    const came = await tanager('mounts', 'import', path.join(folder, 'own.zip'));
    expect(came.stdout).toMatch(/Our own page/);
    const out = path.join(folder, 'again.zip');
    await tanager('mounts', 'export', 'Our own page', '--out', out);
    expect((await readFile(out)).equals(await readFile(path.join(folder, 'own.zip')))).toBe(true);
    await expect(tanager('mounts', 'import', path.join(folder, 'broken.zip'))).rejects.toMatchObject({
      stderr: expect.stringMatching(/broken.zip was not taken. It is no ZIP file/),
    });
  });
});
