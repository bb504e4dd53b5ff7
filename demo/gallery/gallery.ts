// Draws the gallery from the demo's pictures with the film's own drawing code: npm run gallery
import { mkdir, readdir } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import { createCanvas, GlobalFonts } from '@napi-rs/canvas';
import type { AssetFacts } from '../../src/core/show/asset-facts';
import { planFrame, prepareShow } from '../../src/core/frame/plan-frame';
import { showId, slideId, type AssetId } from '../../src/core/show/ids';
import { emptyShow, type Show, type Slide } from '../../src/core/show/show';
import { createPainter } from '../../src/drawing/paint/paint-frame';
import { pixelsOf } from '../../src/drawing/planes/surface';
import { createFileReader } from '../../src/server/assets/file-reader';
import { lookAtFile } from '../../src/server/assets/look-at-file';
import { hashOfFile } from '../../src/server/blobs/content-hash';
import { storeFor } from '../../src/server/films/draw-segment';
import { openNodeDrawing } from '../../src/server/films/node-drawing';
import { buildCells } from './build-cells';
import { mountCells } from './mount-cells';
import { edgeCells, entranceCells, layerCells, lightCells, transitionCells, wordsCells, type Cell } from './cells';

const CELL = { widthPx: 240, heightPx: 136 };
const LABEL_PX = 20;
const GAP_PX = 8;
const folder = 'demo/files';
const facts = new Map<AssetId, AssetFacts>();
const files = new Map<AssetId, string>();
const byName = new Map<string, AssetId>();
for (const name of (await readdir(folder)).filter((entry) => /\.(jpe?g|png)$/i.test(entry)).sort()) {
  const file = path.join(folder, name);
  const id = await hashOfFile(file);
  files.set(id, file);
  facts.set(id, (await lookAtFile(file)).facts);
  byName.set(name, id);
}
const wide = [...byName]
  .filter(([name, id]) => {
    const known = facts.get(id);
    return name.startsWith('PE_') && known?.kind === 'picture' && known.widthPx > known.heightPx;
  })
  .map(([, id]) => id);
const pictures = { all: wide, emblem: byName.get('regatta-emblem.png')! };
const drawing = await openNodeDrawing();
const reader = createFileReader((id) => files.get(id)!, facts);
const store = storeFor(drawing, reader);
const painter = createPainter(drawing.kernels, CELL.widthPx, CELL.heightPx);
GlobalFonts.registerFromPath('public/fonts/instrument-sans-latin-wght-normal.ttf', 'Label');
const only = process.argv[2];

for (const [name, cells, columns] of [
  ['transitions', transitionCells(pictures), 6],
  ['edges', edgeCells(pictures), 4],
  ['light', lightCells(pictures), 5],
  ['entrances', entranceCells(pictures), 4],
  ['words', wordsCells(pictures), 4],
  ['layers', layerCells(pictures), 4],
  ['builds', buildCells(wide, byName.get('PE_0440.jpg')!, facts), 3],
] as const)
  if (!only || only === name) await sheet(name, cells, columns);
for (const shape of ['16:9', '4:3', '1:1', '9:16']) if (!only || only === 'mounts') await mountSheet(shape);
process.exit(0);

/** Every shipped mount in one shape. */
async function mountSheet(shape: string): Promise<void> {
  const cells = mountCells(shape, wide, pictures.emblem, facts);
  const [across, down] = shape.split(':').map(Number) as [number, number];
  const high = 2 * Math.round(Math.sqrt((CELL.widthPx * CELL.heightPx * down) / across) / 2);
  const size = { widthPx: 2 * Math.round((high * across) / down / 2), heightPx: high };
  const own = createPainter(drawing.kernels, size.widthPx, size.heightPx);
  const columns = Math.max(4, Math.floor(1250 / (size.widthPx + GAP_PX)));
  const [stepX, stepY] = [size.widthPx + GAP_PX, size.heightPx + LABEL_PX + GAP_PX];
  const canvas = createCanvas(columns * stepX + GAP_PX, Math.ceil(cells.length / columns) * stepY + GAP_PX);
  const context = canvas.getContext('2d');
  context.fillStyle = '#f4f0e8';
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.font = '13px Label';
  for (const [index, cell] of cells.entries()) {
    const [x, y] = [GAP_PX + (index % columns) * stepX, GAP_PX + Math.floor(index / columns) * stepY];
    const plan = planFrame(prepareShow(cell.show, facts), cell.momentMs, size)!;
    await store.prepare(plan);
    const image = context.createImageData(size.widthPx, size.heightPx);
    image.data.set(pixelsOf(drawing.kernels, own.paint(plan, store)).rgba);
    context.putImageData(image, x, y);
    context.fillStyle = '#211d19';
    context.fillText(cell.label, x + 1, y + size.heightPx + 15);
  }
  own.close();
  const file = `docs/gallery/mounts-${shape.replace(':', '-')}.png`;
  await sharp(canvas.toBuffer('image/png')).png({ palette: true, colours: 128, dither: 0.4, effort: 8 }).toFile(file);
  process.stdout.write(`${file}: ${cells.length} pictures\n`);
}

async function sheet(name: string, cells: readonly Cell[], columns: number): Promise<void> {
  const rows = Math.ceil(cells.length / columns);
  const [stepX, stepY] = [CELL.widthPx + GAP_PX, CELL.heightPx + LABEL_PX + GAP_PX];
  const canvas = createCanvas(columns * stepX + GAP_PX, rows * stepY + GAP_PX);
  const context = canvas.getContext('2d');
  context.fillStyle = '#f4f0e8';
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.font = '13px Label';
  for (const [index, cell] of cells.entries()) {
    const [x, y] = [GAP_PX + (index % columns) * stepX, GAP_PX + Math.floor(index / columns) * stepY];
    const drawn = await draw(cell);
    const image = context.createImageData(CELL.widthPx, CELL.heightPx);
    image.data.set(drawn);
    context.putImageData(image, x, y);
    context.fillStyle = '#211d19';
    context.fillText(cell.label, x + 1, y + CELL.heightPx + 15);
  }
  await mkdir('docs/gallery', { recursive: true });
  await sharp(canvas.toBuffer('image/png'))
    .png({ palette: true, colours: 64, dither: 0.4, effort: 8 })
    .toFile(`docs/gallery/${name}.png`);
  process.stdout.write(`docs/gallery/${name}.png: ${cells.length} pictures\n`);
}

async function draw(cell: Cell): Promise<Uint8ClampedArray> {
  const slide = (id: string, layers: Slide['layers'], transition: Slide['transition']): Slide => ({
    id: slideId(id),
    lengthMs: 6000,
    transition,
    backing: cell.backing,
    layers,
    sounds: [],
  });
  const show: Show = {
    ...emptyShow(showId('gallery'), 'Gallery'),
    slides: [slide('a', cell.first, { kind: 'cut' }), slide('b', cell.second, cell.transition)],
  };
  const plan = planFrame(prepareShow(show, facts), 6000 + cell.atMs, CELL)!;
  await store.prepare(plan);
  for (const [id, error] of store.problems()) throw new Error(`${files.get(id)}: ${error.message}`);
  return pixelsOf(drawing.kernels, painter.paint(plan, store)).rgba as Uint8ClampedArray;
}
