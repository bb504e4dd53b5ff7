// How soon the screen answers over an evening of work, from an empty shelf to a film: once with the mouse, once by keyboard alone. What counts is the time from a press
// to the next picture of the screen (the browser's own Event Timing), in the worst of all presses: npm run bench:evening [-- FOLDER [COUNT [mouse|keyboard]]]
import { readdirSync } from 'node:fs';
import path from 'node:path';
import type { Page } from 'puppeteer-core';
import { chord, dropFiles, openApp, openBrowser, openPage, press, textOf } from '../e2e/app';

const FOLDER = process.argv[3] ?? 'demo/files';
const COUNT = Number(process.argv[4] ?? 119);
/** One way only: mouse or keyboard. */
const ONLY = process.argv[5];
const WANTED_MS = 200;
const PRINT = '[data-part=contact-sheet] [role=option]';
const files = readdirSync(FOLDER)
  .filter((name) => /\.(jpe?g|png|webp)$/i.test(name))
  .slice(0, COUNT)
  .map((name) => path.resolve(FOLDER, name));
const song = path.resolve('demo/files/harbour-reel.mp3');
const app = await openApp();
const browser = await openBrowser();

interface Press {
  /** What the hand was at. */
  readonly at: string;
  readonly event: string;
  readonly on: string;
  readonly ms: number;
  /** Of these: until the page's own code began, and how long that took. */
  readonly waitedMs: number;
  readonly workedMs: number;
}

/** Long Animation Frames of the browser, as far as they are told. */
interface LongFrame extends PerformanceEntry {
  readonly scripts: readonly {
    readonly invoker: string;
    readonly sourceFunctionName: string;
    readonly sourceURL: string;
    readonly sourceCharPosition: number;
    readonly duration: number;
  }[];
}

interface Hand {
  /** Frames of the page that took longest, and what they did. */
  readonly frames: string[];
  readonly presses: Press[];
  at(words: string, how: () => Promise<unknown>): Promise<void>;
}

/** Every press is counted, also the ones the browser's own list leaves out for being quick. */
async function handOn(page: Page): Promise<Hand> {
  const presses: Press[] = [];
  const frames: string[] = [];
  let now = 'the shelf';
  await page.exposeFunction('tellPress', (entry: Omit<Press, 'at'>) => void presses.push({ at: now, ...entry }));
  await page.exposeFunction('tellFrame', (said: string) => void frames.push(`${now}: ${said}`));
  await page.evaluateOnNewDocument(() => {
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as PerformanceEventTiming[]) {
        if (!entry.interactionId) continue;
        const target = entry.target as HTMLElement | null;
        const part = target?.closest?.('[data-part]') as HTMLElement | null | undefined;
        (window as unknown as { tellPress(entry: unknown): void }).tellPress({
          event: entry.name,
          on: `${target?.tagName?.toLowerCase() ?? 'nothing'} in ${part?.dataset.part ?? 'the page'}`,
          ms: entry.duration,
          waitedMs: entry.processingStart - entry.startTime,
          workedMs: entry.processingEnd - entry.processingStart,
        });
      }
    }).observe({ type: 'event', durationThreshold: 16, buffered: true } as PerformanceObserverInit);
    new PerformanceObserver((list) => {
      for (const entry of list.getEntries() as LongFrame[])
        if (entry.duration > 180)
          (window as unknown as { tellFrame(said: string): void }).tellFrame(
            `${entry.duration.toFixed(0)} ms: ${entry.scripts
              .map(
                (script) =>
                  `${script.invoker} ${script.sourceFunctionName} ${script.sourceURL.split('/').at(-1)!}:${script.sourceCharPosition} ${script.duration.toFixed(0)} ms`,
              )
              .join('; ')}`,
          );
    }).observe({ type: 'long-animation-frame', buffered: true });
  });
  return {
    presses,
    frames,
    async at(words, how) {
      now = words;
      const startedMs = performance.now();
      await how();
      await page.evaluate(() => new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve, 60))));
      if (process.env.TOLD) process.stderr.write(`${(performance.now() - startedMs).toFixed(0)} ms ${words}\n`);
    },
  };
}

