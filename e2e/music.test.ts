import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import { beatNear, beatsOfSong, musicOf } from '../src/core/sound/show-beats';
import type { ShowEdit } from '../src/core/show/edit';
import type { AssetFacts } from '../src/core/show/asset-facts';
import type { AssetId } from '../src/core/show/ids';
import { showLengthMs, slideSpans } from '../src/core/timing/slide-span';
import {
  ask,
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

let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;
const ID = 'lantern-regatta';

beforeAll(async () => {
  app = await openApp({ seed: true, musicLeads: true });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, ID);
  await hands.go('sound', 'sound-column');
});
afterAll(async () => {
  await browser.close();
  await app.close();
});

async function facts(): Promise<Map<AssetId, AssetFacts>> {
  const sheet = (await (await ask(`${app.address}/api/v1/shows/${ID}/sheet`)).json()) as {
    entries: { assetId: AssetId; facts: AssetFacts | null }[];
  };
  return new Map(sheet.entries.flatMap((entry) => (entry.facts ? [[entry.assetId, entry.facts] as const] : [])));
}

/** How many seams of the stored show lie on a beat, of how many, and how far apart show and music end. */
async function onBeat(): Promise<{ on: number; of: number; apartMs: number }> {
  const show = await hands.stored();
  const { beats, endMs } = musicOf(show, await facts(), true);
  const seams = slideSpans(show.slides).slice(1);
  const on = seams.filter(({ startMs }) => beatNear(beats, startMs, 40) !== null).length;
  return { on, of: seams.length, apartMs: Math.abs(showLengthMs(show) - endMs) };
}

/** The keys of the test before may have scrolled. */
const toTheTop = () => page.$eval('[data-part=sound-column]', (column) => column.scrollTo(0, 0));

async function drag(selector: string, index: number, byPx: number): Promise<void> {
  const box = await (await page.$$(selector))[index]!.boundingBox();
  const [x, y] = [box!.x + box!.width / 2, box!.y + box!.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let step = 1; step <= 6; step += 1) await page.mouse.move(x, y + (byPx * step) / 6);
}

describe('pictures that follow the music', () => {
  it('change on its beats, all but where a clip keeps its length, and end with it', async () => {
    const { on, of, apartMs } = await onBeat();
    expect([of, on >= of - 1, apartMs <= 50]).toEqual([24, true, true]);
    expect(await textOf(page, '[data-part=beats]')).toMatch(/104(\.\d)?\s+beats a minute/);
  });
  it('do so still when slides go and come back, as one step each', async () => {
    const before = await hands.stored();
    await hands.go('arrange', 'slide');
    await page.locator('[data-slide=regatta-5] [role=img]').click();
    await hands.key('Delete');
    const without = await hands.stored();
    expect(without.slides).toHaveLength(24);
    const { on, of, apartMs } = await onBeat();
    expect([of, on >= 22, apartMs <= 50]).toEqual([23, true, true]);
    await hands.key('Control', 'z');
    expect(await hands.stored()).toEqual(before);
  });
  it('go by so many beats each, slow to brisk, when that is asked for', async () => {
    await hands.go('sound', 'sound-column');
    await press(page, 'Who leads, pictures or music');
    await page.locator('[role=option] ::-p-text(so many beats each)').click();
    await page.waitForSelector('[aria-label="Pace, slow to brisk"]');
    await page.focus('[aria-label="Pace, slow to brisk"]');
    const slower = showLengthMs(await hands.stored());
    await hands.key('ArrowRight');
    await hands.key('ArrowRight');
    const show = await hands.stored();
    expect(show.pace).toEqual({ by: 'beats', beats: 4 });
    expect(showLengthMs(show)).toBeLessThan(slower);
    await hands.key('Control', 'z');
    expect((await hands.stored()).pace).toEqual({ by: 'beats', beats: 8 });
    await hands.key('Control', 'z');
    expect((await hands.stored()).pace).toEqual({ by: 'music' });
  });
});

