import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import type { Browser } from 'puppeteer-core';
import {
  type App,
  ask,
  type Hands,
  handsOn,
  openApp,
  openBrowser,
  type OpenPage,
  openPage,
  press,
  seriousIn,
  waitForText,
} from './app';

const COUNT = 300;
// Three hundred pictures are looked at first.
const LOOKED_AT_MS = 400_000;

let app: App;
let browser: Browser;
let page: OpenPage;
let hands: Hands;
let client: OpenPage;
let link: string;
let show: string;

interface Entry {
  readonly assetId: string;
  readonly fileName: string;
  readonly state: string;
}
const sheet = async () =>
  ((await (await ask(`${app.address}/api/v1/shows/${show}/sheet`)).json()) as { entries: Entry[] }).entries;
const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

async function bringIn(name: string, bytes: Buffer): Promise<void> {
  const answer = await ask(`${app.address}/api/v1/uploads`, {
    method: 'POST',
    headers: {
      'tus-resumable': '1.0.0',
      'content-type': 'application/offset+octet-stream',
      'upload-length': String(bytes.length),
      'upload-metadata': `filename ${btoa(name)},show ${btoa(show)}`,
    },
    body: new Uint8Array(bytes),
  });
  expect(answer.status).toBe(201);
}

beforeAll(async () => {
  app = await openApp();
  browser = await openBrowser();
  page = await openPage(browser);
  const made = await ask(`${app.address}/api/v1/shows`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ title: 'Three hundred' }),
  });
  show = ((await made.json()) as { id: string }).id;
  hands = handsOn(app, page, show);
  for (let index = 0; index < COUNT; index += 1) {
    const background = { r: (index * 37) % 256, g: (index * 91) % 256, b: (index * 53) % 256 };
    // No two are alike to the byte.
    const [width, height] = index % 3 === 0 ? [400, 600 + index] : [600 + index, 400];
    await bringIn(
      `HL_${String(index).padStart(4, '0')}.jpg`,
      await sharp({ create: { width, height, channels: 3, background } })
        .jpeg()
        .toBuffer(),
    );
  }
  while ((await sheet()).filter(({ state }) => state === 'ready').length < COUNT) await rest(500);
}, LOOKED_AT_MS);
afterAll(async () => {
  expect([page.faults, client.faults]).toEqual([[], []]);
  await browser.close();
  await app.close();
});

describe('a proof', () => {
  it('is a link that the studio makes on the contact sheet', async () => {
    await hands.go('gather', 'contact-sheet');
    await page.waitForSelector('[data-part=open-proofs]:enabled');
    await hands.key('a');
    await page.waitForSelector('[data-part=make-proof]:enabled');
    await page.type('#proof-label', 'The harbour choir');
    await page.click('[data-part=make-proof]');
    await waitForText(page, '[data-part=proof-line]', /300 pictures, 1024 pixels at most, watermarked/);
    expect(await seriousIn(page)).toEqual([]);
    link = await page.$eval('[data-part=proof-link]', (element) => (element as HTMLAnchorElement).href);
  });
  it('of three hundred pictures is marked on a phone, smoothly, and nothing scrolls sideways', async () => {
    const context = await browser.createBrowserContext();
    client = await openPage(context, 'stranger');
    await client.setViewport({ width: 360, height: 740, isMobile: true, hasTouch: true });
    await client.goto(link);
    await client.waitForSelector('[data-part=proof-picture]');
    expect(await client.$$eval('[data-part=proof-picture]', (all) => all.length)).toBe(COUNT);
    expect(await seriousIn(client)).toEqual([]);
    expect(await client.evaluate(() => document.documentElement.scrollWidth)).toBe(360);
    for (const [number, name] of [
      [1, 'keep'],
      [2, 'leave out'],
      [3, 'linger'],
    ] as const)
      await client.locator(`[aria-label="Mark picture ${number}"] ::-p-text(${name})`).click();
    await waitForText(client, '[data-part=proof-tally]', /1 kept, 1 to linger on, 1 left out, 297 not marked/);
    await waitForText(client, '[data-part=proof-saving]', /^saved$/);
  });
  it('shows a picture large, with a note, by keys and from one to the next', async () => {
    await client.setViewport({ width: 1280, height: 800 });
    await client.locator('aria/Picture 5').click();
    await client.waitForSelector('[data-part=large-picture]');
    await client.keyboard.press('k');
    await client.type('[aria-label="A note on this picture"]', 'The one for grandmother');
    await client.locator('aria/Next picture').click();
    await waitForText(client, '[data-part=large-picture]', /6 of 300/);
    expect(await seriousIn(client)).toEqual([]);
    await client.keyboard.press('Escape');
    await waitForText(client, '[data-part=proof-tally]', /2 kept/);
    await client.waitForSelector('[aria-label="Picture 5, keep: The one for grandmother"]');
  });
  it('arrives on the contact sheet beside one’s own marks, and is taken over as one step', async () => {
    await press(page, 'Close');
    await page.waitForFunction(() => document.querySelectorAll('[data-part=client-mark]').length === 4);
    expect((await hands.stored()).marks).toBeUndefined();
    await hands.key('a');
    await (await page.waitForSelector('[data-part=take-over]:enabled'))!.click();
    expect(Object.values((await hands.stored()).marks ?? {}).sort()).toEqual(['keep', 'keep', 'leave-out', 'linger']);
    await press(page, 'Close');
    await hands.key('Control', 'z');
    expect((await hands.stored()).marks ?? {}).toEqual({});
  });
  it('hands out no picture larger than was chosen, nor one that is not in it', async () => {
    const { pictures } = (await (await fetch(link.replace('/p/', '/api/v1/proofs/'))).json()) as {
      pictures: { id: string }[];
    };
    const at = (id: string, longest: number) =>
      fetch(`${link.replace('/p/', '/api/v1/proofs/')}/pictures/${id}?longest=${longest}`);
    const large = await sharp(Buffer.from(await (await at(pictures[1]!.id, 9000)).arrayBuffer())).metadata();
    expect([large.width, large.height]).toEqual([601, 400]);
    const small = await sharp(Buffer.from(await (await at(pictures[0]!.id, 200)).arrayBuffer())).metadata();
    expect(Math.max(small.width, small.height)).toBe(200);
    expect((await at('f'.repeat(64), 200)).status).toBe(404);
  });
  it('once sent stands: the client changes nothing more, the studio sees who sent it, and may open it again', async () => {
    await press(client, 'Send my choice');
    await client.waitForSelector('[data-part=send-choice] input');
    await client.type('[data-part=send-choice] input', 'Ilka');
    await press(client, 'Send it');
    await waitForText(client, '[data-part=proof]', /Your choice was sent on/);
    expect(await client.$$eval('[aria-label="Mark picture 9"] button:enabled', (all) => all.length)).toBe(0);
    await hands.key('a');
    await waitForText(page, '[data-part=proof-state]', /sent by Ilka/);
    await press(page, 'Let them change it');
    await waitForText(page, '[data-part=proof-state]', /still choosing/);
    await client.reload();
    await client.locator('[aria-label="Mark picture 9"] ::-p-text(keep)').click();
    await waitForText(client, '[data-part=proof-saving]', /^saved$/);
  });
  it('leads nowhere once it is shut; what the client still marks is told as not taken', async () => {
    await page.click('[data-part=shut-proof]');
    await waitForText(page, '[data-part=proof-state]', /shut/);
    await client.locator('[aria-label="Mark picture 10"] ::-p-text(keep)').click();
    await waitForText(client, '[data-part=proof-saving]', /time to choose is over/);
    expect((await fetch(link)).status).toBe(404);
  });
});
