import { copyFile, mkdtemp, rm } from 'node:fs/promises';
import { readdirSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import sharp from 'sharp';
import { MARKS } from '../src/core/show/mark';
import type { Show } from '../src/core/show/show';
import { ask, chord, dropFiles, openApp, openBrowser, openPage, press, textOf, waitForText, type App } from './app';

const PICTURES = readdirSync('demo/files')
  .filter((name) => /^PE_.*\.jpg$/.test(name))
  .sort()
  .slice(0, 8)
  .map((name) => path.resolve('demo/files', name));

let app: App;
let browser: Browser;
let page: Page & { faults: string[] };
let folder: string;
let id: string;

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-gathering-'));
  process.env.TANAGER_FOLDER = folder;
  app = await openApp();
  browser = await openBrowser();
  page = await openPage(browser);
});
afterAll(async () => {
  await browser.close();
  await app.close();
  await rm(folder, { recursive: true, force: true });
});

const stored = async (of = id): Promise<Show> => {
  // A drop is done when the hand has let go, a moment later.
  await new Promise((resolve) => {
    setTimeout(resolve, 120);
  });
  await page.waitForSelector('[data-part=saving][data-state=saved]');
  return ((await (await ask(`${app.address}/api/v1/shows/${of}`)).json()) as { show: Show }).show;
};
const key = (...names: string[]) => chord(page, ...names);
const marked = () =>
  page.$$eval('[data-part=contact-sheet] [role=option]', (all) => all.map((print) => print.getAttribute('data-mark')));
const picturesOnSlides = (show: Show) =>
  show.slides.map((slide) => slide.layers.filter((layer) => layer.kind === 'picture').length);
const row = (at: number) => `[data-part=slide][aria-rowindex="${at}"]`;
const middle = async (selector: string) => {
  const box = (await (await page.waitForSelector(selector))!.boundingBox())!;
  return { x: box.x + box.width / 2, y: box.y + box.height / 2, ...{ box } };
};
/** From the tray into the order, which may scroll while a print is carried in over its edge. */
const carryIn = async (selector: string, belowMiddle: number) => {
  const box = (await (await page.waitForSelector('[data-part=tray] [role=option]'))!.boundingBox())!;
  await page.mouse.move(box.x + 40, box.y + 30);
  await page.mouse.down();
  await page.mouse.move(box.x + 44, box.y + 38, { steps: 3 });
  for (let [seen, to] = [NaN, await middle(selector)]; to.y !== seen; to = await middle(selector)) {
    seen = to.y;
    await page.mouse.move(to.x, to.y + belowMiddle, { steps: 8 });
  }
  await page.mouse.up();
};
const drag = async (from: { x: number; y: number }, to: { x: number; y: number }) => {
  await page.mouse.move(from.x, from.y);
  await page.mouse.down();
  await page.mouse.move(from.x + 4, from.y + 8, { steps: 3 });
  await page.mouse.move(to.x, to.y, { steps: 8 });
  await page.mouse.up();
};

