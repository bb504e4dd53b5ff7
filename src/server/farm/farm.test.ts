import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdir, mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { afterAll, afterEach, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import type { FilmSpec } from '../../core/film/film-spec';
import { specFor } from '../../core/film/purposes/purposes';
import type { AssetFacts } from '../../core/show/asset-facts';
import { cueId, showId, type AssetId } from '../../core/show/ids';
import { slideFromAsset } from '../../core/show/new-slide';
import { songAfter } from '../../core/show/placed-sound';
import { emptyShow, type Show } from '../../core/show/show';
import { lookAtFile } from '../assets/look-at-file';
import { KEYS, openObjectServer, type ObjectServer } from '../blobs/object-server.testing';
import { openStorage, type Storage } from '../open-storage';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { drawingVersion } from '../films/film-keys';
import type { FilmProgress } from '../films/film-telling';
import { createKeptFiles } from '../films/kept-files';
import { makeFilm, type MadeFilm } from '../films/make-film';
import { openFarm, type SegmentFarm } from './farm';
import { openRedisServer, type RedisServer } from './redis-server.testing';

const SIZE = { widthPx: 320, heightPx: 180 };
const PICTURES = 8;

let folder: string;
let redis: RedisServer;
let store: ObjectServer;
let storage: Storage;
let show: Show;
const facts = new Map<AssetId, AssetFacts>();
const files = new Map<AssetId, string>();
const workers: ChildProcess[] = [];
const farms: SegmentFarm[] = [];
const before = { ...process.env };
let counted = 0;

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-farm-'));
  [redis, store] = await Promise.all([openRedisServer(), openObjectServer()]);
  Object.assign(process.env, {
    TANAGER_S3_BUCKET: 'films',
    TANAGER_S3_ENDPOINT: store.endpoint,
    AWS_ACCESS_KEY_ID: KEYS.id,
    AWS_SECRET_ACCESS_KEY: KEYS.secret,
  });
  await mkdir(path.join(folder, 'server'));
  storage = await openStorage(path.join(folder, 'server'));
  const takeIn = async (file: string) => {
    const { facts: known } = await lookAtFile(file);
    const { id } = await storage.blobs.take(file, 'move');
    facts.set(id, known);
    files.set(id, await storage.blobs.localFile(id));
    return id;
  };
  const pictures: AssetId[] = [];
  for (let at = 0; at < PICTURES; at += 1) {
    const file = path.join(folder, `${at}.jpg`);
    await sharp({
      create: {
        ...{ width: 640, height: 360, channels: 3 },
        background: { r: 30 * at, g: 90, b: 200 - 20 * at },
        noise: { type: 'gaussian', mean: 100 + 10 * at, sigma: 30 },
      },
    })
      .jpeg()
      .toFile(file);
    pictures.push(await takeIn(file));
  }
  const tone = path.join(folder, 'tone.wav');
  await runFfmpeg(['-f', 'lavfi', '-i', 'sine=frequency=440:duration=40', '-ar', '48000', '-y', tone]);
  const song = await takeIn(tone);
  show = {
    ...emptyShow(showId('s'), 'Boats'),
    slides: pictures.map((id) => slideFromAsset(id, facts.get(id)!, 5000, () => `n${(counted += 1)}`)),
    cues: [songAfter(cueId('q'), song, 0)],
  };
});
afterEach(async () => {
  for (const farm of farms.splice(0)) await farm.close();
  for (const worker of workers.splice(0)) await ended(worker, 'SIGKILL');
});
afterAll(async () => {
  storage.close();
  await Promise.all([redis.kill(), store.close()]);
  process.env = before;
  await rm(folder, { recursive: true, force: true });
});

async function ended(worker: ChildProcess, signal: NodeJS.Signals): Promise<void> {
  if (worker.exitCode !== null || worker.signalCode !== null) return;
  const gone = once(worker, 'exit');
  worker.kill(signal);
  await gone;
}

