import { spawn } from 'node:child_process';
import { copyFile, mkdir, mkdtemp, readdir, readFile, rm, symlink, truncate, writeFile } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { FORMAT_VERSION } from '../core/show/format/version';
import { assetId, layerId } from '../core/show/ids';
import { blankSlide } from '../core/show/new-slide';
import type { Slide } from '../core/show/show';
import { MOUNT_VERSION } from '../core/mounts/mount-document';
import { madeRaw } from '../server/assets/raw-file.testing';
import { hashOfFile } from '../server/blobs/content-hash';
import { writeMountFile } from '../server/reuse/mount-file';
import { probeFilm } from '../server/films/probe-film';

let folder: string;
const demo = (name: string) => path.resolve('demo/files', name);
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-cli-'));
  await mkdir(path.join(folder, 'pictures'));
  await copyFile(demo('PE_0412.jpg'), path.join(folder, 'pictures/2 first.jpg'));
  await symlink(path.resolve(demo('PE_0463.jpg')), path.join(folder, 'pictures/10 turned.jpg'));
  await copyFile(demo('PE_0419.jpg'), path.join(folder, 'pictures/11 upright.jpg'));
  await writeFile(path.join(folder, 'pictures/3 letter.jpg'), 'Dear harbour master');
  await copyFile(demo('PE_0415.jpg'), path.join(folder, 'pictures/4 cut short.jpg'));
  await truncate(path.join(folder, 'pictures/4 cut short.jpg'), 50_000);
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

interface Ran {
  readonly code: number | null;
  readonly out: string;
  readonly told: string;
}

/** The command as a person runs it, from a folder of their own. */
function tanager(...args: string[]): Promise<Ran> {
  return new Promise((resolve) => {
    const child = spawn('npm', ['--prefix', process.cwd(), 'run', '--silent', 'tanager', '--', ...args], {
      cwd: folder,
      env: { ...process.env, NODE_OPTIONS: '' },
    });
    let [out, told] = ['', ''];
    child.stdout.on('data', (chunk) => {
      out += chunk;
    });
    child.stderr.on('data', (chunk) => {
      told += chunk;
    });
    child.on('close', (code) => resolve({ code, out, told }));
  });
}

interface Report {
  film: string;
  lengthMs: number;
  frames: number;
  widthPx: number;
  heightPx: number;
  fps: number;
  drawMs: number;
  encodeMs: number;
  wallMs: number;
  slides: {
    picture: string;
    startMs: number;
    lengthMs: number;
    transitionMs: number;
    from: { x: number; width: number };
    to: { x: number; width: number };
  }[];
  problems: { file: string; message: string }[];
}

describe('tanager listen', () => {
  it('tells the tempo, the beats, the bars, the sections and the loudness of a song', async () => {
    const { code, out } = await tanager('listen', demo('harbour-reel.mp3'), '--json');
    expect(code).toBe(0);
    const heard = JSON.parse(out) as Record<string, number> & {
      beatsMs: number[];
      downbeatsMs: number[];
      sections: object[];
    };
    expect(Math.abs(heard.tempoBpm! - 104)).toBeLessThan(1);
    expect(Math.abs(heard.lengthMs! - 156_900)).toBeLessThan(200);
    expect(heard.beatsMs.length).toBeGreaterThan(250);
    expect(heard.downbeatsMs.every((moment) => heard.beatsMs.includes(moment))).toBe(true);
    expect(heard.sections[0]).toMatchObject({ startMs: 0, label: 'quiet opening' });
    expect([Math.round(heard.loudnessLufs!), heard.truePeakDb! < 0]).toEqual([-17, true]);
  });
  it('says in a sentence what is no song', async () => {
    const { code, told } = await tanager('listen', demo('PE_0412.jpg'));
    expect([code, told]).toEqual([1, expect.stringContaining('is not a song but a picture')]);
  });
});

