import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import type { ClipLayer } from '../src/core/show/layer';
import {
  ask,
  handsOn,
  openApp,
  openBrowser,
  openPage,
  press,
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
  app = await openApp({ seed: true, only: [1, 2, 20, 21] });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, ID);
  await hands.go('arrange', 'slide');
});
afterAll(async () => {
  await browser.close();
  await app.close();
});

describe('a clip on its bench', () => {
  it('trims a clip by its handles, by numbers and by speed, each as one step, and turns its sound off', async () => {
    const clipAt = async () => {
      const { slides } = await hands.stored();
      const slide = slides.find(({ layers }) => layers.some((layer) => layer.kind === 'clip'))!;
      const layer = slide.layers.find((one) => one.kind === 'clip')!;
      return { slide, layer: layer as typeof layer & { trimStartMs: number; speed?: number; soundGainDb: number } };
    };
    const before = await clipAt();
    await page.click('[data-part=running-order]');
    await hands.key('End');
    while (!(await page.$(`[data-slide="${before.slide.id}"]`))) await hands.key('ArrowUp');
    await page.click(`[data-slide="${before.slide.id}"] [role=img]`);
    await page.locator('aria/Clip[role="tab"]').click();
    await page.waitForSelector('[data-part=clip-strip] img');
    await hands.type('First frame, seconds into the clip', '1');
    const later = await clipAt();
    expect([later.layer.trimStartMs, later.slide.lengthMs]).toEqual([1000, before.slide.lengthMs - 1000]);
    await page.focus('[data-part=clip-to]');
    await hands.key('ArrowLeft');
    await hands.key('ArrowLeft');
    expect((await clipAt()).slide.lengthMs).toBeCloseTo(later.slide.lengthMs - 2000 / 30, -1);
    const handle = (await (await page.$('[data-part=clip-from]'))!.boundingBox())!;
    await page.mouse.move(handle.x + handle.width / 2, handle.y + 20);
    await page.mouse.down();
    await page.mouse.move(handle.x + handle.width / 2 + 50, handle.y + 20, { steps: 5 });
    await page.mouse.up();
    const dragged = await clipAt();
    expect(dragged.layer.trimStartMs).toBeGreaterThan(1300);
    await hands.key('Control', 'z');
    expect((await clipAt()).layer.trimStartMs).toBe(1000);
    const shown = (await clipAt()).slide.lengthMs;
    await page.locator('aria/Speed of the clip[role="combobox"]').click();
    await page.locator('aria/0.5 ×[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect(await clipAt()).toMatchObject({ layer: { speed: 0.5 }, slide: { lengthMs: expect.closeTo(2 * shown, -1) } });
    await page.click('[data-part=clip-silent]');
    expect((await clipAt()).layer.soundGainDb).toBe(-60);
    const count = (await hands.stored()).slides.length;
    await page.focus('[data-part=running-order]');
    await hands.key('s');
    await page.waitForFunction((n) => document.body.textContent!.includes(`${n} slides`), {}, count + 1);
    const clips = (await hands.stored()).slides.filter(({ layers }) => layers.some((layer) => layer.kind === 'clip'));
    expect(clips).toHaveLength(2);
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides).toHaveLength(count);
  });
  it('turns a clip round, has it come again, lets a frame of it stand, frames and crops it, and takes a still', async () => {
    const clipAt = async () => {
      const { slides } = await hands.stored();
      const slide = slides.find(({ layers }) => layers.some((layer) => layer.kind === 'clip'))!;
      return { slide, layer: slide.layers.find((one) => one.kind === 'clip') as ClipLayer };
    };
    const chosen = async (label: string, option: string) => {
      await page.locator(`aria/${label}[role="combobox"]`).click();
      await page.locator(`aria/${option}[role="option"]`).click();
      await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    };
    const before = await clipAt();
    await page.click(`[data-slide="${before.slide.id}"] [role=img]`);
    await page.waitForSelector('[data-part=clip-strip] img');
    await page.click('[data-part=clip-backwards]');
    const round = await clipAt();
    expect(round.layer).toMatchObject({ backwards: true, trimStartMs: before.layer.trimStartMs });
    expect(round.slide.lengthMs).toBe(before.slide.lengthMs);
    await page.click('[data-part=clip-backwards]');
    expect((await clipAt()).layer.backwards).toBeUndefined();
    await chosen('When the clip is over', 'it comes again');
    const again = await clipAt();
    expect(again.layer.after).toBe('again');
    expect(again.slide.lengthMs).toBeCloseTo(2 * before.slide.lengthMs, -2);
    await chosen('When the clip is over', 'the slide is over too');
    const plain = await clipAt();
    expect([plain.layer.after, plain.layer.trimEndMs]).toEqual([undefined, undefined]);
    expect(plain.slide.lengthMs).toBeCloseTo(before.slide.lengthMs, -2);
    await page.click('[data-part=clip-freeze]');
    const stands = await clipAt();
    expect(stands.layer.freezes).toEqual([{ atMs: expect.any(Number), lengthMs: 2000 }]);
    expect(stands.slide.lengthMs).toBeCloseTo(plain.slide.lengthMs + 2000, -1);
    await hands.key('Control', 'z');
    await chosen('Framing of the clip', 'slowly closer');
    const framed = (await clipAt()).layer.move!;
    expect(framed.last.width).toBeLessThan(framed.first.width);
    const names = async () =>
      (
        (await (await ask(`${app.address}/api/v1/shows/${ID}/sheet`)).json()) as { entries: { fileName: string }[] }
      ).entries.map(({ fileName }) => fileName);
    await page.click('[data-part=take-still]');
    await waitForText(page, '[data-sonner-toaster]', /lies on the contact sheet/);
    expect((await names()).some((name) => /PE_0489-boats, \d\.\d\d s\.jpg/.test(name))).toBe(true);
    await page.locator('aria/Crop[role="tab"]').click();
    await page.waitForSelector('[data-part=crop-stage] img');
    await hands.type('Cut off the left, percent', '30');
    const { layer } = await clipAt();
    expect([layer.crop!.x, layer.crop!.width]).toEqual([expect.closeTo(0.65), expect.closeTo(0.7)]);
    // What was framed is held within what the crop leaves.
    expect([framed.first.height, layer.move!.first.height]).toEqual([1, expect.closeTo(0.7)]);
    await page.locator('aria/Clip[role="tab"]').click();
    expect(page.faults).toEqual([]);
  });
  it('has a frame of a clip stand for it wherever its print is shown, and says by a ring what it is about', async () => {
    const clip = (await hands.stored()).slides
      .flatMap(({ layers }) => layers)
      .find((one) => one.kind === 'clip') as ClipLayer;
    const slide = (await hands.stored()).slides.find(({ layers }) => layers.some(({ id }) => id === clip.id))!;
    await page.click(`[data-slide="${slide.id}"] [role=img]`);
    await page.waitForSelector('[data-part=clip-poster]');
    await page.click('[data-part=clip-poster]');
    await waitForText(page, '[data-part=clip-poster-said]', /Its print is the frame at\s+\d+\.\d\d\s+s/);
    const posters = async () => (await hands.stored()).posters;
    const atMs = (await posters())![clip.assetId]!;
    expect(atMs).toBeGreaterThanOrEqual(0);
    // The print in the order is that frame, and it can be had.
    const shown = await page.$eval(`[data-slide="${slide.id}"] img`, (img) => (img as HTMLImageElement).src);
    const frame = Math.floor(atMs / (1000 / 30) + 0.01);
    expect(shown).toContain(`/clips/${clip.assetId}/${Math.floor(frame / 30)}?frame=${frame % 30}`);
    expect((await ask(shown)).headers.get('content-type')).toBe('image/jpeg');
    await press(page, 'the first again');
    expect(await posters()).toBeUndefined();
    await press(page, 'Show what the clip is about');
    await page.click('[data-part=clip-focus] [data-part=add-ring]');
    await page.waitForSelector('[data-part=clip-focus] [data-ring="0"]');
    const rings = async () => (await hands.stored()).focus?.[clip.assetId];
    const [ring] = (await rings())!;
    await page.$eval('[data-part=clip-focus] [data-ring="0"]', (ring) => (ring as SVGElement).focus());
    await hands.key('ArrowLeft');
    expect((await rings())![0]!.x).toBeCloseTo(ring!.x - 0.01);
    await page.$eval('[data-part=clip-focus] [data-ring="0"]', (ring) => (ring as SVGElement).focus());
    await hands.key('Delete');
    expect(await rings()).toEqual([]);
    await page.click('[data-part=clip-focus] [data-part=focus-found]');
    expect(await rings()).toBeUndefined();
    expect(page.faults).toEqual([]);
  });
  it('plays on without sound where sound cannot be opened, and tries again with the next playing', async () => {
    const other = await openPage(browser);
    const { go } = handsOn(app, other, ID);
    let isAway = true;
    let asked = 0;
    await other.setRequestInterception(true);
    other.on('request', (request) => {
      const isLimiter = request.url().includes('/limiter');
      if (isLimiter) asked += 1;
      void (isLimiter && isAway ? request.abort() : request.continue());
    });
    await go('arrange', 'slide');
    const plays = async () => {
      await press(other, 'Play');
      await other.waitForFunction(
        () => Number(document.querySelector<HTMLElement>('[data-part=viewer]')!.dataset.moment) > 400,
      );
      await press(other, 'Pause');
    };
    await plays();
    // Once, or once more where the show was told anew meanwhile.
    const inVain = asked;
    expect(inVain).toBeGreaterThan(0);
    expect(other.faults.filter((fault) => fault.includes('worklet'))).toEqual([]);
    isAway = false;
    await other.click('[data-slide=regatta-1] [role=img]');
    await plays();
    expect(asked).toBeGreaterThan(inVain);
    await other.close();
  });
  it('met no error on the way', () => expect(page.faults).toEqual([]));
});
