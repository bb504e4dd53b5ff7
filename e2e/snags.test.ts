import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import type { WordsLayer } from '../src/core/show/layer';
import type { Slide } from '../src/core/show/show';
import {
  ask,
  handsOn,
  openApp,
  openBrowser,
  openPage,
  seriousIn,
  waitForText,
  type App,
  type Hands,
  type OpenPage,
} from './app';

const SHOW = 'lantern-regatta';
let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;

/** Planted: a title hardly seen, one too long for its slide, a name spelt otherwise, a transition too long, a picture framed past its edge. */
const FAINT = { title: 'The boats leave', subtitle: '', place: 'bottom', style: { colour: '#3a3048', shadow: 'none' } };

beforeAll(async () => {
  app = await openApp({ seed: true });
  browser = await openBrowser();
  page = await openPage(browser);
  hands = handsOn(app, page, SHOW);
  const url = `${app.address}/api/v1/shows/${SHOW}`;
  const { show, revision } = (await (await ask(url)).json()) as { show: { slides: Slide[] }; revision: number };
  const of = (id: string) => show.slides.find((slide) => slide.id === id)!;
  const words = (id: string, text: object) => ({
    kind: 'set-words',
    slideId: id,
    layerId: of(id).layers.find((layer) => layer.kind === 'words')?.id ?? `planted-${id}`,
    words: text,
  });
  const framing = (x: number, width: number) => ({ x, y: 0.5, width, height: width, turnDegrees: 0 });
  const edits = [
    words('regatta-7', FAINT),
    words('regatta-5', {
      ...FAINT,
      style: { colour: '#f0b060', shadow: 'none' },
      place: 'centre',
      title: 'All lit by hand',
    }),
    words('regatta-9', { title: 'Port Elery', subtitle: '', place: 'bottom' }),
    {
      kind: 'set-transitions',
      transitions: [{ slideId: 'regatta-10', transition: { kind: 'dissolve', lengthMs: 8000 } }],
    },
    {
      kind: 'set-move',
      slideId: 'regatta-6',
      layerId: of('regatta-6').layers[0]!.id,
      move: { kind: 'set', first: framing(0.9, 0.6), last: framing(0.9, 0.6) },
    },
  ];
  const answer = await ask(`${url}/edits`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: app.address },
    body: JSON.stringify({
      knownRevision: revision,
      edits: edits.map((edit, n) => ({ editId: `planted-before-${n}`, edit })),
    }),
  });
  expect(answer.status).toBe(200);
  await hands.go('arrange', 'slide');
});
afterAll(async () => {
  expect(page.faults).toEqual([]);
  await browser.close();
  await app.close();
});

const slideOf = async (id: string) => (await hands.stored()).slides.find((slide) => slide.id === id)!;
const measured = () => page.waitForSelector('[data-part=snags][data-looking=false]');
const keys = () => page.$$eval('[data-part=snag]', (snags) => snags.map((snag) => (snag as HTMLElement).dataset.key!));
const gone = (key: string) =>
  page.waitForFunction((of) => !document.querySelector(`[data-part=snag][data-key="${of}"]`), {}, key);
async function choose(key: string): Promise<void> {
  await page.click(`[data-part=snag][data-key="${key}"]`);
  await page.waitForSelector(`[data-part=snag][data-key="${key}"][aria-selected=true]`);
  await page.waitForSelector('[data-part=try-fix], [data-part=snag-advice]');
}

