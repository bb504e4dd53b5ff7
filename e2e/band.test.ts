import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import type { AssetFacts, SoundFacts } from '../src/core/show/asset-facts';
import type { ShowEdit } from '../src/core/show/edit';
import { showLengthMs } from '../src/core/timing/slide-span';
import {
  ask,
  chord,
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

let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;
const ID = 'lantern-regatta';
const PATIENCE_MS = 240_000;

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, ID);
  await hands.go('sound', 'sound-column');
  // A server that has just begun looks for faces in every picture: a shorter show lets the band have its turn.
  await edited((show) => ({ kind: 'remove-slides', slideIds: show.slides.slice(8).map(({ id }) => id) }));
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
});

/** The piece under the show, as its file is known. */
async function piece(): Promise<{
  cue: Awaited<ReturnType<Hands['stored']>>['cues'][number];
  facts: SoundFacts | undefined;
}> {
  const show = await hands.stored();
  const cue = show.cues.find(({ band }) => band)!;
  const { entries } = (await (await ask(`${app.address}/api/v1/shows/${ID}/sheet`)).json()) as {
    entries: { assetId: string; facts: AssetFacts | null }[];
  };
  return { cue, facts: entries.find(({ assetId }) => assetId === cue.assetId)?.facts as SoundFacts | undefined };
}

/** Waits until the piece is as long as the show is, and listened to. */
async function untilItFits(): Promise<SoundFacts> {
  for (let tries = 0; tries < 360; tries += 1) {
    const { facts } = await piece();
    const lengthMs = showLengthMs(await hands.stored());
    if (facts?.listening && Math.abs(facts.lengthMs - lengthMs) < 30) return facts;
    await new Promise((resolve) => setTimeout(resolve, 500));
  }
  throw new Error('the band did not play a piece that fits');
}

async function edited(edit: (show: Awaited<ReturnType<Hands['stored']>>) => ShowEdit): Promise<void> {
  const show = await hands.stored();
  const url = `${app.address}/api/v1/shows/${ID}`;
  const { revision } = (await (await ask(url)).json()) as { revision: number };
  const answer = await ask(`${url}/edits`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: app.address },
    body: JSON.stringify({
      knownRevision: revision,
      edits: [{ editId: `band-outgrown-${revision}`.padEnd(16, '-'), edit: edit(show) }],
    }),
  });
  expect(answer.status).toBe(200);
}

describe('the house band', () => {
  it('is told what to play, and what it would be like is drawn beside the slides before it plays', async () => {
    await chord(page, 'Shift', 'B');
    await page.waitForSelector('[data-part=planned-section]');
    await page.click('[data-style=lullaby]');
    await waitForText(page, '[data-part=band]', /bars of 3/);
    expect(await page.$$eval('[data-part=planned-section]', (all) => all.length)).toBeGreaterThan(2);
  });
  it('is heard at once in the browser', async () => {
    await page.click('[data-part=rehearse]');
    await page.waitForFunction(() => document.querySelector('[data-part=rehearse]')?.textContent.includes('Stop'));
    await page.click('[data-part=rehearse]');
    await page.waitForFunction(() => document.querySelector('[data-part=rehearse]')?.textContent.includes('Listen'));
  });
  it(
    'plays for exactly as long as the show, with beats that need not be found',
    async () => {
      await page.click('[data-part=band-instead]');
      await page.waitForSelector('[data-part=band-line]', { timeout: 180_000 });
      const facts = await untilItFits();
      expect([facts.artist, facts.listening?.beats?.beatsABar, facts.listening?.beats?.confidence]).toEqual([
        'Tanager house band',
        3,
        1,
      ]);
      const show = await hands.stored();
      expect(show.cues.filter(({ kind }) => kind === 'song')).toHaveLength(1);
      // The last chord falls where it can ring out with the show.
      const ringsMs = showLengthMs(show) - facts.listening!.beats!.beatsMs.at(-1)!;
      expect([ringsMs > 2000, ringsMs < 6000]).toEqual([true, true]);
    },
    PATIENCE_MS,
  );
  it(
    'plays anew when the show becomes shorter, and again when it becomes longer; until then the piece is tailored',
    async () => {
      const before = (await piece()).cue.assetId;
      await edited((show) => ({ kind: 'remove-slides', slideIds: show.slides.slice(-2).map(({ id }) => id) }));
      await waitForText(page, '[data-part=band-line]', /played anew/);
      const shorter = await untilItFits();
      const between = (await piece()).cue.assetId;
      expect(between).not.toBe(before);
      await edited((show) => ({
        kind: 'set-lengths',
        lengths: [{ slideId: show.slides.at(-1)!.id, lengthMs: show.slides.at(-1)!.lengthMs + 6000 }],
      }));
      const longer = await untilItFits();
      expect(longer.lengthMs - shorter.lengthMs).toBeGreaterThan(5900);
      const { cue } = await piece();
      expect([cue.assetId === between, cue.band?.style, cue.tailored]).toEqual([false, 'lullaby', {}]);
    },
    PATIENCE_MS,
  );
  it('hands out its score, and was one step to undo', async () => {
    const { cue } = await piece();
    const score = await ask(`${app.address}/api/v1/shows/${ID}/sounds/${cue.assetId}/score?as=musicxml`);
    expect([score.status, (await score.text()).includes('<score-partwise')]).toEqual([200, true]);
    await chord(page, 'Control', 'z');
    await page.waitForSelector('[data-part=tailor], [data-part=tailored]');
    expect((await hands.stored()).cues.some(({ band }) => band)).toBe(false);
  });
});

describe('pieces that ship with Tanager', () => {
  it('are found, and put under the show with the right by which they are used', async () => {
    await page.evaluate(() => {
      [...document.querySelectorAll('button')]
        .find((button) => button.textContent.trim() === 'Pieces to take')!
        .click();
    });
    await page.waitForSelector('[data-part=piece-shelf]');
    await page.type('[aria-label="Find a piece"]', 'brass');
    await page.waitForFunction(() => document.querySelectorAll('[data-piece]').length === 1);
    // Heard with the show running, and silent when the show is stopped.
    await press(page, 'Watch the show over The Square at Noon');
    await page.waitForSelector('[data-part=viewer][data-playing=true]');
    await page.waitForSelector('[aria-label="Stop the show over The Square at Noon"]');
    await press(page, 'Pause');
    await page.waitForSelector('[aria-label="Watch the show over The Square at Noon"]');
    await page.$eval('[data-piece] > button', (button) => (button as HTMLButtonElement).click());
    await waitForText(page, '[data-part=cue]', /The Square at Noon/);
    const show = await hands.stored();
    expect(show.licences?.[show.cues.at(-1)!.assetId]).toContain('Tanager house band');
  });
});
