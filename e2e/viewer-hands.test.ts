import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import sharp from 'sharp';
import type { PictureLayer } from '../src/core/show/layer';
import { wordsOf } from '../src/core/show/show';
import {
  handsOn,
  openApp,
  openBrowser,
  openPage,
  press,
  seriousIn,
  textOf,
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

beforeAll(async () => {
  app = await openApp({ seed: true, only: [1, 2, 3, 4, 5] });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, ID);
  await hands.go('arrange', 'slide');
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
});

const slideAt = async (index: number) => (await hands.stored()).slides[index]!;
const choose = async (number: number) => {
  await page.click(`[data-slide=regatta-${number}] [role=img]`);
  await page.waitForSelector(`[data-slide=regatta-${number}][aria-selected=true]`);
};
const tab = (name: string) => page.locator(`aria/${name}[role="tab"]`).click();
const boxOf = async (selector: string) => (await (await page.waitForSelector(selector))!.boundingBox())!;

describe('words in the viewer', () => {
  it('are typed where a double click asks for them, in one step, and Escape leaves them', async () => {
    await choose(2);
    const frame = await boxOf('[data-part=words-hands]');
    await page.mouse.click(frame.x + frame.width * 0.5, frame.y + frame.height * 0.12, { count: 2 });
    await page.waitForSelector('[data-part=typed-title]');
    await page.keyboard.type('Over the water');
    await page.keyboard.press('Tab');
    await page.keyboard.type('after dark');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('[data-part=words-typed]'));
    expect(wordsOf(await slideAt(1))).toMatchObject({ title: 'Over the water', subtitle: 'after dark', place: 'top' });
    await hands.key('Control', 'z');
    expect(wordsOf(await slideAt(1))).toBeNull();
    await hands.key('Control', 'Shift', 'z');
    expect(wordsOf(await slideAt(1))).toMatchObject({ title: 'Over the water' });
  });
  it('are dragged onto the guides of the frame, and put back to a place of the nine', async () => {
    const frame = await boxOf('[data-part=words-hands]');
    const box = await boxOf('[data-part=words-hand]');
    const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
    await page.mouse.move(middle.x, middle.y);
    await page.mouse.down();
    await page.mouse.move(middle.x - 60, middle.y + 40, { steps: 4 });
    // A little off the middle of the frame: the guide takes it there.
    await page.mouse.move(frame.x + frame.width / 2 + 3, frame.y + frame.height / 2 - 4, { steps: 4 });
    const why = await page.$$eval('[data-part=guide]', (lines) =>
      lines.map((line) => (line as SVGElement).dataset.why),
    );
    await page.mouse.up();
    // Across, a side of the words may be nearer to a third than their middle is to the frame's.
    expect(why.at(-1)).toBe('middle of the frame');
    const { channels } = wordsOf(await slideAt(1))!;
    const moved = await boxOf('[data-part=words-hand]');
    expect(Math.abs(moved.y + moved.height / 2 - (frame.y + frame.height / 2))).toBeLessThan(1);
    await tab('Words');
    await press(page, 'bottom right');
    const placed = wordsOf(await slideAt(1))!;
    expect([placed.place, placed.channels?.x, placed.channels?.y]).toEqual(['bottom-right', undefined, undefined]);
    await hands.key('Control', 'z');
    expect(wordsOf(await slideAt(1))).toMatchObject({ place: 'top', channels });
  });
  it('are moved, sized, typed and taken off by keys alone', async () => {
    await page.focus('[data-part=words-hand]');
    const before = wordsOf(await slideAt(1))!;
    await page.keyboard.press('ArrowRight');
    await hands.key('Shift', 'ArrowDown');
    await page.keyboard.press('+');
    const after = wordsOf(await slideAt(1))!;
    expect(Number(after.channels!.x) - Number(before.channels!.x)).toBeCloseTo(1 / 1920, 5);
    expect(Number(after.channels!.y) - Number(before.channels!.y)).toBeCloseTo(10 / 1080, 5);
    expect(after.style!.size).toBeCloseTo(0.086, 3);
    expect((await hands.stored()).slides).toHaveLength(5);
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-part=typed-title]');
    await page.keyboard.press('End');
    await page.keyboard.type('!');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('[data-part=words-typed]'));
    expect(wordsOf(await slideAt(1))!.title).toBe('Over the water!');
    // As large as they get says so; what is too much to paste, too.
    await page.focus('[data-part=words-hand]');
    for (let presses = 0; presses < 60; presses += 1) await page.keyboard.press('+');
    await waitForText(page, '[data-sonner-toaster]', /half the frame’s shorter side at most/);
    expect(wordsOf(await slideAt(1))!.style!.size).toBe(0.5);
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-part=typed-title]');
    await page.$eval('[data-part=typed-title]', (field) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text', 'x'.repeat(2100));
      field.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true }));
    });
    await waitForText(page, '[data-sonner-toaster]', /2,000 letters fit here; the last 1\d\d were left out/);
    // Neither takes the press that is meant for what is under it.
    const messages = await page.$$eval('[data-sonner-toast]', (toasts) =>
      toasts.map((toast) => {
        const { left, right, top, bottom } = toast.getBoundingClientRect();
        return toast.contains(document.elementFromPoint((left + right) / 2, (top + bottom) / 2));
      }),
    );
    expect(messages.length).toBeGreaterThan(0);
    expect(messages).not.toContain(true);
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('[data-part=words-typed]'));
    await page.focus('[data-part=words-hand]');
    await page.keyboard.press('Delete');
    expect(wordsOf(await slideAt(1))).toBeNull();
    expect((await hands.stored()).slides).toHaveLength(5);
  });
  it('are none, without a word said, where nothing was typed', async () => {
    await choose(2);
    const frame = await boxOf('[data-part=words-hands]');
    await page.mouse.click(frame.x + frame.width * 0.5, frame.y + frame.height * 0.9, { count: 2 });
    await page.waitForSelector('[data-part=typed-title]');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('[data-part=words-typed]'));
    expect(await page.evaluate(() => document.body.innerText.includes('no longer on the slide'))).toBe(false);
    expect(wordsOf(await slideAt(1))).toBeNull();
  });
  it('can be more than one on a slide, each where it was asked for', async () => {
    await choose(2);
    const frame = await boxOf('[data-part=words-hands]');
    for (const [share, text] of [
      [0.1, 'Above'],
      [0.9, 'Below'],
    ] as const) {
      await page.mouse.click(frame.x + frame.width * 0.5, frame.y + frame.height * share, { count: 2 });
      await page.waitForSelector('[data-part=typed-title]');
      await page.keyboard.type(text);
      await page.keyboard.press('Escape');
      await page.waitForFunction(() => !document.querySelector('[data-part=words-typed]'));
    }
    const said = (await slideAt(1)).layers.flatMap((layer) =>
      layer.kind === 'words' ? [[layer.title, layer.place]] : [],
    );
    expect(said).toEqual([
      ['Above', 'top'],
      ['Below', 'bottom'],
    ]);
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    expect(wordsOf(await slideAt(1))).toBeNull();
  });
  it('fill themselves from the file and the slide, and say here what they read', async () => {
    await choose(3);
    await tab('Words');
    await press(page, 'Title');
    await page.keyboard.type('Taken ');
    await page.click('[data-part=words-fill] button:nth-of-type(1)');
    await page.click('[data-part=words-fill] button:nth-of-type(5)');
    expect(wordsOf(await slideAt(2))!.title).toBe('Taken {date}{number}');
    await waitForText(page, '[data-part=words-read]', /Here it reads Taken \d+ \w+ \d{4}3$/);
    expect(await seriousIn(page)).toEqual([]);
    await hands.key('Control', 'z');
  });
  it('come and go as a strip of the slide’s time says, and play from there', async () => {
    await choose(1);
    await tab('Words');
    await page.focus('aria/Words begin to come[role="slider"]');
    await page.keyboard.press('Home');
    await page.focus('aria/Words are there[role="slider"]');
    for (let steps = 0; steps < 4; steps += 1) await page.keyboard.press('ArrowRight');
    const { entrance } = wordsOf(await slideAt(0))!.come!;
    expect(entrance.atMs).toBe(0);
    expect(entrance.lengthMs % 50).toBe(0);
    expect(entrance.lengthMs).toBeGreaterThan(200);
    await press(page, 'Play the slide');
    await page.waitForSelector('[data-part=viewer][data-playing=true]');
    await page.waitForFunction(
      () => Number(document.querySelector<HTMLElement>('[data-part=viewer]')!.dataset.moment) > 300,
    );
    await press(page, 'Pause');
    await page.waitForSelector('[data-part=viewer][data-playing=false]');
  });
  it('take a colour out of the picture they stand on', async () => {
    const swatches = '[data-part=picture-colours] button[aria-label^="#"]';
    await page.waitForSelector(swatches);
    const [colour] = await page.$$eval(swatches, (buttons) =>
      buttons.map((button) => button.getAttribute('aria-label')!.slice(0, 7)),
    );
    await page.click(swatches);
    expect(wordsOf(await slideAt(0))!.style!.colour).toBe(colour);
    await hands.key('Control', 'z');
  });
  it('come from a text, a paragraph a slide, as one step to undo', async () => {
    await choose(4);
    const before = (await hands.stored()).slides;
    await hands.key('Shift', 'T');
    await page.waitForSelector('[data-part=paste-dialog]');
    await page.evaluate(() => {
      const field = document.querySelector<HTMLTextAreaElement>('[data-part=paste-dialog] textarea')!;
      field.focus();
      document.execCommand('insertText', false, 'Pies\nfrom the stall\n\nThe crews\n\nHome');
    });
    await waitForText(page, '[data-part=paste-says]', /One slide has words already.*One blank slide is added/);
    await page.click('[data-part=lay-text]');
    await page.waitForFunction(() => !document.querySelector('[data-part=paste-dialog]'));
    const { slides } = await hands.stored();
    expect(slides.slice(3).map((slide) => [wordsOf(slide)!.title, wordsOf(slide)!.subtitle])).toEqual([
      ['Pies', 'from the stall'],
      ['The crews', ''],
      ['Home', ''],
    ]);
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides).toEqual(before);
  });
});