describe('a show begins with files dropped on the shelf', () => {
  it('is named, opened and filled with them', async () => {
    await page.goto(app.address);
    await page.waitForSelector('[data-part=shelf-page]');
    await dropFiles(page, '[data-part=shelf-page]', PICTURES);
    await waitForText(page, '[data-part=tally]', /8 pictures/);
    id = page.url().split('/').at(-2)!;
    expect((await stored()).title).toMatch(/^Pictures of /);
    expect((await stored()).slides).toEqual([]);
  });
  it('takes in a HEIC picture and one that was saved twice, and points the second out', async () => {
    await copyFile('src/server/assets/samples/two-colours.heic', path.join(folder, 'phone.heic'));
    await sharp(PICTURES[0]).keepMetadata().resize(700).jpeg({ quality: 55 }).toFile(path.join(folder, 'twice.jpg'));
    await dropFiles(page, '[data-part=gather]', [path.join(folder, 'phone.heic'), path.join(folder, 'twice.jpg')]);
    await waitForText(page, '[data-part=tally]', /10 pictures/);
    // It lies behind the one it is like until the stack is opened.
    await waitForText(page, '[data-part=stacking]', /1\s+stack/);
    await page.click('[data-part=stack]');
    await waitForText(page, '[data-part=contact-sheet]', /looks like \d+▸/);
    expect((await page.$$('[data-part=contact-sheet] [role=option]')).length).toBe(10);
    await page.click('[data-part=stack]');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=contact-sheet] [role=option]').length === 9);
    await page.click('[data-part=stacking]');
    await waitForText(page, '[data-part=contact-sheet]', /looks like \d+▸/);
    await waitForText(page, '[data-part=contact-sheet]', /small: \d+ % of the frame/);
  });
  it('puts a camera’s clock right for all its pictures, with the new order before the eye, and undoes it in one step', async () => {
    await page.click('[data-part=contact-sheet] [role=option]');
    await page.click('[data-part=clocks]');
    await page.waitForSelector('[data-part=time-strip] [data-entry]');
    const before = await page.$$eval('[data-part=time-strip] [data-entry]', (prints) =>
      prints.map((one) => one.textContent),
    );
    await page.locator('aria/Hours').fill('3');
    await page.keyboard.press('Enter');
    await page.locator('aria/Minutes').fill('12');
    await page.keyboard.press('Enter');
    const after = await page.$$eval('[data-part=time-strip] [data-entry]', (prints) =>
      prints.map((one) => one.textContent),
    );
    expect(after).not.toEqual(before);
    await page.click('[data-part=set-clocks]');
    await page.waitForSelector('[data-part=saving][data-state=saved]');
    expect(Object.values((await stored()).clocks ?? {})).toEqual([(3 * 60 + 12) * 60_000]);
    await waitForText(page, 'aside', /clock was put right/);
    await press(page, 'Undo: put a camera’s clock right');
    await page.waitForFunction(() => !document.querySelector('aside')!.textContent!.includes('put right'));
  });
  it('takes in a folder of the server’s disk, below the opened one', async () => {
    await copyFile('demo/files/PE_0499.jpg', path.join(folder, 'PE_0499.jpg'));
    await page.click('[data-part=bring-in]');
    await page.locator('[role=menuitem] ::-p-text(A folder on the server)').click();
    await waitForText(page, '[role=dialog]', /3 files here/);
    await page.click('[data-part=take-folder]');
    await waitForText(page, '[data-part=tally]', /11 pictures/);
    expect((await ask(`${app.address}/api/v1/folders?folder=${encodeURIComponent('../..')}`)).status).toBe(404);
  });
});

describe('choosing on the contact sheet', () => {
  it('chooses the best about so many, says why, marks them kept in one step, and undoes it', async () => {
    await page.focus('[data-part=contact-sheet]');
    await key('c');
    await page.waitForSelector('[data-part=choose-for-me]');
    await page.locator('aria/How many pictures').click();
    await page.keyboard.type('4');
    await page.keyboard.press('Enter');
    await page.waitForFunction(() => document.querySelectorAll('[data-choice]').length === 4);
    const reasons = await page.$$eval('[data-choice]', (all) => all.map((one) => one.textContent));
    expect(reasons.every((reason) => reason!.trim() !== '')).toBe(true);
    await page.click('[data-part=keep-chosen]');
    await page.waitForFunction(() => document.querySelectorAll('[data-mark=keep]').length === 4);
    expect(Object.values((await stored()).marks ?? {})).toEqual(['keep', 'keep', 'keep', 'keep']);
    await key('Control', 'z');
    await page.waitForFunction(() => document.querySelectorAll('[data-mark=keep]').length === 0);
  });
  it('marks by key, one or many, wipes off, and undoes by name', async () => {
    const prints = await page.$$('[data-part=contact-sheet] [role=option]');
    await prints[0]!.click();
    await key('k');
    await key('ArrowRight');
    await key('Shift', 'ArrowRight');
    await key('l');
    expect((await marked()).slice(0, 4)).toEqual(['keep', 'linger', 'linger', 'none']);
    await key('o');
    await press(page, 'Undo: mark 2 prints');
    await key('u');
    expect((await marked()).slice(0, 4)).toEqual(['keep', 'none', 'none', 'none']);
    await key('Control', 'z');
    expect((await marked()).slice(0, 4)).toEqual(['keep', 'linger', 'linger', 'none']);
    await key('Escape');
  });
  it('chooses one by one: a mark goes on to the next', async () => {
    await key('v');
    await page.waitForSelector('[data-part=one-by-one]');
    await key('Home');
    for (const mark of ['k', 'o', 'k', 'k', 'l']) await key(mark);
    expect(await textOf(page, '[data-part=one-by-one] h2')).toMatch(/\./);
    await waitForText(page, '[data-part=one-by-one]', /6 of 11[\s\S]*4 kept/);
    await key('Escape');
    await page.waitForFunction(() => document.querySelector('[data-part=one-by-one]') === null);
    expect((await marked()).slice(0, 6)).toEqual(['keep', 'leave-out', 'keep', 'keep', 'linger', 'none']);
    expect(Object.values((await stored()).marks!).every((mark) => MARKS.includes(mark))).toBe(true);
  });
  it('shows only what is asked for', async () => {
    await page.click('[data-part=filter]');
    await page.locator('aria/left out[role="radio"]').click();
    await page.waitForFunction(() => document.querySelectorAll('[data-part=contact-sheet] [role=option]').length === 1);
    await key('Escape');
    await press(page, 'Show all prints');
    await page.waitForFunction(
      () => document.querySelectorAll('[data-part=contact-sheet] [role=option]').length === 11,
    );
  });
  it('lays what is kept into the order, and nothing else', async () => {
    await waitForText(page, '[data-part=gather]', /4 kept, not in the order yet/);
    await page.focus('[data-part=contact-sheet]');
    await key('Enter');
    const show = await stored();
    expect(show.slides).toHaveLength(4);
    await waitForText(page, '[data-part=gather]', /All that is kept is in the order/);
  });
  it('swaps a file wherever it is used, and back', async () => {
    const before = await stored();
    await (await page.$$('[data-part=contact-sheet] [role=option]'))[0]!.click();
    await key('s');
    await page.locator('[data-part=swap-with]').click();
    const after = await stored();
    expect(after.slides[0]!.layers[0]).not.toEqual(before.slides[0]!.layers[0]);
    await press(page, 'Undo: swap a file');
    expect(await stored()).toEqual(before);
  });
});

