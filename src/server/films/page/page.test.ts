import { spawnSync } from 'node:child_process';
import { mkdtemp, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from '@jest/globals';
import sharp from 'sharp';
import type { PageData } from '../../../core/film/page-data';
import type { FilmSpec } from '../../../core/film/film-spec';
import { specFor } from '../../../core/film/purposes/purposes';
import { prepareShow } from '../../../core/frame/plan-frame';
import type { AssetFacts } from '../../../core/show/asset-facts';
import { assetId, cueId, layerId, showId, type AssetId } from '../../../core/show/ids';
import { blankSlide, slideFromAsset } from '../../../core/show/new-slide';
import { songAfter } from '../../../core/show/placed-sound';
import { emptyShow, type Show, type Slide } from '../../../core/show/show';
import { openStrangeArchive, type StrangeArchive } from '../../archive/strange-archive';
import { lookAtFile } from '../../assets/look-at-file';
import { runFfmpeg } from '../../ffmpeg/run-ffmpeg';
import { createKeptFiles } from '../kept-files';
import { makeFilm } from '../make-film';
import { tryFilm } from '../try-film';

const [WIDE, SEEN_THROUGH, CLIP, TONE, GONE] = ['a', 'b', 'c', 'd', 'e'].map((letter) =>
  assetId(letter.repeat(64)),
) as [AssetId, AssetId, AssetId, AssetId, AssetId];
const SIZE = { widthPx: 640, heightPx: 360 };
const files = new Map<AssetId, string>();
const facts = new Map<AssetId, AssetFacts>();
let folder: string;
let show: Show;
let counted = 0;
const nextId = () => `n${(counted += 1)}`;
const slideOf = (id: AssetId, lengthMs: number): Slide => slideFromAsset(id, facts.get(id)!, lengthMs, nextId);
const worded = (slide: Slide, title: string): Slide => ({
  ...slide,
  layers: [
    ...slide.layers,
    {
      ...blankWords(),
      id: layerId(nextId()),
      title,
    } as never,
  ],
});
const blankWords = () => ({
  kind: 'words',
  name: 'words',
  title: '',
  subtitle: '',
  place: 'centre',
  style: { font: 'playfair' },
});

beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'tanager-page-'));
  const file = (name: string) => path.join(folder, name);
  await sharp({
    create: {
      width: 3000,
      height: 1700,
      channels: 3,
      background: '#a03020',
      noise: { type: 'gaussian', mean: 128, sigma: 20 },
    },
  })
    .jpeg()
    .toFile(file('wide.jpg'));
  await sharp({ create: { width: 800, height: 800, channels: 4, background: { r: 20, g: 160, b: 60, alpha: 0.5 } } })
    .png()
    .toFile(file('seen-through.png'));
  // Each frame is a little brighter than the one before.
  await runFfmpeg([
    ...['-f', 'lavfi', '-i', 'color=black:s=320x180:r=30:d=3', '-vf', "geq=lum='20+2*N':cb=128:cr=128"],
    ...['-c:v', 'libx264', '-qp', '0', '-pix_fmt', 'yuv420p', '-y', file('clip.mp4')],
  ]);
  await runFfmpeg(['-f', 'lavfi', '-i', 'sine=frequency=440:duration=8', '-ar', '48000', '-y', file('tone.wav')]);
  for (const [id, name] of [
    [WIDE, 'wide.jpg'],
    [SEEN_THROUGH, 'seen-through.png'],
    [CLIP, 'clip.mp4'],
    [TONE, 'tone.wav'],
  ] as const) {
    files.set(id, file(name));
    facts.set(id, (await lookAtFile(file(name))).facts);
  }
  const clip = slideOf(CLIP, 1500);
  show = {
    ...emptyShow(showId('s'), 'Boats & <b>“lanterns”</b> / evening'),
    slides: [
      worded(slideOf(WIDE, 3000), 'Grüße'),
      { ...slideOf(SEEN_THROUGH, 2000), chapter: 'Second </script>', backing: { kind: 'colour', colour: '#102030' } },
      {
        ...clip,
        lengthMs: 1500,
        layers: clip.layers.map((layer) => (layer.kind === 'clip' ? { ...layer, trimStartMs: 500 } : layer)),
        captions: { de: [{ fromMs: 0, toMs: 700, text: 'Da fahren sie.' }] },
      },
    ],
    language: 'de',
    cues: [songAfter(cueId('q'), TONE, 0)],
  };
});
afterAll(() => rm(folder, { recursive: true, force: true }));

