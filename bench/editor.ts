// A show of 3,000 slides in the editor, in headless Chromium: opening, scrolling, dragging, editing, saving, memory. npm run bench:editor [SLIDES]
import { readdir, readFile } from 'node:fs/promises';
import type { Page } from 'puppeteer-core';
import { ask, openApp, openBrowser, openPage } from '../e2e/app';
import { putLargeShow } from './large-show';

const COUNT = Number(process.argv[3] ?? 3000);
const app = await openApp({ seed: true });
const show = await putLargeShow(app, COUNT);
const ID = show.id;

const browser = await openBrowser();
const page = await openPage(browser);
await page.goto(app.address);
const say = (name: string, value: string) => process.stdout.write(`${name.padEnd(54)}${value.padStart(16)}\n`);
say(`a show of ${COUNT} slides, in Chromium`, '');

const openings: number[] = [];
for (let round = 0; round < 4; round += 1) {
  await page.goto('about:blank');
  const startedMs = performance.now();
  await page.goto(`${app.address}/shows/${ID}/arrange`, { waitUntil: 'domcontentloaded' });
  await page.waitForFunction(
    () =>
      document.querySelectorAll('[data-part=slide] img').length > 3 &&
      (document.querySelector('[data-part=slide] img') as HTMLImageElement).complete,
  );
  if (round > 0) openings.push(performance.now() - startedMs);
}
say('opening, to the first rows with their pictures', `${median(openings).toFixed(0)} ms`);
await new Promise((resolve) => {
  setTimeout(resolve, 3000);
});
const memory: number[] = [await pageMegabytes()];

/** Longest and mean script time of a frame while `act` goes on, by the browser's own trace. */
async function framesOf(name: string, act: (on: Page) => Promise<void>): Promise<void> {
  const client = await page.createCDPSession();
  await client.send('Performance.enable');
  const read = async () =>
    Object.fromEntries(
      (await client.send('Performance.getMetrics')).metrics.map((metric) => [metric.name, metric.value]),
    );
  await page.evaluate(() => {
    const kept = { frames: 0, on: true };
    (window as unknown as { kept: typeof kept }).kept = kept;
    const count = () => {
      if (kept.on) {
        kept.frames += 1;
        requestAnimationFrame(count);
      }
    };
    requestAnimationFrame(count);
    const observer = new PerformanceObserver((list) => {
      for (const entry of list.getEntries())
        (window as unknown as { longest: number }).longest = Math.max(
          (window as unknown as { longest: number }).longest,
          entry.duration,
        );
    });
    (window as unknown as { longest: number }).longest = 0;
    observer.observe({ type: 'longtask' });
  });
  const before = await read();
  await act(page);
  const after = await read();
  const { frames, longest } = await page.evaluate(() => {
    const { kept, longest: most } = window as unknown as { kept: { frames: number; on: boolean }; longest: number };
    kept.on = false;
    return { frames: kept.frames, longest: most };
  });
  const script = ((after.ScriptDuration! - before.ScriptDuration!) * 1000) / frames;
  const layout =
    ((after.LayoutDuration! + after.RecalcStyleDuration! - before.LayoutDuration! - before.RecalcStyleDuration!) *
      1000) /
    frames;
  memory.push(await pageMegabytes());
  say(name, `${script.toFixed(1)} + ${layout.toFixed(1)} ms`);
  say('   longest task over 50 ms', longest === 0 ? 'none' : `${longest.toFixed(0)} ms`);
  await client.detach();
}

const list = (await (await page.$('[data-part=running-order]'))!.boundingBox())!;
await page.mouse.move(list.x + 300, list.y + 300);
await framesOf('scrolling: script + layout a frame', async (on) => {
  for (let step = 0; step < 120; step += 1) {
    await on.mouse.wheel({ deltaY: 240 });
    await on.evaluate(() => new Promise(requestAnimationFrame));
  }
});
await framesOf('dragging a slide: script + layout a frame', async (on) => {
  const row = (await (await on.$('[data-part=slide]:nth-of-type(5) [role=img]'))!.boundingBox())!;
  await on.mouse.move(row.x + 30, row.y + 30);
  await on.mouse.down();
  for (let step = 0; step < 90; step += 1) {
    await on.mouse.move(row.x + 30 + (step % 7), row.y + 30 + step * 3);
    await on.evaluate(() => new Promise(requestAnimationFrame));
  }
  await on.keyboard.press('Escape');
  await on.mouse.up();
});
await framesOf('dragging a seam: script + layout a frame', async (on) => {
  const handle = (await (await on.$$('[data-part=seam-handle]'))[5]!.boundingBox())!;
  await on.mouse.move(handle.x + 40, handle.y + 6);
  await on.mouse.down();
  for (let step = 0; step < 60; step += 1) {
    await on.mouse.move(handle.x + 40, handle.y + 6 + step);
    await on.evaluate(() => new Promise(requestAnimationFrame));
  }
  await on.mouse.up();
});

