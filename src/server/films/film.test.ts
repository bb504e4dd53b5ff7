import { mkdtemp, readdir, readFile, rm } from 'node:fs/promises';
import { existsSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import { emptyShow, type Show } from '../../core/show/show';
import { songAfter } from '../../core/show/placed-sound';
import { cueId, showId, slideId, type AssetId } from '../../core/show/ids';
import { slideFromAsset } from '../../core/show/new-slide';
import type { AssetFacts } from '../../core/show/asset-facts';
import type { ClipLayer } from '../../core/show/layer';
import { FRAME_RATES } from '../../core/timing/frame-rate';
import { momentOfFrame } from '../../core/timing/frames';
import { lookAtFile } from '../assets/look-at-file';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { hashOfFile } from '../blobs/content-hash';
import { openServer, type RunningServer } from '../running-server';
import { specFor } from '../../core/film/purposes/purposes';
import type { FilmSpec } from '../../core/film/film-spec';
import type { FilmRow } from './film-row';
import type { FilmService } from './film-service';
import type { FilmProgress } from './film-telling';
import { createKeptFiles } from './kept-files';
import { makeFilm } from './make-film';
import { probeFilm } from './probe-film';

let folder: string;
let show: Show;
const facts = new Map<AssetId, AssetFacts>();
const files = new Map<AssetId, string>();
let counted = 0;
/** Of 30 frames a second, 640 × 360. */
const web = (): FilmSpec => halved(specFor(show, 'web'));
/** Half as wide and high: made in a quarter of the time. */
const halved = (spec: FilmSpec): FilmSpec => ({ ...spec, widthPx: spec.widthPx / 2, heightPx: spec.heightPx / 2 });
const kept = (name: string) => createKeptFiles(path.join(folder, `${name}-kept`));
const newId = () => `n${(counted += 1)}`;
const sleep = (ms: number) =>
  new Promise((resolve) => {
    setTimeout(resolve, ms);
  });

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-films-'));
  for (const name of ['PE_0412.jpg', 'PE_0419.jpg', 'PE_0489-boats.mp4', 'harbour-reel.mp3']) {
    const file = path.resolve('demo/files', name);
    const id = await hashOfFile(file);
    files.set(id, file);
    facts.set(id, (await lookAtFile(file)).facts);
  }
  const [first, tall, clip, song] = [...files.keys()] as [AssetId, AssetId, AssetId, AssetId];
  const slides = [first, tall, clip].map((id) => ({
    ...slideFromAsset(id, facts.get(id)!, 2500, newId),
    lengthMs: 2500,
  }));
  show = {
    ...emptyShow(showId('made'), 'Lanterns & “boats”'),
    slides,
    cues: [songAfter(cueId('q'), song, 2000)],
  };
});
afterAll(async () => {
  await rm(folder, { recursive: true, force: true });
});

