import { spawn, type ChildProcess } from 'node:child_process';
import { randomBytes, randomInt } from 'node:crypto';
import { existsSync } from 'node:fs';
import { cp, mkdtemp, rm } from 'node:fs/promises';
import { createRequire } from 'node:module';
import { createServer } from 'node:net';
import { setPriority, tmpdir } from 'node:os';
import path from 'node:path';
import puppeteer, { type Browser, type Page } from 'puppeteer-core';
import type { ShowEdit } from '../src/core/show/edit';
import type { Show, Slide } from '../src/core/show/show';
import type { FilmSpec } from '../src/core/film/film-spec';
import { wholeRate } from '../src/core/timing/frame-rate';
import { fitToMusic, lengthFollowsContent } from '../src/core/timing/fit-to-music';

/** The real server on a free port with a data folder of its own. */
export interface App {
  readonly address: string;
  readonly dataFolder: string;
  /** Ends the server as a power cut would. */
  killHard(): Promise<void>;
  /** Ends the server as an administrator would. */
  end(): Promise<void>;
  start(): Promise<void>;
  close(): Promise<void>;
}

interface AppOptions {
  /** With the demo show on the shelf; in it the pictures lead, and last what a pace gave them. */
  readonly seed?: boolean;
  /** As the demo has it: the pictures follow the music, and lengths are worked out anew with every edit. */
  readonly musicLeads?: boolean;
  /** Of the demo show only these slides, counted from one: enough for tests that make films of it. */
  readonly only?: readonly number[];
  /** With the hall’s door open. */
  readonly hall?: boolean;
  /** More settings of the server. */
  readonly env?: Readonly<Record<string, string>>;
}

export async function openApp(options: AppOptions = {}): Promise<App> {
  if (!existsSync('.next/BUILD_ID')) throw new Error('the application is not built; run npm run build first');
  const dataFolder = await mkdtemp(path.join(tmpdir(), 'tanager-e2e-'));
  const port = await freePort();
  const entry = randomBytes(24).toString('base64url');
  const env = {
    ...process.env,
    NODE_OPTIONS: '',
    NODE_ENV: 'production' as const,
    TANAGER_DATA: dataFolder,
    TANAGER_ENTRY: entry,
    NEXT_TELEMETRY_DISABLED: '1',
    NEXT_MANUAL_SIG_HANDLE: 'true',
    TANAGER_CHECK_ANSWERS: '1',
    TANAGER_STAND_INS: '0',
    ...(options.hall && { TANAGER_HALL: String(await freePort()) }),
    ...options.env,
  };
  let server: ChildProcess | null = null;
  /** Whether the server was told to end. */
  let asked = false;
  const address = `http://127.0.0.1:${port}`;
  // Where files are kept elsewhere, they are put there; benches are run without a seeded folder at hand.
  if (options.seed && (options.env || !process.env.TANAGER_SEEDED))
    await ended(spawn(process.execPath, ['dist/seed.mjs'], { env, stdio: 'inherit' }));
  else if (options.seed) await cp(process.env.TANAGER_SEEDED!, dataFolder, { recursive: true });
  const app: App = {
    address,
    dataFolder,
    async start() {
      server = spawn(
        process.execPath,
        ['node_modules/next/dist/bin/next', 'start', '-p', String(port), '-H', '127.0.0.1'],
        { env, stdio: ['ignore', 'ignore', 'inherit'] },
      );
      server.on('exit', (code, signal) => {
        if (!asked) process.stderr.write(`the server ended by itself: ${code} ${signal}\n`);
      });
      asked = false;
      // On a machine of two cores a starting server would take the browser's time from its microphone.
      setPriority(server.pid!, 10);
      for (let tries = 0; tries < 150; tries += 1) {
        if (
          await fetch(address).then(
            (response) => response.ok,
            () => false,
          )
        )
          return;
        await new Promise((resolve) => {
          setTimeout(resolve, 200);
        });
      }
      throw new Error('the server did not start');
    },
    async killHard() {
      if (server!.exitCode !== null || server!.signalCode !== null) return;
      const done = ended(server!).catch(() => {});
      asked = true;
      server!.kill('SIGKILL');
      await done;
    },
    async end() {
      const done = ended(server!);
      asked = true;
      server!.kill('SIGTERM');
      await done;
    },
    async close() {
      await app.killHard();
      await rm(dataFolder, { recursive: true, force: true, maxRetries: 10 });
    },
  };
  await app.start();
  cookies.set(address, await signedIn(address, entry));
  if (options.seed && !options.musicLeads) await letPicturesLead(address, options.only);
  return app;
}