const pageOf = (of: Show): FilmSpec => ({ ...specFor(of, 'page'), ...SIZE });
const glimpses: Uint8Array[] = [];
const made = (of: Show, name: string) =>
  makeFilm({
    onGlimpse: (jpeg) => void glimpses.push(jpeg),
    show: of,
    spec: pageOf(of),
    facts,
    files,
    outFile: path.join(folder, `${name}.zip`),
    posterFile: path.join(folder, `${name}.jpg`),
    workFolder: path.join(folder, 'work'),
    kept: createKeptFiles(path.join(folder, 'kept')),
    workerCount: 1,
  });
const opened = (name: string) =>
  openStrangeArchive(path.join(folder, `${name}.zip`), { mostEntries: 200, mostBytes: 1e9 });
const ROOT = 'Boats & b “lanterns” b evening';

interface SaidPart {
  readonly mime: string;
  readonly bytes: Buffer;
  readonly note: string;
}
/** Runs a part’s script as the page would. */
async function part(zip: StrangeArchive, name: string): Promise<SaidPart> {
  const script = await zip.text(`${ROOT}/parts/${name}.js`, 1e8);
  let said: SaidPart | null = null;
  new Function('part', script)((saidName: string, mime: string, base64: string, note: string) => {
    expect(saidName).toBe(name);
    said = { mime, bytes: Buffer.from(base64, 'base64'), note };
  });
  return said!;
}
const dataOf = async (zip: StrangeArchive) => JSON.parse((await part(zip, 'show')).bytes.toString()) as PageData;

