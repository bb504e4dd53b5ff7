// What looking over a show costs whoever works on it meanwhile, in headless Chromium, in pairs: with the worker that looks, and with one that does nothing.
// npm run bench:watched [SLIDES]
import type { Page } from 'puppeteer-core';
import { openApp, openBrowser, openPage } from '../e2e/app';
import { putLargeShow } from './large-show';

const COUNT = Number(process.argv[3] ?? 300);
const ROUNDS = 4;
const app = await openApp({ seed: true });
const show = await putLargeShow(app, COUNT, 2);
const browser = await openBrowser();

interface Round {
  /** From the key to the frame that shows it. */
  readonly editMs: number;
  readonly longestEditMs: number;
  readonly framesASecond: number;
  /** The page's own thread beside that. */
  readonly scriptMs: number;
  /** Slides that had been drawn and looked at by the end. */
  readonly looked: string;
}

async function round(isWatched: boolean): Promise<Round> {
  const page = await openPage(browser);
  if (!isWatched) {
    await page.setRequestInterception(true);
    page.on('request', (request) =>
      request.url().includes('/drawing/check-worker.js')
        ? void request.respond({ contentType: 'text/javascript', body: '' })
        : void request.continue(),
    );
  }
  await page.goto(`${app.address}/shows/${show.id}/arrange`);
  await page.waitForSelector('[data-part=slide]');
  await page.click('[data-part=slide]:nth-of-type(4) [role=img]');
  await rest(4000);
  const edits: number[] = [];
  for (let edit = 0; edit < 15; edit += 1) {
    edits.push(await keyToFrame(page));
    await rest(300);
  }
  const list = (await (await page.$('[data-part=running-order]'))!.boundingBox())!;
  await page.mouse.move(list.x + 300, list.y + 300);
  const client = await page.createCDPSession();
  await client.send('Performance.enable');
  const scriptSeconds = async () =>
    (await client.send('Performance.getMetrics')).metrics.find(({ name }) => name === 'ScriptDuration')!.value;
  const before = await scriptSeconds();
  const startedMs = performance.now();
  const frames = 120;
  for (let step = 0; step < frames; step += 1) {
    await page.mouse.wheel({ deltaY: step < frames / 2 ? 240 : -240 });
    await page.evaluate(() => new Promise(requestAnimationFrame));
  }
  const tookMs = performance.now() - startedMs;
  const scriptMs = (1000 * ((await scriptSeconds()) - before)) / frames;
  const looked = await page.evaluate(
    () => document.querySelector<HTMLElement>('[data-part=snags]')?.ariaLabel ?? 'not looked over',
  );
  await page.close();
  edits.sort((a, b) => a - b);
  return {
    editMs: edits[edits.length >> 1]!,
    longestEditMs: edits.at(-1)!,
    framesASecond: (1000 * frames) / tookMs,
    scriptMs,
    looked,
  };
}

const keyToFrame = (page: Page) =>
  page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const startedMs = performance.now();
        document
          .querySelector('[data-part=running-order]')!
          .dispatchEvent(new KeyboardEvent('keydown', { key: '+', bubbles: true }));
        requestAnimationFrame(() => requestAnimationFrame(() => resolve(performance.now() - startedMs)));
      }),
  );
const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));

await round(true);
const pairs: (readonly [Round, Round])[] = [];
for (let pair = 0; pair < ROUNDS; pair += 1) {
  // Which comes first changes, so that whatever gets slower with time is on neither side.
  const first = await round(pair % 2 === 0);
  const second = await round(pair % 2 !== 0);
  pairs.push(pair % 2 === 0 ? [first, second] : [second, first]);
}
const median = (values: readonly number[]) => values.toSorted((a, b) => a - b)[values.length >> 1]!;
const say = (name: string, of: (one: Round) => number, digits: number) => {
  const [watched, alone] = [0, 1].map((side) => median(pairs.map((pair) => of(pair[side as 0 | 1])))) as [
    number,
    number,
  ];
  const ratio = median(pairs.map(([one, other]) => of(one) / of(other)));
  process.stdout.write(
    `${name.padEnd(48)}${watched.toFixed(digits).padStart(9)} / ${alone.toFixed(digits)}  ratio ${ratio.toFixed(2)}\n`,
  );
};
process.stdout.write(
  `a show of ${COUNT} slides, looked over meanwhile / not looked over, medians of ${ROUNDS} pairs\n`,
);
say('an edit, from the key to the frame, ms', ({ editMs }) => editMs, 0);
say('   the longest of fifteen, ms', ({ longestEditMs }) => longestEditMs, 0);
say('scrolling, frames a second', ({ framesASecond }) => framesASecond, 1);
say('scrolling, script a frame, ms', ({ scriptMs }) => scriptMs, 2);
process.stdout.write(`${pairs[0]![0].looked}\n`);
await browser.close();
await app.close();
process.exit(0);
