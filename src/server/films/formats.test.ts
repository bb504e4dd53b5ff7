import { spawnSync } from 'node:child_process';
import { mkdtemp, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { FILM_FORMATS, formatOf, type FilmFormatName } from '../../core/film/film-formats';
import { specFor } from '../../core/film/purposes/purposes';
import type { FilmSpec } from '../../core/film/film-spec';
import { assetId, cueId, showId, type AssetId } from '../../core/show/ids';
import { songAfter } from '../../core/show/placed-sound';
import { blankSlide } from '../../core/show/new-slide';
import type { AssetFacts } from '../../core/show/asset-facts';
import { emptyShow, type Show } from '../../core/show/show';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { createKeptFiles } from './kept-files';
import { makeFilm } from './make-film';

const TONE = assetId('2'.repeat(64));
const SLIDES = ['#c03020', '#2050a0', '#30a040'];
let folder: string;
let show: Show;
const facts = new Map<AssetId, AssetFacts>([[TONE, { kind: 'sound', lengthMs: 3000, title: null, artist: null }]]);
const files = new Map<AssetId, string>();

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-formats-'));
  files.set(TONE, path.join(folder, 'tone.wav'));
  await runFfmpeg([
    '-f',
    'lavfi',
    '-i',
    // A tone, and a click at its first second.
    "aevalsrc='0.05*sin(880*PI*t)+if(between(t,1,1.0004),0.8,0)':d=3",
    '-ar',
    '48000',
    '-ac',
    '2',
    '-y',
    files.get(TONE)!,
  ]);
  let counted = 0;
  const slides = SLIDES.map((colour) => blankSlide(1000, colour, () => `n${(counted += 1)}`));
  show = {
    ...emptyShow(showId('colours'), 'Colours; = # \\ “all”'),
    slides: slides.map((slide, index) => ({
      ...slide,
      transition: { kind: 'cut' as const },
      ...(index !== 1 && { chapter: `Part ${index}; = one` }),
    })),
    cues: [songAfter(cueId('q'), TONE, 0)],
  };
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const specOf = (format: FilmFormatName): FilmSpec => {
  const { discRate, holds } = formatOf(format);
  return {
    ...specFor(show, 'screen'),
    format,
    widthPx: 320,
    heightPx: 180,
    ...(discRate && { rate: discRate, widthPx: 1024, heightPx: 576 }),
    ...(holds === 'pictures' && { rate: { frames: 10, seconds: 1 } }),
  };
};
const made = (spec: FilmSpec, outFile: string) =>
  makeFilm({
    show,
    spec,
    facts,
    files,
    outFile,
    workFolder: path.join(folder, 'work'),
    kept: createKeptFiles(path.join(folder, 'kept')),
    workerCount: 1,
  });
const outFileOf = (format: FilmFormatName) => path.join(folder, `${format}.${formatOf(format).extension}`);

interface Asked {
  readonly streams: readonly Record<string, string>[];
  readonly chapters?: readonly { readonly start_time: string; readonly tags: { readonly title: string } }[];
  readonly format: { readonly duration?: string; readonly tags?: Record<string, string> };
}
const ask = (file: string): Asked =>
  JSON.parse(
    spawnSync('ffprobe', [
      ...['-v', 'error', '-of', 'json', '-count_frames', '-show_streams', '-show_chapters', '-show_format', file],
    ]).stdout.toString(),
  ) as Asked;
/** The colour in the middle of a film at a second. */
const colourAt = async (file: string, second: number): Promise<number[]> => {
  const { stdout } = spawnSync('ffmpeg', [
    ...['-v', 'error', '-i', file, '-ss', String(second), '-frames:v', '1'],
    ...['-vf', 'scale=in_color_matrix=auto', '-f', 'image2pipe', '-c:v', 'png', '-'],
  ]);
  const { data } = await sharp(stdout)
    .extract({ left: 100, top: 90, width: 1, height: 1 })
    .raw()
    .toBuffer({ resolveWithObject: true });
  return [...data.subarray(0, 3)];
};
const rgb = (colour: string) => [1, 3, 5].map((at) => Number.parseInt(colour.slice(at, at + 2), 16));
const expectColour = (found: readonly number[], wanted: string, slack = 14) =>
  found.forEach((value, at) => expect(Math.abs(value - rgb(wanted)[at]!)).toBeLessThanOrEqual(slack));

const NAMES = Object.keys(FILM_FORMATS) as FilmFormatName[];
const FILMS = NAMES.filter((name) => formatOf(name).holds === 'film');
const CODECS: Partial<Record<FilmFormatName, readonly [picture: string, sound: string]>> = {
  mp4: ['h264', 'aac'],
  hevc: ['hevc', 'aac'],
  vp9: ['vp9', 'opus'],
  av1: ['av1', 'opus'],
  prores: ['prores', 'pcm_s24le'],
  ffv1: ['ffv1', 'flac'],
  pal: ['mpeg2video', 'ac3'],
  ntsc: ['mpeg2video', 'ac3'],
};

/** Milliseconds from the first picture at which a film’s sound is loudest. */
const loudestMs = (format: FilmFormatName, file = outFileOf(format)): number => {
  const { stdout } = spawnSync('ffmpeg', ['-v', 'error', '-i', file, '-f', 'f32le', '-ar', '48000', '-ac', '1', '-'], {
    maxBuffer: 1e8,
  });
  const samples = new Float32Array(stdout.buffer.slice(stdout.byteOffset, stdout.byteOffset + stdout.length));
  let loudest = 0;
  samples.forEach((sample, at) => {
    if (Math.abs(sample) > Math.abs(samples[loudest]!)) loudest = at;
  });
  const startOf = (type: string) =>
    Number(ask(file).streams.find(({ codec_type: found }) => found === type)?.start_time ?? 0);
  // Players begin discs' sound where its stream says; what comes before others' is left out by whoever decodes them.
  const leadMs = formatOf(format).discRate ? 1000 * (startOf('audio') - startOf('video')) : 0;
  return loudest / 48 + leadMs;
};

describe('every format', () => {
  it.each(FILMS)('%s holds every frame in the right colours, and sound as long as they last', async (format) => {
    const spec = specOf(format);
    const film = await made(spec, outFileOf(format));
    const { streams, format: file } = ask(outFileOf(format));
    const picture = streams.find(({ codec_type: type }) => type === 'video')!;
    const [codec, soundCodec] = CODECS[format]!;
    expect(picture).toMatchObject({ codec_name: codec, nb_read_frames: String(film.plan.frameCount) });
    expect(streams.find(({ codec_type: type }) => type === 'audio')).toMatchObject({ codec_name: soundCodec });
    expect(Math.abs(Number(file.duration) - 3)).toBeLessThan(0.12);
    expect(film.byteCount).toBe((await stat(outFileOf(format))).size);
    for (const [at, colour] of SLIDES.entries()) expectColour(await colourAt(outFileOf(format), at + 0.5), colour);
  });
  it.each(FILMS)('%s is heard when it is seen, to the millisecond', (format) => {
    expect(Math.abs(loudestMs(format) - 1000.2)).toBeLessThan(1);
  });
  it('a stretch has its own sound, though that of the whole is kept', async () => {
    const file = path.join(folder, 'stretch.mp4');
    await made({ ...specOf('mp4'), span: { fromMs: 500, toMs: 2500 } }, file);
    expect(Math.abs(loudestMs('mp4', file) - 500.2)).toBeLessThan(1);
  });
  it.each(FILMS.filter((name) => !['pal', 'ntsc'].includes(name)))(
    '%s says what it is called and where its chapters begin',
    (format) => {
      const { chapters, format: file } = ask(outFileOf(format));
      expect(file.tags?.title).toBe(show.title);
      expect(chapters?.map(({ start_time: start, tags }) => [Number(start), tags.title])).toEqual([
        [0, 'Part 0; = one'],
        [2, 'Part 2; = one'],
      ]);
    },
  );
  it.each(NAMES.filter((name) => formatOf(name).holds === 'sound'))('%s is the sound alone', async (format) => {
    await made(specOf(format), outFileOf(format));
    const { streams, format: file } = ask(outFileOf(format));
    expect(streams.map(({ codec_type: type }) => type)).toEqual(['audio']);
    expect(Math.abs(Number(file.duration) - 3)).toBeLessThan(0.08);
  });
  it('gif and webp go round and round, frame by frame', async () => {
    for (const format of ['gif', 'webp'] as const) {
      await made(specOf(format), outFileOf(format));
      const { pages, loop, delay } = await sharp(outFileOf(format), { animated: true }).metadata();
      expect([pages, loop, delay!.every((ms) => ms === 100)]).toEqual([30, 0, true]);
      for (const [at, colour] of SLIDES.entries()) {
        const { data } = await sharp(outFileOf(format), { page: at * 10 + 5 })
          .extract({ left: 100, top: 90, width: 1, height: 1 })
          .removeAlpha()
          .raw()
          .toBuffer({ resolveWithObject: true });
        expectColour([...data], colour);
      }
    }
  });
  it('pictures are all there, numbered, in a ZIP', async () => {
    for (const format of ['jpegs', 'pngs'] as const) {
      await made(specOf(format), outFileOf(format));
      const zip = await readFile(outFileOf(format));
      const names = [...zip.toString('latin1').matchAll(/PK\x01\x02[\s\S]{42}(\d+\.(?:jpg|png))/g)].map(
        ([, name]) => name,
      );
      const ending = format === 'jpegs' ? 'jpg' : 'png';
      expect([names.length, names[0], names.at(-1)]).toEqual([30, `01.${ending}`, `30.${ending}`]);
    }
  });
});

describe('a film of a size', () => {
  it.each([400_000, 900_000])('is at most %d bytes, and at most three hundredths smaller', async (mostBytes) => {
    const noisy: Show = {
      ...show,
      slides: show.slides.map((slide) => ({
        ...slide,
        lengthMs: 4000,
        transition: { kind: 'dissolve' as const, lengthMs: 2000 },
      })),
    };
    const picture = path.join(folder, 'noise.png');
    await sharp({
      create: {
        width: 1400,
        height: 900,
        channels: 3,
        background: '#808080',
        noise: { type: 'gaussian', mean: 128, sigma: 60 },
      },
    })
      .png()
      .toFile(picture);
    const id = assetId('3'.repeat(64));
    const outFile = path.join(folder, `sized-${mostBytes}.mp4`);
    const { byteCount } = await makeFilm({
      show: {
        ...noisy,
        slides: noisy.slides.map((slide) => ({ ...slide, backing: { kind: 'picture' as const, assetId: id } })),
      },
      spec: { ...specOf('mp4'), widthPx: 640, heightPx: 360, mostBytes },
      facts: new Map<AssetId, AssetFacts>([
        ...facts,
        [
          id,
          {
            kind: 'picture',
            widthPx: 1400,
            heightPx: 900,
            hasTransparency: false,
            takenAt: null,
            camera: null,
            brightness: 0.5,
          },
        ],
      ]),
      files: new Map([...files, [id, picture]]),
      outFile,
      workFolder: path.join(folder, 'work'),
      kept: createKeptFiles(path.join(folder, 'kept')),
    });
    expect(byteCount).toBeLessThanOrEqual(mostBytes);
    expect(byteCount).toBeGreaterThanOrEqual(0.97 * mostBytes);
    expect(ask(outFile).streams[0]).toMatchObject({ nb_read_frames: '360' });
  });
  it('is refused with a sentence when nothing would be left of it', async () => {
    const long: Show = { ...show, slides: show.slides.map((slide) => ({ ...slide, lengthMs: 60_000 })) };
    const outFile = path.join(folder, 'too-long.mp4');
    await expect(
      makeFilm({
        show: long,
        spec: { ...specOf('mp4'), widthPx: 64, heightPx: 36, mostBytes: 200_000 },
        facts,
        files,
        outFile,
        workFolder: path.join(folder, 'work'),
        kept: createKeptFiles(path.join(folder, 'kept')),
      }),
    ).rejects.toThrow(/too long for 0.2 MB/);
  });
});

describe('what is kept', () => {
  it('is pruned by size, what was used longest ago first, and by age', async () => {
    const place = path.join(folder, 'pruned');
    const lent = path.join(folder, 'lent.mp4');
    let nowMs = Date.now();
    const kept = createKeptFiles(place, 2500, () => nowMs);
    const names = ['a', 'b', 'c'].map((letter) => `${letter.repeat(40)}.mp4`);
    const lendAll = async () => {
      const there: boolean[] = [];
      for (const name of names) there.push(await kept.lend(name, lent));
      return there;
    };
    for (const name of names) {
      const file = path.join(folder, name);
      await writeFile(file, Buffer.alloc(1000));
      await kept.put(name, file);
      nowMs += 1000;
      expect(await kept.lend(name, lent)).toBe(true);
    }
    nowMs += 1000;
    expect(await kept.lend(names[0]!, lent)).toBe(true);
    await kept.prune();
    expect(await lendAll()).toEqual([true, false, true]);
    nowMs += 40 * 24 * 3600 * 1000;
    await kept.prune();
    expect(await lendAll()).toEqual([false, false, false]);
    await expect(kept.lend('../../etc/passwd', lent)).rejects.toThrow(RangeError);
  });
});