describe('a page that plays', () => {
  it('is a folder with everything in it: pictures as large as they are seen, letters, sound, what draws', async () => {
    const film = await made(show, 'page');
    expect(film).toMatchObject({ problems: [], keptFrames: 0, plan: { frameCount: 195 } });
    expect(film.byteCount).toBe((await stat(path.join(folder, 'page.zip'))).size);
    expect((await sharp(glimpses[0]!).metadata()).width).toBe(240);
    const zip = await opened('page');
    expect(zip.names.every((name) => name.startsWith(`${ROOT}/`))).toBe(true);
    const html = await zip.text(`${ROOT}/index.html`, 1e6);
    expect(html).toContain('<title>Boats &amp; &lt;b&gt;“lanterns”&lt;/b&gt; / evening</title>');
    expect(html).not.toContain('<b>');
    expect(html.toLowerCase()).not.toContain('tanager');

    const wide = await part(zip, `picture-${WIDE}`);
    expect(wide.mime).toBe('image/jpeg');
    const { width, height } = await sharp(wide.bytes).metadata();
    expect(width).toBeGreaterThanOrEqual(640);
    expect(width).toBeLessThan(1200);
    expect(width! / height!).toBeCloseTo(3000 / 1700, 2);
    const through = await part(zip, `picture-${SEEN_THROUGH}`);
    expect(through.mime).toBe('image/webp');
    const { data } = await sharp(through.bytes).raw().toBuffer({ resolveWithObject: true });
    [20, 160, 60, 128].forEach((value, at) => expect(Math.abs(data[at]! - value)).toBeLessThanOrEqual(3));

    const fonts = JSON.parse((await part(zip, 'fonts')).bytes.toString()) as { family: string; file: string }[];
    expect([...new Set(fonts.map(({ family }) => family))]).toEqual(['playfair']);
    for (const { file } of fonts)
      expect((await part(zip, `font-${file}`)).bytes).toEqual(await readFile(path.join('public/fonts', `${file}.ttf`)));
    expect((await part(zip, 'kernels')).bytes).toEqual(await readFile('public/drawing/kernels.wasm'));

    const sound = path.join(folder, 'out.m4a');
    await writeFile(sound, (await part(zip, 'sound')).bytes);
    const asked = spawnSync('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', sound]);
    expect(Math.abs(Number(asked.stdout.toString()) - 6.5)).toBeLessThan(0.06);
    expect((await sharp(path.join(folder, 'page.jpg')).metadata()).width).toBe(640);
  });
  it('has each frame of its clips where it is asked for, from where the clip is cut', async () => {
    const zip = await opened('page');
    const brightness = async (second: number, frame: number) => {
      const { bytes, note, mime } = await part(zip, `clip-${CLIP}-${second}`);
      expect(mime).toBe('video/x-motion-jpeg');
      const lengths = note.split(',').map(Number);
      expect(lengths.reduce((sum, length) => sum + length, 0)).toBe(bytes.length);
      const from = lengths.slice(0, frame).reduce((sum, length) => sum + length, 0);
      const { channels } = await sharp(bytes.subarray(from, from + lengths[frame]!)).stats();
      return channels[0]!.mean;
    };
    // Frame 15 is the first that is seen; those before it are never asked for.
    for (const [second, frame] of [
      [0, 15],
      [0, 29],
      [1, 0],
      [1, 20],
    ] as const) {
      const luma = 20 + 2 * (30 * second + frame);
      expect(Math.abs((await brightness(second, frame)) - (255 / 219) * (luma - 16))).toBeLessThan(3);
    }
  });
  it('says what the player needs, and nothing else of the show', async () => {
    const data = await dataOf(await opened('page'));
    expect(data.chapters.map(({ title, startMs }) => [title, startMs])).toEqual([
      [show.title, 0],
      ['Second </script>', 3000],
    ]);
    expect(data.captions).toEqual([
      { language: 'de', captions: [{ startMs: 5000, endMs: 5700, text: 'Da fahren sie.' }] },
    ]);
    expect([data.fromMs, data.toMs, data.hasSound]).toEqual([0, 6500, true]);
    expect(data.show.cues).toEqual([]);
    expect(prepareShow(data.show, new Map(data.facts)).lengthMs).toBe(6500);
  });
  it('packs again only what was changed', async () => {
    const again = await made(show, 'again');
    expect(again.keptFrames).toBe(195);
    const changed = await made(
      { ...show, slides: [...show.slides.slice(0, 2), worded(show.slides[2]!, 'Neu')] },
      'changed',
    );
    expect(changed.keptFrames).toBeGreaterThan(0);
    expect(changed.keptFrames).toBeLessThan(195);
  });
  it('goes without a file that cannot be read, and says which', async () => {
    const gone = { ...facts.get(WIDE)! } as AssetFacts;
    facts.set(GONE, gone);
    files.set(GONE, path.join(folder, 'not-there.jpg'));
    const film = await made(
      { ...show, slides: [slideOf(GONE, 2000), blankSlide(1000, '#204060', nextId)], cues: [] },
      'gone',
    );
    expect(film.problems.map(({ assetId: id }) => id)).toEqual([GONE]);
    const zip = await opened('gone');
    expect(zip.names).not.toContain(`${ROOT}/parts/picture-${GONE}.js`);
    expect((await dataOf(zip)).hasSound).toBe(false);
  });
  it('is about as large as was said beforehand', async () => {
    const trial = await tryFilm({ show, spec: pageOf(show), facts, files, workFolder: path.join(folder, 'trial') });
    const { size } = await stat(path.join(folder, 'page.zip'));
    expect(trial.byteCount / size).toBeGreaterThan(0.75);
    expect(trial.byteCount / size).toBeLessThan(1.3);
  });
});
