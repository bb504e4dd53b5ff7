import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import sharp from 'sharp';
import { layerId, slideId } from '../src/core/show/ids';
import type { GroupLayer, Layer, WordsLayer } from '../src/core/show/layer';
import { blankSlide } from '../src/core/show/new-slide';
import type { Slide } from '../src/core/show/show';
import {
  handsOn,
  openApp,
  openBrowser,
  openPage,
  sendEdits,
  seriousIn,
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
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
});

const choose = async (id: string) => {
  await page.click(`[data-slide=${id}] [role=img]`);
  await page.waitForSelector(`[data-slide=${id}][aria-selected=true]`);
};
const boxOf = async (selector: string) => (await (await page.waitForSelector(selector))!.boundingBox())!;

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