/** A machine that draws: a process of its own with a folder of its own. */
async function openWorker(name: string): Promise<ChildProcess> {
  const worker = spawn(process.execPath, ['dist/worker.mjs'], {
    env: {
      ...process.env,
      TANAGER_DATA: path.join(folder, name),
      TANAGER_REDIS_URL: redis.url,
      TANAGER_FILM_WORKERS: '1',
      AWS_SDK_JS_NODE_VERSION_SUPPORT_WARNING_DISABLED: 'true',
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  workers.push(worker);
  const [said] = (await once(worker.stdout!, 'data')) as [Buffer];
  expect(said.toString()).toMatch(/Drawing segments .* 1 at a time; files from the store/);
  return worker;
}

/** The server’s side; unless it is said it draws nothing itself. */
async function opened(own = 0): Promise<SegmentFarm> {
  const farm = await openFarm({
    ...{ url: redis.url, version: await drawingVersion(), blobs: storage.blobs, kept: storage.kept, own },
    folder: path.join(folder, 'server/kept/drawing'),
  });
  farms.push(farm);
  return farm;
}

const spec = (): FilmSpec => ({ ...specFor(show, 'web'), ...SIZE });
const film = (
  farm: SegmentFarm | null,
  name: string,
  of: Show,
  more: { signal?: AbortSignal; onProgress?: (progress: FilmProgress) => void } = {},
): Promise<MadeFilm> =>
  makeFilm({
    ...{ show: of, spec: spec(), facts, files, farm },
    outFile: path.join(folder, `${name}.mp4`),
    workFolder: path.join(folder, `${name}.work`),
    kept: farm ? storage.kept : createKeptFiles(path.join(folder, `${name}.kept`)),
    workerCount: 2,
    ...more,
  });
/** The same show with every picture a little longer, so that nothing of it is there yet. */
const longer = (ms: number): Show => ({
  ...show,
  slides: show.slides.map((slide) => ({ ...slide, lengthMs: 5000 + ms })),
});
const framesOf = async (name: string) => {
  const listed = path.join(folder, `${name}.md5`);
  await runFfmpeg(['-i', path.join(folder, `${name}.mp4`), '-map', '0:v', '-f', 'framemd5', '-y', listed]);
  return readFile(listed, 'utf8');
};

describe('segments drawn on several machines', () => {
  it('make the very film that one machine makes, with progress, from files none of them had', async () => {
    const farm = await opened();
    await Promise.all([openWorker('one'), openWorker('other')]);
    const told: FilmProgress[] = [];
    const made = await film(farm, 'together', show, { onProgress: (progress) => told.push(progress) });
    expect(made).toMatchObject({ problems: [], keptFrames: 0, plan: { frameCount: 1200 } });
    expect(made.drawMs).toBeGreaterThan(0);
    await film(null, 'alone', show);
    expect(await framesOf('together')).toBe(await framesOf('alone'));
    for (const name of ['one', 'other']) {
      const originals = (await readdir(path.join(folder, name, 'blobs/originals'), { recursive: true })).filter(
        (entry) => entry.length > 40,
      );
      expect(originals.length).toBeGreaterThan(0);
      expect(
        (await readdir(path.join(folder, name, 'kept'))).filter((entry) => entry.endsWith('.mp4')).length,
      ).toBeGreaterThan(0);
    }
    expect(told.at(-1)).toMatchObject({ framesDone: 1200, frameCount: 1200 });
    expect(told.some(({ framesDone }) => framesDone > 0 && framesDone < 1200)).toBe(true);
    expect(await farm.says()).toMatch(/2 processes take segments; 0 at work, 0 waiting/);
    // What is kept is there for everybody.
    expect((await film(farm, 'again', show)).keptFrames).toBe(1200);
  });
  it('go on when a worker is killed half-way: another draws what it had', async () => {
    const farm = await opened();
    const [victim] = await Promise.all([openWorker('victim'), openWorker('heir')]);
    let killed = false;
    const made = await film(farm, 'killed', longer(100), {
      onProgress: ({ framesDone }) => {
        if (killed || framesDone < 60) return;
        killed = true;
        victim.kill('SIGKILL');
      },
    });
    expect(killed).toBe(true);
    expect(made.plan.frameCount).toBe(1224);
    await film(null, 'unharmed', longer(100));
    expect(await framesOf('killed')).toBe(await framesOf('unharmed'));
  });
  it('go on when the queue is killed and has forgotten everything', async () => {
    const farm = await opened(1);
    let killed: Promise<void> | null = null;
    const made = await film(farm, 'forgotten', longer(200), {
      onProgress: ({ framesDone }) => {
        if (killed || framesDone < 60) return;
        killed = redis
          .kill()
          .then(() => sleep(500))
          .then(() => redis.start());
      },
    });
    await killed!;
    expect(made.plan.frameCount).toBe(1248);
    await film(null, 'remembered', longer(200));
    expect(await framesOf('forgotten')).toBe(await framesOf('remembered'));
  });
  it('are given up while the queue is away, and so is the farm, without waiting for it', async () => {
    await redis.kill();
    const farm = await opened(1);
    const controller = new AbortController();
    const running = film(farm, 'away', longer(250), { signal: controller.signal });
    running.catch(() => {});
    await expect(farm.says()).rejects.toThrow('Redis does not answer');
    controller.abort(new Error('enough'));
    await expect(running).rejects.toThrow('enough');
    farms.splice(0);
    await farm.close();
    await redis.start();
  }, 30_000);
  it('are stopped with their film, within a second or so, and leave nothing half', async () => {
    const farm = await opened();
    await openWorker('stopped');
    const controller = new AbortController();
    const running = film(farm, 'stopped-film', longer(300), {
      signal: controller.signal,
      onProgress: ({ framesDone }) => {
        if (framesDone > 30) controller.abort(new Error('enough'));
      },
    });
    await expect(running).rejects.toThrow('enough');
    await sleep(1500);
    expect(await farm.says()).toMatch(/0 at work, 0 waiting/);
    const left = (await readdir(path.join(folder, 'stopped/kept'), { recursive: true })).filter((name) =>
      /segment|part$/.test(name),
    );
    expect(left).toEqual([]);
  });
  it('lack a file that is gone, in this film only', async () => {
    const farm = await opened();
    await openWorker('lacking');
    const of = longer(400);
    const [first] = [...files.keys()];
    const key = `originals/${first}`;
    const bytes = store.objects.get(key)!;
    store.objects.delete(key);
    expect((await film(farm, 'lacking-film', of)).problems.map(({ assetId }) => assetId)).toEqual([first]);
    store.objects.set(key, bytes);
    await ended(workers[0]!, 'SIGTERM');
    await openWorker('complete');
    const complete = await film(farm, 'complete-film', of);
    expect(complete.problems).toEqual([]);
    expect(complete.keptFrames).toBeGreaterThan(600);
    expect(complete.keptFrames).toBeLessThan(complete.plan.frameCount);
  });
  it('a worker that is told to end finishes what it draws', async () => {
    const farm = await opened();
    const worker = await openWorker('ending');
    await openWorker('staying');
    let asked: Promise<void> | null = null;
    const made = await film(farm, 'ending-film', longer(500), {
      onProgress: ({ framesDone }) => {
        if (!asked && framesDone > 30) asked = ended(worker, 'SIGTERM');
      },
    });
    await asked!;
    expect(worker.exitCode).toBe(0);
    expect(made.plan.frameCount).toBe(1320);
  });
});
