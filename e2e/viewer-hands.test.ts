import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import sharp from 'sharp';
import { layerId, slideId } from '../src/core/show/ids';
import type { GroupLayer, Layer, PictureLayer, WordsLayer } from '../src/core/show/layer';
import { blankSlide } from '../src/core/show/new-slide';
import { wordsOf, type Slide } from '../src/core/show/show';
import {
  handsOn,
  openApp,
  openBrowser,
  openPage,
  press,
  sendEdits,
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
/** A slide of the demo show by its number, another one by its id. */
const choose = async (slide: number | string) => {
  const id = typeof slide === 'number' ? `regatta-${slide}` : slide;
  await page.click(`[data-slide=${id}] [role=img]`);
  await page.waitForSelector(`[data-slide=${id}][aria-selected=true]`);
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

describe('words that do not stand upright by themselves', () => {
  const words = (id: string, title: string, more: Partial<WordsLayer>): WordsLayer => ({
    ...{ kind: 'words', id: layerId(id), title, subtitle: '', place: 'centre' },
    // Plain letters that are there at once, so that what is drawn can be told from what lies behind.
    style: { shadow: 'none', colour: '#ffffff', size: 0.12 },
    come: { entrance: { way: 'none', by: 'all', atMs: 0, lengthMs: 0 }, exit: null },
    ...more,
  });
  const blank = (id: string, layers: readonly Layer[]): Slide => ({
    ...blankSlide(5000, '#000000', () => id),
    transition: { kind: 'cut' },
    layers,
  });
  const group: GroupLayer = {
    ...{ kind: 'group', id: layerId('held'), channels: { x: 0.4, width: 0.7, height: 0.7, turnDegrees: -8 } },
    layers: [words('in-group', 'Held by a group', { channels: { y: 0.6, tiltYDegrees: 25 } })],
  };
  const ways: readonly Slide[] = [
    blank('turned-words', [
      words('turned', 'Turned about', { channels: { x: 0.45, turnDegrees: 24, width: 0.8, height: 0.8 } }),
    ]),
    blank('group-words', [group]),
    blank('tied-words', [
      words('tied', 'Tied to a frame', {
        channels: { y: 0.35 },
        tether: { to: layerId('leader'), position: true, turn: true },
      }),
      {
        ...{ kind: 'solid', id: layerId('leader'), colour: '#000000' },
        channels: {
          ...{ width: 0.2, height: 0.2 },
          turnDegrees: {
            keys: [
              { at: { tied: 'start', ms: 0 }, value: 0 },
              { at: { tied: 'start', ms: 1000 }, value: 30 },
            ],
          },
        },
      } as Layer,
    ]),
    blank('rolling-words', [words('rolling', 'Rolling\nby', { travel: { kind: 'roll', fromMs: 0, lengthMs: null } })]),
  ];

  /** Where bright letters are on the screen, within the viewer. */
  async function lettersSeen(): Promise<{ left: number; right: number; top: number; bottom: number }> {
    const frame = await boxOf('[data-part=words-hands]');
    const png = await page.screenshot({ clip: frame });
    const { data, info } = await sharp(png).greyscale().raw().toBuffer({ resolveWithObject: true });
    const seen = { left: Infinity, right: -Infinity, top: Infinity, bottom: -Infinity };
    data.forEach((value, at) => {
      if (value < 200) return;
      const [x, y] = [frame.x + (at % info.width), frame.y + Math.floor(at / info.width)];
      seen.left = Math.min(seen.left, x);
      seen.right = Math.max(seen.right, x);
      seen.top = Math.min(seen.top, y);
      seen.bottom = Math.max(seen.bottom, y);
    });
    return seen;
  }

  it('have hands that lie on the letters that are drawn', async () => {
    await sendEdits(app.address, ID, [{ kind: 'add-slides', runs: [{ afterId: slideId('regatta-5'), slides: ways }] }]);
    await hands.go('arrange', 'slide');
    for (const { id, layers } of ways) {
      await choose(id);
      const [layer] = layers.flatMap((one) => (one.kind === 'group' ? one.layers : one));
      await page.waitForSelector(`[data-layer=${layer!.id}]`);
      // The mouse away from it, so that nothing but letters is bright.
      await page.mouse.move(5, 5);
      await page.waitForFunction(
        () => document.querySelector('[data-part=viewer]')!.getAttribute('data-playing') !== 'true',
      );
      const hand = await boxOf(`[data-layer=${layer!.id}]`);
      const letters = await lettersSeen();
      // Letters fill a line's height to about two thirds, and its width but for a hair.
      expect({ id, across: Math.abs((letters.left + letters.right) / 2 - (hand.x + hand.width / 2)) < 4 }).toEqual({
        id,
        across: true,
      });
      expect(letters.top).toBeGreaterThan(hand.y - 3);
      expect(letters.top - hand.y).toBeLessThan(0.2 * hand.height);
      const foot = hand.y + hand.height;
      expect(letters.bottom).toBeLessThan(foot + 3);
      // What rolls in is not all there yet.
      if (id !== 'rolling-words') expect(foot - letters.bottom).toBeLessThan(0.25 * hand.height);
      expect(letters.left).toBeGreaterThan(hand.x - 3);
      expect(letters.right).toBeLessThan(hand.x + hand.width + 3);
      expect(letters.right - letters.left).toBeGreaterThan(0.8 * hand.width);
    }
  });
  it('are typed where they stand and moved as the hand moves', async () => {
    await choose('group-words');
    const before = await boxOf('[data-layer=in-group]');
    const middle = { x: before.x + before.width / 2, y: before.y + before.height / 2 };
    await page.mouse.click(middle.x, middle.y, { count: 2 });
    await page.waitForSelector('[data-part=typed-title]');
    await page.keyboard.type('Typed in the group');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('[data-part=words-typed]'));
    const now = async () => {
      const slide = (await hands.stored()).slides.find(({ id }) => id === 'group-words')!;
      return (slide.layers[0] as GroupLayer).layers[0] as WordsLayer;
    };
    expect((await now()).title).toBe('Typed in the group');
    const from = await boxOf('[data-layer=in-group]');
    const at = { x: from.x + from.width / 2, y: from.y + from.height / 2 };
    await page.mouse.move(at.x, at.y);
    await page.mouse.down();
    await page.keyboard.down('Alt');
    await page.mouse.move(at.x + 50, at.y - 30, { steps: 5 });
    await page.keyboard.up('Alt');
    await page.mouse.up();
    const to = await boxOf('[data-layer=in-group]');
    expect(Math.abs(to.x + to.width / 2 - at.x - 50)).toBeLessThan(3);
    expect(Math.abs(to.y + to.height / 2 - at.y + 30)).toBeLessThan(3);
    const { channels, style } = await now();
    expect(channels).toMatchObject({ tiltYDegrees: 25 });
    await page.focus('[data-layer=in-group]');
    await page.keyboard.press('+');
    expect((await now()).style!.size).toBeGreaterThan(style!.size!);
    expect(await seriousIn(page)).toEqual([]);
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