describe('light that is seen before it is taken', () => {
  it('shows what is lost at either end, and follows the sliders', async () => {
    await choose(3);
    await tab('Light');
    const blown = async () =>
      Number(await page.$eval('[data-part=histogram]', (part) => (part as HTMLElement).dataset.blown));
    await page.waitForSelector('[data-part=histogram]');
    const before = await blown();
    await page.focus('aria/Exposure[role="slider"]');
    await page.keyboard.press('End');
    await page.waitForFunction(
      (was: number) => Number(document.querySelector<HTMLElement>('[data-part=histogram]')!.dataset.blown) > was + 0.2,
      {},
      before,
    );
    expect(await textOf(page, '[data-part=lost]')).toMatch(/% blown/);
  });
  it('is the picture before its light while a key is held, and comes back when it is let go', async () => {
    await page.$eval('[data-part=bench]', () => (document.activeElement as HTMLElement).blur());
    await page.keyboard.down('l');
    await page.waitForSelector('[data-part=before-light]');
    await page.keyboard.up('l');
    await page.waitForFunction(() => !document.querySelector('[data-part=before-light]'));
    expect((await slideAt(2)).layers[0]).toMatchObject({ light: { exposure: 3 } });
  });
  it('is offered as prints of this very picture, one press each', async () => {
    await page.waitForFunction(
      () => document.querySelectorAll('[data-part=light-prints] canvas[data-drawn=true]').length === 15,
    );
    await press(page, 'silver');
    expect((await slideAt(2)).layers[0]).toMatchObject({ light: { blackAndWhite: 1, contrast: 0.3 } });
    await press(page, 'pencil');
    expect((await slideAt(2)).layers[0]).toMatchObject({
      light: { blackAndWhite: 1, contrast: 0.3, print: { kind: 'pencil', strength: 1 } },
    });
    await press(page, 'photograph');
    await press(page, 'as it was');
    expect((await slideAt(2)).layers[0]).not.toHaveProperty('light');
  });
  it('is evened out with the one that is worked on, for all that are chosen, in one step', async () => {
    await choose(2);
    await page.keyboard.down('Shift');
    await page.click('[data-slide=regatta-3] [role=img]');
    await page.keyboard.up('Shift');
    await page.click('[data-part=even-out]');
    await waitForText(page, 'body', /evened out with this one/);
    const lights = (await hands.stored()).slides
      .slice(0, 4)
      .map(({ layers: [layer] }) => (layer as { light?: object }).light ?? null);
    // One of the two is what the other was brought to.
    expect(lights.filter((light) => light !== null)).toHaveLength(1);
    const [evened] = lights.filter((light) => light !== null);
    expect(Object.keys(evened!).every((name) => ['exposure', 'temperature', 'tint'].includes(name))).toBe(true);
    await hands.key('Control', 'z');
    expect((await slideAt(1)).layers[0]).not.toHaveProperty('light');
    expect(await seriousIn(page)).toEqual([]);
  });
});

