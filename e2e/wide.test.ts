import { afterAll, beforeAll, beforeEach, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import { keyTimes, type KeyedChannel } from '../src/core/keys/channel';
import { everyLayer, type GroupLayer, type Layer } from '../src/core/show/layer';
import type { Show, Slide } from '../src/core/show/show';
import {
  handsOn,
  openApp,
  openBrowser,
  openPage,
  press,
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

beforeAll(async () => {
  app = await openApp({ seed: true });
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

/** The show as the server has it, once the page has drawn that there is something to save and has saved it. */
async function stored(): Promise<Show> {
  await page.evaluate(
    () =>
      new Promise<void>((resolve) => {
        requestAnimationFrame(() =>
          requestAnimationFrame(() => requestIdleCallback(() => resolve(), { timeout: 2000 })),
        );
      }),
  );
  return hands.stored();
}
const slideOf = async (id: string): Promise<Slide> => (await stored()).slides.find((slide) => slide.id === id)!;
const names = (layers: readonly Layer[]) => layers.map((layer) => layer.name ?? layer.kind);
const command = (id: string) =>
  page.waitForFunction((wanted) => document.body.dataset.commands?.split(' ').includes(wanted), {}, id);

async function openWide(id: string): Promise<void> {
  await page.click(`[data-slide=${id}] [role=img]`);
  await command('open-wide');
  await hands.key('Enter');
  await page.waitForSelector(`[data-part=wide][data-slide=${id}]`);
  await page.waitForSelector('[data-part=stage-hands]');
  await command('fold');
}

async function fold(): Promise<void> {
  await hands.key('Escape');
  await page.waitForSelector('[data-part=running-order]');
  await command('open-wide');
}

async function layOn(name: string): Promise<void> {
  const before = (await page.$$('[data-part=layer]')).length;
  await page.click('[data-part=lay-on]');
  await page.locator(`aria/${name}[role="menuitem"]`).click();
  await page.waitForFunction((count) => document.querySelectorAll('[data-part=layer]').length > count, {}, before);
}

/** A drag on the stage, in shares of the frame. */
async function drag(from: readonly [number, number], to: readonly [number, number]): Promise<void> {
  const box = (await (await page.$('[data-part=stage-hands]'))!.boundingBox())!;
  const spot = ([x, y]: readonly [number, number]) => [box.x + x * box.width, box.y + y * box.height] as const;
  await page.mouse.move(...spot(from));
  await page.mouse.down();
  for (let step = 1; step <= 6; step += 1) {
    const share = step / 6;
    await page.mouse.move(...spot([from[0] + (to[0] - from[0]) * share, from[1] + (to[1] - from[1]) * share]));
  }
  await page.mouse.up();
}

/** Where a thing lies once it lies at the same place in two frames running: the stage makes room for the strip below it. */
async function whenStill(selector: string): Promise<{ x: number; y: number }> {
  await page.waitForSelector(selector);
  const where = await page.waitForFunction(
    (wanted) =>
      new Promise<{ x: number; y: number } | null>((resolve) => {
        const spot = () => {
          const { x, y } = document.querySelector(wanted)!.getBoundingClientRect();
          return { x, y };
        };
        const before = spot();
        requestAnimationFrame(() =>
          requestAnimationFrame(() => {
            const now = spot();
            resolve(now.x === before.x && now.y === before.y ? now : null);
          }),
        );
      }),
    {},
    selector,
  );
  return (await where.jsonValue())!;
}

/** The moment of the slide at a share of the keys’ height. */
async function goTo(share: number): Promise<number> {
  const body = (await (await page.$('[data-part=keys-body]'))!.boundingBox())!;
  const before = await page.$eval(
    '[data-part=stage-bar] [data-part=moment]',
    (moment) => (moment as HTMLElement).dataset.offset,
  );
  await page.mouse.click(body.x + body.width - 4, body.y + 10 + share * (body.height - 26));
  await page.waitForFunction(
    (was) => (document.querySelector('[data-part=stage-bar] [data-part=moment]') as HTMLElement).dataset.offset !== was,
    {},
    before,
  );
  return Number(
    await page.$eval('[data-part=stage-bar] [data-part=moment]', (moment) => (moment as HTMLElement).dataset.offset),
  );
}

describe('the bench opened wide', () => {
  it('opens by key and by a double-click, holds all of it at 1280 × 800, and folds back to where the person was', async () => {
    await openWide('regatta-4');
    const clipped = await page.evaluate(() =>
      ['keys', 'stage', 'layer-panel', 'stage-bar']
        .map((part) => document.querySelector(`[data-part=${part}]`)!.getBoundingClientRect())
        .filter((box) => box.left < 0 || box.right > innerWidth + 0.5 || box.top < 0 || box.bottom > innerHeight + 0.5)
        .map(({ left, top, right, bottom }) => [left, top, right, bottom]),
    );
    expect(clipped).toEqual([]);
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(1280);
    expect(await seriousIn(page)).toEqual([]);
    await fold();
    await page.waitForSelector('[data-slide=regatta-4][aria-selected=true]');
    const print = (await (await page.waitForSelector('[data-slide=regatta-4] [role=img]'))!.boundingBox())!;
    await page.mouse.click(print.x + 60, print.y + 50, { count: 2 });
    await page.waitForSelector('[data-part=wide][data-slide=regatta-4]');
    await command('fold');
    await page.click('[data-part=fold]');
    await page.waitForSelector('[data-part=running-order]');
  });

  it('keys a layer by one press and then by moving it at other moments, and undoes it all step by step', async () => {
    const before = await stored();
    await openWide('regatta-5');
    await layOn('star');
    await drag([0.5, 0.5], [0.25, 0.25]);
    const first = await goTo(0.2);
    await page.click('[data-part=key-here][data-column=place]');
    await page.waitForSelector('[data-part=key][data-column=place]');
    const second = await goTo(0.7);
    await drag([0.25, 0.25], [0.7, 0.62]);
    await page.waitForFunction(() => document.querySelectorAll('[data-part=key]').length === 2);
    const star = (await slideOf('regatta-5')).layers.at(-1)!;
    const x = star.channels!.x as { keys: { value: number; at: never }[] };
    const times = keyTimes(x.keys, 60_000);
    expect([times[0]! - first, x.keys.map(({ value }) => value)]).toEqual([
      expect.closeTo(0, -1),
      [expect.closeTo(0.25, 1), expect.closeTo(0.7, 1)],
    ]);
    expect(second).toBeGreaterThan(first + 500);
    // A key put between two changes nothing that is seen, and the way can be smooth.
    await goTo(0.45);
    await page.click('[data-part=key-here][data-column=place]');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=key]').length === 3);
    await page.locator('aria/smooth[role="radio"]').click();
    await page.waitForFunction(() => document.querySelectorAll('[data-part=path-place]').length === 3);
    expect(((await slideOf('regatta-5')).layers.at(-1)!.channels!.x as { smooth?: boolean }).smooth).toBe(true);
    // Standing still keeps the keys.
    await page.click('[data-part=park][data-column=place]');
    expect((await slideOf('regatta-5')).layers.at(-1)!.channels!.x).toMatchObject({
      still: expect.any(Number),
      keys: [{}, {}, {}],
    });
    await page.click('[data-part=park][data-column=place]');
    // By keyboard: a key is moved by frames and taken away.
    await page.focus('[data-part=key][data-column=place]');
    await hands.key('ArrowDown');
    await hands.key('Delete');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=key]').length === 2);
    for (let step = 0; step < 10; step += 1) await hands.key('Control', 'z');
    expect((await stored()).slides).toEqual(before.slides);
    await fold();
  });

  it('stacks, names, hides, groups and takes apart by keyboard', async () => {
    const before = await stored();
    await openWide('regatta-6');
    await layOn('ellipse');
    await layOn('rectangle');
    await page.click('[data-part=pile] [data-kind=shape]');
    await hands.key('n');
    await page.waitForSelector('[data-part=pile] input');
    await page.keyboard.type('label');
    await hands.key('Enter');
    expect(names((await slideOf('regatta-6')).layers)).toEqual(['picture', 'shape', 'label']);
    await page.focus('[data-part=pile] [aria-selected=true]');
    await hands.key('Alt', 'ArrowDown');
    expect(names((await slideOf('regatta-6')).layers)).toEqual(['picture', 'label', 'shape']);
    await hands.key('Shift', 'ArrowUp');
    await hands.key('g');
    await page.waitForSelector('[data-part=layer][data-kind=group]');
    const grouped = await slideOf('regatta-6');
    expect(names((grouped.layers[1] as GroupLayer).layers)).toEqual(['label', 'shape']);
    await page.focus('[data-part=layer][data-kind=group]');
    await hands.key('h');
    expect((await slideOf('regatta-6')).layers[1]!.hidden).toBe(true);
    await hands.key('h');
    await hands.key('Control', 'd');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=layer][data-kind=group]').length === 2);
    const ids = [...everyLayer((await slideOf('regatta-6')).layers)].map((layer) => layer.id);
    expect(new Set(ids).size).toBe(7);
    await hands.key('Delete');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=layer][data-kind=group]').length === 1);
    await page.click('[data-part=layer][data-kind=group]');
    await hands.key('Shift', 'g');
    expect(names((await slideOf('regatta-6')).layers)).toEqual(['picture', 'label', 'shape']);
    for (let step = 0; step < 12; step += 1) await hands.key('Control', 'z');
    expect((await stored()).slides).toEqual(before.slides);
    await fold();
  });

  it('ties a layer to the one that is clicked, refuses a ring by its names, and cuts named layers', async () => {
    await openWide('regatta-7');
    await layOn('ellipse');
    await drag([0.5, 0.5], [0.2, 0.3]);
    await layOn('rectangle');
    await drag([0.5, 0.5], [0.75, 0.7]);
    await page.click('[data-part=tie-to]');
    await page.waitForSelector('[data-part=asking]');
    const box = (await (await page.$('[data-part=stage-hands]'))!.boundingBox())!;
    await page.mouse.click(box.x + 0.2 * box.width, box.y + 0.3 * box.height);
    const tied = await slideOf('regatta-7');
    expect(tied.layers[2]!.tether).toEqual({ to: tied.layers[1]!.id, position: true, size: true, turn: true });
    await page.click(`[data-part=pile] [data-layer="${tied.layers[1]!.id}"]`);
    await page.click('[data-part=tie-to]');
    await page.click(`[data-part=pile] [data-layer="${tied.layers[2]!.id}"]`);
    await waitForText(page, '[data-sonner-toaster]', /“ellipse”, “rectangle”.*ring|“rectangle”, “ellipse”.*ring/);
    await hands.key('Escape');
    await page.waitForFunction(() => document.querySelector('[data-part=asking]') === null);
    await page.click('[data-part=cut-out]');
    await page.click('[data-part=choose-cut]');
    await page.click(`[data-part=pile] [data-layer="${tied.layers[0]!.id}"]`);
    await hands.key('Escape');
    expect((await slideOf('regatta-7')).layers[1]!.mask).toEqual({ by: 'transparency', cuts: [tied.layers[0]!.id] });
    await page.click('[data-part=see-mask]');
    await waitForText(page, '[data-part=stage]', /only the mask is seen/);
    await press(page, 'see all again');
    await fold();
  });

  it('ties a key, eases it, copies its values to another layer, and shows what another length does to it', async () => {
    const before = await stored();
    await openWide('regatta-4');
    await layOn('star');
    const starId = (await slideOf('regatta-4')).layers.at(-1)!.id;
    await goTo(0.1);
    await page.click('[data-part=key-here][data-column=place]');
    await page.waitForSelector('[data-part=key]');
    await goTo(0.6);
    await drag([0.5, 0.5], [0.2, 0.3]);
    await page.waitForFunction(() => document.querySelectorAll('[data-part=key]').length === 2);
    const keys = async (id = starId) =>
      (
        [...everyLayer((await slideOf('regatta-4')).layers)].find((layer) => layer.id === id)!.channels!
          .x as KeyedChannel
      ).keys;
    await page.click('[data-part=key]');
    await page.locator('aria/end[role="radio"]').click();
    expect((await keys())[0]!.at.tied).toBe('end');
    await page.locator('aria/How it goes on[role="combobox"]').click();
    await page.locator('aria/bounces[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await keys())[0]!.easing).toBe('bounce');
    const point = (await (await page.waitForSelector('[data-part=easing-point]'))!.boundingBox())!;
    await page.mouse.move(point.x + 6, point.y + 6);
    await page.mouse.down();
    await page.mouse.move(point.x + 26, point.y + 2, { steps: 4 });
    await page.mouse.up();
    expect((await keys())[0]!.easing).toEqual({ bezier: expect.any(Array) });
    await page.click('[data-part=copy-values]');
    await layOn('ellipse');
    await page.click('[data-part=paste-values]');
    const ellipse = (await slideOf('regatta-4')).layers.at(-1)!;
    expect(ellipse.channels).toMatchObject({ x: expect.closeTo(0.5, 6), y: expect.closeTo(0.5, 6) });
    await page.click(`[data-part=pile] [data-layer="${starId}"]`);
    const tied = await page.$eval('[data-part=key]', (key) => Number((key as HTMLElement).dataset.ms));
    await page.$eval('[data-part=length-handle]', (handle) => (handle as HTMLElement).focus());
    for (let step = 0; step < 10; step += 1) await hands.key('ArrowDown');
    await page.waitForFunction(
      (ms) => Number((document.querySelector('[data-part=key]') as HTMLElement).dataset.ms) === ms + 1000,
      {},
      tied,
    );
    // The pile by hand: the ellipse is drawn under the star.
    const row = async (id: string) => (await (await page.$(`[data-part=pile] [data-layer="${id}"]`))!.boundingBox())!;
    const [from, to] = [await row(ellipse.id), await row(starId)];
    await page.mouse.move(from.x + 120, from.y + 22);
    await page.mouse.down();
    await page.mouse.move(from.x + 120, from.y + 40, { steps: 4 });
    await page.mouse.move(to.x + 120, to.y + to.height - 6, { steps: 6 });
    await page.mouse.up();
    const order = (await slideOf('regatta-4')).layers.map((layer) => layer.id);
    expect(order.indexOf(ellipse.id)).toBe(order.indexOf(starId) - 1);
    let steps = 0;
    while (JSON.stringify((await stored()).slides) !== JSON.stringify(before.slides) && steps < 14) {
      await hands.key('Control', 'z');
      steps += 1;
    }
    expect((await stored()).slides).toEqual(before.slides);
    expect(steps).toBeGreaterThan(5);
    await fold();
  });

  it('types places in film pixels and in shares, and takes sizes by the handles', async () => {
    await openWide('regatta-9');
    await layOn('rectangle');
    await page.locator('aria/film pixels[role="radio"]').click();
    await hands.type('Place from the left, film pixels', '480');
    expect((await slideOf('regatta-9')).layers.at(-1)!.channels).toMatchObject({ x: 0.25 });
    await page.locator('aria/shares[role="radio"]').click();
    await hands.type('Place from the top', '0.4');
    await hands.type('Turn, degrees clockwise', '12');
    expect((await slideOf('regatta-9')).layers.at(-1)!.channels).toMatchObject({ x: 0.25, y: 0.4, turnDegrees: 12 });
    await hands.type('Turn, degrees clockwise', '0');
    await page.waitForFunction(
      () => (document.querySelector('[aria-label="Turn, degrees clockwise"]') as HTMLInputElement).value === '0.0',
    );
    const corner = (await (await page.$('[data-part=size-handle][data-handle="bottom right"]'))!.boundingBox())!;
    await page.mouse.move(corner.x + 9, corner.y + 9);
    await page.mouse.down();
    await page.mouse.move(corner.x + 60, corner.y + 40, { steps: 5 });
    await page.mouse.up();
    const sized = (await slideOf('regatta-9')).layers.at(-1)!.channels as { width: number; height: number };
    expect(sized.width).toBeGreaterThan(0.45);
    expect(sized.width / sized.height).toBeCloseTo(0.4 / 0.25, 3);
    await page.$eval('[data-part=stage-hands]', (stage) => (stage as SVGElement).focus());
    await hands.key('Shift', 'ArrowRight');
    expect((await slideOf('regatta-9')).layers.at(-1)!.channels!.x).toBeCloseTo(0.25 + 10 / 1920, 6);
    await fold();
  });
});

describe('ready-made builds', () => {
  beforeEach(() => hands.go('arrange', 'slide'));
  it('lay a loupe over a picture from the bench, whose places are then moved where it is seen', async () => {
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Layers[role="tab"]').click();
    await page.click('[data-part=open-loupe]');
    await page.waitForSelector('[data-part=build-preview][data-playing=true]');
    const picture = (await (await page.waitForSelector('[data-part=loupe-picture]'))!.boundingBox())!;
    await press(page, 'none of these');
    await waitForText(page, '[data-part=build-fault]', /Click on the picture/);
    for (const [x, y] of [
      [0.2, 0.3],
      [0.5, 0.5],
      [0.8, 0.4],
    ])
      await page.mouse.click(picture.x + x! * picture.width, picture.y + y! * picture.height);
    await page.waitForFunction(() => document.querySelectorAll('[data-part=place]').length === 3);
    expect(await seriousIn(page)).toEqual([]);
    await page.click('[data-part=build-make]:not([disabled])');
    await page.waitForSelector('[data-part=loupe-strip]');
    expect((await page.$$('[data-part=loupe-place]')).length).toBe(3);
    const made = await slideOf('regatta-2');
    expect(made.layers.map((layer) => layer.name ?? layer.kind)).toEqual(['picture', 'Loupe']);
    const rim = (slide: Slide) => {
      const x = (slide.layers[1] as GroupLayer).layers[0]!.channels!.x as KeyedChannel;
      return x.keys.map(({ value }) => value);
    };
    await page.click('[data-part=loupe-place]');
    const before = rim(made);
    const circle = await whenStill('[data-part=path-place]');
    await page.mouse.move(circle.x + 10, circle.y + 10);
    await page.mouse.down();
    await page.mouse.move(circle.x + 70, circle.y + 10, { steps: 5 });
    await page.mouse.up();
    const after = rim(await slideOf('regatta-2'));
    expect(after[0]).toBeGreaterThan(before[0]! + 0.05);
    expect(after[0]).toBe(after[1]);
    expect(after.slice(2)).toEqual(before.slice(2));
    expect((await page.$$('[data-part=loupe-place]')).length).toBe(3);
    await fold();
  });
  it('make lanterns of chosen slides on a slide of their own, and undo takes it away', async () => {
    const before = await stored();
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.keyboard.down('Shift');
    await page.click('[data-slide=regatta-4] [role=img]');
    await page.keyboard.up('Shift');
    await command('lanterns');
    await hands.key('q');
    await page.waitForSelector('[data-part=build-preview]');
    await page.locator('aria/a ring[role="radio"]').click();
    await page.click('[data-part=build-make]:not([disabled])');
    await page.waitForSelector('[data-part=wide]');
    await page.waitForSelector('[data-part=space-map]');
    const after = await stored();
    expect(after.slides.length).toBe(before.slides.length + 1);
    const boxes = [...everyLayer(after.slides[4]!.layers)].filter((layer) => layer.kind === 'box');
    expect(boxes.length).toBeGreaterThanOrEqual(4);
    await fold();
    // In the order it is seen as it is: neither blank nor one colour.
    const print = await page.waitForSelector(`[data-slide="${after.slides[4]!.id}"] [data-part=drawn-print]`);
    const colours = await print!.evaluate((canvas) => {
      const { width, height } = canvas as HTMLCanvasElement;
      const { data } = (canvas as HTMLCanvasElement).getContext('2d')!.getImageData(0, 0, width, height);
      const seen = new Set<number>();
      for (let at = 0; at < data.length; at += 4 * 37)
        seen.add((data[at]! >> 5) * 64 + (data[at + 1]! >> 5) * 8 + (data[at + 2]! >> 5));
      return seen.size;
    });
    expect(colours).toBeGreaterThan(8);
    await hands.key('Control', 'z');
    expect((await stored()).slides).toEqual(before.slides);
  });
  it('let a picture turn over and show the next one', async () => {
    await page.click('[data-slide=regatta-5] [role=img]');
    await command('turnover');
    await hands.key('u');
    await page.waitForSelector('[data-part=build-preview][data-playing=true]');
    await page.click('[data-part=build-make]:not([disabled])');
    await page.waitForSelector('[data-part=wide]');
    const { layers } = await slideOf('regatta-5');
    expect(layers[0]).toMatchObject({
      back: { assetId: expect.any(String) },
      channels: { tiltYDegrees: { keys: [{ value: 0 }, { value: 180 }] } },
    });
    await fold();
  });
});