describe('the sound column', () => {
  it('takes a seam to the beat it is dropped near, and names that', async () => {
    const before = await hands.stored();
    await drag('[data-part=sound-slide] .cursor-row-resize', 2, 27);
    await waitForText(page, '[data-part=sound-column]', /seam 3 on bar \d+, beat \d/);
    await page.mouse.up();
    const after = await hands.stored();
    expect(after.slides[2]!.lengthMs).not.toBe(before.slides[2]!.lengthMs);
    expect(after.slides[2]!.chosen).toEqual({ length: 'hand' });
    const { beats } = musicOf(after, await facts(), true);
    expect(beatNear(beats, slideSpans(after.slides)[3]!.startMs, 40)).not.toBeNull();
    await hands.key('Control', 'z');
    expect(await hands.stored()).toEqual(before);
  });
  it('ties the end of a song to a slide when it is dragged there, by keys too, and back to its own end', async () => {
    await press(page, 'Who leads, pictures or music');
    await page.locator('[role=option] ::-p-text(pictures lead)').click();
    const handle = '[aria-label^="Harbour Reel: where it ends"]';
    await page.focus(handle);
    await page.keyboard.press('ArrowUp');
    await page.keyboard.press('ArrowUp');
    const ends = async () => (await hands.stored()).cues[0]!.ends;
    expect(await ends()).toEqual({ at: 'slide', slideId: 'regatta-24', offsetMs: 0 });
    await waitForText(page, '[data-part=cue]', /to slide 24/);
    await page.focus(handle);
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('ArrowDown');
    expect(await ends()).toEqual({ at: 'own-end' });
  });
  it('makes points of the level on the line, moves and takes them away by keys, and lets a song loop', async () => {
    await toTheTop();
    const box = (await (await page.$('[data-part=level-line] polyline'))!.boundingBox())!;
    await page.mouse.click(box.x + box.width, Math.max(box.y + 380, 480));
    await page.waitForSelector('[data-part=level-line] circle');
    await page.$eval('[data-part=level-line] circle', (point) => (point as SVGElement).focus());
    await page.keyboard.press('ArrowLeft');
    await page.keyboard.press('ArrowLeft');
    const cue = async () => (await hands.stored()).cues[0]!;
    const [point] = (await cue()).levels!;
    expect(point).toMatchObject({ from: 'start' });
    expect(point!.gainDb).toBeLessThan(0.1);
    await page.$eval('[data-part=level-line] circle', (point) => (point as SVGElement).focus());
    await page.keyboard.press('Delete');
    expect((await cue()).levels).toBeUndefined();
    await press(page, 'Let it loop');
    expect((await cue()).loops).toBe(true);
    await hands.key('Control', 'z');
    expect((await cue()).loops).toBeUndefined();
  });
  it('plays a stretch again and again that was swept over, from bar to bar', async () => {
    await toTheTop();
    const box = (await (await page.$('[data-part=sound-column] canvas'))!.boundingBox())!;
    await page.mouse.move(box.x + 120, box.y + 60);
    await page.mouse.down();
    await page.mouse.move(box.x + 120, box.y + 100, { steps: 4 });
    await page.mouse.up();
    await page.waitForSelector('[data-part=viewer][data-playing=true]');
    // It goes on past the end of the stretch, which is about three seconds long, and stays within it.
    // A machine that stumbles at its end is no reason to stop.
    const stumble = () =>
      page.evaluate(() => {
        for (const endMs = performance.now() + 400; performance.now() < endMs;);
      });
    for (let seconds = 0; seconds < 6; seconds += 0.5) {
      await stumble();
      await new Promise((resolve) => {
        setTimeout(resolve, 100);
      });
    }
    const state = await page.$eval('[data-part=viewer]', (viewer) => [
      viewer.getAttribute('data-playing'),
      Number(viewer.getAttribute('data-moment')),
    ]);
    expect(state[0]).toBe('true');
    expect(state[1]).toBeLessThan(12_000);
    await page.keyboard.press('Space');
  });
  it('says where beats are when a person puts them right, and goes back to what was found', async () => {
    const said = async () => (await hands.stored()).beats;
    await press(page, 'half');
    await waitForText(page, '[data-part=beats]', /52(\.\d)?\s+beats a minute/);
    await hands.type('Beats later by milliseconds; earlier when negative', '30');
    const [first] = Object.values((await said())!);
    expect(first).toEqual({ times: 'half', laterMs: 30 });
    await press(page, 'as they were found');
    expect(await said()).toBeUndefined();
  });
  it('sets how far music goes down, how loud the film is, and names a chapter', async () => {
    await hands.type('How far music goes down under voices, decibels', '16');
    await press(page, 'Loudness of the film');
    await page.locator('[role=option] ::-p-text(for broadcast)').click();
    expect((await hands.stored()).mix).toEqual({ duckDb: 16, loudness: '-23' });
    await toTheTop();
    await page.locator('[data-part=sound-slide][data-slide=regatta-2] button').click();
    await page.locator('[data-part=chapter]').fill('Lamps are lit');
    await page.keyboard.press('Tab');
    expect((await hands.stored()).slides[1]!.chapter).toBe('Lamps are lit');
  });
  it('is trimmed on its wave, beat by beat and by hand, and plays whole again', async () => {
    const cue = async () => (await hands.stored()).cues[0]!;
    const whole = (await cue()).trimEndMs;
    await page.waitForSelector('[data-part=song-strip] path');
    await page.focus('[data-part=song-end]');
    await hands.key('ArrowLeft');
    const first = (await cue()).trimEndMs!;
    await page.focus('[data-part=song-end]');
    await hands.key('ArrowLeft');
    const second = (await cue()).trimEndMs!;
    const { beatsMs } = beatsOfSong(await hands.stored(), await facts(), (await cue()).assetId)!;
    for (const ms of [first, second]) expect(Math.min(...beatsMs.map((beat) => Math.abs(beat - ms)))).toBeLessThan(1);
    expect(second).toBeLessThan(first);
    const box = (await (await page.$('[data-part=song-start]'))!.boundingBox())!;
    const [x, y] = [box.x + box.width / 2, box.y + 10];
    await page.mouse.move(x, y);
    await page.mouse.down();
    await page.mouse.move(x + 30, y, { steps: 4 });
    await page.mouse.move(x + 62, y, { steps: 4 });
    await page.mouse.up();
    expect((await cue()).trimStartMs).toBeGreaterThan(10_000);
    // The whole drag is one step.
    await hands.key('Control', 'z');
    expect((await cue()).trimStartMs).toBe(0);
    await hands.key('Control', 'z');
    await hands.key('Control', 'z');
    expect((await cue()).trimEndMs).toBe(whole);
  });
  it('has what is said of a song mended by hand, and takes back what the file says', async () => {
    const { cues } = await hands.stored();
    await page.click('[data-part=cue] [aria-label^="Mend what is said of"]');
    await page.waitForSelector('[data-part=song-about]');
    const say = async (field: string, text: string) => {
      const input = await page.waitForSelector(`[data-part=song-about] input[aria-label="${field}"]`);
      await input!.click({ count: 3 });
      await page.keyboard.press('Backspace');
      await input!.type(text);
      await page.keyboard.press('Enter');
    };
    await say('Title', 'Reel for a Wet Evening');
    await say('Style', 'reel');
    await say('Licence', 'ours, played in the shed');
    const song = cues[0]!.assetId;
    const stored = await hands.stored();
    expect([stored.tags?.[song], stored.licences?.[song]]).toEqual([
      { title: 'Reel for a Wet Evening', style: 'reel' },
      'ours, played in the shed',
    ]);
    await waitForText(page, '[data-part=cue]', /Reel for a Wet Evening/);
    // Escape takes back what is being typed; what is cleared is as the file says.
    const mood = await page.waitForSelector('[data-part=song-about] input[aria-label="Mood"]');
    await mood!.type('glum');
    await page.keyboard.press('Escape');
    await say('Style', '');
    expect((await hands.stored()).tags![song]).toEqual({ title: 'Reel for a Wet Evening' });
    await press(page, 'as the file says');
    expect((await hands.stored()).tags).toBeUndefined();
    await waitForText(page, '[data-part=cue]', /Harbour Reel/);
    await page.click('[data-part=cue] [aria-label^="Mend what is said of"]');
  });
  it('tailors a song to the show, hears its joins, takes another way, and follows when the show changes', async () => {
    await page.waitForSelector('[data-part=tailor]:not([disabled])');
    await page.click('[data-part=tailor]');
    await waitForText(page, '[data-part=tailored]', /No join is needed|Tailored from/);
    const before = await hands.stored();
    expect(before.cues[0]).toMatchObject({ ends: { at: 'show-end', beforeMs: 0 }, tailored: {} });
    const ends = async () => {
      const show = await hands.stored();
      return [musicOf(show, await facts(), false).endMs, showLengthMs(show)];
    };
    const shorter: ShowEdit = {
      kind: 'remove-slides',
      slideIds: before.slides.slice(12, 20).map((slide) => slide.id),
    };
    const { revision } = (await (await ask(`${app.address}/api/v1/shows/${ID}`)).json()) as { revision: number };
    await ask(`${app.address}/api/v1/shows/${ID}/edits`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: app.address },
      body: JSON.stringify({ knownRevision: revision, edits: [{ editId: 'tailor-0001', edit: shorter }] }),
    });
    await waitForText(page, '[data-part=tailored]', /Tailored from 2:37 to 1:\d\d/);
    const [musicMs, showMs] = await ends();
    expect(Math.abs(musicMs! - showMs!)).toBeLessThan(50);
    const join = () => page.$eval('[data-part=tailor-join]', (line) => (line as HTMLElement).innerText);
    const first = await join();
    await page.click('[aria-label^="Hear the join"]');
    await page.waitForSelector('[data-part=viewer][data-playing=true]');
    await press(page, 'Pause');
    await page.click('[aria-label^="Not the join"]');
    await page.waitForFunction(
      (was: string) => document.querySelector<HTMLElement>('[data-part=tailor-join]')?.innerText !== was,
      {},
      first,
    );
    expect((await hands.stored()).cues[0]!.tailored!.avoid).toHaveLength(1);
    const wishes = async () => (await hands.stored()).cues[0]!.tailored;
    const pin = () => page.waitForSelector('[data-part=tailor-join] [aria-label^="Always make the join"]');
    await (await pin())!.click();
    const [kept] = (await wishes())!.keep!;
    await page.waitForSelector('[aria-label^="Always make the join"][aria-pressed=true]');
    const later = await page.$('[aria-label$="later in the song"]:not([disabled])');
    const moved = later ?? (await page.$('[aria-label$="earlier in the song"]:not([disabled])'));
    await moved!.click();
    await page
      .waitForFunction(
        (was: string) => document.querySelector<HTMLElement>('[data-part=tailor-join]')?.innerText !== was,
        {},
        await join(),
      )
      .catch(() => null);
    const after = (await wishes())!.keep!;
    expect(after).toHaveLength(1);
    // Both ends moved by as many beats, so that the song goes on in the same place of its bar.
    expect(after[0]!.fromMs).not.toBe(kept!.fromMs);
    expect(Math.abs(after[0]!.fromMs - kept!.fromMs - (after[0]!.toMs - kept!.toMs))).toBeLessThan(60);
    const [heardMs, wholeMs] = await ends();
    expect(Math.abs(heardMs! - wholeMs!)).toBeLessThan(50);
    await (await pin())!.click();
    expect((await wishes())!.keep).toBeUndefined();
    await press(page, 'as it is again');
    expect((await hands.stored()).cues[0]!.tailored).toBeUndefined();
    // As the tests after this one find it.
    const last = (await (await ask(`${app.address}/api/v1/shows/${ID}`)).json()) as { revision: number };
    await ask(`${app.address}/api/v1/shows/${ID}/edits`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: app.address },
      body: JSON.stringify({
        knownRevision: last.revision,
        edits: [
          {
            editId: 'tailor-0002',
            edit: {
              kind: 'set-cues',
              cues: [{ ...before.cues[0], ends: { at: 'own-end' }, tailored: undefined, fadeOutMs: 3000 }],
            },
          },
          {
            editId: 'tailor-0003',
            edit: {
              kind: 'add-slides',
              runs: [{ afterId: before.slides[11]!.id, slides: before.slides.slice(12, 20) }],
            },
          },
        ],
      }),
    });
    await waitForText(page, '[data-part=cue]', /to its own end/);
  });
  it('met no error on the way', () => expect(page.faults).toEqual([]));
});