const rest = (ms: number) => new Promise((resolve) => setTimeout(resolve, ms));
/** Waits longer than one question to a browser may take. */
async function until(page: Page, what: string, isSo: () => Promise<boolean>): Promise<void> {
  const startedMs = performance.now();
  while (!(await isSo())) {
    if (performance.now() - startedMs > 900_000) throw new Error(`${what} never came: ${await textOf(page, 'body')}`);
    await rest(500);
  }
}
const looked = (page: Page) =>
  until(page, 'all files', () =>
    page.evaluate(
      (count) =>
        new RegExp(`${count} pictures[\\s\\S]*1 sound`).test(
          document.querySelector<HTMLElement>('[data-part=tally]')?.innerText ?? '',
        ) && !document.querySelector('[data-part=intake]'),
      files.length,
    ),
  );
const ready = (page: Page) =>
  until(page, 'the film', async () => (await page.$('[data-part=film][data-state=ready]')) !== null);
const again = async (times: number, how: (index: number) => Promise<unknown>) => {
  for (let index = 0; index < times; index += 1) {
    await how(index);
    await rest(120);
  }
};
async function drag(page: Page, from: string, dx: number, dy: number): Promise<void> {
  const box = (await (await page.waitForSelector(from))!.boundingBox())!;
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
  await page.mouse.move(x, y);
  await page.mouse.down();
  for (let step = 1; step <= 12; step += 1) {
    await page.mouse.move(x + (dx * step) / 12, y + (dy * step) / 12);
    await rest(16);
  }
  await page.mouse.up();
}

async function byMouse(page: Page, hand: Hand): Promise<void> {
  await page.goto(app.address);
  await hand.at('pictures and a song onto the shelf', () =>
    dropFiles(page, '[data-part=shelf-page]', [...files, song]),
  );
  await page.waitForSelector(PRINT);
  await hand.at('marks while files come in', () =>
    again(6, async (index) => {
      // The sheet goes on changing under the hand.
      for (let tries = 0; tries < 5; tries += 1) {
        const prints = await page.$$(PRINT);
        const clicked = await prints[Math.min(index, prints.length - 1)]?.click().then(
          () => true,
          () => false,
        );
        if (clicked) break;
      }
      await page.keyboard.press('k');
    }),
  );
  await looked(page);
  await hand.at('prints chosen one by one', () => again(6, async (index) => (await page.$$(PRINT))[index]!.click()));
  await hand.at('marks wiped off', async () => {
    await chord(page, 'Control', 'a');
    await page.keyboard.press('u');
    await page.keyboard.press('Escape');
  });
  await hand.at('lay into the order', () => press(page, 'Lay into the order'));
  await hand.at('the song under the show', () => press(page, 'Play under the show'));
  await hand.at('to Arrange', () => press(page, 'Arrange'));
  await page.waitForSelector('[data-part=slide]');
  await hand.at('slides chosen', () =>
    again(6, async (index) => page.click(`[data-part=slide]:nth-of-type(${index + 2}) [role=img]`)),
  );
  await hand.at('a slide dragged', () => drag(page, '[data-part=slide]:nth-of-type(2) [role=img]', 0, 320));
  await hand.at('a seam dragged', () => drag(page, '[data-part=seam-handle]', 0, 40));
  await hand.at('undone and done again', async () => {
    await chord(page, 'Control', 'z');
    await chord(page, 'Control', 'z');
    await chord(page, 'Control', 'Shift', 'z');
  });
  await hand.at('a title typed', async () => {
    await page.click('[data-part=slide]:nth-of-type(2) [role=img]');
    await page.keyboard.press('t');
    await page.waitForFunction(() => document.activeElement?.matches('[data-part=title]'));
    await page.keyboard.type('The evening begins', { delay: 40 });
    await page.keyboard.press('Escape');
  });
  for (const tab of ['Crop', 'Light', 'Edge', 'Words'])
    await hand.at(`the bench: ${tab}`, async () => {
      const found = await page.$(`[data-part=bench] [role=tab]::-p-text(${tab})`);
      await found?.click();
      await rest(300);
      const slider = await page.$('[data-part=bench] [role=slider]');
      await slider?.focus();
      if (slider) await again(8, () => page.keyboard.press('ArrowRight'));
    });
  await hand.at('all slides chosen, and lengthened', async () => {
    await page.click('[data-part=slide]:nth-of-type(2) [role=img]');
    await chord(page, 'Control', 'a');
    await page.keyboard.press('+');
    await page.keyboard.press('-');
    await page.keyboard.press('Escape');
  });
  await hand.at('a transition opened and chosen', async () => {
    await page.click('[data-part=slide]:nth-of-type(3) [role=img]');
    await page.keyboard.press('n');
    await page.waitForSelector('[data-part=transition]');
    await rest(300);
    await page.keyboard.press('Escape');
  });
  await hand.at('the viewer played and stopped', async () => {
    await page.keyboard.press(' ');
    await rest(1500);
    await page.keyboard.press(' ');
  });
  await hand.at('the bench opened wide and folded', async () => {
    await page.click('[data-part=slide]:nth-of-type(3) [role=img]', { count: 2 });
    await page.waitForSelector('[data-part=wide]');
    await rest(400);
    await page.keyboard.press('Escape');
  });
  await hand.at('to Sound', () => press(page, 'Sound'));
  await page.waitForSelector('html[data-station=sound]');
  await rest(1500);
  await hand.at('the strip of sound', async () => {
    await page.keyboard.press(' ');
    await rest(800);
    await page.keyboard.press(' ');
  });
  await hand.at('to Send', () => press(page, 'Send'));
  await page.waitForSelector('[data-part=make-film]:enabled');
  await hand.at('purposes', () => again(3, async (index) => (await page.$$('[data-purpose]'))[index + 1]!.click()));
  await again(3, async (index) => (await page.$$('[data-purpose]'))[index + 1]!.click());
  await hand.at('make the film', () => page.click('[data-part=make-film]'));
  await hand.at('at work while the film is made', async () => {
    await chord(page, 'Alt', '2');
    await page.waitForSelector('[data-part=slide]');
    await page.click('[data-part=slide]:nth-of-type(4) [role=img]');
    await again(6, () => page.keyboard.press('+'));
    await again(6, () => chord(page, 'Control', 'z'));
    await chord(page, 'Alt', '4');
    await page.waitForSelector('[data-part=film]');
    await page.locator('[data-part=film] ::-p-text(Stop)').click();
  });
}

