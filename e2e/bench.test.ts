import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import type { PictureLayer, WordsLayer } from '../src/core/show/layer';
import {
  handsOn,
  openApp,
  openBrowser,
  openPage,
  press,
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
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, ID);
  await hands.go('arrange', 'slide');
});
afterAll(async () => {
  await browser.close();
  await app.close();
});

/** The picture of the rostrum lies above the fields. */
const toTop = () => page.$eval('[data-part=bench] [role=tabpanel][data-state=active]', (panel) => panel.scrollTo(0, 0));

describe('the bench', () => {
  it('lights all chosen pictures, keeps what each had, and puts them back', async () => {
    const lights = async () =>
      (await hands.stored()).slides
        .slice(1, 3)
        .map((slide) => (slide.layers[0]?.kind === 'picture' ? (slide.layers[0].light ?? null) : 'none'));
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Light[role="tab"]').click();
    await page.focus('aria/Warmth[role="slider"]');
    await hands.key('End');
    expect(await lights()).toEqual([{ temperature: 1 }, null]);
    await page.keyboard.down('Shift');
    await page.click('[data-slide=regatta-3] [role=img]');
    await page.keyboard.up('Shift');
    await press(page, 'levels by themselves');
    expect(await lights()).toEqual([{ temperature: 1, levels: 'automatic' }, { levels: 'automatic' }]);
    await press(page, 'as it was');
    expect(await lights()).toEqual([null, null]);
    await hands.key('Control', 'z');
    expect(await lights()).toEqual([{ temperature: 1, levels: 'automatic' }, { levels: 'automatic' }]);
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    expect(await lights()).toEqual([null, null]);
  });
  it('gives a picture an edge and words a way to come in', async () => {
    await page.click('[data-slide=regatta-3] [role=img]');
    await page.locator('aria/Edge[role="tab"]').click();
    await page.locator('aria/Shape[role="combobox"]').click();
    await page.locator('aria/rounded[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    await page.focus('aria/Shadow[role="slider"]');
    await hands.key('End');
    expect((await hands.stored()).slides[2]!.layers[0]).toMatchObject({
      edge: { shape: { kind: 'rounded', radius: 0.08 }, shadow: { opacity: 1, colour: '#000000' } },
    });
    await page.locator('aria/Shadow over time[role="combobox"]').click();
    await page.locator('aria/grows over the slide[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await hands.stored()).slides[2]!.layers[0]).toMatchObject({
      edge: { shadow: { opacity: { keys: [{ value: 0 }, { value: 1 }] } } },
    });
    await page.locator('aria/Shape[role="combobox"]').click();
    await page.locator('aria/drawn by hand[role="option"]').click();
    const paper = (await (await page.waitForSelector('[data-part=hand-drawn-edge]'))!.boundingBox())!;
    const around = (share: number) =>
      [
        paper.x + paper.width * (0.5 + 0.4 * Math.cos(2 * Math.PI * share)),
        paper.y + paper.height * (0.5 + 0.4 * Math.sin(2 * Math.PI * share)),
      ] as const;
    await page.mouse.move(...around(0));
    await page.mouse.down();
    for (let step = 1; step <= 24; step += 1) await page.mouse.move(...around(step / 25));
    await page.mouse.up();
    expect((await hands.stored()).slides[2]!.layers[0]).toMatchObject({
      edge: { shape: { kind: 'free', path: expect.stringMatching(/^M.*Q.*Z$/) } },
    });
    await press(page, 'as it was');
    await page.click('[data-slide=regatta-1] [role=img]');
    await page.locator('aria/Words[role="tab"]').click();
    await page.locator('aria/Entrance[role="combobox"]').click();
    await page.locator('aria/are typed[role="option"]').click();
    await page.locator('aria/Font[role="combobox"]').click();
    await page.locator('aria/Fraunces[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await hands.stored()).slides[0]!.layers[1]).toMatchObject({
      title: 'Lantern Regatta',
      style: { font: 'fraunces' },
      come: { entrance: { way: 'type' }, exit: null },
    });
    // Typing in the order changes what they say and leaves how they look.
    await page.focus('[data-part=running-order]');
    await hands.key('t');
    await page.waitForSelector('[data-part=title]');
    await page.keyboard.type('Boats');
    await hands.key('Escape');
    expect((await hands.stored()).slides[0]!.layers[1]).toMatchObject({
      title: 'Boats',
      style: { font: 'fraunces' },
      come: { entrance: { way: 'type' } },
    });
    for (let step = 0; step < 3; step += 1) await hands.key('Control', 'z');
    expect((await hands.stored()).slides[0]!.layers[1]).not.toHaveProperty('style');
    expect((await hands.stored()).slides[0]!.layers[1]).toMatchObject({ title: 'Lantern Regatta' });
  });
  it('lets words roll, go, and say how fast they are to be read; a picture lies behind, and one of its own is a pattern', async () => {
    const words = async () => (await hands.stored()).slides[0]!.layers[1];
    await page.click('[data-slide=regatta-1] [role=img]');
    await page.locator('aria/Words[role="tab"]').click();
    await page.focus('[role=tabpanel] textarea');
    await hands.key('Control', 'a');
    await page.keyboard.sendCharacter(Array.from({ length: 60 }, (_, index) => `Boat ${index}`).join('\n'));
    await page.locator('aria/How the words go over the frame[role="combobox"]').click();
    await page.locator('aria/roll upwards[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect(await words()).toMatchObject({ travel: { kind: 'roll', fromMs: 0, lengthMs: null } });
    await waitForText(page, '[data-part=words-travel]', /620 words a minute: too fast to be read/);
    await press(page, 'Let the slide last 48.6 s');
    await waitForText(page, '[data-part=words-travel]', /150 words a minute: easy to read/);
    await page.locator('aria/Exit[role="combobox"]').click();
    await page.locator('aria/go into a blur[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect(await words()).toMatchObject({ come: { exit: { way: 'blur' } } });
    for (let step = 0; step < 4; step += 1) await hands.key('Control', 'z');
    expect((await hands.stored()).slides[0]).toMatchObject({
      lengthMs: 11_000,
      layers: [{}, { title: 'Lantern Regatta' }],
    });

    await page.click('[data-slide=regatta-3] [role=img]');
    await page.locator('aria/Time[role="tab"]').click();
    await page.locator('aria/a picture[role="radio"]').click();
    await page.locator('[data-part=backing-with]').click();
    expect((await hands.stored()).slides[2]!.backing).toMatchObject({
      kind: 'picture',
      assetId: expect.stringMatching(/^[0-9a-f]{64}$/),
    });
    await page.focus('[data-part=backing] [aria-label="Blur"]');
    await hands.key('End');
    await page.focus('[data-part=backing] [aria-label="Brightness"]');
    await hands.key('Home');
    expect((await hands.stored()).slides[2]!.backing).toMatchObject({ blur: 0.1, light: { exposure: -2 } });
    for (let step = 0; step < 3; step += 1) await hands.key('Control', 'z');
    expect((await hands.stored()).slides[2]!.backing).toEqual({ kind: 'automatic' });
    await page.locator('[data-slide=regatta-3] [aria-label^="Transition into"]').click();
    await page.locator('aria/Transition[role="combobox"]').click();
    await page.locator('aria/pattern[role="option"]').click();
    await page.locator('aria/Pattern[role="combobox"]').click();
    await page.locator('aria/a picture …[role="option"]').click();
    await page.locator('[data-part=pattern-with]').click();
    expect((await hands.stored()).slides[2]!.transition).toMatchObject({
      kind: 'pattern',
      pattern: { assetId: expect.stringMatching(/^[0-9a-f]{64}$/) },
    });
    await page.waitForFunction(
      () =>
        document.querySelector('[role=dialog]') === null || document.querySelector('[data-part=transition]') !== null,
    );
    await hands.key('Escape');
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides[2]!.transition).toEqual({ kind: 'dissolve', lengthMs: 1000 });
  });
  it('lets a part of a line look otherwise, letters lean, and words follow each other as closely as is said', async () => {
    const words = async () => (await hands.stored()).slides[0]!.layers[1] as WordsLayer;
    await page.click('[data-slide=regatta-1] [role=img]');
    await page.locator('aria/Words[role="tab"]').click();
    await page.waitForSelector('[data-part=words-look]');
    await page.$$eval('[data-part=words-look] details', (all) => all.forEach((one) => (one.open = true)));
    await page.click('[data-part=add-words-part]');
    const first = (await words()).style!.parts![0]!;
    expect(first).toMatchObject({ colour: expect.stringMatching(/^#/) });
    const name = (await page.waitForSelector('[aria-label="Part 1: the words"]'))!;
    await name.click({ count: 3 });
    await name.type('Regatta');
    await page.keyboard.press('Enter');
    await page.click('[aria-label="Part 1: its letters lean"]');
    expect((await words()).style!.parts).toEqual([{ words: 'Regatta', colour: first.colour, italic: true }]);
    await page.locator('aria/lean[role="radio"]').click();
    expect((await words()).style!.italic).toBe(true);
    await page.locator('aria/Entrance by[role="combobox"]').click();
    await page.locator('aria/word[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    await page.locator('aria/Entrance goes[role="combobox"]').click();
    await page.locator('aria/bouncing to rest[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    await hands.type('Entrance: how far one is on its way before the next follows, percent', '100');
    expect((await words()).come!.entrance).toMatchObject({ by: 'word', easing: 'bounce', stagger: 1 });
    await page.click('[aria-label="Part 1: as the rest again"]');
    expect((await words()).style).toEqual({ italic: true });
    for (let step = 0; step < 8; step += 1) await hands.key('Control', 'z');
    const back = await words();
    expect([back.title, back.style, back.come]).toEqual(['Lantern Regatta', undefined, undefined]);
    expect(page.faults).toEqual([]);
  });
  it('sets a move by numbers, swaps it, holds it still, and gives it back to itself', async () => {
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Rostrum[role="tab"]').click();
    const move = async () => {
      const [layer] = (await hands.stored()).slides[1]!.layers;
      return layer?.kind === 'picture' ? layer.move : null;
    };
    await hands.type('last framing, width, percent', '50');
    expect(await move()).toMatchObject({ kind: 'set', last: { width: 0.5, height: expect.closeTo(0.4219, 3) } });
    await waitForText(page, '[data-slide=regatta-2]', /soft: 2\.0 ×/);
    await press(page, 'swap');
    expect(await move()).toMatchObject({ kind: 'set', first: { width: 0.5 } });
    await press(page, 'still');
    expect(await move()).toEqual({ kind: 'still' });
    await press(page, 'automatic');
    expect(await move()).toEqual({ kind: 'automatic' });
  });
  it('drags a framing on the picture, and puts the picture to a side of the frame', async () => {
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Rostrum[role="tab"]').click();
    const move = async () => {
      const [layer] = (await hands.stored()).slides[1]!.layers;
      return layer?.kind === 'picture' && layer.move.kind === 'set' ? layer.move : null;
    };
    await hands.type('last framing, width, percent', '60');
    const before = (await move())!;
    await toTop();
    const frame = (await (await page.waitForSelector('[data-framing=last]'))!.boundingBox())!;
    await page.mouse.move(frame.x + frame.width / 2, frame.y + frame.height / 2);
    await page.mouse.down();
    await page.mouse.move(frame.x + frame.width / 2 - 20, frame.y + frame.height / 2 - 12, { steps: 4 });
    await page.mouse.up();
    const after = (await move())!;
    expect(after.first).toEqual(before.first);
    expect([after.last.width, after.last.x < before.last.x - 0.05, after.last.y < before.last.y - 0.05]).toEqual([
      before.last.width,
      true,
      true,
    ]);
    await page.locator('aria/Side it is put to[role="combobox"]').click();
    await page.locator('aria/at the top[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await move())!.first).toMatchObject({ x: 0.5, width: 1, y: expect.closeTo(0.4219, 3) });
    await press(page, 'automatic');
  });
  it('sizes a framing by a corner while the opposite one stays, large too; and a number holds for all that are chosen', async () => {
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Rostrum[role="tab"]').click();
    await toTop();
    const move = async (index = 1) => {
      const [layer] = (await hands.stored()).slides[index]!.layers;
      return (layer as PictureLayer).move as Extract<PictureLayer['move'], { kind: 'set' }>;
    };
    await hands.type('last framing, width, percent', '60');
    await page.click('[aria-label="Work on the framings large"]');
    const corner = '[data-part=rostrum-large] [data-corner=last]:nth-of-type(1)';
    const { last: before } = await move();
    const box = (await (await page.waitForSelector(corner))!.boundingBox())!;
    await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
    await page.mouse.down();
    await page.mouse.move(box.x + 70, box.y + 45, { steps: 4 });
    await page.mouse.up();
    const { last: after } = await move();
    expect(after.width).toBeLessThan(before.width - 0.03);
    // The lower right stays where it was.
    expect(after.x + after.width / 2).toBeCloseTo(before.x + before.width / 2, 4);
    expect(after.y + after.height / 2).toBeCloseTo(before.y + before.height / 2, 4);
    await hands.key('Escape');
    await page.waitForFunction(() => document.querySelector('[data-part=rostrum-large]') === null);
    await page.keyboard.down('Shift');
    await page.click('[data-slide=regatta-3] [role=img]');
    await page.keyboard.up('Shift');
    await hands.type('last framing, centre across, percent', '90');
    expect([(await move(1)).last.x, (await move(2)).last.x]).toEqual([0.9, 0.9]);
    await waitForText(page, '[data-part=leaves-picture]', /The last framing leaves the picture|Both framings leave/);
    for (let step = 0; step < 3; step += 1) await hands.key('Control', 'z');
    await page.click('[data-slide=regatta-2] [role=img]');
  });
  it('puts a ring around what a picture is about, by hand and by key, for the move to go by; deals again; and sets how much all move', async () => {
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Rostrum[role="tab"]').click();
    const said = async () => {
      const { slides, focus } = await hands.stored();
      const [layer] = slides[1]!.layers;
      return layer?.kind === 'picture' ? (focus?.[layer.assetId] ?? null) : null;
    };
    await press(page, 'nothing special');
    expect(await said()).toEqual([]);
    await page.click('[data-part=add-ring]');
    expect(await said()).toHaveLength(1);
    const before = (await said())![0]!;
    await toTop();
    const rim = (await (await page.waitForSelector('[data-part=ring-rim]'))!.boundingBox())!;
    // Its upper left: at the lower right is the dot that sizes it.
    const at = { x: rim.x + rim.width * 0.1464, y: rim.y + rim.height * 0.1464 };
    await page.mouse.move(at.x, at.y);
    await page.mouse.down();
    await page.mouse.move(at.x + 60, at.y, { steps: 4 });
    await page.mouse.up();
    const dragged = (await said())![0]!;
    expect(dragged.x).toBeGreaterThan(before.x + 0.1);
    await page.$eval('[data-ring="0"]', (ring) => (ring as SVGElement).focus());
    await hands.key('ArrowLeft');
    await hands.key('+');
    const keyed = (await said())![0]!;
    expect([keyed.x < dragged.x, keyed.radius > dragged.radius]).toEqual([true, true]);
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    expect((await said())![0]).toEqual(before);
    await page.click('[data-part=focus-found]');
    expect(await said()).toBeNull();
    await page.click('[data-part=deal-again]');
    expect((await hands.stored()).slides[1]!.layers[0]).toMatchObject({ move: { kind: 'automatic', deal: 1 } });
    await page.locator('aria/How much pictures move by themselves[role="combobox"]').click();
    await page.locator('aria/calmly[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await hands.stored()).temperament).toBe('calm');
  });
  it('gives a set move rests, an easing and a framing on the way', async () => {
    await hands.type('last framing, width, percent', '70');
    await hands.type('Rest on the first framing, seconds', '0.5');
    await page.click('[data-part=middle-framing]');
    await hands.type('middle framing, width, percent', '60');
    await page.locator('aria/How the move starts and stops[role="combobox"]').click();
    await page.locator('aria/goes evenly[role="option"]').click();
    await page.waitForFunction(() => document.querySelector('[role=listbox]') === null);
    expect((await hands.stored()).slides[1]!.layers[0]).toMatchObject({
      move: { kind: 'set', beforeMs: 500, easing: 'linear', middle: { at: 0.5, framing: { width: 0.6 } } },
    });
    await press(page, 'automatic');
  });
  it('copies the look of a slide and gives the parts that are wanted to others, as one step', async () => {
    await page.click('[data-part=running-order]');
    await hands.key('Home');
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Light[role="tab"]').click();
    await page.focus('aria/Warmth[role="slider"]');
    await hands.key('End');
    await page.focus('[data-part=running-order]');
    await hands.key('y');
    await page.click('[data-slide=regatta-4] [role=img]');
    await page.keyboard.down('Shift');
    await page.click('[data-slide=regatta-5] [role=img]');
    await page.keyboard.up('Shift');
    await hands.key('Shift', 'Y');
    await page.waitForSelector('[data-part=look-parts]');
    await page.click('[data-part=give-look]');
    const lights = async () =>
      (await hands.stored()).slides
        .slice(3, 5)
        .map((slide) => (slide.layers[0]?.kind === 'picture' ? (slide.layers[0].light ?? null) : 'none'));
    expect(await lights()).toEqual([{ temperature: 1 }, { temperature: 1 }]);
    await hands.key('Control', 'z');
    expect(await lights()).toEqual([null, null]);
    await hands.key('Control', 'z');
  });
  it('turns, straightens and crops chosen pictures, and makes them whole again', async () => {
    const crops = async () =>
      (await hands.stored()).slides
        .slice(1, 3)
        .map((slide) => (slide.layers[0]?.kind === 'picture' ? (slide.layers[0].crop ?? null) : 'none'));
    await page.click('[data-slide=regatta-2] [role=img]');
    await page.locator('aria/Crop[role="tab"]').click();
    await hands.type('Straighten, degrees clockwise', '2.5');
    expect(await crops()).toEqual([expect.objectContaining({ turnDegrees: -2.5, x: 0.5, y: 0.5 }), null]);
    await page.focus('aria/Cut away at the left');
    await hands.key('ArrowRight');
    expect((await crops())[0]).toMatchObject({ turnDegrees: -2.5, x: expect.not.closeTo(0.5, 3) });
    await page.keyboard.down('Shift');
    await page.click('[data-slide=regatta-3] [role=img]');
    await page.keyboard.up('Shift');
    await press(page, 'Turn by a quarter, clockwise');
    expect(await crops()).toEqual([
      expect.objectContaining({ turnDegrees: -92.5 }),
      expect.objectContaining({ turnDegrees: -90 }),
    ]);
    await press(page, 'whole again');
    expect(await crops()).toEqual([null, null]);
    await page.click('[data-slide=regatta-2] [role=img]');
    const corner = (await (await page.waitForSelector('[data-part=crop-stage]'))!.boundingBox())!;
    await page.mouse.move(corner.x + 2, corner.y + 2);
    await page.mouse.down();
    await page.mouse.move(corner.x + 42, corner.y + 32, { steps: 4 });
    await page.mouse.up();
    expect((await crops())[0]).toMatchObject({
      width: expect.closeTo(1 - 40 / corner.width, 1),
      height: expect.closeTo(1 - 30 / corner.height, 1),
      turnDegrees: 0,
    });
    await hands.key('Control', 'z');
    expect(await crops()).toEqual([null, null]);
  });
  it('finds dark bars, shows them trimmed, and trims them', async () => {
    await hands.go('gather', 'contact-sheet');
    await page.locator('[role=option][data-mark=leave-out]').click();
    await hands.key('Enter');
    await waitForText(page, '[data-part=gather]', /slide 26/);
    await hands.key('Alt', '2');
    await page.waitForSelector('[data-part=slide]');
    await page.focus('[data-part=running-order]');
    await page.keyboard.press('x');
    await page.waitForSelector('[data-part=bars-list] li');
    expect(await textOf(page, '[role=dialog]')).toMatch(/slide 26 as it is[\s\S]*trimmed[\s\S]*Trim 1 picture/);
    await page.locator('[data-part=trim-bars]').click();
    const trimmed = (await hands.stored()).slides.at(-1)!;
    expect(trimmed.layers[0]).toMatchObject({
      kind: 'picture',
      crop: { width: 1, height: expect.closeTo(0.68, 2), turnDegrees: 0 },
    });
    await press(page, 'Undo: trim the dark bars of 1 picture');
    await hands.key('Control', 'z');
    expect((await hands.stored()).slides).toHaveLength(25);
  });
  it('places words on nine points and brings a number that is out of range to its edge', async () => {
    await page.click('[data-slide=regatta-1] [role=img]');
    await page.locator('aria/Words[role="tab"]').click();
    await page.locator('aria/top right').click();
    expect((await hands.stored()).slides[0]!.layers[1]).toMatchObject({
      kind: 'words',
      place: 'top-right',
      title: 'Lantern Regatta',
    });
    // Its voice holds the first slide's length; the second has none.
    const was = (await hands.stored()).slides[1]!.lengthMs;
    await hands.type('Length of slide 2 in seconds', '0');
    expect((await hands.stored()).slides[1]!.lengthMs).toBe(200);
    await page.locator('aria/Length of slide 2 in seconds').click();
    await page.keyboard.type('99');
    await hands.key('Escape');
    expect((await hands.stored()).slides[1]!.lengthMs).toBe(200);
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    const { slides } = await hands.stored();
    expect(slides[0]).toMatchObject({ lengthMs: 11_000, layers: [{}, { place: 'bottom-left' }] });
    expect(slides[1]!.lengthMs).toBe(was);
  });
  it('met no error on the way', () => expect(page.faults).toEqual([]));
});