/** What the owners of the servers that tests started hold, by address. */
const cookies = new Map<string, string>();

/** As `fetch`, signed in as the owner of the server that is asked. */
export function ask(url: string, init: RequestInit = {}): Promise<Response> {
  const cookie = cookies.get(new URL(url).origin);
  if (cookie === undefined) throw new Error(`nobody is signed in at ${url}`);
  return fetch(url, { ...init, headers: { ...(init.headers as Record<string, string> | undefined), cookie } });
}

/** Signs in by a one-time word. @returns the cookie to send */
export async function signedIn(address: string, word: string): Promise<string> {
  const answer = await fetch(`${address}/api/v1/session/entry`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', origin: address },
    body: JSON.stringify({ word }),
  });
  if (!answer.ok) throw new Error(await answer.text());
  return answer.headers.getSetCookie()[0]!.split(';')[0]!;
}

/** Gives a browser what its owner holds. */
export async function letIn(
  page: Page,
  address: string,
  cookie: string | undefined = cookies.get(address),
): Promise<void> {
  const [name, value] = cookie!.split('=') as [string, string];
  await page.browserContext().setCookie({ name, value, domain: new URL(address).hostname, path: '/', httpOnly: true });
}

async function letPicturesLead(address: string, only?: readonly number[]): Promise<void> {
  const route = `${address}/api/v1/shows/lantern-regatta`;
  const { show, revision } = (await (await ask(route)).json()) as { show: Show; revision: number };
  const isClip = (slide: Slide) => slide.layers[0]?.kind === 'clip';
  const slides = show.slides.map((slide, index) => ({
    ...slide,
    lengthMs: isClip(slide) ? 8000 : index === 0 ? 11_000 : 6000,
  }));
  const musicMs = show.slides.reduce((sum, slide) => sum + slide.lengthMs, 0);
  const fitted = fitToMusic(slides, musicMs, lengthFollowsContent);
  if (!fitted.ok) throw new Error(fitted.reason);
  const kept = slides
    .filter(lengthFollowsContent)
    .map((slide) => ({ slideId: slide.id, lengthMs: slide.lengthMs, by: null }));
  const edits: ShowEdit[] = [
    { kind: 'set-pace', pace: null },
    { kind: 'set-lengths', lengths: [...kept, ...fitted.lengths.map((length) => ({ ...length, by: null }))] },
  ];
  const others = show.slides.flatMap(({ id }, index) => (only && !only.includes(index + 1) ? [id] : []));
  if (others.length > 0) edits.push({ kind: 'remove-slides', slideIds: others });
  await sendEdits(address, show.id, edits, revision);
}

/** Edits a show from outside of the page. */
export async function sendEdits(
  address: string,
  show: string,
  edits: readonly ShowEdit[],
  knownRevision?: number,
): Promise<void> {
  const route = `${address}/api/v1/shows/${show}`;
  const revision = knownRevision ?? ((await (await ask(route)).json()) as { revision: number }).revision;
  const body = {
    knownRevision: revision,
    edits: edits.map((edit, index) => ({ editId: `sent-after-${revision}-${index}`, edit })),
  };
  const response = await ask(`${route}/edits`, sending('POST', body));
  if (!response.ok) throw new Error(await response.text());
  const { refused } = (await response.json()) as { refused: unknown[] };
  if (refused.length > 0) throw new Error(JSON.stringify(refused));
}

function ended(child: ChildProcess): Promise<void> {
  return new Promise((resolve, reject) => {
    child.on('close', (code) => (code === 0 ? resolve() : reject(new Error(`ended with ${code}`))));
  });
}

/** Below those that systems give to connections going out: one found free here stays free until it is used. */
async function freePort(): Promise<number> {
  for (;;) {
    const port = randomInt(20_000, 32_000);
    const free = await new Promise<boolean>((resolve) => {
      const probe = createServer();
      probe.once('error', () => resolve(false));
      probe.listen(port, '0.0.0.0', () => probe.close(() => resolve(true)));
    });
    if (free) return port;
  }
}

