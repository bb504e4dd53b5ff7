import { chmod, mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import { specFor } from '../../core/film/purposes/purposes';
import { showId } from '../../core/show/ids';
import { blankSlide } from '../../core/show/new-slide';
import { emptyShow, type Show } from '../../core/show/show';
import { segmentEncoding } from './encodings';
import type { FilmProgress } from './film-telling';
import { findHardware, type HardwareEncoder } from './hardware-encoder';
import { createKeptFiles } from './kept-files';
import { makeFilm } from './make-film';
import { probeFilm } from './probe-film';

/** Stands in for an ffmpeg whose machine has an encoder of its own: what that is told is done by a usual one, in one of several ways. */
const STAND_IN = `#!${process.execPath}
const { spawn } = require('node:child_process');
const HOW = 'THEWAY';
let args = process.argv.slice(2);
const at = args.indexOf('h264_nvenc');
if (at >= 0) {
  if (HOW === 'refuses' || (HOW === 'breaks' && args.includes('rawvideo'))) {
    process.stderr.write('No capable devices found\\n');
    process.exit(1);
  }
  args[at] = 'libx264';
  for (const name of ['-rc', '-cq', '-forced-idr', '-preset', '-b:v']) {
    const found = args.indexOf(name);
    if (found >= 0) args.splice(found, 2);
  }
  args.splice(args.indexOf('libx264') + 1, 0, '-preset', 'ultrafast', '-crf', '18');
  if (HOW === 'spoils') args.splice(args.indexOf('format=yuv420p'), 1, 'negate,format=yuv420p');
  if (HOW === 'drops') args.splice(args.indexOf('-c:v'), 0, '-frames:v', '50');
}
const child = spawn('ffmpeg', args, { stdio: 'inherit' });
for (const signal of ['SIGTERM', 'SIGINT']) process.on(signal, () => child.kill(signal));
child.on('exit', (code, by) => process.exit(code ?? 1));
`;

let folder: string;
const before = process.env.TANAGER_FFMPEG;
const machine = async (how: string) => {
  const file = path.join(folder, `ffmpeg-${how}.cjs`);
  await writeFile(file, STAND_IN.replace('THEWAY', how));
  await chmod(file, 0o755);
  process.env.TANAGER_FFMPEG = file;
};
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-hardware-'));
});
afterAll(async () => {
  if (before === undefined) delete process.env.TANAGER_FFMPEG;
  else process.env.TANAGER_FFMPEG = before;
  await rm(folder, { recursive: true, force: true });
});

describe('an encoder of the machine’s own', () => {
  it('is not looked for without its device', async () => {
    await machine('works');
    expect(await findHardware(['null', 'tty'])).toBeNull();
  });
  it('is used when what it makes can be joined and looks like what went in', async () => {
    await machine('works');
    expect((await findHardware(['nvidia0']))?.name).toBe('h264_nvenc');
  });
  it.each(['refuses', 'spoils', 'drops'])('is not used when it %s', async (how) => {
    await machine(how);
    expect(await findHardware(['nvidia0'])).toBeNull();
  });
  it('encodes what plays everywhere and nothing else', async () => {
    await machine('works');
    const hardware = (await findHardware(['nvidia0']))!;
    const spec = specFor(show, 'web');
    expect(segmentEncoding(spec, hardware).args).toContain('h264_nvenc');
    expect(segmentEncoding({ ...spec, format: 'av1' }, hardware)).toEqual(segmentEncoding({ ...spec, format: 'av1' }));
    expect(segmentEncoding({ ...spec, mostBytes: 1e6 }, hardware)).toEqual(
      segmentEncoding({ ...spec, mostBytes: 1e6 }),
    );
  });
});

let counted = 0;
const show: Show = {
  ...emptyShow(showId('s'), 'Colours'),
  slides: ['#c03020', '#2050a0'].map((colour) => blankSlide(2000, colour, () => `n${(counted += 1)}`)),
};

describe('a film', () => {
  const film = async (hardware: HardwareEncoder, name: string) => {
    const told: FilmProgress[] = [];
    const made = await makeFilm({
      ...{ show, hardware, facts: new Map(), files: new Map(), workerCount: 1 },
      spec: { ...specFor(show, 'web'), widthPx: 320, heightPx: 180 },
      outFile: path.join(folder, `${name}.mp4`),
      workFolder: path.join(folder, 'work'),
      kept: createKeptFiles(path.join(folder, name)),
      onProgress: (progress) => told.push(progress),
    });
    expect((await probeFilm(path.join(folder, `${name}.mp4`))).video).toMatchObject({
      codec_name: 'h264',
      nb_read_frames: '120',
    });
    expect(told.at(-1)!.framesDone).toBe(120);
    return made;
  };
  it('is made by it', async () => {
    await machine('works');
    const hardware = (await findHardware(['nvidia0']))!;
    expect((await film(hardware, 'by-it')).keptFrames).toBe(0);
  });
  it('is made without it when it fails half-way', async () => {
    await machine('works');
    const hardware = (await findHardware(['nvidia0']))!;
    await machine('breaks');
    expect((await film(hardware, 'without-it')).problems).toEqual([]);
  });
});
