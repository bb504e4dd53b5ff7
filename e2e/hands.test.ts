import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import { layerId } from '../src/core/show/ids';
import type { WordsLayer } from '../src/core/show/layer';
import type { Transition } from '../src/core/show/transition';
import {
  ask,
  handsOn,
  openApp,
  openBrowser,
  openPage,
  press,
  sendEdits,
  textOf,
  waitForText,
  type App,
  type Hands,
  type OpenPage,
} from './app';

let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;
const ID = 'lantern-regatta';

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, ID);
});
afterAll(async () => {
  await browser.close();
  await app.close();
});

describe('arranging by keyboard alone', () => {
  it('walks, stretches, shortens, moves and undoes', async () => {
    await hands.go('arrange', 'slide');
    const before = await hands.stored();
    await page.focus('[data-part=running-order]');
    await hands.key('ArrowDown');
    await hands.key('ArrowDown');
    await hands.key('Shift', 'ArrowDown');
    expect(
      await page.$$eval('[data-part=slide][aria-selected=true]', (rows) =>
        rows.map((row) => row.getAttribute('data-slide')),
      ),
    ).toEqual(['regatta-2', 'regatta-3']);
    await page.keyboard.type('++');
    const longer = await hands.stored();
    expect([1, 2].map((at) => longer.slides[at]!.lengthMs - before.slides[at]!.lengthMs)).toEqual([1000, 1000]);
    await hands.key('Alt', 'Home');
    expect((await hands.stored()).slides.slice(0, 3).map((slide) => slide.id)).toEqual([
      'regatta-2',
      'regatta-3',
      'regatta-1',
    ]);
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    expect(await hands.stored()).toEqual(before);
  });
  it('shows every key under ?', async () => {
    await page.keyboard.type('?');
    await page.waitForSelector('[role=dialog]');
    expect(await textOf(page, '[role=dialog]')).toMatch(/Alt ↑[\s\S]*Move the slides up/);
    await hands.key('Escape');
    await page.waitForFunction(() => document.querySelector('[role=dialog]') === null);
  });
  it('keeps the row in place when the scale changes, and draws rows as high as they are long', async () => {
    const heights = () =>
      page.$$eval('[data-part=slide]', (rows) => rows.slice(0, 2).map((row) => (row as HTMLElement).offsetHeight));
    expect(await heights()).toEqual([132, 132]);
    await press(page, 'true');
    await page.waitForFunction(
      () => (document.querySelector('[data-slide=regatta-1]') as HTMLElement).offsetHeight === 264,
    );
    await press(page, 'even');
  });
  it('offers the transition that fits a seam, with its reason, and what fits each as one step', async () => {
    await page.focus('[data-part=running-order]');
    await hands.key('Escape');
    const before = (await hands.stored()).slides.map(({ transition }) => transition);
    await page.click('[data-slide=regatta-2] [data-part=seam]');
    await waitForText(page, '[data-part=fitting]', /^An? [a-z ]+ (fits|it is)\. [A-Z].+\.$/);
    expect(await textOf(page, '[data-part=fit-each]')).toBe('What fits each');
    await page.click('[data-part=fit-each]');
    await waitForText(page, '[data-part=fitting]', /it is\./);
    const fitted = (await hands.stored()).slides;
    for (const slide of fitted.slice(1)) if (slide.chapter) expect(slide.transition.kind).toBe('dip');
    expect(fitted.filter(({ chapter }) => chapter).length).toBeGreaterThan(1);
    await hands.key('Escape');
    await page.waitForFunction(() => document.querySelector('[data-part=transition]') === null);
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides.map(({ transition }) => transition)).toEqual(before);
  });
  it('lets a transition give way to words that need the time, says so, and lets it take all of it when told to', async () => {
    const before = await hands.stored();
    const slide = before.slides[1]!;
    const title = 'Fifteen words that nobody reads while the picture under them is still coming in here';
    const words: WordsLayer = { kind: 'words', id: layerId('wordy'), title, subtitle: '', place: 'bottom' };
    const transition: Transition = { kind: 'dissolve', lengthMs: 2000 };
    const wordy = { ...slide, lengthMs: 6000, transition, layers: [...slide.layers, words] };
    await sendEdits(app.address, ID, [{ kind: 'put-slides', slides: [wordy] }]);
    const seam = '[data-slide=regatta-2] [data-part=seam]';
    await waitForText(page, seam, /dissolve (1\.[0-9]|0\.[5-9])/);
    await page.click(seam);
    await waitForText(page, '[data-part=seam-room]', /so that the words can be read/);
    await press(page, 'Take 2.0 s all the same');
    await waitForText(page, seam, /dissolve 2\.0/);
    expect((await hands.stored()).slides[1]!.transition).toEqual({ ...transition, overWords: true });
    await press(page, 'Let it give way');
    await waitForText(page, seam, /dissolve (1\.[0-9]|0\.[5-9])/);
    expect((await hands.stored()).slides[1]!.transition).toEqual(transition);
    await hands.key('Escape');
    await sendEdits(app.address, ID, [{ kind: 'put-slides', slides: [slide] }]);
    await waitForText(page, seam, /dissolve 1\.0/);
  });
});