async function byKeyboard(page: Page, hand: Hand): Promise<void> {
  await page.goto(app.address);
  await page.waitForSelector('[data-part=new-show]');
  await hand.at('to a new show', async () => {
    for (let tabs = 0; tabs < 20; tabs += 1) {
      await page.keyboard.press('Tab');
      if (await page.evaluate(() => document.activeElement?.getAttribute('data-part') === 'new-show')) break;
    }
    await page.keyboard.press('Enter');
  });
  await page.waitForSelector('body[data-commands~="bring-in"]');
  await rest(500);
  // A browser that has only just been asked to hand its dialog over may miss the first.
  const chooser = page.waitForFileChooser({ timeout: 10_000 });
  await hand.at('files brought in', () => page.keyboard.press('i'));
  const dialog = await chooser.catch(async () => {
    const another = page.waitForFileChooser({ timeout: 10_000 });
    await page.keyboard.press('i');
    return another;
  });
  await dialog.accept([...files, song]);
  await looked(page);
  await hand.at('through the sheet', async () => {
    await page.keyboard.press('Home');
    await again(10, (index) => page.keyboard.press(index % 3 === 2 ? 'k' : 'ArrowRight'));
    await chord(page, 'Shift', 'End');
    await page.keyboard.press('u');
    await page.keyboard.press('Escape');
  });
  await hand.at('one by one', async () => {
    await page.keyboard.press('Home');
    await page.keyboard.press('v');
    await rest(500);
    await again(6, (index) => page.keyboard.press(index % 2 ? 'ArrowRight' : 'k'));
    await page.keyboard.press('Escape');
  });
  await hand.at('into the order', async () => {
    await chord(page, 'Control', 'a');
    await page.keyboard.press('Enter');
  });
  await hand.at('the song', () => page.keyboard.press('m'));
  await hand.at('to Arrange', () => chord(page, 'Alt', '2'));
  await page.waitForSelector('[data-part=slide]');
  await rest(500);
  await hand.at('through the order', async () => {
    await page.keyboard.press('Home');
    await again(8, () => page.keyboard.press('ArrowDown'));
    await again(4, () => page.keyboard.press('+'));
    await again(3, () => chord(page, 'Alt', 'ArrowUp'));
    await again(4, () => page.keyboard.press(')'));
    await page.keyboard.press('End');
    await page.keyboard.press('Home');
  });
  await hand.at('slides copied, doubled, removed', async () => {
    await chord(page, 'Shift', 'ArrowDown');
    await chord(page, 'Control', 'd');
    await page.keyboard.press('Delete');
    await chord(page, 'Control', 'z');
    await chord(page, 'Control', 'z');
  });
  await hand.at('every command and every key', async () => {
    await chord(page, 'Control', 'k');
    await rest(300);
    await page.keyboard.type('transition', { delay: 40 });
    await page.keyboard.press('Escape');
    await page.keyboard.press('?');
    await rest(300);
    await page.keyboard.press('Escape');
  });
  await hand.at('a title', async () => {
    await page.keyboard.press('Home');
    await page.keyboard.press('t');
    await page.waitForFunction(() => document.activeElement?.matches('[data-part=title]'));
    await page.keyboard.type('By keyboard alone', { delay: 40 });
    await page.keyboard.press('Escape');
  });
  await hand.at('snags', async () => {
    await page.keyboard.press('!');
    await rest(600);
    await page.keyboard.press('Escape');
  });
  await hand.at('plumage', async () => {
    await page.keyboard.press('d');
    await rest(1200);
    await page.keyboard.press('Escape');
  });
  await hand.at('a loupe', async () => {
    await page.keyboard.press('Home');
    await page.keyboard.press('ArrowDown');
    await page.keyboard.press('o');
    await rest(1200);
    await page.keyboard.press('Escape');
  });
  await hand.at('the wide bench', async () => {
    await page.keyboard.press('Enter');
    await page.waitForSelector('[data-part=wide]');
    await rest(500);
    await again(4, () => page.keyboard.press('ArrowRight'));
    await page.keyboard.press('k');
    await page.keyboard.press('Escape');
  });
  await hand.at('all lengthened and undone', async () => {
    await chord(page, 'Control', 'a');
    await page.keyboard.press('+');
    await chord(page, 'Control', 'z');
    await page.keyboard.press('Escape');
  });
  await hand.at('to Sound and to Send', async () => {
    await chord(page, 'Alt', '3');
    await page.waitForSelector('html[data-station=sound]');
    await rest(1500);
    await chord(page, 'Alt', '4');
  });
  await page.waitForSelector('[data-part=make-film]:enabled');
  await hand.at('make the film', () => page.keyboard.press('m'));
}

