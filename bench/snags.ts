// How readability as Tanager measures it agrees with another measure made of a finished film's frames, and how long looking a show over takes: npm run bench:snags -- [FOLDER OF PICTURES]
import { spawn } from 'node:child_process';
import { mkdtemp, readdir, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { exportCommand } from '../src/cli/export-command';
import { prepareShow } from '../src/core/frame/plan-frame';
import type { AssetFacts } from '../src/core/show/asset-facts';
import { assetId, layerId, showId, slideId, type AssetId, type SlideId } from '../src/core/show/ids';
import { emptyShow, type Show, type Slide } from '../src/core/show/show';
import { WORDS_PLACES, type WordsStyle } from '../src/core/show/words';
import { clearEnough } from '../src/core/snags/kinds/faint-words';
import { lookOver } from '../src/core/snags/look-over';
import type { SlideSeen } from '../src/core/snags/slide-seen';
import { openChecking, seeSlide } from '../src/drawing/checking/checking';
import { createFileReader } from '../src/server/assets/file-reader';
import { lookAndFind } from '../src/server/focus/look-and-find';
import { hashOfFile } from '../src/server/blobs/content-hash';
import { storeFor } from '../src/server/films/draw-segment';
import { openNodeDrawing } from '../src/server/films/node-drawing';

const say = (text: string) => process.stdout.write(`${text}\n`);
const folder = path.resolve(process.argv[3] ?? 'demo/files');
const PLACEMENTS = 100;
const STYLES: readonly WordsStyle[] = [
  {},
  { colour: '#ffffff', shadow: 'none' },
  { colour: '#1c1815', shadow: 'none' },
  { colour: '#f2c12e', shadow: 'none' },
  { colour: '#c02a1a', shadow: 'none' },
  { colour: '#1c1815', shadow: 'none', box: { colour: '#fcfaf5', opacity: 0.8, padding: 0.3, radius: 0.1 } },
];
const [W, H] = [1280, 720];
/** Lightness letters must differ by from what is about them, restlessness taken off: what 3 : 1 comes to in the middle of the scale. */
const LEAST_LIGHTNESS = 33;

const files = new Map<AssetId, string>();
const facts = new Map<AssetId, AssetFacts>();
for (const name of (await readdir(folder, { recursive: true })).sort()) {
  if (!/\.(jpe?g|png)$/i.test(name) || files.size >= 25) continue;
  const file = path.join(folder, name);
  const known = await lookAndFind(file);
  if (known.kind !== 'picture' || known.hasTransparency || known.widthPx < 900) continue;
  const id = assetId(await hashOfFile(file));
  files.set(id, file);
  facts.set(id, known);
}
const ids = [...files.keys()];
say(`${ids.length} pictures of ${folder}`);

const slides = Array.from({ length: PLACEMENTS }, (_, n): Slide => ({
  id: slideId(`s${n}`),
  lengthMs: 1000,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  sounds: [],
  layers: [
    { kind: 'picture', id: layerId('p'), assetId: ids[n % ids.length]!, move: { kind: 'still' } },
    {
      kind: 'words',
      id: layerId('w'),
      title: 'Three hundred lanterns',
      subtitle: 'Port Ellery, at dusk',
      place: WORDS_PLACES[(n * 5) % 9]!,
      style: STYLES[(n * 7) % STYLES.length]!,
      come: { entrance: { way: 'none', by: 'all', atMs: 0, lengthMs: 0 }, exit: null },
    },
  ],
}));
const show: Show = { ...emptyShow(showId('bench'), 'bench'), slides };
const lettersOnly = (slide: Slide): Slide => ({
  ...slide,
  backing: { kind: 'colour', colour: '#000000' },
  layers: slide.layers.flatMap((layer) =>
    layer.kind === 'words' ? [{ ...layer, style: { colour: '#ffffff', shadow: 'none' as const } }] : [],
  ),
});

const work = await mkdtemp(path.join(tmpdir(), 'tanager-bench-'));
try {
  const seen = await measured();
  const [film, letters] = [
    await filmOf(show, 'film'),
    await filmOf({ ...show, slides: slides.map(lettersOnly) }, 'letters'),
  ];
  let [agreed, missed] = [0, 0];
  slides.forEach((slide, n) => {
    const words = seen.get(slide.id)!.words[0]!;
    const clear = words.worst?.legibility.clear ?? 0;
    const readable = clear >= clearEnough(words.size);
    const other = lightnessApart(film[n]!, letters[n]!);
    if (readable === other >= LEAST_LIGHTNESS) agreed += 1;
    else say(`  ${n}: ${readable ? 'read' : 'flagged'} at ${clear.toFixed(2)}, lightness apart ${other.toFixed(0)}`);
    if (readable && other < LEAST_LIGHTNESS / 2) missed += 1;
  });
  say(`agreement ${agreed} of ${PLACEMENTS}, grave misses ${missed}`);
  await timed();
} finally {
  await rm(work, { recursive: true, force: true });
}

async function measured(): Promise<Map<SlideId, SlideSeen>> {
  const { checking, close } = await open();
  const prepared = prepareShow(show, facts);
  const seen = new Map<SlideId, SlideSeen>();
  for (const [index, slide] of slides.entries()) seen.set(slide.id, await seeSlide(checking, prepared, index));
  close();
  return seen;
}

async function open() {
  const drawing = await openNodeDrawing();
  const reader = createFileReader((id) => files.get(id)!, facts);
  const store = storeFor(drawing, reader);
  const checking = openChecking(drawing.kernels, store, show.frame);
  return {
    checking,
    close() {
      checking.close();
      store.close();
      reader.close();
    },
  };
}

/** A show of 300 slides, every one with words: all of it, then one slide that changed; and what needs no drawing. */
async function timed(): Promise<void> {
  const many = Array.from({ length: 300 }, (_, n): Slide => ({
    ...slides[n % PLACEMENTS]!,
    id: slideId(`m${n}`),
    lengthMs: 5000,
    transition: { kind: 'dissolve', lengthMs: 1000 },
  }));
  const large = { ...show, slides: many };
  const { checking, close } = await open();
  const prepared = prepareShow(large, facts);
  const seen = new Map<SlideId, SlideSeen>();
  const began = performance.now();
  for (const [index, slide] of many.entries()) seen.set(slide.id, await seeSlide(checking, prepared, index));
  const allMs = performance.now() - began;
  const changed = performance.now();
  for (let n = 0; n < 30; n += 1) {
    const slide = many[n * 10]!;
    const words = slide.layers.map((layer) => (layer.kind === 'words' ? { ...layer, title: `Changed ${n}` } : layer));
    const after = prepareShow(
      { ...large, slides: many.map((one) => (one === slide ? { ...one, layers: words } : one)) },
      facts,
    );
    await seeSlide(checking, after, n * 10);
  }
  const oneMs = (performance.now() - changed) / 30;
  const told = performance.now();
  for (let n = 0; n < 5; n += 1)
    lookOver({
      prepared: prepareShow({ ...large, slides: [...many] }, facts),
      files: new Map(),
      seen,
      films: [],
      now: '2026-01-01T00:00:00',
    });
  const toldMs = (performance.now() - told) / 5;
  say(
    `300 slides with words: what needs no drawing ${Math.round(toldMs)} ms; measured in ${(allMs / 1000).toFixed(1)} s; a slide that changed ${Math.round(oneMs)} ms`,
  );
  close();
}

/** The film as people get it, one frame of each second, as RGB. */
async function filmOf(of: Show, name: string): Promise<Buffer[]> {
  const file = path.join(work, `${name}.json`);
  await writeFile(file, JSON.stringify({ ...of, files: Object.fromEntries(files) }));
  const film = path.join(work, `${name}.mp4`);
  const code = await exportCommand(
    [file, '--out', film, '--size', `${W}x${H}`, '--quality', 'best', '--keep', path.join(work, 'kept')],
    {
      folder: work,
      out: () => {},
      tell: () => {},
    },
  );
  if (code !== 0) throw new Error(`the film ${name} was not made`);
  const raw = await new Promise<Buffer>((resolve, reject) => {
    const child = spawn(
      'ffmpeg',
      [
        '-v',
        'error',
        '-ss',
        '0.5',
        '-i',
        film,
        '-vf',
        'fps=1:start_time=0:round=near',
        '-f',
        'rawvideo',
        '-pix_fmt',
        'rgb24',
        '-',
      ],
      { stdio: ['ignore', 'pipe', 'inherit'] },
    );
    const chunks: Buffer[] = [];
    child.stdout.on('data', (chunk: Buffer) => chunks.push(chunk));
    child.on('close', (exit) =>
      exit === 0 ? resolve(Buffer.concat(chunks)) : reject(new Error('the film could not be read')),
    );
  });
  return Array.from({ length: PLACEMENTS }, (_, n) => raw.subarray(n * W * H * 3, (n + 1) * W * H * 3));
}

/**
 * Another measure than the one that is tried: in upright slices of a line, the median lightness (CIE L*) of the letters against that of what lies right about them, less
 * two fifths of how that varies; the poorest eighth of a line’s slices counts, and of the lines the poorer.
 */
function lightnessApart(frame: Buffer, letters: Buffer): number {
  const written = Array.from({ length: H }, (_, y) =>
    Array.from({ length: W }, (_, x) => letters[3 * (y * W + x)]!).some((level) => level > 24),
  );
  const tops = written.flatMap((row, y) => (row && !written[y - 1] ? [y] : []));
  const ends = written.flatMap((row, y) => (row && !written[y + 1] ? [y + 1] : []));
  return Math.min(...tops.map((top, line) => lineApart(frame, letters, top - 4, ends[line]! + 4)));
}

function lineApart(frame: Buffer, letters: Buffer, top: number, bottom: number): number {
  const apart: number[] = [];
  for (let left = 0; left < W; left += 24) {
    const [on, off]: [number[], number[]] = [[], []];
    for (let y = Math.max(4, top); y < Math.min(H - 4, bottom); y += 1)
      for (let x = left; x < Math.min(W, left + 24); x += 1) {
        const level = letters[3 * (y * W + x)]!;
        if (level > 215) on.push(lightnessAt(frame, x, y));
        else if (level < 24 && isNear(letters, x, y)) off.push(lightnessAt(frame, x, y));
      }
    if (on.length < 30 || off.length < 30) continue;
    const mean = off.reduce((sum, value) => sum + value, 0) / off.length;
    const spread = Math.sqrt(off.reduce((sum, value) => sum + (value - mean) ** 2, 0) / off.length);
    apart.push(Math.abs(median(on) - median(off)) - 0.4 * spread);
  }
  apart.sort((a, b) => a - b);
  return apart[Math.floor(apart.length / 8)] ?? Infinity;
}

function isNear(letters: Buffer, x: number, y: number): boolean {
  for (const [dx, dy] of [
    [4, 0],
    [-4, 0],
    [0, 4],
    [0, -4],
  ] as const)
    if (x + dx >= 0 && x + dx < W && letters[3 * ((y + dy) * W + x + dx)]! > 215) return true;
  return false;
}

function lightnessAt(frame: Buffer, x: number, y: number): number {
  const at = 3 * (y * W + x);
  const linear = (value: number) => (value <= 10 ? value / 255 / 12.92 : ((value / 255 + 0.055) / 1.055) ** 2.4);
  const light = 0.2126 * linear(frame[at]!) + 0.7152 * linear(frame[at + 1]!) + 0.0722 * linear(frame[at + 2]!);
  return light > 0.008856 ? 116 * Math.cbrt(light) - 16 : 903.3 * light;
}

function median(values: number[]): number {
  values.sort((a, b) => a - b);
  return values[Math.floor(values.length / 2)]!;
}
