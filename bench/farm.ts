// What it costs to draw films on several machines, and how that grows: npm run bench:farm -- [FOLDER OF PICTURES]
// One film of ninety seconds at 720p, by this machine alone and by two workers with a queue and a store between; then a simulation with what was measured.
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtemp, rm } from 'node:fs/promises';
import { readFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { specFor } from '../src/core/film/purposes/purposes';
import { cueId } from '../src/core/show/ids';
import { songAfter } from '../src/core/show/placed-sound';
import type { Show } from '../src/core/show/show';
import { lookAtFile } from '../src/server/assets/look-at-file';
import { hashOfFile } from '../src/server/blobs/content-hash';
import { KEYS, openObjectServer } from '../src/server/blobs/object-server.testing';
import { openStorage } from '../src/server/open-storage';
import { openFarm, type SegmentFarm } from '../src/server/farm/farm';
import { openRedisServer } from '../src/server/farm/redis-server.testing';
import { drawingVersion } from '../src/server/films/film-keys';
import { createKeptFiles, type KeptFiles } from '../src/server/films/kept-files';
import { makeFilm } from '../src/server/films/make-film';
import { benchShow } from './demo-show';
import { simulated } from './farm-queue';

const SECONDS = 90;
const ROUNDS = 2;
const SONG = 'demo/files/harbour-reel.mp3';
const { show: silent, facts, files } = await benchShow(process.argv[3] ?? 'demo/files', SECONDS / 5, 5000);
const song = await hashOfFile(SONG);
facts.set(song, (await lookAtFile(SONG)).facts);
files.set(song, path.resolve(SONG));
const show: Show = { ...silent, cues: [songAfter(cueId('song'), song, 0)] };
const folder = await mkdtemp(path.join(tmpdir(), 'tanager-farm-'));
const [redis, store] = await Promise.all([openRedisServer(), openObjectServer()]);
Object.assign(process.env, {
  ...{ TANAGER_S3_BUCKET: 'films', TANAGER_S3_ENDPOINT: store.endpoint, TANAGER_REDIS_URL: redis.url },
  ...{ AWS_ACCESS_KEY_ID: KEYS.id, AWS_SECRET_ACCESS_KEY: KEYS.secret },
  AWS_SDK_JS_NODE_VERSION_SUPPORT_WARNING_DISABLED: 'true',
});
const storage = await openStorage(path.join(folder, 'server'));
for (const [id, file] of files) await storage.blobs.take(file, 'copy', id);
const workers: ChildProcess[] = [];
const say = (name: string, value: string) => process.stdout.write(`${name.padEnd(64)}${value.padStart(14)}\n`);
const spec = specFor(show, 'web');
let counted = 0;

/** Wall seconds. */
async function seconds(of: Show, kept: KeptFiles, farm: SegmentFarm | null) {
  const startedMs = performance.now();
  counted += 1;
  const made = await makeFilm({
    ...{ show: of, spec, facts, files, kept, farm, measured: true },
    outFile: path.join(folder, `${counted}.mp4`),
    workFolder: path.join(folder, `${counted}.work`),
  });
  return { wall: (performance.now() - startedMs) / 1000, made };
}
/** CPU seconds of a process and those it has waited for. */
function cpuOf(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
  return [11, 12, 13, 14].reduce((sum, at) => sum + Number(fields[at]), 0) / 100;
}
const longer = (ms: number): Show => ({
  ...show,
  slides: show.slides.map((slide) => ({ ...slide, lengthMs: slide.lengthMs + ms })),
});
const median = (values: readonly number[]) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)]!;

try {
  for (const name of ['one', 'other']) {
    const worker = spawn(process.execPath, ['dist/worker.mjs'], {
      env: { ...process.env, TANAGER_DATA: path.join(folder, name), TANAGER_FILM_WORKERS: '1' },
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    await once(worker.stdout, 'data');
    workers.push(worker);
  }
  const farm = await openFarm({
    ...{ url: redis.url, version: await drawingVersion(), blobs: storage.blobs, kept: storage.kept, own: 0 },
    folder: path.join(folder, 'server/kept/drawing'),
  });
  const [alone, together]: [number[], number[]] = [[], []];
  let last: Awaited<ReturnType<typeof seconds>>['made'];
  let serverCpu = 0;
  for (let round = 0; round < ROUNDS; round += 1) {
    // A millisecond more, so that nothing is there already; the workers have the files from the first time on.
    const of = longer(40 * round);
    alone.push((await seconds(of, createKeptFiles(path.join(folder, `kept-${round}`)), null)).wall);
    const before = cpuOf(process.pid);
    const { wall, made } = await seconds(of, storage.kept, farm);
    serverCpu = cpuOf(process.pid) - before;
    together.push(wall);
    last = made;
  }
  const drawn = longer(40 * (ROUNDS - 1));
  // Another mix of the very same pictures.
  const again = await seconds(
    { ...drawn, cues: drawn.cues.map((cue) => ({ ...cue, gainDb: -1 })) },
    storage.kept,
    farm,
  );
  const { plan, drawMs, encodeMs } = last!;
  const each = (drawMs + encodeMs) / 1000 / plan.segments.length;
  const bytes = [...store.objects]
    .filter(([key]) => key.startsWith('kept/') && key.endsWith('.mp4'))
    .reduce((sum, [, value]) => sum + value.length, 0);
  say(
    `a film of ${SECONDS} s at 720p, ${plan.segments.length} segments, this machine alone`,
    `${median(alone).toFixed(1)} s`,
  );
  say('two workers of one core, with a queue and a store between', `${median(together).toFixed(1)} s`);
  say('  against this machine alone', `${(median(together) / median(alone)).toFixed(2)} ×`);
  say('a core draws in an hour', `${Math.round(3600 / each)} segments`);
  say('  for one', `${each.toFixed(2)} s`);
  say('every segment there already: mixing, fetching, joining, measuring', `${again.wall.toFixed(1)} s`);
  say('the server’s own CPU for the film, queue and fetching in it', `${serverCpu.toFixed(1)} s`);
  say('segments of a film in the store', `${(bytes / ROUNDS / 1e6).toFixed(0)} MB`);
  await farm.close();

  process.stdout.write(
    '\nA simulation with these figures: seconds from the order to the film, half of them and 19 of 20\n',
  );
  for (const perHour of [10, 100, 1000]) {
    const needed = (perHour * plan.segments.length * each) / 3600;
    for (const share of [0.9, 0.7, 0.4]) {
      const cores = Math.max(1, Math.ceil(needed / share));
      const ownCores = Math.max(1, Math.ceil((perHour * again.wall) / 3600 / 0.8));
      const {
        median: half,
        ninetyFive,
        coresBusy,
        serverBusy,
      } = simulated(
        { segments: plan.segments.length, segmentSeconds: each, cores, ownSeconds: again.wall, ownCores },
        perHour,
      );
      const busy = `${(100 * coresBusy).toFixed(0)} and ${(100 * serverBusy).toFixed(0)} % busy`;
      say(
        `${perHour} films an hour, ${cores} cores and ${ownCores} of the server, ${busy}`,
        `${half.toFixed(0)} · ${ninetyFive.toFixed(0)} s`,
      );
    }
  }
} finally {
  for (const worker of workers) worker.kill('SIGKILL');
  storage.close();
  await Promise.all([redis.kill(), store.close()]);
  await rm(folder, { recursive: true, force: true });
}
process.exit(0);
