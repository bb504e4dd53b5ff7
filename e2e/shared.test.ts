import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdir, mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import type { Browser } from 'puppeteer-core';
import { KEYS, openObjectServer, type ObjectServer } from '../src/server/blobs/object-server.testing';
import { openRedisServer, type RedisServer } from '../src/server/farm/redis-server.testing';
import type { FilmRow } from '../src/server/films/film-row';
import { ask, dropFiles, openApp, openBrowser, openPage, waitForText, type App, type OpenPage } from './app';

const ID = 'lantern-regatta';

let redis: RedisServer;
let store: ObjectServer;
let app: App;
let browser: Browser;
let page: OpenPage;
let worker: ChildProcess;
let workerFolder: string;

beforeAll(async () => {
  [redis, store] = await Promise.all([openRedisServer(), openObjectServer()]);
  const env = {
    TANAGER_REDIS_URL: redis.url,
    TANAGER_S3_BUCKET: 'films',
    TANAGER_S3_ENDPOINT: store.endpoint,
    AWS_ACCESS_KEY_ID: KEYS.id,
    AWS_SECRET_ACCESS_KEY: KEYS.secret,
    AWS_SDK_JS_NODE_VERSION_SUPPORT_WARNING_DISABLED: 'true',
  };
  app = await openApp({ seed: true, only: [1, 2, 3, 21], env: { ...env, TANAGER_FILM_WORKERS: '0' } });
  workerFolder = await mkdtemp(path.join(tmpdir(), 'tanager-worker-'));
  worker = spawn(process.execPath, ['dist/worker.mjs'], {
    env: { ...process.env, ...env, TANAGER_DATA: workerFolder, TANAGER_FILM_WORKERS: '1' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  await once(worker.stdout!, 'data');
  browser = await openBrowser();
  page = await openPage(browser);
});
afterAll(async () => {
  await browser.close();
  await app.close();
  const gone = once(worker, 'exit');
  worker.kill('SIGKILL');
  await gone;
  await Promise.all([redis.kill(), store.close(), rm(workerFolder, { recursive: true, force: true })]);
});

const get = async <Answer>(url: string) => (await (await ask(app.address + url)).json()) as Answer;
const films = async () => (await get<{ films: FilmRow[] }>(`/api/v1/shows/${ID}/films`)).films;
const keysIn = (folder: string) => [...store.objects.keys()].filter((key) => key.startsWith(folder));
/** What people would lose with a machine whose disk is gone: only the database is put on another one. */
const loseFiles = async () => {
  for (const name of ['blobs', 'films', 'kept']) {
    await rm(path.join(app.dataFolder, name), { recursive: true, force: true });
    await mkdir(path.join(app.dataFolder, name));
  }
};

describe('a server whose files lie in a store, and whose films others draw', () => {
  it('has a film drawn by a worker on a machine of its own', async () => {
    const answer = await ask(`${app.address}/api/v1/shows/${ID}/films`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', origin: app.address },
      body: JSON.stringify({
        specs: [
          {
            ...{ purpose: 'by-hand', format: 'mp4', shape: '16:9', widthPx: 320, heightPx: 180, quality: 'good' },
            rate: { frames: 30, seconds: 1 },
            span: { fromMs: 0, toMs: 20_000 },
          },
        ],
      }),
    });
    expect(answer.status).toBeLessThan(300);
    await page.goto(`${app.address}/shows/${ID}/send`);
    await page.waitForSelector('[data-part=film][data-state=ready]', { timeout: 180_000 });
    expect(await films()).toMatchObject([{ state: 'ready', frameCount: 600, problem: null }]);
    const { parts } = await get<{ parts: { name: string; ok: boolean; says: string }[] }>('/api/health');
    expect(parts.find(({ name }) => name === 'workers')).toMatchObject({ ok: true });
    expect(parts.find(({ name }) => name === 'store')).toMatchObject({ ok: true, says: 'answers' });
    const counts = ['originals/', 'derived/', 'kept/', 'films/'].map((folder) => [folder, keysIn(folder).length > 1]);
    expect(counts).toEqual([
      ['originals/', true],
      ['derived/', true],
      ['kept/', true],
      ['films/', true],
    ]);
  });
  it('has everything when its own disk is gone, and sends of a film what is asked for', async () => {
    await app.end();
    await loseFiles();
    await app.start();
    await page.goto(`${app.address}/shows/${ID}/gather`);
    await page.waitForFunction(
      () => {
        const prints = [...document.querySelectorAll<HTMLImageElement>('[data-part=contact-sheet] img')];
        return prints.length > 4 && prints.slice(0, 4).every((print) => print.complete && print.naturalWidth > 100);
      },
      { timeout: 60_000 },
    );
    const [film] = await films();
    const whole = store.objects.get(`films/${film!.id}.mp4`)!;
    store.asked.length = 0;
    const part = await ask(`${app.address}/api/v1/films/${film!.id}/file`, { headers: { range: 'bytes=1000-1999' } });
    expect([part.status, part.headers.get('content-range')]).toEqual([206, `bytes 1000-1999/${whole.length}`]);
    expect(Buffer.from(await part.arrayBuffer()).equals(whole.subarray(1000, 2000))).toBe(true);
    expect(store.asked).toContain(`GET films/${film!.id}.mp4 bytes=1000-1999`);
    const end = await ask(`${app.address}/api/v1/films/${film!.id}/file`, { headers: { range: 'bytes=-10' } });
    expect(Buffer.from(await end.arrayBuffer()).equals(whole.subarray(-10))).toBe(true);
    const beyond = await ask(`${app.address}/api/v1/films/${film!.id}/file`, {
      headers: { range: `bytes=${whole.length}-` },
    });
    expect([beyond.status, beyond.headers.get('content-range')]).toEqual([416, `bytes */${whole.length}`]);
    const all = await ask(`${app.address}/api/v1/films/${film!.id}/file`);
    expect([all.status, all.headers.get('accept-ranges')]).toEqual([200, 'bytes']);
    expect(Buffer.from(await all.arrayBuffer()).equals(whole)).toBe(true);
    const picture = await ask(`${app.address}/api/v1/films/${film!.id}/picture`);
    expect(picture.headers.get('content-type')).toBe('image/jpeg');
  });
  it('says in a sentence that the store is away, loses nothing of what is brought, and takes it once it is back', async () => {
    store.away = true;
    const health = await ask(`${app.address}/api/health`);
    expect(await health.json()).toMatchObject({ ok: false });
    const before = keysIn('originals/').length;
    const answer = await ask(
      `${app.address}/api/v1/shows/${ID}/pictures/${keysIn('originals/')[3]!.slice(10)}?width=2800`,
    );
    expect(answer.status).toBe(503);
    store.away = false;
    const file = path.join(workerFolder, 'new.jpg');
    const { default: sharp } = await import('sharp');
    await sharp({ create: { width: 900, height: 600, channels: 3, background: '#406080' } })
      .jpeg()
      .toFile(file);
    await page.goto(`${app.address}/shows/${ID}/gather`);
    await page.waitForSelector('[data-part=gather]');
    store.away = true;
    await dropFiles(page, '[data-part=gather]', [file]);
    await new Promise((resolve) => {
      setTimeout(resolve, 3000);
    });
    expect(keysIn('originals/').length).toBe(before);
    store.away = false;
    await waitForText(page, '[data-part=gather]', /new\.jpg/, 120_000);
    expect(keysIn('originals/').length).toBe(before + 1);
  });
  it('lets a film go from both', async () => {
    const [film] = await films();
    await ask(`${app.address}/api/v1/films/${film!.id}`, { method: 'DELETE', headers: { origin: app.address } });
    expect(keysIn('films/')).toEqual([]);
  });
});