describe('borders between the pictures of a slide', () => {
  const windows = async () =>
    (await slideAt(1)).layers.map(({ channels }) => [channels?.x, channels?.width].map(Number));
  it('are dragged in the viewer onto a third, and moved by keys, each drag one step', async () => {
    await choose(2);
    await page.keyboard.down('Shift');
    await page.click('[data-slide=regatta-3] [role=img]');
    await page.keyboard.up('Shift');
    await page.keyboard.press('j');
    const before = await windows();
    expect(before[0]![1]).toBeCloseTo(0.4966, 3);
    const frame = await boxOf('[data-part=border-hands]');
    const border = await boxOf('[data-part=border-hand][data-along=x]');
    await page.mouse.move(border.x + border.width / 2, border.y + border.height / 2);
    await page.mouse.down();
    await page.mouse.move(border.x - 20, border.y + 30, { steps: 4 });
    await page.mouse.move(frame.x + frame.width / 3 + 3, border.y + 60, { steps: 4 });
    await page.mouse.up();
    const dragged = await windows();
    expect(dragged[0]![1]).toBeCloseTo(1 / 3 - 0.0034, 3);
    expect(dragged[1]![1]).toBeCloseTo(2 / 3 - 0.0034, 3);
    await page.focus('[data-part=border-hand]');
    await page.keyboard.press('ArrowRight');
    expect((await windows())[0]![1]).toBeCloseTo(1 / 3 + 0.0066, 3);
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    expect(await windows()).toEqual(before);
    await hands.key('Control', 'Shift', 'z');
    expect(await windows()).toEqual(dragged);
  });
  it('keep their places when pictures change theirs, take more room, and let pictures come one by one', async () => {
    await tab('Pictures');
    const before = await windows();
    const ids = (await slideAt(1)).layers.map(({ id }) => id);
    await page.click('[data-part=pictures] li:nth-of-type(1) button[aria-label$=later]');
    expect((await slideAt(1)).layers.map(({ id }) => id)).toEqual([...ids].reverse());
    expect(await windows()).toEqual(before);
    await page.focus('aria/Room between[role="slider"]');
    await page.keyboard.press('End');
    expect((await windows())[0]![1]).toBeLessThan(before[0]![1]! - 0.01);
    await page.focus('aria/Round corners[role="slider"]');
    await page.keyboard.press('End');
    await page.click('[data-part=one-by-one-in]');
    const { layers } = await slideAt(1);
    expect(layers.map(({ edge }) => edge?.shape)).toEqual(Array(2).fill({ kind: 'rounded', radius: 0.3 }));
    expect(layers[1]!.channels!.opacity).toMatchObject({ keys: [{ value: 0 }, { value: 1 }] });
    expect(await seriousIn(page)).toEqual([]);
  });
});

