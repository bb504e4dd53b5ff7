// How long a jump in a long film takes on a slow line, over and over: npm run bench:seek [minutes]
import { spawnSync } from 'node:child_process';
import { readdir, rename, stat } from 'node:fs/promises';
import path from 'node:path';
import { filmMade, openApp, openBrowser, openPage, screened } from '../e2e/app';
import { wholeRate } from '../src/core/timing/frame-rate';

const minutes = Number(process.argv.at(-1)) || 40;
/** A slow mobile line: 4 megabits a second, 80 ms there and back. */
const LINE = { offline: false, downloadThroughput: 500_000, uploadThroughput: 125_000, latency: 80 };
const JUMPS = 12;

const app = await openApp({ seed: true });
const made = await filmMade(app, 'lantern-regatta', {
  ...{ widthPx: 1280, heightPx: 720, rate: wholeRate(25), span: { fromMs: 0, toMs: 60_000 } },
});
const folder = path.join(app.dataFolder, 'films');
const [name] = (await readdir(folder)).filter((file) => file.endsWith('.mp4'));
const file = path.join(folder, name!);
// The same minute over and over, packed as films are: a long one is made in no other way.
const long = `${file}.long.mp4`;
const joined = spawnSync('ffmpeg', [
  ...['-v', 'error', '-stream_loop', String(minutes - 1), '-i', file],
  ...['-c', 'copy', '-movflags', '+faststart', '-y', long],
]);
if (joined.status !== 0) throw new Error(String(joined.stderr));
await rename(long, file);
const token = await screened(app, 'lantern-regatta', made);

const browser = await openBrowser();
const page = await openPage(browser, 'stranger');
const network = await page.createCDPSession();
await network.send('Network.enable');
await network.send('Network.emulateNetworkConditions', LINE);
const from = performance.now();
await page.goto(`${app.address}/s/${token}`, { waitUntil: 'domcontentloaded' });
await page.waitForFunction(() => (document.querySelector('video')?.readyState ?? 0) >= 1);
const opened = performance.now() - from;
const took = await page.evaluate(async (jumps) => {
  const film = document.querySelector('video')!;
  film.muted = true;
  await film.play();
  const times: number[] = [];
  for (let jump = 0; jump < jumps; jump += 1) {
    // Far from what has been fetched, to and fro.
    const to = film.duration * ((0.37 + jump * 0.618_034) % 0.97);
    const begun = performance.now();
    film.currentTime = to;
    await new Promise<void>((resolve) => {
      const look = () => {
        // It plays on from there.
        if (!film.seeking && film.currentTime > to + 0.02 && film.readyState >= 3) resolve();
        else requestAnimationFrame(look);
      };
      look();
    });
    times.push(performance.now() - begun);
    await new Promise((resolve) => setTimeout(resolve, 400));
  }
  return times.sort((one, other) => one - other);
}, JUMPS);
const megabytes = (await stat(file)).size / 1e6;
process.stdout.write(
  `${minutes} min, ${megabytes.toFixed(0)} MB, ${((megabytes * 8) / (minutes * 60)).toFixed(2)} Mbit/s; on 4 Mbit/s and 80 ms: the page until its film is known ${opened.toFixed(0)} ms; ${JUMPS} jumps, until it plays on: median ${took[JUMPS >> 1]!.toFixed(0)} ms, longest ${took.at(-1)!.toFixed(0)} ms\n`,
);
await browser.close();
await app.close();
