import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser, Page } from 'puppeteer-core';
import type { Show } from '../src/core/show/show';
import { chord, openApp, openBrowser, openPage, press, textOf, waitForText, type App } from './app';

let app: App;
let browser: Browser;
let page: Page & { faults: string[] };
const ID = 'lantern-regatta';

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
});
afterAll(async () => {
  await browser.close();
  await app.close();
});

const go = async (station: string, part: string) => {
  await page.goto(`${app.address}/shows/${ID}/${station}`);
  await page.waitForSelector(`[data-part=${part}]`);
};
const stored = async (): Promise<Show> => {
  await page.waitForSelector('[data-part=saving][data-state=saved]');
  return ((await (await fetch(`${app.address}/api/shows/${ID}`)).json()) as { show: Show }).show;
};
const key = (...names: string[]) => chord(page, ...names);
const type = async (field: string, text: string) => {
  await page.locator(`aria/${field}`).click();
  await page.keyboard.type(text);
  await page.keyboard.press('Enter');
};

describe('arranging by keyboard alone', () => {
  it('walks, stretches, shortens, moves and undoes', async () => {
    await go('arrange', 'slide');
    const before = await stored();
    await page.focus('[data-part=running-order]');
    await key('ArrowDown');
    await key('ArrowDown');
    await key('Shift', 'ArrowDown');
    expect(await page.$$eval('[data-part=slide][aria-selected=true]', (rows) => rows.map((row) => row.getAttribute('data-slide')))).toEqual(['regatta-2', 'regatta-3']);
    await page.keyboard.type('++');
    const longer = await stored();
    expect([1, 2].map((at) => longer.slides[at]!.lengthMs - before.slides[at]!.lengthMs)).toEqual([1000, 1000]);
    await key('Alt', 'Home');
    expect((await stored()).slides.slice(0, 3).map((slide) => slide.id)).toEqual(['regatta-2', 'regatta-3', 'regatta-1']);
    await key('Control', 'z');
    await key('Control', 'z');
    expect(await stored()).toEqual(before);
  });
  it('shows every key under ?', async () => {
    await page.keyboard.type('?');
    await page.waitForSelector('[role=dialog]');
    expect(await textOf(page, '[role=dialog]')).toMatch(/Alt ↑[\s\S]*Move the slides up/);
    await key('Escape');
    await page.waitForFunction(() => document.querySelector('[role=dialog]') === null);
  });
  it('keeps the row in place when the scale changes, and draws rows as high as they are long', async () => {
    const heights = () => page.$$eval('[data-part=slide]', (rows) => rows.slice(0, 2).map((row) => (row as HTMLElement).offsetHeight));
    expect(await heights()).toEqual([132, 132]);
    await press(page, 'true');
    await page.waitForFunction(() => (document.querySelector('[data-slide=regatta-1]') as HTMLElement).offsetHeight === 264);
    await press(page, 'even');
  });
});

describe('a slide dragged past what can be seen', () => {
  it('scrolls the order under the hand and lands far down', async () => {
    const before = (await stored()).slides.map((slide) => slide.id);
    await page.$eval('[data-part=running-order]', (list) => { list.scrollTop = 0; });
    await key('Escape');
    const from = (await (await page.waitForSelector('[data-slide=regatta-1] [role=img]'))!.boundingBox())!;
    const list = (await (await page.$('[data-part=running-order]'))!.boundingBox())!;
    await page.mouse.move(from.x + 40, from.y + 40);
    await page.mouse.down();
    await page.mouse.move(from.x + 44, from.y + 60, { steps: 3 });
    await page.mouse.move(from.x + 44, list.y + list.height - 6, { steps: 5 });
    await page.waitForFunction(() => document.querySelector('[data-part=running-order]')!.scrollTop > 1200);
    await page.mouse.up();
    await new Promise((resolve) => { setTimeout(resolve, 150); });
    const after = (await stored()).slides.map((slide) => slide.id);
    expect(after.indexOf(before[0]!)).toBeGreaterThan(8);
    expect(after.filter((id) => id !== before[0])).toEqual(before.slice(1));
    await key('Control', 'z');
    expect((await stored()).slides.map((slide) => slide.id)).toEqual(before);
    await page.$eval('[data-part=running-order]', (order) => { order.scrollTop = 0; });
  });
});