describe('the families of transitions', () => {
  it('move between the two pictures of the seam, and are taken by a press', async () => {
    await choose(4);
    await page.keyboard.press('n');
    await page.click('[data-part=see-families]');
    await page.waitForSelector('[data-part=seam-families] canvas[data-drawn="9"]');
    await page.click('[data-family=slides]');
    await page.waitForSelector('[data-transition=push] canvas[data-drawn="9"]');
    // It moves: the same place looks different a little later.
    const print = () =>
      page.$eval('[data-transition=push] canvas', (canvas) => (canvas as HTMLCanvasElement).toDataURL().length);
    const seen = new Set<number>();
    for (let looks = 0; looks < 8; looks += 1) {
      seen.add(await print());
      await new Promise((resolve) => {
        setTimeout(resolve, 170);
      });
    }
    expect(seen.size).toBeGreaterThan(2);
    expect(await seriousIn(page)).toEqual([]);
    await page.click('[data-transition=push]');
    await page.waitForFunction(() => !document.querySelector('[data-part=seam-families]'));
    const { slides } = await hands.stored();
    const { transition } = slides.find(({ id }) => id === 'regatta-4')!;
    expect(transition).toEqual({ kind: 'push', lengthMs: 1000 });
  });
});

describe('a picture that hangs askew', () => {
  it('is found out from its long lines, and hung level at a press', async () => {
    const folder = await mkdtemp(path.join(tmpdir(), 'tanager-askew-'));
    const file = path.join(folder, 'askew.jpg');
    await sharp(await sharp('demo/files/PE_0423.jpg').resize(1200).rotate(2.5, { background: '#808080' }).toBuffer())
      .extract({ left: 150, top: 120, width: 900, height: 600 })
      .toFile(file);
    await hands.go('gather', 'contact-sheet');
    await (await page.$<'input'>('[data-part=file-picker]' as 'input'))!.uploadFile(file);
    await waitForText(page, '[data-part=contact-sheet]', /askew\.jpg/);
    const entry = await page.$$eval(
      '[data-part=contact-sheet] [role=option]',
      (prints) => (prints.find((print) => print.textContent.includes('askew.jpg')) as HTMLElement).dataset.entry!,
    );
    await page.click(`[data-entry="${entry}"]`);
    const before = (await hands.stored()).slides.length;
    await page.click('[data-part=lay-in]');
    // Once the server has it, the next page comes with it.
    while ((await hands.stored()).slides.length === before);
    await hands.go('arrange', 'slide');
    const laidIn = (await hands.stored()).slides.at(-1)!.id;
    await page.focus('[data-part=running-order]');
    await page.keyboard.press('End');
    await page.waitForSelector(`[data-slide="${laidIn}"][aria-selected=true]`);
    await page.locator('aria/Crop[role="tab"]').click();
    // The picture waits its turn for being looked at.
    await page.waitForSelector('[data-part=level]', { timeout: 170_000 });
    expect(await textOf(page, '[data-part=level]')).toMatch(/lean by 2\.[456]° clockwise/);
    await press(page, 'hang it level');
    const last = (await hands.stored()).slides.at(-1)!.layers[0] as PictureLayer;
    expect(Math.abs(last.crop!.turnDegrees - 2.5)).toBeLessThan(0.2);
    await page.waitForFunction(() => !document.querySelector('[data-part=level]'));
    await rm(folder, { recursive: true });
  });
});