describe('makeFilm', () => {
  it('makes a film of exactly as many frames as it should have, tagged, with sound that ends with it and no black in it', async () => {
    const outFile = path.join(folder, 'film.mp4');
    const progress: FilmProgress[] = [];
    const made = await makeFilm({
      show,
      facts,
      files,
      spec: web(),
      outFile,
      workFolder: path.join(folder, 'work'),
      kept: kept('work'),
      onProgress: (entry) => progress.push(entry),
    });
    expect(made).toMatchObject({
      lengthMs: 7500,
      problems: [],
      plan: { frameCount: 225 },
      keptFrames: 0,
    });
    const film = await probeFilm(outFile);
    expect(film.video).toMatchObject({
      codec_name: 'h264',
      width: 640,
      height: 360,
      nb_read_frames: '225',
      color_space: 'bt709',
      color_range: 'tv',
      r_frame_rate: '30/1',
      pix_fmt: 'yuv420p',
    });
    expect(film.sound).toMatchObject({ codec_name: 'aac', sample_rate: '48000', channels: 2 });
    expect(Math.abs(Number(film.sound!.duration) - 7.5)).toBeLessThan(0.03);
    // Every frame comes a thirtieth after the one before, across the joints too.
    film.times.slice(1).forEach((time, index) => expect(time - film.times[index]!).toBeCloseTo(1 / 30, 4));
    // The index stands before the pictures, so that players start at once.
    const bytes = await readFile(outFile);
    expect(bytes.indexOf('moov')).toBeLessThan(bytes.indexOf('mdat'));
    expect(
      await runFfmpeg([
        '-loglevel',
        'info',
        '-i',
        outFile,
        '-vf',
        'blackdetect=d=0.01:pic_th=0.97:pix_th=0.03',
        '-an',
        '-f',
        'null',
        '-',
      ]),
    ).not.toContain('black_start');
    expect(progress.map((entry) => entry.stage)).toEqual(expect.arrayContaining(['sound', 'pictures', 'joining']));
    expect(progress.at(-1)).toMatchObject({ framesDone: 225, frameCount: 225 });
    expect(existsSync(path.join(folder, 'work'))).toBe(false);
  });

  it('keeps a rate that is no whole number to the very frame, across the joints', async () => {
    const outFile = path.join(folder, 'broadcast.mp4');
    const rate = { frames: 30_000, seconds: 1001 };
    const made = await makeFilm({
      show: { ...show, frame: { ...show.frame, rate } },
      facts,
      files,
      spec: { ...web(), rate },
      outFile,
      workFolder: path.join(folder, 'broadcast'),
      kept: kept('broadcast'),
    });
    expect(made.plan.segments.length).toBeGreaterThan(1);
    const film = await probeFilm(outFile);
    expect(film.video).toMatchObject({ r_frame_rate: '30000/1001', nb_read_frames: '225' });
    film.times.forEach((time, index) => expect(time).toBeCloseTo((index * 1001) / 30_000, 5));
    expect(Math.abs(Number(film.sound!.duration) - (225 * 1001) / 30_000)).toBeLessThan(0.03);
  });

  it.each([
    ['24', 24],
    ['29.97', 29],
    ['60', 60],
  ])(
    'begins a trimmed clip of %s frames a second with the frame that was chosen, shows each once and ends with the last',
    async (name, first) => {
      const rate = FRAME_RATES[name]!;
      const [count, last] = [3 * first, 2 * first + 5];
      const file = path.join(folder, `coded-${name}.mp4`);
      // Each frame is ten levels lighter than the one before it; after twenty it begins anew.
      const light = "geq=lum='30+mod(N,20)*10':cb=128:cr=128";
      const source = `color=c=gray:s=320x180:r=${rate.frames}/${rate.seconds},format=yuv420p,${light}`;
      await runFfmpeg([
        ...'-f lavfi -i'.split(' '),
        source,
        '-frames:v',
        String(count),
        ...'-qp 2 -y'.split(' '),
        file,
      ]);
      const [id, known] = [await hashOfFile(file), (await lookAtFile(file)).facts];
      const slide = slideFromAsset(id, known, 2500, newId);
      const [clip] = slide.layers as [ClipLayer];
      const frames = last - first + 1;
      const trimmed = { trimStartMs: momentOfFrame(first, rate), trimEndMs: momentOfFrame(last + 1, rate) };
      const outFile = path.join(folder, `trimmed-${name}.mp4`);
      await makeFilm({
        show: {
          ...emptyShow(showId('trimmed'), 'x'),
          frame: { ...show.frame, rate },
          slides: [{ ...slide, lengthMs: Math.round(momentOfFrame(frames, rate)), layers: [{ ...clip, ...trimmed }] }],
        },
        facts: new Map([[id, known]]),
        files: new Map([[id, file]]),
        spec: { ...web(), widthPx: 320, heightPx: 180, rate },
        outFile,
        workFolder: path.join(folder, `trimmed-${name}`),
        kept: kept(`trimmed-${name}`),
      });
      const raw = path.join(folder, `trimmed-${name}.gray`);
      await runFfmpeg([
        '-i',
        outFile,
        ...'-vf crop=16:16,scale=1:1:flags=area,format=gray -f rawvideo -y'.split(' '),
        raw,
      ]);
      const levels = [...(await readFile(raw))];
      expect(levels).toHaveLength(frames);
      // Grey files hold 0 to 255 for the 16 to 235 of films.
      const shown = levels.map((level) => Math.round(((level * 219) / 255 + 16 - 30) / 10) || 0);
      expect(shown).toEqual(levels.map((_, at) => (first + at) % 20));
    },
    60_000,
  );

  it('goes on from the segments that are there, and leaves nothing but them when it is stopped', async () => {
    const workFolder = path.join(folder, 'again');
    const controller = new AbortController();
    const order = {
      show,
      facts,
      files,
      spec: web(),
      outFile: path.join(folder, 'again.mp4'),
      workFolder,
      kept: kept('again'),
    };
    await expect(
      makeFilm({
        ...order,
        signal: controller.signal,
        onProgress: (progress) => {
          if (progress.kept) controller.abort(new Error('enough'));
        },
      }),
    ).rejects.toThrow('enough');
    const finished = (await readdir(path.join(folder, 'again-kept'))).filter((name) => name.endsWith('.mp4'));
    expect(finished.length).toBeGreaterThan(0);
    expect([existsSync(workFolder), existsSync(`${order.outFile}.part`)]).toEqual([false, false]);
    const counts: number[] = [];
    const made = await makeFilm({
      ...order,
      onProgress: ({ stage, framesDone }) => {
        if (stage === 'pictures') counts.push(framesDone);
      },
    });
    // Where all of it was ready before the stop was noticed, nothing is drawn anew and nothing is told of it.
    expect(Math.min(225, ...counts)).toBeGreaterThanOrEqual(75);
    expect(made.keptFrames).toBeGreaterThanOrEqual(75);
    expect((await probeFilm(order.outFile)).video).toMatchObject({ nb_read_frames: '225' });
    // The very same again: nothing is drawn, not even the sound is mixed.
    const stages = new Set<string>();
    const same = await makeFilm({ ...order, onProgress: ({ stage }) => stages.add(stage) });
    expect([same.keptFrames, same.drawMs, [...stages]]).toEqual([225, 0, ['joining']]);
  });

  it('makes the rest of a film when a file has gone, and names it', async () => {
    const [gone] = [...files.keys()] as [AssetId];
    const made = await makeFilm({
      show,
      facts,
      files: new Map([...files, [gone, path.join(folder, 'gone.jpg')]]),
      spec: web(),
      outFile: path.join(folder, 'rest.mp4'),
      workFolder: path.join(folder, 'rest'),
      kept: kept('rest'),
    });
    expect(made.problems).toMatchObject([{ assetId: gone }]);
    expect((await probeFilm(path.join(folder, 'rest.mp4'))).video).toMatchObject({ nb_read_frames: '225' });
  });
  it('needs a slide', async () => {
    await expect(
      makeFilm({
        show: { ...show, slides: [] },
        facts,
        files,
        spec: web(),
        outFile: 'x.mp4',
        workFolder: 'x',
        kept: kept('x'),
      }),
    ).rejects.toThrow('at least one slide');
  });
});