describe('the seam and the bench', () => {
  it('makes a transition a cut, for one and for all', async () => {
    await press(page, 'Transition into this slide: dissolve 1.0');
    await page.locator('aria/Transition[role="combobox"]').click();
    await page.locator('aria/cut[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await stored()).slides.filter((slide) => slide.transition.kind === 'cut')).toHaveLength(1);
    await press(page, 'Same for all');
    expect((await stored()).slides.every((slide) => slide.transition.kind === 'cut')).toBe(true);
    await key('Escape');
    await key('Control', 'z');
    await key('Control', 'z');
    expect((await stored()).slides.every((slide) => slide.transition.kind === 'dissolve')).toBe(true);
  });
  it('chooses another transition with a direction and a softness of its own, and sees it in the viewer', async () => {
    await press(page, 'Transition into this slide: dissolve 1.0');
    await page.locator('aria/Transition[role="combobox"]').click();
    await page.locator('aria/wipe[role="option"]').click();
    await page.locator('aria/Direction[role="combobox"]').click();
    await page.locator('aria/up left[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await stored()).slides.map((slide) => slide.transition)).toContainEqual({ kind: 'wipe', lengthMs: 1000, direction: 'up-left' });
    await page.focus('aria/Softness[role="slider"]');
    await key('End');
    expect((await stored()).slides.map((slide) => slide.transition)).toContainEqual({ kind: 'wipe', lengthMs: 1000, direction: 'up-left', softness: 1 });
    await key('Escape');
    await key('Control', 'z');
    await key('Control', 'z');
    await key('Control', 'z');
    expect((await stored()).slides.every((slide) => slide.transition.kind === 'dissolve')).toBe(true);
  });
  it('lights all chosen pictures, keeps what each had, and puts them back', async () => {
    const lights = async () => (await stored()).slides.slice(1, 3).map((slide) => (slide.layers[0]?.kind === 'picture' ? slide.layers[0].light ?? null : 'none'));
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Light[role="tab"]').click();
    await page.focus('aria/Warmth[role="slider"]');
    await key('End');
    expect(await lights()).toEqual([{ temperature: 1 }, null]);
    await page.keyboard.down('Shift');
    await page.click('[data-slide=regatta-3] [role=img]');
    await page.keyboard.up('Shift');
    await press(page, 'levels by themselves');
    expect(await lights()).toEqual([{ temperature: 1, levels: 'automatic' }, { levels: 'automatic' }]);
    await press(page, 'as it was');
    expect(await lights()).toEqual([null, null]);
    await key('Control', 'z');
    expect(await lights()).toEqual([{ temperature: 1, levels: 'automatic' }, { levels: 'automatic' }]);
    await key('Control', 'z');
    await key('Control', 'z');
    expect(await lights()).toEqual([null, null]);
  });
  it('gives a picture an edge and words a way to come in', async () => {
    await page.click('[data-slide=regatta-3] [role=img]');
    await page.locator('aria/Edge[role="tab"]').click();
    await page.locator('aria/Shape[role="combobox"]').click();
    await page.locator('aria/rounded[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    await page.focus('aria/Shadow[role="slider"]');
    await key('End');
    expect((await stored()).slides[2]!.layers[0]).toMatchObject({ edge: { shape: { kind: 'rounded', radius: 0.08 }, shadow: { opacity: 1, colour: '#000000' } } });
    await page.locator('aria/Shadow over time[role="combobox"]').click();
    await page.locator('aria/grows over the slide[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await stored()).slides[2]!.layers[0]).toMatchObject({ edge: { shadow: { opacity: { keys: [{ value: 0 }, { value: 1 }] } } } });
    await page.locator('aria/Shape[role="combobox"]').click();
    await page.locator('aria/drawn by hand[role="option"]').click();
    const paper = (await (await page.waitForSelector('[data-part=hand-drawn-edge]'))!.boundingBox())!;
    const around = (share: number) => [paper.x + paper.width * (0.5 + 0.4 * Math.cos(2 * Math.PI * share)), paper.y + paper.height * (0.5 + 0.4 * Math.sin(2 * Math.PI * share))] as const;
    await page.mouse.move(...around(0));
    await page.mouse.down();
    for (let step = 1; step <= 24; step += 1) await page.mouse.move(...around(step / 25));
    await page.mouse.up();
    expect((await stored()).slides[2]!.layers[0]).toMatchObject({ edge: { shape: { kind: 'free', path: expect.stringMatching(/^M.*Q.*Z$/) } } });
    await press(page, 'as it was');
    await page.click('[data-slide=regatta-1] [role=img]');
    await page.locator('aria/Words[role="tab"]').click();
    await page.locator('aria/Entrance[role="combobox"]').click();
    await page.locator('aria/are typed[role="option"]').click();
    await page.locator('aria/Font[role="combobox"]').click();
    await page.locator('aria/Fraunces[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await stored()).slides[0]!.layers[1]).toMatchObject({ title: 'Lantern Regatta', style: { font: 'fraunces' }, come: { entrance: { way: 'type' }, exit: null } });
    // Typing in the order changes what they say and leaves how they look.
    await page.focus('[data-part=running-order]');
    await key('t');
    await page.waitForSelector('[data-part=title]');
    await page.keyboard.type('Boats');
    await key('Escape');
    expect((await stored()).slides[0]!.layers[1]).toMatchObject({ title: 'Boats', style: { font: 'fraunces' }, come: { entrance: { way: 'type' } } });
    for (let step = 0; step < 3; step += 1) await key('Control', 'z');
    expect((await stored()).slides[0]!.layers[1]).not.toHaveProperty('style');
    expect((await stored()).slides[0]!.layers[1]).toMatchObject({ title: 'Lantern Regatta' });
  });
  it('lets words roll, go, and say how fast they are to be read; a picture lies behind, and one of its own is a pattern', async () => {
    const words = async () => (await stored()).slides[0]!.layers[1];
    await page.click('[data-slide=regatta-1] [role=img]');
    await page.locator('aria/Words[role="tab"]').click();
    await page.focus('[role=tabpanel] textarea');
    await key('Control', 'a');
    await page.keyboard.sendCharacter(Array.from({ length: 60 }, (_, index) => `Boat ${index}`).join('\n'));
    await page.locator('aria/How the words go over the frame[role="combobox"]').click();
    await page.locator('aria/roll upwards[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect(await words()).toMatchObject({ travel: { kind: 'roll', fromMs: 0, lengthMs: null } });
    await waitForText(page, '[data-part=words-travel]', /676 words a minute: too fast to be read/);
    await press(page, 'Let the slide last 49.6 s');
    await waitForText(page, '[data-part=words-travel]', /150 words a minute: easy to read/);
    await page.locator('aria/Exit[role="combobox"]').click();
    await page.locator('aria/go into a blur[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect(await words()).toMatchObject({ come: { exit: { way: 'blur' } } });
    for (let step = 0; step < 4; step += 1) await key('Control', 'z');
    expect((await stored()).slides[0]).toMatchObject({ lengthMs: 11_000, layers: [{}, { title: 'Lantern Regatta' }] });

    await page.click('[data-slide=regatta-3] [role=img]');
    await page.locator('aria/Time[role="tab"]').click();
    await page.locator('aria/a picture[role="radio"]').click();
    await page.locator('[data-part=backing-with]').click();
    expect((await stored()).slides[2]!.backing).toMatchObject({ kind: 'picture', assetId: expect.stringMatching(/^[0-9a-f]{64}$/) });
    await key('Control', 'z');
    expect((await stored()).slides[2]!.backing).toEqual({ kind: 'automatic' });
    await page.locator('[data-slide=regatta-3] [aria-label^="Transition into"]').click();
    await page.locator('aria/Transition[role="combobox"]').click();
    await page.locator('aria/pattern[role="option"]').click();
    await page.locator('aria/Pattern[role="combobox"]').click();
    await page.locator('aria/a picture …[role="option"]').click();
    await page.locator('[data-part=pattern-with]').click();
    expect((await stored()).slides[2]!.transition).toMatchObject({ kind: 'pattern', pattern: { assetId: expect.stringMatching(/^[0-9a-f]{64}$/) } });
    await page.waitForFunction(() => document.querySelector('[role=dialog]') === null || document.querySelector('[data-part=transition]') !== null);
    await key('Escape');
    await key('Control', 'z');
    await key('Control', 'z');
    expect((await stored()).slides[2]!.transition).toEqual({ kind: 'dissolve', lengthMs: 1000 });
  });
  it('sets a move by numbers, swaps it, holds it still, and gives it back to itself', async () => {
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Rostrum[role="tab"]').click();
    const move = async () => { const [layer] = (await stored()).slides[1]!.layers; return layer?.kind === 'picture' ? layer.move : null; };
    await type('last framing, width, percent', '50');
    expect(await move()).toMatchObject({ kind: 'set', last: { width: 0.5, height: expect.closeTo(0.4219, 3) } });
    await waitForText(page, '[data-slide=regatta-2]', /soft: 2\.0 ×/);
    await press(page, 'swap');
    expect(await move()).toMatchObject({ kind: 'set', first: { width: 0.5 } });
    await press(page, 'still');
    expect(await move()).toEqual({ kind: 'still' });
    await press(page, 'by itself');
    expect(await move()).toEqual({ kind: 'automatic' });
  });
  it('drags a framing on the picture, and puts the picture to a side of the frame', async () => {
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Rostrum[role="tab"]').click();
    const move = async () => { const [layer] = (await stored()).slides[1]!.layers; return layer?.kind === 'picture' && layer.move.kind === 'set' ? layer.move : null; };
    await type('last framing, width, percent', '60');
    const before = (await move())!;
    const frame = (await (await page.waitForSelector('[data-framing=last]'))!.boundingBox())!;
    await page.mouse.move(frame.x + frame.width / 2, frame.y + frame.height / 2);
    await page.mouse.down();
    await page.mouse.move(frame.x + frame.width / 2 - 20, frame.y + frame.height / 2 - 12, { steps: 4 });
    await page.mouse.up();
    const after = (await move())!;
    expect(after.first).toEqual(before.first);
    expect([after.last.width, after.last.x < before.last.x - 0.05, after.last.y < before.last.y - 0.05]).toEqual([before.last.width, true, true]);
    await page.locator('aria/Side it is put to[role="combobox"]').click();
    await page.locator('aria/to the top[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await move())!.first).toMatchObject({ x: 0.5, width: 1, y: expect.closeTo(0.4219, 3) });
    await press(page, 'by itself');
  });
  it('turns, straightens and crops chosen pictures, and makes them whole again', async () => {
    const crops = async () => (await stored()).slides.slice(1, 3).map((slide) => (slide.layers[0]?.kind === 'picture' ? slide.layers[0].crop ?? null : 'none'));
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Crop[role="tab"]').click();
    await type('Straighten, degrees clockwise', '2.5');
    expect(await crops()).toEqual([expect.objectContaining({ turnDegrees: -2.5, x: 0.5, y: 0.5 }), null]);
    await page.focus('aria/Cut away at the left');
    await key('ArrowRight');
    expect((await crops())[0]).toMatchObject({ turnDegrees: -2.5, x: expect.not.closeTo(0.5, 3) });
    await page.keyboard.down('Shift');
    await page.click('[data-slide=regatta-3] [role=img]');
    await page.keyboard.up('Shift');
    await press(page, 'Turn by a quarter, clockwise');
    expect(await crops()).toEqual([expect.objectContaining({ turnDegrees: -92.5 }), expect.objectContaining({ turnDegrees: -90 })]);
    await press(page, 'whole again');
    expect(await crops()).toEqual([null, null]);
    await page.click('[data-slide=regatta-2] [role=img]');
    const corner = (await (await page.waitForSelector('[data-part=crop-stage]'))!.boundingBox())!;
    await page.mouse.move(corner.x + 2, corner.y + 2);
    await page.mouse.down();
    await page.mouse.move(corner.x + 42, corner.y + 32, { steps: 4 });
    await page.mouse.up();
    expect((await crops())[0]).toMatchObject({ width: expect.closeTo(1 - 40 / corner.width, 1), height: expect.closeTo(1 - 30 / corner.height, 1), turnDegrees: 0 });
    await key('Control', 'z');
    expect(await crops()).toEqual([null, null]);
  });
  it('finds dark bars, shows them trimmed, and trims them', async () => {
    await go('gather', 'contact-sheet');
    await page.locator('[role=option][data-mark=leave-out]').click();
    await key('Enter');
    await waitForText(page, '[data-part=gather]', /slide 26/);
    await key('Alt', '2');
    await page.waitForSelector('[data-part=slide]');
    await page.focus('[data-part=running-order]');
    await page.keyboard.press('x');
    await page.waitForSelector('[data-part=bars-list] li');
    expect(await textOf(page, '[role=dialog]')).toMatch(/slide 26 as it is[\s\S]*trimmed[\s\S]*Trim 1 picture/);
    await page.locator('[data-part=trim-bars]').click();
    const trimmed = (await stored()).slides.at(-1)!;
    expect(trimmed.layers[0]).toMatchObject({ kind: 'picture', crop: { width: 1, height: expect.closeTo(0.68, 2), turnDegrees: 0 } });
    await press(page, 'Undo: trim the dark bars of 1 picture');
    await key('Control', 'z');
    expect((await stored()).slides).toHaveLength(25);
  });
  it('places words on nine points and brings a number that is out of range to its edge', async () => {
    await page.click('[data-slide=regatta-1] [role=img]');
    await page.locator('aria/Words[role="tab"]').click();
    await page.locator('aria/top right').click();
    expect((await stored()).slides[0]!.layers[1]).toMatchObject({ kind: 'words', place: 'top-right', title: 'Lantern Regatta' });
    await type('Length of slide 1 in seconds', '0');
    expect((await stored()).slides[0]!.lengthMs).toBe(200);
    await page.locator('aria/Length of slide 1 in seconds').click();
    await page.keyboard.type('99');
    await key('Escape');
    expect((await stored()).slides[0]!.lengthMs).toBe(200);
    await key('Control', 'z');
    await key('Control', 'z');
    expect((await stored()).slides[0]).toMatchObject({ lengthMs: 11_000, layers: [{}, { place: 'bottom-left' }] });
  });
});

describe('sound', () => {
  it('takes the song out and in again, says what that means, and fits the pictures to it', async () => {
    await go('sound', 'cue');
    await press(page, 'Take out Harbour Reel');
    await waitForText(page, '[data-part=lengths]', /no music yet/);
    await press(page, 'Undo: change the music');
    await waitForText(page, '[data-part=lengths]', /ends together/);
    await type('Where in the song it begins, seconds', '20');
    await waitForText(page, '[data-part=lengths]', /ends\s+0:20\s+early/);
    await page.click('[data-part=ways-out]');
    await waitForText(page, '[role=menu]', /The last 0:20 of the show are silent/);
    await page.locator('[role=menuitem] ::-p-text(Quicken)').click();
    await waitForText(page, '[data-part=lengths]', /ends together/);
    const show = await stored();
    expect(show.cues[0]).toMatchObject({ trimStartMs: 20_000, fadeOutMs: 3000 });
    // The clip and the narrated slide keep their length.
    expect([show.slides[0]!.lengthMs, show.slides.find((slide) => slide.layers[0]?.kind === 'clip')!.lengthMs]).toEqual([11_000, 8000]);
  });
});

describe('sending and the shelf', () => {
  it('cancels a film', async () => {
    await go('send', 'make-film');
    await press(page, 'Make the film');
    await page.waitForSelector('[data-part=film][data-state=making]');
    await press(page, 'Cancel');
    await page.waitForSelector('[data-part=film][data-state=cancelled]');
  });
  it('takes a show off the shelf and puts it back', async () => {
    await page.goto(app.address);
    await page.waitForSelector('[data-part=shelf]');
    await press(page, 'What to do with “Lantern Regatta of Port Ellery”');
    await page.locator('aria/Take off the shelf[role="menuitem"]').click();
    await page.waitForFunction(() => document.querySelector('[data-part=shelf-show]') === null);
    expect((await fetch(`${app.address}/api/shows/${ID}`)).status).toBe(404);
    await press(page, 'Undo');
    await waitForText(page, 'main', /Lantern Regatta/);
    expect((await fetch(`${app.address}/api/shows/${ID}`)).status).toBe(200);
  });
  it('met no error on the way', () => expect(page.faults).toEqual([]));
});