describe('the running order by hand', () => {
  it('drags a slide, and puts it back', async () => {
    await press(page, 'Arrange');
    await page.waitForSelector(row(4));
    const before = (await stored()).slides.map((slide) => slide.id);
    const from = await middle(`${row(1)} [role=img]`);
    const to = await middle(`${row(3)} [role=img]`);
    await drag(from, { x: from.x, y: to.y + 30 });
    expect((await stored()).slides.map((slide) => slide.id)).toEqual([before[1], before[2], before[0], before[3]]);
    await press(page, 'Undo: move a slide');
    expect((await stored()).slides.map((slide) => slide.id)).toEqual(before);
  });
  it('drags a seam: what follows moves along, or with Alt only the next gives the time', async () => {
    const lengths = async () => (await stored()).slides.map((slide) => slide.lengthMs);
    expect(await lengths()).toEqual([5000, 5000, 5000, 5000]);
    const handle = await middle(`${row(2)} [data-part=seam-handle]`);
    await drag(handle, { x: handle.x, y: handle.y + 48 });
    expect(await lengths()).toEqual([5000, 7000, 5000, 5000]);
    await page.keyboard.down('Alt');
    await drag(handle, { x: handle.x, y: handle.y - 24 });
    await page.keyboard.up('Alt');
    expect(await lengths()).toEqual([5000, 6000, 6000, 5000]);
    await key('Control', 'z');
    await key('Control', 'z');
    await page.click(`${row(2)} [role=img]`);
    await page.keyboard.type('))(');
    expect(await lengths()).toEqual([5000, 5500, 4500, 5000]);
    await key('Control', 'z');
    expect(await lengths()).toEqual([5000, 5000, 5000, 5000]);
  });
  it('puts a slide beside another’s picture by dropping it on the words, in a layout that can be changed, and parts them again', async () => {
    const from = await middle(`${row(3)} [role=img]`);
    const to = await middle(row(2));
    await drag(from, { x: to.box.x + to.box.width - 60, y: to.y });
    expect(picturesOnSlides(await stored())).toEqual([1, 2, 1]);
    await page.locator('aria/Pictures[role="tab"]').click();
    await page.locator('[data-part=pictures] ::-p-text(stacked)').click();
    const [top] = (await stored()).slides[1]!.layers;
    expect(top!.channels).toMatchObject({ width: 1, x: 0.5 });
    await page.focus('[data-part=running-order]');
    await key('Shift', 'J');
    expect(picturesOnSlides(await stored())).toEqual([1, 1, 1, 1]);
    for (let step = 0; step < 3; step += 1) await key('Control', 'z');
    expect(picturesOnSlides(await stored())).toEqual([1, 1, 1, 1]);
  });
  it('lays prints from the tray where they are dropped', async () => {
    await page.focus('[data-part=running-order]');
    await key('p');
    await carryIn(`${row(1)} [role=img]`, 48);
    const show = await stored();
    expect([
      show.slides.length,
      await page.$$eval('[data-part=slide][aria-selected=true]', (rows) =>
        rows.map((entry) => entry.getAttribute('aria-rowindex')),
      ),
    ]).toEqual([5, ['2']]);
    await key('Control', 'z');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=slide]').length === 4);
    await carryIn(`${row(1)} [role=img]`, 0);
    expect(picturesOnSlides(await stored())).toEqual([2, 1, 1, 1]);
    await key('Control', 'z');
    await key('p');
    expect(picturesOnSlides(await stored())).toEqual([1, 1, 1, 1]);
  });
  it('finds a command by a part of its name', async () => {
    await page.click(`${row(1)} [role=img]`);
    await key('Control', 'k');
    await page.waitForSelector('[cmdk-input]');
    await page.keyboard.type('duplicate');
    await key('Enter');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=slide]').length === 5);
    await key('Control', 'z');
    expect((await stored()).slides).toHaveLength(4);
  });
});

