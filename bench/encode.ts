// Settings of the encoder against each other: CPU, size and likeness on the very same frames: npm run bench:encode -- [FOLDER OF PICTURES]
// Every setting encodes the same raw frames with one thread; each round begins with the one films are made with, and ratios are to that of the same round.
import { mkdtemp, rm, stat } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { FRAME_RATES } from '../src/core/timing/frame-rate';
import { specFor } from '../src/core/film/purposes/purposes';
import { runFfmpeg } from '../src/server/ffmpeg/run-ffmpeg';
import { createKeptFiles } from '../src/server/films/kept-files';
import { makeFilm } from '../src/server/films/make-film';
import { segmentEncoding } from '../src/server/films/encodings';
import { benchShow } from './demo-show';

const ROUNDS = 3;
const folder = process.argv[3] ?? 'demo/files';
const { show, facts, files } = await benchShow(folder, 5, 3000);
const work = await mkdtemp(path.join(tmpdir(), 'tanager-encode-'));
const spec = { ...specFor(show, 'screen'), rate: FRAME_RATES['30']! };
const own = segmentEncoding(spec).args;
const veryfast = ['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '19', '-g', '60', '-pix_fmt', 'yuv420p'];
function superfast(crf: string, params: string): string[] {
  return [
    ...['-c:v', 'libx264', '-preset', 'superfast', '-crf', crf, '-g', '60'],
    '-pix_fmt',
    'yuv420p',
    '-x264-params',
    params,
  ];
}
const WITH: Readonly<Record<string, readonly string[]>> = {
  'as films are made': own,
  veryfast,
  'veryfast, less search': [...veryfast, '-x264-params', 'me=dia:subme=1'],
  'and a short look ahead': [...veryfast, '-x264-params', 'rc-lookahead=5:me=dia:subme=1'],
  superfast: ['-c:v', 'libx264', '-preset', 'superfast', '-crf', '19', '-g', '60', '-pix_fmt', 'yuv420p'],
  'superfast, looking ahead': superfast('19.4', 'mbtree=1:rc-lookahead=10'),
  'looking further ahead': superfast('19.4', 'mbtree=1:rc-lookahead=20'),
  'by how busy blocks are': superfast('19.6', 'mbtree=1:rc-lookahead=10:aq-mode=2'),
  'and how dark': superfast('19.6', 'mbtree=1:rc-lookahead=10:aq-mode=3'),
  'finer search': superfast('19.6', 'mbtree=1:rc-lookahead=10:me=dia:subme=2'),
  'fewer b-frames': superfast('19.4', 'mbtree=1:rc-lookahead=10:bframes=2'),
};

interface Row {
  readonly cpu: number;
  readonly bytes: number;
  readonly ssim: number;
}

try {
  const film = path.join(work, 'drawn.mkv');
  const raw = path.join(work, 'frames.yuv');
  await makeFilm({
    show,
    spec: { ...spec, format: 'ffv1' },
    facts,
    files,
    outFile: film,
    workFolder: path.join(work, 'segments'),
    kept: createKeptFiles(path.join(work, 'kept')),
  });
  await runFfmpeg(['-i', film, '-f', 'rawvideo', '-pix_fmt', 'yuv420p', '-y', raw]);
  const input = [
    '-f',
    'rawvideo',
    '-pix_fmt',
    'yuv420p',
    '-video_size',
    `${spec.widthPx}x${spec.heightPx}`,
    '-framerate',
    '30',
    '-i',
    raw,
  ];
  const measured = async (args: readonly string[]): Promise<Row> => {
    const out = path.join(work, 'out.mp4');
    const said = await runFfmpeg([
      '-benchmark',
      '-loglevel',
      'info',
      '-nostats',
      ...input,
      ...args,
      '-threads',
      '1',
      '-y',
      out,
    ]);
    const [, user, system] = /bench: utime=([\d.]+)s stime=([\d.]+)s/.exec(said)!;
    const compared = await runFfmpeg([
      '-loglevel',
      'info',
      '-nostats',
      '-i',
      out,
      ...input,
      '-lavfi',
      '[0:v]settb=1/30,setpts=N[a];[1:v]settb=1/30,setpts=N[b];[a][b]ssim',
      '-f',
      'null',
      '-',
    ]);
    return {
      cpu: Number(user) + Number(system),
      bytes: (await stat(out)).size,
      ssim: Number(/All:([\d.]+)/.exec(compared)![1]),
    };
  };
  const rows = new Map<string, { readonly ratio: number; readonly row: Row }[]>();
  for (let round = 0; round < ROUNDS; round += 1) {
    const base = await measured(veryfast);
    for (const [name, args] of Object.entries(WITH)) {
      const row = await measured(args);
      rows.set(name, [...(rows.get(name) ?? []), { ratio: row.cpu / base.cpu, row }]);
    }
  }
  process.stdout.write(
    `${folder}, ${spec.widthPx} × ${spec.heightPx}; CPU against x264 veryfast, crf 19, of the same round\n`,
  );
  for (const [name, all] of rows) {
    const ratios = all.map(({ ratio }) => ratio).sort((a, b) => a - b);
    const { bytes, ssim } = all[0]!.row;
    process.stdout.write(
      `${name.padEnd(30)} CPU ${ratios[Math.floor(ratios.length / 2)]!.toFixed(2)} (${ratios[0]!.toFixed(2)}–${ratios.at(-1)!.toFixed(2)})  ${(bytes / 1e6).toFixed(2)} MB  SSIM ${ssim.toFixed(5)}\n`,
    );
  }
} finally {
  await rm(work, { recursive: true, force: true });
}
