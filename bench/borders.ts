// A film made of segments against the same frames encoded in one go with whole pictures at the same places, frame by frame: npm run bench:borders -- [FOLDER [FORMAT]]
import { mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { formatOf, type FilmFormatName } from '../src/core/film/film-formats';
import { showForFilm } from '../src/core/film/film-spec';
import { planFilm } from '../src/core/film/plan-film';
import { specFor } from '../src/core/film/purposes/purposes';
import { prepareShow } from '../src/core/frame/plan-frame';
import { FRAME_RATES } from '../src/core/timing/frame-rate';
import { runFfmpeg } from '../src/server/ffmpeg/run-ffmpeg';
import { evenedArgs, segmentEncoding } from '../src/server/films/encodings';
import { createKeptFiles } from '../src/server/films/kept-files';
import { makeFilm } from '../src/server/films/make-film';
import { benchShow } from './demo-show';

const folder = process.argv[3] ?? 'demo/files';
const { show, facts, files } = await benchShow(folder, 10, 3000);
const work = await mkdtemp(path.join(tmpdir(), 'tanager-borders-'));
const format = (process.argv[4] ?? 'mp4') as FilmFormatName;
const { extension } = formatOf(format);
const spec = { ...specFor(show, 'web'), rate: FRAME_RATES['30']!, format };
const order = {
  show,
  facts,
  files,
  workFolder: path.join(work, 'segments'),
  kept: createKeptFiles(path.join(work, 'kept')),
};

/** PSNR of each frame with what was drawn, in dB. */
async function psnr(film: string, drawn: string): Promise<number[]> {
  const log = path.join(work, 'psnr.txt');
  await runFfmpeg([
    '-i',
    film,
    '-i',
    drawn,
    '-lavfi',
    `[0:v]settb=1/30,setpts=N[a];[1:v]settb=1/30,setpts=N[b];[a][b]psnr=stats_file=${log}`,
    '-f',
    'null',
    '-',
  ]);
  return [...(await readFile(log, 'utf8')).matchAll(/psnr_avg:([\d.]+)/g)].map(([, value]) => Number(value));
}

try {
  const [film, drawn, whole] = [`film.${extension}`, 'drawn.mkv', `whole.${extension}`].map((name) =>
    path.join(work, name),
  ) as [string, string, string];
  await makeFilm({ ...order, spec, outFile: film });
  await makeFilm({ ...order, spec: { ...spec, format: 'ffv1' }, outFile: drawn });
  const { segments } = planFilm(prepareShow(showForFilm(show, spec), facts));
  const starts = segments.map(({ firstFrame }) => `eq(n,${firstFrame})`).join('+');
  await runFfmpeg([
    '-i',
    drawn,
    '-an',
    ...evenedArgs(segmentEncoding(spec), { frameCount: segments.at(-1)!.endFrame, framesBefore: 0, framesAfter: 0 }),
    '-force_key_frames',
    `expr:${starts}`,
    '-y',
    whole,
  ]);
  const [inPieces, inOne] = [await psnr(film, drawn), await psnr(whole, drawn)];
  const differences = inPieces.map((value, frame) => value - inOne[frame]!);
  const sorted = differences.map(Math.abs).sort((a, b) => a - b);
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const near = new Set(segments.flatMap(({ firstFrame }) => [-2, -1, 0, 1, 2].map((by) => firstFrame + by)));
  const atBorders = differences.filter((_, frame) => near.has(frame));
  process.stdout.write(
    `${folder}, ${format}: ${inPieces.length} frames in ${segments.length} segments; PSNR ${mean(inPieces).toFixed(2)} dB in pieces, ${mean(inOne).toFixed(2)} dB in one; ` +
      `difference by frame: median ${sorted[Math.floor(sorted.length / 2)]!.toFixed(3)}, 99th percentile ${sorted[Math.floor(sorted.length * 0.99)]!.toFixed(3)}, largest ${sorted.at(-1)!.toFixed(3)} dB; ` +
      `within two frames of a border mean ${mean(atBorders).toFixed(3)}, largest ${Math.max(...atBorders.map(Math.abs)).toFixed(3)} dB\n`,
  );
} finally {
  await rm(work, { recursive: true, force: true });
}