describe('tanager make', () => {
  it('makes a film of a folder nobody prepared, names what it could not use, and reports in JSON', async () => {
    const ran = await tanager(
      'make',
      'pictures',
      '--music',
      demo('harbour-reel.mp3'),
      '--out',
      'film.mp4',
      '--height',
      '720',
      '--seconds-per-picture',
      '2.5',
      '--title',
      'Dusk',
      '--save',
      'show.json',
      '--json',
    );
    expect(ran.code).toBe(0);
    const report = JSON.parse(ran.out) as Report;
    expect(report).toMatchObject({
      film: path.join(folder, 'film.mp4'),
      lengthMs: 7500,
      frames: 225,
      widthPx: 1280,
      heightPx: 720,
      fps: 30,
    });
    expect(
      report.slides.map((slide) => [path.basename(slide.picture), slide.startMs, slide.lengthMs, slide.transitionMs]),
    ).toEqual([
      ['2 first.jpg', 0, 2500, 0],
      ['10 turned.jpg', 2500, 2500, 1000],
      ['11 upright.jpg', 5000, 2500, 1000],
    ]);
    expect(report.slides.every((slide) => JSON.stringify(slide.from) !== JSON.stringify(slide.to))).toBe(true);
    expect(report.problems.map((problem) => path.basename(problem.file))).toEqual(['3 letter.jpg', '4 cut short.jpg']);
    expect([report.drawMs, report.encodeMs, report.wallMs].every((ms) => ms > 0)).toBe(true);
    expect(ran.told).toContain('4 cut short.jpg: The file is cut short');
    const film = await probeFilm(report.film);
    expect([film.video?.nb_read_frames, film.video?.codec_name, film.sound?.codec_name]).toEqual([
      '225',
      'h264',
      'aac',
    ]);
  });

  it('takes RAW and the finished picture of one press for one, RAW alone by the picture in it, and leaves nothing beside a person’s files', async () => {
    const presses = path.join(folder, 'presses');
    await mkdir(presses);
    const raw = await madeRaw({ maker: 'tiff-little', previews: [[1800, 1200]], takenAt: '2031:06:14 21:08:33' });
    await writeFile(path.join(presses, 'OR_1.DNG'), raw);
    await sharp({ create: { width: 1800, height: 1200, channels: 3, background: '#405060' } })
      .withExif({ IFD2: { DateTimeOriginal: '2031:06:14 21:08:33' } })
      .jpeg()
      .toFile(path.join(presses, 'OR_1.JPG'));
    await writeFile(path.join(presses, 'OR_2.DNG'), raw);
    const ran = await tanager('make', 'presses', '--out', 'presses.mp4', '--seconds-per-picture', '1', '--json');
    const report = JSON.parse(ran.out) as Report;
    expect(report.slides.map((slide) => path.basename(slide.picture))).toEqual(['OR_1.JPG', 'OR_2.DNG']);
    expect((await readdir(presses)).sort()).toEqual(['OR_1.DNG', 'OR_1.JPG', 'OR_2.DNG']);
  });
  it('saves a show whose logo lies where the person has it, and beside it what a mount brought along', async () => {
    await writeFile(
      path.join(folder, 'logo.svg'),
      '<svg xmlns="http://www.w3.org/2000/svg" width="300" height="120"><circle cx="60" cy="60" r="50" fill="#2a5"/></svg>',
    );
    const file = demo('PE_0419.jpg');
    const id = assetId(await hashOfFile(file));
    const slide: Slide = {
      ...blankSlide(4000, '#101418', () => 'card'),
      layers: [{ kind: 'picture', id: layerId('p'), assetId: id, move: { kind: 'still' } }],
    };
    const frame = { widthPx: 1920, heightPx: 1080 };
    await writeMountFile(
      path.join(folder, 'card.zip'),
      {
        ...{ format: 'tanager-mount', version: MOUNT_VERSION, shows: FORMAT_VERSION, name: 'Card', author: '' },
        ...{ description: '', shelf: 'Closers', posterMs: 0, goes: 'after', files: { [id]: 'harbour.jpg' } },
        fits: [{ name: 'one', suits: 'any', frame, windows: [], slides: [slide], words: [] }],
      },
      { lies: () => Promise.resolve(file), bare: () => Promise.resolve(null) },
    );
    const ran = await tanager(
      ...['make', 'pictures', '--out', 'dressed.mp4', '--seconds-per-picture', '0.5', '--height', '720'],
      ...['--logo', 'logo.svg', '--closer', 'card.zip', '--save', 'dressed.json'],
    );
    expect([ran.code, ran.told]).toEqual([0, expect.stringContaining('dressed.mp4: ')]);
    const saved = JSON.parse(await readFile(path.join(folder, 'dressed.json'), 'utf8')) as {
      files: Record<string, string>;
    };
    expect(Object.values(saved.files).filter((name) => !existsSync(path.join(folder, name)))).toEqual([]);
    expect(Object.values(saved.files)).toEqual(
      expect.arrayContaining(['logo.svg', expect.stringMatching(/^dressed-files/)]),
    );
    const checked = await tanager('check', 'dressed.json', '--json');
    expect(checked.out).not.toContain('cannot be read');
  });
  it('draws the same moment of the saved show as the film has', async () => {
    const ran = await tanager('frame', 'show.json', '--at', '3.2', '--out', 'still.png', '--height', '720');
    expect(ran).toMatchObject({ code: 0, out: '' });
    const still = await sharp(path.join(folder, 'still.png')).raw().toBuffer({ resolveWithObject: true });
    expect([still.info.width, still.info.height, still.info.channels]).toEqual([1280, 720, 3]);
    const { runFfmpeg } = await import('../server/ffmpeg/run-ffmpeg');
    await runFfmpeg([
      '-i',
      path.join(folder, 'film.mp4'),
      '-vf',
      'select=eq(n\\,96),scale=in_color_matrix=bt709:in_range=tv',
      '-frames:v',
      '1',
      '-pix_fmt',
      'rgb24',
      '-y',
      path.join(folder, 'from-film.png'),
    ]);
    const filmed = await sharp(path.join(folder, 'from-film.png')).removeAlpha().raw().toBuffer();
    const mean = still.data.reduce((sum, value, at) => sum + Math.abs(value - filmed[at]!), 0) / filmed.length;
    expect(mean).toBeLessThan(2);
  });

  it('makes the show end with the music', async () => {
    const song = path.join(folder, 'short.wav');
    const { runFfmpeg } = await import('../server/ffmpeg/run-ffmpeg');
    await runFfmpeg(['-f', 'lavfi', '-i', 'sine=frequency=330:duration=4.321', '-y', song]);
    const ran = await tanager(
      'make',
      'pictures/2 first.jpg',
      'pictures/11 upright.jpg',
      '--music',
      'short.wav',
      '--fit',
      'music',
      '--out',
      'fitted.mp4',
      '--height',
      '720',
      '--fps',
      '25',
      '--json',
    );
    const report = JSON.parse(ran.out) as Report;
    expect([report.frames, report.slides.reduce((sum, slide) => sum + slide.lengthMs, 0)]).toEqual([108, 4321]);
  });

  it.each<[string, string[]]>([
    ['no pictures', ['make', '--out', 'x.mp4']],
    ['no place for the film', ['make', 'pictures']],
    ['a size there is not', ['make', 'pictures', '--out', 'x.mp4', '--height', '500']],
    ['a number that is none', ['make', 'pictures', '--out', 'x.mp4', '--seconds-per-picture', 'long']],
    [
      'both ways of timing',
      ['make', 'pictures', '--out', 'x.mp4', '--music', 'a.mp3', '--fit', 'music', '--seconds-per-picture', '3'],
    ],
    ['an unknown option', ['make', 'pictures', '--out', 'x.mp4', '--sparkle']],
    ['an unknown command', ['bake']],
    ['no command', []],
    ['a moment that is none', ['frame', 'show.json', '--at', 'noon', '--out', 'x.png']],
  ])('answers 2 and says how it is used for %s', async (_what, args) => {
    const ran = await tanager(...args);
    expect([ran.code, ran.out, ran.told.includes('tanager make PICTURES')]).toEqual([2, '', true]);
    expect(existsSync(path.join(folder, 'x.mp4'))).toBe(false);
  });

  it.each<[string, () => Promise<string[]>, string]>([
    [
      'no picture can be used',
      async () => ['make', 'pictures/3 letter.jpg', 'nowhere.jpg', '--out', 'none.mp4'],
      'No picture could be used',
    ],
    [
      'there is nothing in a folder but a link that leads nowhere',
      async () => {
        await mkdir(path.join(folder, 'links'), { recursive: true });
        await symlink('nowhere.jpg', path.join(folder, 'links', 'gone.jpg')).catch(() => {});
        return ['make', 'links', '--out', 'none.mp4'];
      },
      'links/gone.jpg: There is no such file.',
    ],
    [
      'the music is no music',
      async () => ['make', 'pictures', '--music', 'pictures/3 letter.jpg', '--out', 'none.mp4'],
      'no film was made',
    ],
    [
      'the show is not JSON',
      async () => {
        await writeFile(path.join(folder, 'bad.json'), '{');
        return ['frame', 'bad.json', '--at', '0', '--out', 'none.png'];
      },
      'is not JSON',
    ],
    [
      'the show has a length that makes no sense',
      async () => {
        const show = JSON.parse(await readFile(path.join(folder, 'show.json'), 'utf8')) as {
          slides: { lengthMs: number }[];
        };
        show.slides[0]!.lengthMs = -5;
        await writeFile(path.join(folder, 'bad.json'), JSON.stringify(show));
        return ['frame', 'bad.json', '--at', '0', '--out', 'none.png'];
      },
      'slides[0].lengthMs',
    ],
    [
      'the show is not there',
      async () => ['frame', 'gone.json', '--at', '0', '--out', 'none.png'],
      'there is no such file',
    ],
  ])('answers 1 with a sentence when %s', async (_what, args, sentence) => {
    const ran = await tanager(...(await args()));
    expect(ran).toMatchObject({ code: 1, out: '' });
    expect(ran.told).toContain(sentence);
    expect(ran.told).not.toContain('    at ');
  });
});
