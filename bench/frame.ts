// CPU time of drawing one 1080p frame, single thread, beside the same frame drawn by a general-purpose native canvas library: npm run bench:frame
import { createCanvas, loadImage } from '@napi-rs/canvas';
import type { FramePlan } from '../src/core/frame/frame-plan';
import { planFrame, prepareShow } from '../src/core/frame/plan-frame';
import { layerId } from '../src/core/show/ids';
import { createPainter } from '../src/drawing/paint/paint-frame';
import { createFileReader } from '../src/server/assets/file-reader';
import { storeFor } from '../src/server/films/draw-segment';
import { openNodeDrawing } from '../src/server/films/node-drawing';
import { benchShow } from './demo-show';

const FRAME = { widthPx: 1920, heightPx: 1080 };
const ROUNDS = 40;
const { show, facts, files } = await benchShow('demo/files', 3, 5000);
const titled = { ...show, slides: show.slides.map((slide, index) => (index === 1 ? { ...slide, layers: [...slide.layers, { kind: 'words' as const, id: layerId('w'), title: 'Lantern Regatta', subtitle: 'Port Ellery, 14 June', place: 'bottom-left' as const }] } : slide)) };
const turned = { ...show, slides: show.slides.map((slide) => ({ ...slide, layers: slide.layers.map((layer) => (layer.kind === 'picture' ? { ...layer, move: { kind: 'set' as const, first: { x: 0.5, y: 0.5, width: 0.8, height: 0.675, turnDegrees: 0 }, last: { x: 0.5, y: 0.5, width: 0.7, height: 0.59, turnDegrees: 4 } } } : layer)) })) };
const drawing = await openNodeDrawing();
const reader = createFileReader((id) => files.get(id)!);
const store = storeFor(drawing, reader);
const painter = createPainter(drawing.kernels, FRAME.widthPx, FRAME.heightPx);

const cases: [string, typeof show, number, number][] = [
  ['pan and zoom', show, 2000, 1], ['dissolve of two', show, 5400, 2], ['title over a picture', titled, 8000, 1], ['dissolve with a title', titled, 10_400, 2], ['upright on its blur', show, 12_500, 1], ['with turn', turned, 2500, 1],
];
const images = await Promise.all([...files.values()].map((file) => loadImage(file)));

/** The same number of whole-frame pictures by the canvas library, handed out as pixels. */
function byCanvas(pictures: number): void {
  const context = createCanvas(FRAME.widthPx, FRAME.heightPx).getContext('2d');
  context.imageSmoothingQuality = 'high';
  for (let picture = 0; picture < pictures; picture += 1) {
    context.globalAlpha = picture === 0 ? 1 : 0.4;
    context.drawImage(images[picture]!, 40.3, 20.7, 1700, 956, 0, 0, FRAME.widthPx, FRAME.heightPx);
  }
  context.getImageData(0, 0, FRAME.widthPx, FRAME.heightPx);
}

function cpuMs(work: () => void): number {
  const before = process.cpuUsage();
  work();
  const used = process.cpuUsage(before);
  return (used.user + used.system) / 1000;
}

process.stdout.write('CPU ms a 1080p frame: minimum / median        native canvas        ratio of medians\n');
for (const [name, of, momentMs, pictures] of cases) {
  const prepared = prepareShow(of, facts);
  const plans = Array.from({ length: ROUNDS }, (_, round): FramePlan => planFrame(prepared, momentMs + round * 2, FRAME)!);
  for (const plan of plans) await store.prepare(plan);
  const ours: number[] = [];
  const theirs: number[] = [];
  for (const plan of plans) {
    ours.push(cpuMs(() => { for (let repeat = 0; repeat < 4; repeat += 1) painter.paint(plan, store); }) / 4);
    theirs.push(cpuMs(() => byCanvas(pictures)));
    // The canvas library frees its memory only when the loop yields.
    await new Promise(setImmediate);
  }
  const at = (values: number[], share: number) => [...values].sort((a, b) => a - b)[Math.floor((values.length - 1) * share)]!;
  process.stdout.write(`${name.padEnd(28)}${at(ours, 0).toFixed(2).padStart(8)} / ${at(ours, 0.5).toFixed(2).padEnd(10)}${at(theirs, 0).toFixed(1).padStart(10)} / ${at(theirs, 0.5).toFixed(1).padEnd(10)}${(at(ours, 0.5) / at(theirs, 0.5)).toFixed(3)}\n`);
}
process.exit(0);