describe('a slide dragged past what can be seen', () => {
  it('scrolls the order under the hand and lands far down', async () => {
    const before = (await hands.stored()).slides.map((slide) => slide.id);
    await page.$eval('[data-part=running-order]', (list) => {
      list.scrollTop = 0;
    });
    await hands.key('Escape');
    const from = (await (await page.waitForSelector('[data-slide=regatta-1] [role=img]'))!.boundingBox())!;
    const list = (await (await page.$('[data-part=running-order]'))!.boundingBox())!;
    await page.mouse.move(from.x + 40, from.y + 40);
    await page.mouse.down();
    await page.mouse.move(from.x + 44, from.y + 60, { steps: 3 });
    await page.mouse.move(from.x + 44, list.y + list.height - 6, { steps: 5 });
    await page.waitForFunction(() => document.querySelector('[data-part=running-order]')!.scrollTop > 1200);
    await page.mouse.up();
    await new Promise((resolve) => {
      setTimeout(resolve, 150);
    });
    const after = (await hands.stored()).slides.map((slide) => slide.id);
    expect(after.indexOf(before[0]!)).toBeGreaterThan(8);
    expect(after.filter((id) => id !== before[0])).toEqual(before.slice(1));
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides.map((slide) => slide.id)).toEqual(before);
    await page.$eval('[data-part=running-order]', (order) => {
      order.scrollTop = 0;
    });
  });
});

describe('the seam', () => {
  it('makes a transition a cut, for one and for all', async () => {
    await press(page, 'Transition into this slide: dissolve 1.0');
    await page.locator('aria/Transition[role="combobox"]').click();
    await page.locator('aria/cut[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await hands.stored()).slides.filter((slide) => slide.transition.kind === 'cut')).toHaveLength(1);
    await press(page, 'Same for all');
    expect((await hands.stored()).slides.every((slide) => slide.transition.kind === 'cut')).toBe(true);
    await hands.key('Escape');
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides.every((slide) => slide.transition.kind === 'dissolve')).toBe(true);
  });
  it('chooses another transition with a direction and a softness of its own, and sees it in the viewer', async () => {
    await press(page, 'Transition into this slide: dissolve 1.0');
    await page.locator('aria/Transition[role="combobox"]').click();
    await page.locator('aria/wipe[role="option"]').click();
    await page.locator('aria/Direction[role="combobox"]').click();
    await page.locator('aria/up left[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await hands.stored()).slides.map((slide) => slide.transition)).toContainEqual({
      kind: 'wipe',
      lengthMs: 1000,
      direction: 'up-left',
    });
    await page.focus('aria/Softness[role="slider"]');
    await hands.key('End');
    expect((await hands.stored()).slides.map((slide) => slide.transition)).toContainEqual({
      kind: 'wipe',
      lengthMs: 1000,
      direction: 'up-left',
      softness: 1,
    });
    await hands.key('Escape');
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides.every((slide) => slide.transition.kind === 'dissolve')).toBe(true);
  });
});

