// Frames a second of the viewer in headless Chromium at 1280 × 720, and how long the page itself is busy meanwhile: npm run bench:viewer
import { ask, openApp, openBrowser, openPage } from '../e2e/app';
import type { Show } from '../src/core/show/show';
import type { TransitionOverTime } from '../src/core/show/transition';

const SECONDS = 8;
const app = await openApp({ seed: true });
const browser = await openBrowser();
const page = await openPage(browser);
await page.goto(app.address);
const demo = ((await (await ask(`${app.address}/api/v1/shows/lantern-regatta`)).json()) as { show: Show }).show;
const clipAt = demo.slides.findIndex((slide) => slide.layers[0]?.kind === 'clip');
const startOf = (index: number) => demo.slides.slice(0, index).reduce((sum, slide) => sum + slide.lengthMs, 0);
const quick = (transition: TransitionOverTime): Show => ({
  ...demo,
  slides: demo.slides
    .filter((slide) => slide.layers[0]?.kind === 'picture')
    .slice(1, 9)
    .map((slide) => ({ ...slide, lengthMs: 2400, transition })),
});
const cases: [string, Show, number][] = [
  ['a picture with its words', demo, 1500],
  ['pictures and dissolves', demo, startOf(1) - 2000],
  ['a clip', demo, startOf(clipAt)],
  ['a wipe every 2.4 s', quick({ kind: 'wipe', lengthMs: 1200, direction: 'up-right' }), 1200],
  ['a cube turn every 2.4 s', quick({ kind: 'cube-turn', lengthMs: 1200 }), 1200],
];
process.stdout.write(
  `frames a second over ${SECONDS} s at 1280 × 720 (60 wanted); frames left out; longest the page stood still\n`,
);
for (const [name, show, fromMs] of cases) {
  const measured = await page.evaluate(
    async (given: { show: Show; fromMs: number; seconds: number }) => {
      const sheet = (await (await fetch('/api/v1/shows/lantern-regatta/sheet')).json()) as {
        entries: { assetId: string; facts: unknown }[];
      };
      const canvas = document.createElement('canvas');
      canvas.style.cssText = 'position:fixed;inset:0;z-index:999;width:1280px;height:720px';
      document.body.append(canvas);
      const offscreen = canvas.transferControlToOffscreen();
      const worker = new Worker('/drawing/worker.js?show=lantern-regatta', { type: 'module' });
      await new Promise<void>((resolve) => {
        worker.onmessage = (event: MessageEvent<{ kind: string }>) => {
          if (event.data.kind === 'ready') resolve();
        };
      });
      worker.postMessage({ kind: 'canvas', canvas: offscreen }, [offscreen]);
      worker.postMessage({
        kind: 'show',
        show: given.show,
        facts: new Map(sheet.entries.filter((entry) => entry.facts).map((entry) => [entry.assetId, entry.facts])),
      });
      worker.postMessage({ kind: 'size', widthPx: 1280, heightPx: 720 });
      worker.postMessage({ kind: 'still', momentMs: given.fromMs });
      await new Promise((resolve) => {
        setTimeout(resolve, 3000);
      });
      let drawn = 0;
      worker.onmessage = (event: MessageEvent<{ kind: string }>) => {
        if (event.data.kind === 'drawn') drawn += 1;
      };
      let [longest, last] = [0, performance.now()];
      const ticking = setInterval(() => {
        longest = Math.max(longest, performance.now() - last - 4);
        last = performance.now();
      }, 4);
      worker.postMessage({
        kind: 'play',
        momentMs: given.fromMs,
        atMs: performance.timeOrigin + performance.now(),
        endMs: given.fromMs + given.seconds * 1000 + 500,
      });
      await new Promise((resolve) => {
        setTimeout(resolve, given.seconds * 1000);
      });
      clearInterval(ticking);
      worker.terminate();
      canvas.remove();
      return { drawn, longest };
    },
    { show, fromMs, seconds: SECONDS },
  );
  const share = 1 - measured.drawn / (60 * SECONDS);
  process.stdout.write(
    `${name.padEnd(28)}${(measured.drawn / SECONDS).toFixed(1).padStart(6)}${`${(100 * Math.max(0, share)).toFixed(1)} %`.padStart(10)}${`${measured.longest.toFixed(0)} ms`.padStart(10)}\n`,
  );
}
await browser.close();
await app.close();
process.exit(0);