describe('the clipboard', () => {
  it('takes slides to another show with the files they need', async () => {
    await page.click(`${row(1)} [role=img]`);
    await key('Shift', 'ArrowDown');
    await page.keyboard.down('Control');
    await page.keyboard.press('c', { commands: ['Copy'] });
    await page.keyboard.up('Control');
    await waitForText(page, 'body', /2 slides are on the clipboard/);
    const { id: other } = (await (
      await ask(`${app.address}/api/v1/shows`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ title: 'Another' }),
      })
    ).json()) as { id: string };
    const original = await stored();
    await page.goto(`${app.address}/shows/${other}/arrange`);
    await waitForText(page, 'main', /The order is empty/);
    await page.locator('::-p-text(Blank slide)').click();
    await page.waitForSelector('[data-part=running-order]');
    await page.focus('[data-part=running-order]');
    await page.keyboard.down('Control');
    await page.keyboard.press('v', { commands: ['Paste'] });
    await page.keyboard.up('Control');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=slide]').length === 3);
    const pasted = await stored(other);
    expect(
      pasted.slides.slice(1).map((slide) => slide.layers.map((layer) => 'assetId' in layer && layer.assetId)),
    ).toEqual(
      original.slides.slice(0, 2).map((slide) => slide.layers.map((layer) => 'assetId' in layer && layer.assetId)),
    );
    expect(pasted.slides[1]!.id).not.toBe(original.slides[0]!.id);
    const sheet = (await (await ask(`${app.address}/api/v1/shows/${other}/sheet`)).json()) as { entries: unknown[] };
    expect(sheet.entries).toHaveLength(2);
    await page.goto(`${app.address}/shows/${id}/arrange`);
    await page.waitForSelector('[data-part=slide]');
  });
});

describe('versions', () => {
  it('keeps one, goes back to it, and undoes that too', async () => {
    const before = await stored();
    await key('Control', 's');
    await page.waitForSelector('[data-part=keep-version]');
    await page.type('aria/Name of the version', 'For the client');
    await key('Enter');
    await page.waitForSelector('[data-part=version]');
    await key('Escape');
    await page.click(`${row(1)} [role=img]`);
    await key('Delete');
    expect((await stored()).slides).toHaveLength(3);
    await key('Control', 's');
    await press(page, 'Go back to “For the client”');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=slide]').length === 4);
    expect(await stored()).toEqual(before);
    const { versions } = (await (await ask(`${app.address}/api/v1/shows/${id}/versions`)).json()) as {
      versions: { name: string }[];
    };
    expect(versions.map((version) => version.name)).toEqual([
      'Before going back to “For the client”',
      'For the client',
    ]);
    await press(page, 'Undo: go to another version');
    expect((await stored()).slides).toHaveLength(3);
    await key('Control', 'z');
    expect(await stored()).toEqual(before);
  });
});

describe('the shelf', () => {
  it('renames, duplicates, finds, archives and takes back', async () => {
    await page.goto(app.address);
    const menu = async (show: string, item: string) => {
      await press(page, `What to do with “${show}”`);
      await page.locator(`aria/${item}[role="menuitem"]`).click();
    };
    await menu('Another', 'Rename');
    await page.waitForFunction(() => document.activeElement?.getAttribute('aria-label') === 'Title of the show');
    await page.keyboard.type('Évening at the pier');
    await key('Enter');
    await page.waitForSelector('[aria-label="What to do with “Évening at the pier”"]');
    await menu('Évening at the pier', 'Duplicate');
    await page.waitForSelector('[aria-label="What to do with “Évening at the pier, copy”"]');
    await page.type('aria/Find a show', 'evening pier');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=shelf-show]').length === 2);
    await menu('Évening at the pier', 'Put into the archive');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=shelf-show]').length === 1);
    await press(page, 'Undo');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=shelf-show]').length === 2);
    await menu('Évening at the pier, copy', 'Take off the shelf');
    await page.locator('::-p-text(taken off 1)').click();
    // A click while the list is drawn anew may meet nothing; a hand clicks again.
    const gone = () => document.querySelectorAll('[data-part=shelf-show]').length === 0;
    for (let clicks = 0; clicks < 3 && !(await page.evaluate(gone)); clicks += 1) {
      await press(page, 'Bring “Évening at the pier, copy” back');
      await page.waitForFunction(gone, { timeout: 20_000 }).catch(() => {});
    }
    expect(await page.evaluate(gone)).toBe(true);
  });
  it('met no error on the way', () => expect(page.faults).toEqual([]));
});
