// What ten minutes of work without a rest do to memory: edits, undoing, playing, going from station to station, small films. Told each minute: npm run bench:soak [-- MINUTES]
import { execFileSync } from 'node:child_process';
import { setTimeout as sleep } from 'node:timers/promises';
import type { CDPSession } from 'puppeteer-core';
import { chord, filmMade, openApp, openBrowser, openPage } from '../e2e/app';

const MINUTES = Number(process.argv[3] ?? 10);
const SHOW = 'lantern-regatta';
const app = await openApp({ seed: true });
const browser = await openBrowser();
const page = await openPage(browser);
await page.goto(`${app.address}/shows/${SHOW}/arrange`);
await page.waitForSelector('[data-part=slide]');
const client = await page.createCDPSession();
await client.send('Performance.enable');

/** Resident memory of a process and all it has begun, in MB. */
function residentMb(pid: number): number {
  const rows = execFileSync('ps', ['-eo', 'pid=,ppid=,rss='], { encoding: 'utf8' })
    .trim()
    .split('\n')
    .map((line) => line.trim().split(/\s+/).map(Number) as [number, number, number]);
  const of = new Set([pid]);
  for (let before = 0; before !== of.size;) {
    before = of.size;
    for (const [own, parent] of rows) if (of.has(parent)) of.add(own);
  }
  return rows.reduce((sum, [own, , kb]) => sum + (of.has(own) ? kb / 1024 : 0), 0);
}

/** What is still held once everything that can be thrown away was. */
async function heldBy(session: CDPSession): Promise<{ heapMb: number; nodes: number; listeners: number }> {
  await session.send('HeapProfiler.collectGarbage');
  const { metrics } = await session.send('Performance.getMetrics');
  const of = (name: string) => metrics.find((metric) => metric.name === name)!.value;
  return { heapMb: of('JSHeapUsedSize') / 2 ** 20, nodes: of('Nodes'), listeners: of('JSEventListeners') };
}

/** All that was begun here, but for the browser and this program itself. */
const serverMb = () =>
  residentMb(process.pid) - residentMb(browser.process()!.pid!) - process.memoryUsage.rss() / 2 ** 20;
/** What a hand of this program holds would not be let go by the page either. */
async function there(selector: string): Promise<void> {
  await (await page.waitForSelector(selector))?.dispose();
}

let [edits, films, rounds] = [0, 0, 0];
async function work(): Promise<void> {
  rounds += 1;
  await chord(page, 'Alt', '2');
  await there('html[data-station=arrange] [data-part=slide]');
  await page.click('[data-part=slide]:nth-of-type(2) [role=img]');
  for (let step = 0; step < 12; step += 1) {
    await page.keyboard.press(step % 3 === 2 ? '-' : '+');
    edits += 1;
    await sleep(60);
  }
  await page.keyboard.press('t');
  const typing = await page.waitForFunction(() => document.activeElement?.matches('[data-part=title]'));
  await typing.dispose();
  await page.keyboard.type(`Evening ${rounds}`, { delay: 15 });
  await page.keyboard.press('Escape');
  edits += 1;
  await page.keyboard.press('d', { delay: 20 });
  await sleep(700);
  await page.keyboard.press('Escape');
  for (let step = 0; step < 13; step += 1) {
    await chord(page, 'Control', 'z');
    await sleep(30);
  }
  edits += 13;
  await page.keyboard.press('Space');
  await sleep(2500);
  await page.keyboard.press('Space');
  await page.click('[data-part=slide]:nth-of-type(2) [role=img]', { count: 2 });
  await there('[data-part=wide]');
  await sleep(400);
  await page.keyboard.press('Escape');
  for (const station of ['1', '3', '4'] as const) {
    await chord(page, 'Alt', station);
    await sleep(900);
  }
}

const startedMs = performance.now();
for (let minute = 0; minute <= MINUTES; minute += 1) {
  while (performance.now() - startedMs < minute * 60_000) await work();
  if (minute > 0) {
    await filmMade(app, SHOW, { widthPx: 320 + 32 * minute, heightPx: 180 + 18 * minute });
    films += 1;
  }
  const { heapMb, nodes, listeners } = await heldBy(client);
  process.stdout.write(
    `after ${String(minute).padStart(2)} min: server and all it began ${serverMb().toFixed(0)} MB, page ${heapMb.toFixed(1)} MB in ${nodes} nodes and ${listeners} listeners, browser in all ${residentMb(browser.process()!.pid!).toFixed(0)} MB; ${edits} edits, ${films} films\n`,
  );
}
if (page.faults.length > 0) process.stdout.write(`faults: ${page.faults.join('; ')}\n`);
await browser.close();
await app.close();
process.exit(0);