/** @param more further flags, such as a microphone that plays a file */
export function openBrowser(more: readonly string[] = []): Promise<Browser> {
  return puppeteer.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    headless: true,
    args: [
      '--no-sandbox',
      '--disable-dev-shm-usage',
      '--disable-gpu',
      '--hide-scrollbars',
      '--force-device-scale-factor=1',
      '--autoplay-policy=no-user-gesture-required',
      '--disable-background-networking',
      '--no-first-run',
      ...more,
    ],
  });
}

/** A page whose uncaught errors and server errors fail the test that reads `faults`. */
export type OpenPage = Page & { faults: string[] };

/** A page of the owner of whatever server the test started; or of nobody. */
export async function openPage(
  browser: Pick<Browser, 'newPage'>,
  who: 'owner' | 'stranger' = 'owner',
): Promise<OpenPage> {
  const page = (await browser.newPage()) as OpenPage;
  if (who === 'owner') for (const address of cookies.keys()) await letIn(page, address);
  page.faults = [];
  // Slow machines are not faults.
  page.setDefaultTimeout(Number(process.env.E2E_PATIENCE_MS ?? 90_000));
  page.on('pageerror', (error) => page.faults.push(String(error)));
  page.on('response', (response) => {
    if (response.status() >= 500) page.faults.push(`${response.status()} ${response.url()}`);
  });
  // A hand waits until the page is alive: what is pressed before that does nothing.
  const goto = page.goto.bind(page);
  page.goto = async (url, options) => {
    const answer = await goto(url, options);
    if (page.isJavaScriptEnabled())
      await page.waitForFunction(
        () => !document.querySelector('script[src^="/_next/"]') || 'live' in document.documentElement.dataset,
      );
    return answer;
  };
  // And until there is something to click at.
  const click = page.click.bind(page);
  page.click = async (selector, options) => {
    // A hand that is kept would keep what it holds, when the page has long let it go.
    await (await page.waitForSelector(selector))?.dispose();
    await click(selector, options);
  };
  await page.setViewport({ width: 1280, height: 800 });
  return page;
}

/** Drops files from outside onto a part of the page, as a hand would. */
export async function dropFiles(page: Page, selector: string, files: readonly string[]): Promise<void> {
  const box = (await (await page.waitForSelector(selector))!.boundingBox())!;
  const client = await page.createCDPSession();
  const data = { items: [], files: files.map((file) => path.resolve(file)), dragOperationsMask: 1 };
  const at = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  for (const type of ['dragEnter', 'dragOver', 'drop'] as const)
    await client.send('Input.dispatchDragEvent', { type, ...at, data });
  await client.detach();
}

/** The text of a part of the page. */
export function textOf(page: Page, selector: string): Promise<string> {
  return page.$eval(selector, (element) => (element as HTMLElement).innerText);
}

export async function waitForText(
  page: Page,
  selector: string,
  text: RegExp,
  timeoutMs = Number(process.env.E2E_PATIENCE_MS ?? 60_000),
): Promise<void> {
  try {
    await page.waitForFunction(
      (where: string, source: string) => {
        const element = document.querySelector(where) as HTMLElement | null;
        return element !== null && new RegExp(source).test(element.innerText);
      },
      { timeout: timeoutMs },
      selector,
      text.source,
    );
  } catch (error) {
    const there = await textOf(page, selector).catch(() => textOf(page, 'body'));
    throw new Error(`“${there.slice(0, 1500)}” never came to match ${text}`, { cause: error });
  }
}

/** Clicks the button, link or option with this accessible name. */
export async function press(page: Page, name: string): Promise<void> {
  await page.locator(`aria/${name}`).click();
}

/** Presses a key while the others are held: `chord(page, 'Control', 'z')`. */
export async function chord(page: Page, ...names: string[]): Promise<void> {
  const keys = names as Parameters<Page['keyboard']['press']>[0][];
  for (const name of keys.slice(0, -1)) await page.keyboard.down(name);
  await page.keyboard.press(keys.at(-1)!);
  for (const name of keys.slice(0, -1).reverse()) await page.keyboard.up(name);
}