describe('numbers that are typed', () => {
  const LENGTH = 'Length of the chosen slide in seconds';
  const value = () =>
    page.$eval(`[aria-label="${LENGTH}"]`, (field) => [(field as HTMLInputElement).value, field.ariaInvalid] as const);
  it('are read as people say them, and what cannot be read stays and says what would be right', async () => {
    await hands.go('arrange', 'slide');
    await page.click('[data-part=slide]:nth-of-type(3)');
    const before = (await hands.stored()).slides[2]!.lengthMs;
    await hands.type(LENGTH, '1:30');
    expect((await hands.stored()).slides[2]!.lengthMs).toBe(90_000);
    await hands.type(LENGTH, 'a while');
    expect(await value()).toEqual(['a while', 'true']);
    await waitForText(page, '[data-part=field-note]', /such as 4.5, or minutes and seconds, such as 1:30/);
    await hands.type(LENGTH, '0');
    await waitForText(page, '[data-part=field-note]', /0.2 s at least/);
    expect((await hands.stored()).slides[2]!.lengthMs).toBe(200);
    // Undo works from within the field, as long as nothing is being typed there.
    await page.focus(`[aria-label="${LENGTH}"]`);
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides[2]!.lengthMs).toBe(before);
  });
});

describe('sound', () => {
  it('takes the song out and in again, says what that means, and fits the pictures to it', async () => {
    await hands.go('sound', 'cue');
    await press(page, 'Take out Harbour Reel');
    await waitForText(page, '[data-part=lengths]', /no music yet/);
    await press(page, 'Undo: take out a song');
    await waitForText(page, '[data-part=lengths]', /ends together/);
    await hands.type('Where in the song it begins, seconds', '20');
    await waitForText(page, '[data-part=lengths]', /ends\s+0:20\s+early/);
    await page.click('[data-part=ways-out]');
    await waitForText(page, '[role=menu]', /The last 0:20 of the show are silent/);
    await page.locator('[role=menuitem] ::-p-text(Quicken)').click();
    await waitForText(page, '[data-part=lengths]', /ends together/);
    const show = await hands.stored();
    expect(show.cues[0]).toMatchObject({ trimStartMs: 20_000, fadeOutMs: 3000 });
    // The clip and the narrated slide keep their length.
    expect([show.slides[0]!.lengthMs, show.slides.find((slide) => slide.layers[0]?.kind === 'clip')!.lengthMs]).toEqual(
      [11_000, 8000],
    );
  });
});

describe('sending and the shelf', () => {
  it('cancels a film', async () => {
    await hands.go('send', 'make-film');
    await press(page, 'Make the film');
    await page.waitForSelector('[data-part=film][data-state=making]');
    await press(page, 'Stop');
    await page.waitForSelector('[data-part=film][data-state=cancelled]');
  });
  it('takes a show off the shelf and puts it back', async () => {
    await page.goto(app.address);
    await page.waitForSelector('[data-part=shelf]');
    await press(page, 'What to do with “Lantern Regatta of Port Ellery”');
    await page.locator('aria/Take off the shelf[role="menuitem"]').click();
    await page.waitForFunction(() => document.querySelector('[data-part=shelf-show]') === null);
    expect((await ask(`${app.address}/api/v1/shows/${ID}`)).status).toBe(404);
    await press(page, 'Undo');
    await waitForText(page, 'main', /Lantern Regatta/);
    expect((await ask(`${app.address}/api/v1/shows/${ID}`)).status).toBe(200);
  });
  it('clears away for good what was taken off the shelf, once that is confirmed, and nothing else', async () => {
    await page.click('[data-part=new-show]');
    await page.waitForSelector('[data-part=gather]');
    const made = page.url().split('/').at(-2)!;
    await page.goto(app.address);
    await press(page, 'What to do with “New show”');
    await page.locator('aria/Take off the shelf[role="menuitem"]').click();
    await page.locator('button ::-p-text(taken off 1)').click();
    await page.locator('[data-part=clear-away] button').click();
    await waitForText(page, '[role=alertdialog]', /1 show, 0 films and 0 files go.*cannot be undone/s);
    await page.locator('[role=alertdialog] button ::-p-text(Clear away)').click();
    await page.waitForFunction(() => document.querySelector('[data-part=clear-away]') === null);
    const shelf = (await (await ask(`${app.address}/api/v1/shows`)).json()) as { shows: { id: string }[] };
    expect(shelf.shows.map((show) => show.id)).toEqual([ID]);
    expect((await ask(`${app.address}/api/v1/shows/${made}`)).status).toBe(404);
  });
  it('met no error on the way', () => expect(page.faults).toEqual([]));
});
