// How smoothly a client goes through a proof on a phone: 300 photographs on a screen of 360 × 740, flung through and marked: npm run bench:proof [-- FOLDER [COUNT]]
import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import { ask, openApp, openBrowser, openPage, sending } from '../e2e/app';

const FOLDER = process.argv[3] ?? 'demo/files';
const COUNT = Number(process.argv[4] ?? 300);
/** As much slower than the machine here as a phone of the middle sort is held to be. */
const SLOWER = 4;
const names = readdirSync(FOLDER).filter((name) => /\.jpe?g$/i.test(name));
const app = await openApp();
const made = await ask(`${app.address}/api/v1/shows`, sending('POST', { title: 'Three hundred' }));
const { id: show } = (await made.json()) as { id: string };
for (let index = 0; index < COUNT; index += 1) {
  const file = readFileSync(path.join(FOLDER, names[index % names.length]!));
  // Each another picture, as phones and cameras send them: of twelve megapixels.
  const bytes = await sharp(file)
    .resize(index % 3 === 0 ? { width: 1200, height: 1600, fit: 'cover' } : { width: 1600, height: 1200, fit: 'cover' })
    .modulate({ hue: index % 360 })
    .jpeg({ quality: 88 })
    .toBuffer();
  const sent = await ask(`${app.address}/api/v1/uploads`, {
    method: 'POST',
    headers: {
      'tus-resumable': '1.0.0',
      'content-type': 'application/offset+octet-stream',
      'upload-length': String(bytes.length),
      'upload-metadata': `filename ${btoa(`HL_${index}.jpg`)},show ${btoa(show)}`,
    },
    body: new Uint8Array(bytes),
  });
  if (sent.status !== 201) throw new Error(await sent.text());
}
const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
for (;;) {
  const { entries } = (await (await ask(`${app.address}/api/v1/shows/${show}/sheet`)).json()) as {
    entries: { state: string }[];
  };
  if (entries.filter(({ state }) => state === 'ready').length === COUNT) break;
  await rest(1000);
}
const browser = await openBrowser();
const page = await openPage(browser);
await page.goto(`${app.address}/shows/${show}/gather`);
await page.waitForSelector('[data-part=open-proofs]:enabled');
await page.keyboard.press('a');
await page.waitForSelector('[data-part=make-proof]:enabled');
await page.type('#proof-label', 'The harbour choir');
await page.click('[data-part=make-proof]');
await page.waitForSelector('[data-part=proof-link]');
const link = await page.$eval('[data-part=proof-link]', (element) => (element as HTMLAnchorElement).href);
await page.close();
const context = await browser.createBrowserContext();
const client = await openPage(context, 'stranger');
await client.setViewport({ width: 360, height: 740, isMobile: true, hasTouch: true, deviceScaleFactor: 2 });
const session = await client.createCDPSession();

async function flung(slower: number): Promise<void> {
  await session.send('Emulation.setCPUThrottlingRate', { rate: slower });
  await client.goto(link);
  await client.waitForSelector('[data-part=proof-picture]');
  await rest(1500);
  const frames = await client.evaluate(async () => {
    const taken: number[] = [];
    const whole = document.documentElement.scrollHeight - innerHeight;
    const startedMs = performance.now();
    const lasts = 8000;
    let last = startedMs;
    for (;;) {
      const now = await new Promise<number>(requestAnimationFrame);
      taken.push(now - last);
      last = now;
      const share = (now - startedMs) / lasts;
      if (share >= 1) return taken.slice(2);
      scrollTo(0, whole * share);
    }
  });
  const marks = await client.evaluate(async () => {
    const taken: number[] = [];
    scrollTo(0, 0);
    for (const button of [...document.querySelectorAll<HTMLElement>('[data-part=proof-picture] button')].slice(1, 25)) {
      const startedMs = performance.now();
      button.click();
      await new Promise(requestAnimationFrame);
      await new Promise(requestAnimationFrame);
      taken.push(performance.now() - startedMs);
      await new Promise((resolve) => setTimeout(resolve, 60));
    }
    return taken.sort((one, other) => one - other);
  });
  const sorted = frames.toSorted((one, other) => one - other);
  const late = frames.filter((ms) => ms > 34).length;
  process.stdout.write(
    `${COUNT} pictures, ${slower === 1 ? 'this machine' : `${slower} × slower`}: flung through in 8 s at ${((1000 * frames.length) / frames.reduce((sum, ms) => sum + ms, 0)).toFixed(1)} frames a second, ${late} of ${frames.length} later than two frames, longest ${sorted.at(-1)!.toFixed(0)} ms; a mark to the frame that shows it ${marks[marks.length >> 1]!.toFixed(0)} ms, longest ${marks.at(-1)!.toFixed(0)} ms\n`,
  );
}
await flung(1);
await flung(SLOWER);
await browser.close();
await app.close();
process.exit(0);