describe('films', () => {
  let server: RunningServer;
  let films: FilmService;
  beforeAll(async () => {
    process.env.TANAGER_DATA = path.join(folder, 'data');
    server = await openServer();
    films = server.films;
    await server.shows.put(show);
    for (const [id, file] of files) await server.sheet.takeIn(show.id, file, id, 'copy');
    server.runner.start();
    await server.runner.idle('look');
  });
  afterAll(() => server.close());
  const until = async (id: string, is: (film: FilmRow) => boolean) => {
    for (let tries = 0; tries < 1500; tries += 1) {
      const film = (await films.find(id))!;
      if (is(film)) return film;
      if (ended(film)) throw new Error(`the film ended as ${film.state}: ${film.problem}`);
      await sleep(100);
    }
    throw new Error('the film did not become what was waited for');
  };
  /** Slides of its own, so that nothing is there of it. */
  const retitled = (title: string): Show => ({
    ...show,
    slides: show.slides.map((slide) => ({ ...slide, id: slideId(`${slide.id}-${title.replaceAll(' ', '-')}`) })),
  });
  const ended = (film: FilmRow) => film.state === 'ready' || film.state === 'failed';

  it('makes what is ordered, in the background', async () => {
    const id = await films.order(show, web());
    const film = await until(id, ended);
    expect(film).toMatchObject({
      state: 'ready',
      problem: null,
      framesDone: 225,
      frameCount: 225,
      lengthMs: 7500,
    });
    expect((await probeFilm(await films.localFile({ id, spec: web() }))).video).toMatchObject({
      nb_read_frames: '225',
    });
    expect(await films.remove(id)).toBe(true);
    expect([existsSync(await films.localFile({ id, spec: web() })), await films.find(id)]).toEqual([false, null]);
  });
  it('cancels a film being made and leaves nothing of it', async () => {
    const id = await films.order(show, web());
    await until(id, (film) => film.framesDone > 10);
    expect(await films.remove(id)).toBe(false);
    expect(await films.cancel(id)).toBe(true);
    expect(await films.cancel(id)).toBe(false);
    expect((await films.find(id))!.state).toBe('cancelled');
    expect((await readdir(path.join(folder, 'data/films'))).filter((name) => name.startsWith(id))).toEqual([]);
    expect(await server.jobs.isUnended('film', id)).toBe(false);
  });
  it('goes on with a film after the server ended in good order in the middle of it', async () => {
    const id = await films.order(retitled('goes on'), web());
    await until(id, (film) => film.pieces.includes('m'));
    await server.close();
    server = await openServer();
    films = server.films;
    await films.resume();
    server.runner.start();
    const film = await until(id, ended);
    expect(film).toMatchObject({ state: 'ready', framesDone: 225 });
    expect(film.framesKept).toBeGreaterThan(0);
    expect((await probeFilm(await films.localFile({ id, spec: web() }))).video).toMatchObject({
      nb_read_frames: '225',
    });
  });
  it('makes a film that was cancelled after all, of the show as it was then', async () => {
    const id = await films.order(retitled('after all'), web());
    await until(id, (film) => film.framesDone > 10);
    expect(await films.again(id)).toBe(false);
    await films.cancel(id);
    expect(await films.again(id)).toBe(true);
    expect(await until(id, ended)).toMatchObject({ state: 'ready', framesDone: 225 });
    expect(await films.pictureOf(id)).not.toBeNull();
  });
  it('makes a waiting film before others that wait when it is told to', async () => {
    const ids = [];
    for (const purpose of ['web', 'phone', 'square'] as const)
      ids.push(await films.order(retitled('in a queue'), halved(specFor(show, purpose))));
    const [first, second, third] = ids as [string, string, string];
    await until(first, (film) => film.state === 'making');
    expect([await films.next(first), await films.next(third)]).toEqual([false, true]);
    const ready = async () => (await films.list(show.id)).filter((film) => film.state === 'ready').map(({ id }) => id);
    await until(third, ended);
    expect(await ready()).not.toContain(second);
    await until(second, ended);
    for (const id of ids) expect(await films.remove(id)).toBe(true);
  });
  it('says what a film would come to, near to what it comes to', async () => {
    const trial = await films.try(show, specFor(show, 'phone'));
    const id = await films.order(show, specFor(show, 'phone'));
    const { byteCount, likeness } = await until(id, ended);
    expect(trial.byteCount / byteCount!).toBeGreaterThan(0.6);
    expect(trial.byteCount / byteCount!).toBeLessThan(1.6);
    expect(likeness).toBeGreaterThan(0.93);
    expect(likeness).toBeLessThan(1);
  });
  it('hands out one frame as a picture, in another shape too', async () => {
    const png = await films.still(show, { ...specFor(show, 'upright'), rate: show.frame.rate }, 1200);
    expect(await sharp(png).metadata()).toMatchObject({ format: 'png', width: 1080, height: 1920 });
    const { channels } = await sharp(png).stats();
    expect(Math.max(...channels.map(({ stdev }) => stdev))).toBeGreaterThan(10);
  });
  it('makes a film only of files that are on the show’s own contact sheet', async () => {
    const other = await server.shows.create('Other');
    await server.shows.put({ ...show, id: showId('elsewhere') });
    expect(other.id).not.toBe('elsewhere');
    const id = await films.order({ ...show, id: showId('elsewhere'), cues: [] }, web());
    expect(await until(id, ended)).toMatchObject({
      state: 'ready',
      problem: expect.stringContaining('could not be read'),
    });
  });
  it('never makes a path of an id that is not one', () => {
    expect(() => films.localFile({ id: '../../x', spec: web() })).toThrow(RangeError);
  });
});