const arrangeUrl = page.url();
await page.goto(`${app.address}/shows/${ID}/gather`);
await page.waitForSelector('[data-part=contact-sheet] [role=option] img');
await new Promise((resolve) => {
  setTimeout(resolve, 1500);
});
const sheet = (await (await page.$('[data-part=contact-sheet]'))!.boundingBox())!;
await page.mouse.move(sheet.x + 300, sheet.y + 300);
await framesOf('scrolling the contact sheet: script + layout a frame', async (on) => {
  for (let step = 0; step < 120; step += 1) {
    await on.mouse.wheel({ deltaY: 240 });
    await on.evaluate(() => new Promise(requestAnimationFrame));
  }
});
await framesOf('marking prints: script + layout a frame', async (on) => {
  for (let step = 0; step < 40; step += 1) {
    await on.keyboard.press('ArrowRight');
    await on.keyboard.press('k');
    await on.evaluate(() => new Promise(requestAnimationFrame));
  }
});
await page.goto(arrangeUrl);
await page.waitForSelector('[data-part=slide]');
await new Promise((resolve) => {
  setTimeout(resolve, 2000);
});

// From the key to the frame that shows it.
await page.click('[data-part=slide]:nth-of-type(4) [role=img]');
await new Promise((resolve) => {
  setTimeout(resolve, 1500);
});
const seen: number[] = [];
for (let round = 0; round < 15; round += 1) {
  seen.push(
    await page.evaluate(
      () =>
        new Promise<number>((resolve) => {
          const startedMs = performance.now();
          document
            .querySelector('[data-part=running-order]')!
            .dispatchEvent(new KeyboardEvent('keydown', { key: '+', bubbles: true }));
          requestAnimationFrame(() => requestAnimationFrame(() => resolve(performance.now() - startedMs)));
        }),
    ),
  );
  await new Promise((resolve) => {
    setTimeout(resolve, 400);
  });
}
say('an edit, from the key to the frame that shows it', `${median(seen).toFixed(0)} ms`);

const client = await page.createCDPSession();
await client.send('HeapProfiler.collectGarbage');
await client.send('Performance.enable');
const heap = (await client.send('Performance.getMetrics')).metrics.find(
  (metric) => metric.name === 'JSHeapUsedSize',
)!.value;
say('memory of the page’s own heap', `${(heap / 2 ** 20).toFixed(0)} MB`);
memory.push(await pageMegabytes());
say('memory of the page’s process, with its workers and pictures', `${memory[0]!.toFixed(0)} MB`);
say('   the most of it at any stage', `${Math.max(...memory).toFixed(0)} MB`);
// What the server takes: a page that is open would ask for each edit as well, on the same two cores.
await page.waitForSelector('[data-part=saving][data-state=saved]');
await page.goto('about:blank');
const request = (edits: unknown[], knownRevision: number) =>
  ask(`${app.address}/api/v1/shows/${ID}/edits`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ knownRevision, edits }),
  });
let { revision } = (await (await ask(`${app.address}/api/v1/shows/${ID}`)).json()) as { revision: number };
const saving: number[] = [];
let answered = 0;
for (let round = 0; round < 120; round += 1) {
  const startedMs = performance.now();
  const answer = await (
    await request(
      [
        {
          editId: `bench-edit-${round}`,
          edit: { kind: 'set-lengths', lengths: [{ slideId: show.slides[round]!.id, lengthMs: 4000 + round }] },
        },
      ],
      revision,
    )
  ).text();
  saving.push(performance.now() - startedMs);
  revision = (JSON.parse(answer) as { revision: number }).revision;
  answered = Math.max(answered, answer.length);
}
say('saving an edit, the whole request: median', `${median(saving).toFixed(1)} ms`);
say('   longest (every 50th writes the whole document)', `${Math.max(...saving).toFixed(1)} ms`);
say('   answer', `${answered} bytes`);

await browser.close();
await app.close();
process.exit(0);

/** What the page's process holds for itself: its heap, its workers, its decoded pictures; not the program's code, which all processes share. */
async function pageMegabytes(): Promise<number> {
  const status = async (pid: string, file: string) => readFile(`/proc/${pid}/${file}`, 'utf8').catch(() => '');
  const held: number[] = [];
  for (const pid of (await readdir('/proc')).filter((name) => /^\d+$/.test(name))) {
    if (!(await status(pid, 'cmdline')).includes('--type=renderer')) continue;
    const rollup = await status(pid, 'smaps_rollup');
    held.push(
      [...rollup.matchAll(/^Private_(?:Clean|Dirty):\s+(\d+) kB/gm)].reduce(
        (sum, [, kilobytes]) => sum + Number(kilobytes),
        0,
      ) / 1024,
    );
  }
  return Math.max(...held);
}

function median(values: readonly number[]): number {
  return [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
}
