// Films whose server is killed while they are made, so many times at each stage (mixing the sound, drawing pictures, joining): whether each is finished all the same, whole, and nothing is left behind.
// npm run bench:kills [-- TIMES [STAGE]]
import { createWriteStream } from 'node:fs';
import { mkdtemp, readdir, readFile, readlink, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { setTimeout as sleep } from 'node:timers/promises';
import type { FilmSpec } from '../src/core/film/film-spec';
import { shapeName } from '../src/core/show/shape';
import { wholeRate } from '../src/core/timing/frame-rate';
import { probeFilm } from '../src/server/films/probe-film';
import { ask, openApp, sending } from '../e2e/app';

const TIMES = Number(process.argv[3] ?? 10);
const ONLY = process.argv[4];
const STAGES = (['sound', 'pictures', 'joining'] as const).filter((stage) => !ONLY || stage === ONLY);
/** Killed up to so long after a stage was seen, or after the film was ordered. */
const WAITS = { sound: 500, pictures: 2500, joining: 500 };
const SECONDS = 20;
const app = await openApp({ seed: true });
const route = `${app.address}/api/v1/shows/lantern-regatta/films`;
const folder = await mkdtemp(path.join(tmpdir(), 'tanager-kills-'));

interface Film {
  readonly id: string;
  readonly state: string;
  readonly stage?: string;
  readonly problem?: string;
  readonly framesDone: number;
}

/** A line that rested while the server was killed is broken when it is used again. */
async function filmOf(id: string): Promise<Film> {
  for (let tries = 0; ; tries += 1)
    try {
      return ((await (await ask(route)).json()) as { films: Film[] }).films.find((film) => film.id === id)!;
    } catch (error) {
      if (tries === 5) throw error;
      await sleep(200);
    }
}

/** Each of another width, so that nothing is there from the one before; the sound is mixed anew where that is to be hit. */
async function ordered(index: number, fromMs: number): Promise<string> {
  const frame = { widthPx: 480 + 2 * index, heightPx: 270 };
  const spec: FilmSpec = {
    ...{ purpose: 'by-hand', format: 'mp4', shape: shapeName(frame), ...frame, quality: 'light' },
    ...{ rate: wholeRate(30), span: { fromMs, toMs: fromMs + SECONDS * 1000 } },
  };
  const answer = await ask(route, sending('POST', { specs: [spec] }));
  if (!answer.ok) throw new Error(await answer.text());
  return ((await answer.json()) as { ids: [string] }).ids[0];
}

/** Programs that still work below the data folder or for it. */
async function leftRunning(): Promise<string[]> {
  const found: string[] = [];
  for (const id of (await readdir('/proc')).filter((name) => /^\d+$/.test(name))) {
    const line = (await readFile(`/proc/${id}/cmdline`, 'utf8').catch(() => '')).replaceAll('\0', ' ');
    const place = await readlink(`/proc/${id}/cwd`).catch(() => '');
    if (/ffmpeg|draw-worker|film-worker/.test(line) && (line + place).includes(app.dataFolder))
      found.push(line.slice(0, 80));
  }
  return found;
}

const parts = async () => (await readdir(app.dataFolder, { recursive: true })).filter((name) => name.endsWith('.part'));

let index = 0;
for (const stage of STAGES) {
  let [whole, hit, lost] = [0, 0, 0];
  const problems: string[] = [];
  for (let round = 0; round < TIMES; round += 1) {
    index += 1;
    const id = await ordered(index, 100 * index);
    // Mixing is over too soon to be waited for: it is hit blindly, in the first half second.
    for (; stage !== 'sound';) {
      const film = await filmOf(id);
      if (film.state === 'ready') break;
      // Joining is over too soon as well: the film is as good as drawn.
      if (film.framesDone > (stage === 'joining' ? 0.9 * SECONDS * 30 : 0)) break;
      await sleep(10);
    }
    await sleep(Math.random() * WAITS[stage]);
    const then = await filmOf(id);
    if (then.state === 'making') hit += 1;
    await app.killHard();
    await app.start();
    const startedMs = performance.now();
    let film = await filmOf(id);
    while (film.state !== 'ready' && film.state !== 'failed' && performance.now() - startedMs < 180_000) {
      await sleep(200);
      film = await filmOf(id);
    }
    if (film.state !== 'ready') {
      lost += 1;
      problems.push(`${film.state}: ${film.problem ?? ''}`);
      continue;
    }
    const file = path.join(folder, 'film.mp4');
    const answer = await ask(`${app.address}/api/v1/films/${id}/file`);
    await pipeline(Readable.fromWeb(answer.body as never), createWriteStream(file));
    const { video, sound, times } = await probeFilm(file);
    const even = times.every((time, at) => Math.abs(time - times[0]! - at / 30) < 0.002);
    const right =
      Number(video!.nb_read_frames) === SECONDS * 30 && even && Math.abs(Number(sound!.duration) - SECONDS) < 0.05;
    if (right) whole += 1;
    else problems.push(`${String(video!.nb_read_frames)} frames, sound ${String(sound!.duration)} s, even ${even}`);
    await ask(`${app.address}/api/v1/films/${id}`, { method: 'DELETE' });
  }
  await sleep(500);
  const running = await leftRunning();
  process.stdout.write(
    `killed at or just before “${stage}” ${TIMES} times (${hit} of them before it was ready): ${whole} films whole, ${lost} lost; ${running.length} programs and ${(await parts()).length} half files left behind\n`,
  );
  for (const problem of [...problems, ...running]) process.stdout.write(`  ${problem}\n`);
}
await app.close();
await rm(folder, { recursive: true, force: true });
process.exit(0);