/** What hands do again and again on one show. */
export interface Hands {
  /** To a station, until one of its parts is there. */
  go(station: string, part: string): Promise<void>;
  /** The show as the server has it, once everything is saved. */
  stored(): Promise<Show>;
  key(...names: string[]): Promise<void>;
  /** A number or a line into the field with this accessible name. */
  type(field: string, text: string): Promise<void>;
}

export function handsOn(app: App, page: Page, show: string): Hands {
  return {
    async go(station, part) {
      await page.goto(`${app.address}/shows/${show}/${station}`);
      await page.waitForSelector(`html[data-station=${station}]`);
      await page.waitForSelector(`[data-part=${part}]`);
    },
    async stored() {
      await page.waitForSelector('[data-part=saving][data-state=saved]');
      return ((await (await ask(`${app.address}/api/v1/shows/${show}`)).json()) as { show: Show }).show;
    },
    key: (...names) => chord(page, ...names),
    async type(field, text) {
      await page.locator(`aria/${field}`).click();
      await page.keyboard.type(text);
      await page.keyboard.press('Enter');
    },
  };
}

const axeSource = createRequire(`${process.cwd()}/package.json`).resolve('axe-core');

interface Violation {
  id: string;
  impact: string;
  nodes: { html: string }[];
}

/** What keeps people with a screen reader, without a mouse or with weak eyes out of a page. */
export async function seriousIn(page: Page): Promise<unknown[]> {
  await page.addScriptTag({ path: axeSource });
  const found = await page.evaluate(async () => {
    const { axe } = window as unknown as { axe: { run(): Promise<{ violations: Violation[] }> } };
    return (await axe.run()).violations.map((violation) => ({
      id: violation.id,
      impact: violation.impact,
      where: violation.nodes.slice(0, 3).map((node) => node.html.slice(0, 160)),
    }));
  });
  return found.filter((violation) => violation.impact === 'serious' || violation.impact === 'critical');
}

/** In Send: what the films are for, and nothing else. */
export async function makeFor(page: Page, ...purposes: readonly string[]): Promise<void> {
  await page.waitForSelector('[data-part=purposes]');
  const all = await page.$$eval('[data-purpose]', (cards) =>
    cards.map((card) => ({
      purpose: (card as HTMLElement).dataset.purpose!,
      chosen: card.querySelector('input')!.checked,
    })),
  );
  for (const { purpose, chosen } of all)
    if (chosen !== purposes.includes(purpose)) await page.locator(`[data-purpose="${purpose}"]`).click();
}

/** Opens a screening of a film. @returns the unguessable part of its link */
export async function screened({ address }: App, show: string, film: string): Promise<string> {
  const path = `${address}/api/v1/shows/${show}/screenings`;
  await ask(path, sending('POST', { films: [film] }));
  const { screenings } = (await (await ask(path)).json()) as { screenings: { token: string; films: string[] }[] };
  return screenings.find(({ films }) => films.includes(film))!.token;
}

/** A request with a JSON body. */
export const sending = (method: string, body: unknown): RequestInit => ({
  method,
  headers: { 'content-type': 'application/json' },
  body: JSON.stringify(body),
});

/** Has a film made of a show, small and of its first seconds unless more is said. @returns its id once it is ready */
export async function filmMade({ address }: App, show: string, more: Partial<FilmSpec> = {}): Promise<string> {
  const route = `${address}/api/v1/shows/${show}/films`;
  const spec: FilmSpec = {
    ...{ purpose: 'by-hand', format: 'mp4', shape: '16:9', widthPx: 320, heightPx: 180, quality: 'light' },
    ...{ rate: wholeRate(10), span: { fromMs: 0, toMs: 4000 } },
    ...more,
  };
  const ordered = await ask(route, sending('POST', { specs: [spec] }));
  if (!ordered.ok) throw new Error(await ordered.text());
  const { ids } = (await ordered.json()) as { ids: [string] };
  for (;;) {
    const { films } = (await (await ask(route)).json()) as { films: { id: string; state: string; problem: string }[] };
    const film = films.find(({ id }) => id === ids[0]);
    if (film?.state === 'ready') return ids[0];
    if (film?.state === 'failed') throw new Error(film.problem);
    await new Promise((resolve) => {
      setTimeout(resolve, 300);
    });
  }
}