const ways = { mouse: ['with the mouse', byMouse], keyboard: ['by keyboard alone', byKeyboard] } as const;
for (const [asked, [name, way]] of Object.entries(ways)) {
  if (ONLY && ONLY !== asked) continue;
  const page = await openPage(browser);
  const hand = await handOn(page);
  await way(page, hand).catch((error: unknown) => process.stderr.write(`stopped: ${String(error)}\n`));
  const { presses } = hand;
  presses.sort((a, b) => b.ms - a.ms);
  const late = presses.filter(({ ms }) => ms > WANTED_MS);
  process.stdout.write(
    `an evening ${name}, ${files.length} pictures: ${presses.length} presses that took over 16 ms, median of these ${presses[presses.length >> 1]?.ms ?? 0} ms, longest ${presses[0]?.ms ?? 0} ms, ${late.length} over ${WANTED_MS} ms\n`,
  );
  for (const { at, event, on, ms, waitedMs, workedMs } of presses.slice(0, 25))
    process.stdout.write(
      `  ${String(ms).padStart(5)} ms  ${at}: ${event} on ${on} (waited ${waitedMs.toFixed(0)}, worked ${workedMs.toFixed(0)})\n`,
    );
  for (const frame of hand.frames) process.stdout.write(`  long frame, ${frame}\n`);
  const startedMs = performance.now();
  if (asked === 'keyboard') {
    await ready(page);
    process.stdout.write(`  the film was ready ${((performance.now() - startedMs) / 1000).toFixed(0)} s later\n`);
  }
  if (page.faults.length > 0) process.stdout.write(`  faults: ${page.faults.join('; ')}\n`);
  await page.close();
}
await browser.close();
await app.close();
process.exit(0);
