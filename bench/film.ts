// The whole export against encoding the very same frames from a file: npm run bench:film -- [FOLDER OF PICTURES]
// Both ways in one run, in alternating order, encoding alone with x264 veryfast, crf 19, two encoders at a time. Prints CPU and wall times and their ratio.
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { readFileSync } from 'node:fs';
import { showForFilm, type FilmSpec } from '../src/core/film/film-spec';
import { planFilm } from '../src/core/film/plan-film';
import { specFor } from '../src/core/film/purposes/purposes';
import { prepareShow } from '../src/core/frame/plan-frame';
import { COLOUR_TAGS } from '../src/server/films/encodings';
import { createKeptFiles } from '../src/server/films/kept-files';
import { makeFilm } from '../src/server/films/make-film';
import { benchShow } from './demo-show';

const ROUNDS = 3;
const RATE = 30;
const folder = process.argv[3] ?? 'demo/files';
const { show, facts, files } = await benchShow(folder, 4, 5000);
const work = await mkdtemp(path.join(tmpdir(), 'tanager-bench-'));
const spec: FilmSpec = { ...specFor(show, 'screen'), rate: { frames: RATE, seconds: 1 } };
const plan = planFilm(prepareShow(showForFilm(show, spec, facts), facts));
const frameBytes = (spec.widthPx * spec.heightPx * 3) / 2;

/** CPU seconds of this process and of every child it has waited for. */
function cpuSeconds(): number {
  const fields = readFileSync('/proc/self/stat', 'utf8').split(') ')[1]!.split(' ');
  return [11, 12, 13, 14].reduce((sum, at) => sum + Number(fields[at]), 0) / 100;
}

async function measured(what: () => Promise<unknown>): Promise<{ cpu: number; wall: number }> {
  const [cpu, startedMs] = [cpuSeconds(), performance.now()];
  await what();
  return { cpu: cpuSeconds() - cpu, wall: (performance.now() - startedMs) / 1000 };
}

/** What the export is measured against, whatever films are made with. */
const BASE = [
  '-c:v',
  'libx264',
  '-preset',
  'veryfast',
  '-crf',
  '19',
  '-threads',
  '1',
  '-pix_fmt',
  'yuv420p',
  '-g',
  '60',
];
let turn = 0;
const film = path.join(work, 'film.mp4');
const exported = () =>
  makeFilm({
    show,
    facts,
    files,
    spec,
    outFile: film,
    workFolder: path.join(work, 'segments'),
    // Nothing is there of it, however often it is made.
    kept: createKeptFiles(path.join(work, `kept-${(turn += 1)}`)),
  });

/** The film's own segments, encoded again from raw frames on disk, two at a time. */
async function encodedAlone(raw: string): Promise<void> {
  const waiting = [...plan.segments];
  const one = async () => {
    for (let segment = waiting.shift(); segment; segment = waiting.shift()) {
      const count = segment.endFrame - segment.firstFrame;
      const child = spawn(
        'sh',
        [
          '-c',
          `tail -c +${segment.firstFrame * frameBytes + 1} '${raw}' | head -c ${count * frameBytes} | ffmpeg -v error -nostdin -f rawvideo -pix_fmt yuv420p -video_size ${spec.widthPx}x${spec.heightPx} -framerate ${RATE} -i pipe:0 ${[...BASE, ...COLOUR_TAGS].join(' ')} -f mp4 -y '${path.join(work, `alone-${segment.index}.mp4`)}'`,
        ],
        { stdio: 'inherit' },
      );
      await once(child, 'close');
    }
  };
  await Promise.all([one(), one()]);
}

try {
  await exported();
  const raw = path.join(work, 'frames.yuv');
  await once(
    spawn('ffmpeg', ['-v', 'error', '-nostdin', '-i', film, '-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-y', raw], {
      stdio: 'inherit',
    }),
    'close',
  );
  if ((await stat(raw)).size !== plan.frameCount * frameBytes)
    throw new Error('the film does not hold the frames it should');
  const rows: { whole: { cpu: number; wall: number }; alone: { cpu: number; wall: number } }[] = [];
  for (let round = 0; round < ROUNDS; round += 1) {
    const order = round % 2 === 0 ? ['whole', 'alone'] : ['alone', 'whole'];
    const row: Partial<Record<string, { cpu: number; wall: number }>> = {};
    for (const way of order) row[way] = await measured(way === 'whole' ? exported : () => encodedAlone(raw));
    rows.push(row as (typeof rows)[number]);
    const { whole, alone } = rows.at(-1)!;
    process.stdout.write(
      `round ${round + 1}  export ${(plan.frameCount / whole.wall).toFixed(1)} frames/s, ${whole.cpu.toFixed(1)} s CPU   encoding alone ${(plan.frameCount / alone.wall).toFixed(1)} frames/s, ${alone.cpu.toFixed(1)} s CPU   CPU ratio ${(whole.cpu / alone.cpu).toFixed(2)}, wall ratio ${(whole.wall / alone.wall).toFixed(2)}\n`,
    );
  }
  const median = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
  process.stdout.write(
    `${folder}: ${plan.frameCount} frames of ${spec.widthPx} × ${spec.heightPx}; median CPU ratio ${median(rows.map((row) => row.whole.cpu / row.alone.cpu)).toFixed(2)}, median wall ratio ${median(rows.map((row) => row.whole.wall / row.alone.wall)).toFixed(2)}\n`,
  );
} finally {
  await rm(work, { recursive: true, force: true });
}