describe('snags', () => {
  it('are found while one looks, counted in the header and shown in the margin of their slides', async () => {
    await measured();
    const count = await page.$eval('[data-part=snags]', (at) => Number((at as HTMLElement).dataset.count));
    expect(count).toBeGreaterThanOrEqual(5);
    const marked = await page.$$eval('[data-part=row-snags]', (marks) =>
      marks.map((mark) => (mark.closest('[data-slide]') as HTMLElement).dataset.slide),
    );
    expect(marked).toEqual(expect.arrayContaining(['regatta-5']));
    expect(await seriousIn(page)).toEqual([]);
  });

  it('stand in a room of their own with the moment playing, the planted ones among them', async () => {
    await hands.key('!');
    await page.waitForSelector('[data-part=snags-room]');
    expect(await keys()).toEqual(
      expect.arrayContaining([
        'faint-words regatta-7 planted-regatta-7',
        'black-edge regatta-6 ' + (await slideOf('regatta-6')).layers[0]!.id,
        'transition-cut-short regatta-10',
      ]),
    );
    expect((await keys()).some((key) => key.startsWith('spelt-twice regatta-9'))).toBe(true);
    await choose('faint-words regatta-7 planted-regatta-7');
    await page.waitForSelector('[data-part=viewer][data-playing=true]');
    const span = (await hands.stored()).slides.slice(0, 6).reduce((sum, slide) => sum + slide.lengthMs, 0);
    await page.waitForFunction(
      (from) => {
        const viewer = document.querySelector('[data-part=snags-room] [data-part=viewer]') as HTMLElement;
        return Math.abs(Number(viewer.dataset.moment) - from) < 8000;
      },
      {},
      span,
    );
    expect(await seriousIn(page)).toEqual([]);
  });

  it('offer ways out that are seen before they are taken, and are gone once one is', async () => {
    const before = await slideOf('regatta-7');
    await page.click('[data-part=try-fix]');
    await waitForText(page, '[data-part=seen-as]', /as it would be/);
    expect(await slideOf('regatta-7')).toEqual(before);
    await page.click('[data-part=take-fix]');
    await gone('faint-words regatta-7 planted-regatta-7');
    const after = (await slideOf('regatta-7')).layers.find((layer) => layer.kind === 'words') as WordsLayer;
    expect([after.title, after.style?.shadow]).not.toEqual([FAINT.title, 'none']);
    await waitForText(page, '[data-part=seen-as]', /as it is/);
  });

  it('are gone through by the arrow keys', async () => {
    await page.focus('[data-part=snag-list]');
    const first = await page.$eval('[data-part=snag][aria-selected=true]', (at) => (at as HTMLElement).dataset.key);
    await page.keyboard.press('ArrowDown');
    await page.waitForFunction(
      (was) =>
        (document.querySelector('[data-part=snag][aria-selected=true]') as HTMLElement | null)?.dataset.key !== was,
      {},
      first,
    );
  });

  it('are left as they are with a reason that is kept, and counted again', async () => {
    await choose('transition-cut-short regatta-10');
    await page.type('input[aria-label="Why it stays as it is"]', 'it is meant so');
    await page.click('[data-part=let-be]');
    await gone('transition-cut-short regatta-10');
    expect((await hands.stored()).letBe).toEqual({ 'transition-cut-short regatta-10': 'it is meant so' });
    await page.locator('[data-part=left-open]').click();
    await choose('transition-cut-short regatta-10');
    await waitForText(page, '[data-part=let-be-reason]', /it is meant so/);
    await page.click('[data-part=let-be]');
    await page.waitForFunction(() => !document.querySelector('[data-part=let-be-reason]'));
    expect((await hands.stored()).letBe).toBeUndefined();
  });

  it('of one kind are seen to in one step, and undone in one', async () => {
    const before = await slideOf('regatta-9');
    const key = (await keys()).find((one) => one.startsWith('spelt-twice'))!;
    await choose(key);
    await page.click('[data-part=try-fix]');
    await page.click('[data-part=take-fix]');
    await gone(key);
    const after = (await slideOf('regatta-9')).layers.find((layer) => layer.kind === 'words') as WordsLayer;
    expect(after.title).toBe('Port Ellery');
    await page.keyboard.press('Escape');
    await page.waitForFunction(() => !document.querySelector('[data-part=snags-room]'));
    await hands.key('Control', 'z');
    expect(await slideOf('regatta-9')).toEqual(before);
  });
});

describe('what reads best here', () => {
  it('gives words a colour and a place in which they are read, in one step that can be undone', async () => {
    await page.click('[data-slide=regatta-5] [role=img]');
    await page.locator('aria/Words[role="tab"]').click();
    const before = await slideOf('regatta-5');
    await page.waitForSelector('[data-part=words-snag]');
    await page.click('[data-part=reads-best]');
    await page.waitForFunction(() => !document.querySelector('[data-part=words-snag]'));
    const after = (await slideOf('regatta-5')).layers.find((layer) => layer.kind === 'words') as WordsLayer;
    expect(after.style?.colour).not.toBe('#f0b060');
    await hands.key('Control', 'z');
    expect(await slideOf('regatta-5')).toEqual(before);
  });
});
