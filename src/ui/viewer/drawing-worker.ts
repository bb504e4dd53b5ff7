/// <reference lib="webworker" />
// The viewer's worker: draws frames with the same code as the film and puts them on the page's canvas.
import { CLIP_FRAMES_PER_SECOND, type FramePlan } from '../../core/frame/frame-plan';
import { planFrame, planSlide, prepareShow, type PreparedShow } from '../../core/frame/plan-frame';
import type { AssetId } from '../../core/show/ids';
import { everyLayer } from '../../core/show/layer';
import { loadKernels } from '../../drawing/kernel-module';
import { createPainter, type Painter } from '../../drawing/paint/paint-frame';
import { createPrintStore } from '../../drawing/prints/print-store';
import { i420Of, pixelsOf } from '../../drawing/planes/surface';
import { createFontShelf, type FontFile } from '../../drawing/words/fonts';
import { createBrowserReader, drawing2d } from './browser-reader';
import type { FromWorker, ToWorker } from './worker-messages';

const ROOM_BYTES = 200 * 1024 * 1024;
const AHEAD_MS = 1500;
const LOOK_AHEAD_EVERY_MS = 250;

const scope = self as unknown as DedicatedWorkerGlobalScope;
const say = (message: FromWorker) => scope.postMessage(message);
const bytes = async (url: string) => new Uint8Array(await (await fetch(url)).arrayBuffer());

let prepared: PreparedShow | null = null;
let canvas: OffscreenCanvas | null = null;
let context: OffscreenCanvasRenderingContext2D | null = null;
let painter: Painter | null = null;
let frame = { widthPx: 960, heightPx: 540 };
/** While playing: the moment shown at a time of the page's clock. */
let playing: { momentMs: number; atMs: number; endMs: number } | null = null;
let still = 0;
let lookedAheadAt = 0;
let lastDrawn = '';
const told = new Set<AssetId>();

const [kernels, fontFiles] = await Promise.all([bytes('/drawing/kernels.wasm').then(loadKernels), fetch('/fonts/index.json').then((answer) => answer.json() as Promise<FontFile[]>)]);
const fonts = createFontShelf(fontFiles, (name) => bytes(`/fonts/${name}.ttf`));
const reader = createBrowserReader((id) => prepared?.facts.get(id) ?? null);
const store = createPrintStore({ kernels, reader, fonts, drawing2d, roomBytes: ROOM_BYTES });
scope.onmessage = (event: MessageEvent<ToWorker>) => hear(event.data);
say({ kind: 'ready' });
scope.requestAnimationFrame(tick);

function hear(message: ToWorker): void {
  switch (message.kind) {
    case 'canvas':
      canvas = message.canvas;
      context = canvas.getContext('2d', { alpha: false });
      break;
    case 'show':
      prepared = prepareShow(message.show, message.facts);
      lastDrawn = '';
      break;
    case 'size':
      frame = { widthPx: message.widthPx, heightPx: message.heightPx };
      lastDrawn = '';
      break;
    case 'play':
      playing = message;
      break;
    case 'still':
      playing = null;
      still = message.momentMs;
      lastDrawn = '';
      break;
    case 'frame-bytes':
      void frameBytes(message.id, message.momentMs, message.widthPx, message.heightPx);
      break;
  }
}

function now(): number {
  return performance.timeOrigin + performance.now();
}

function tick(): void {
  scope.requestAnimationFrame(tick);
  if (!prepared || !canvas || !context) return;
  const momentMs = playing ? Math.min(playing.endMs, playing.momentMs + Math.max(0, now() - playing.atMs)) : still;
  const plan = planFrame(prepared, momentMs, frame);
  if (!plan) {
    if (lastDrawn !== 'nothing') {
      context.fillStyle = '#262422';
      context.fillRect(0, 0, canvas.width, canvas.height);
      lastDrawn = 'nothing';
    }
    return;
  }
  lookAhead(momentMs);
  const key = playing ? '' : String(momentMs);
  if (!playing && key === lastDrawn) return;
  if (!store.isReady(plan)) {
    void store.prepare(plan).then(tellProblems);
    say({ kind: 'waiting', momentMs });
    return;
  }
  draw(plan);
  lastDrawn = key;
  say({ kind: 'drawn', momentMs });
}

function draw(plan: FramePlan): void {
  if (!painter || canvas!.width !== plan.widthPx || canvas!.height !== plan.heightPx) {
    painter?.close();
    painter = createPainter(kernels, plan.widthPx, plan.heightPx);
    canvas!.width = plan.widthPx;
    canvas!.height = plan.heightPx;
  }
  const pixels = pixelsOf(kernels, painter.paint(plan, store));
  context!.putImageData(new ImageData(pixels.rgba as Uint8ClampedArray<ArrayBuffer>, pixels.widthPx, pixels.heightPx), 0, 0);
}

/** What comes next is read while there is time: the frames ahead while playing, the neighbours while standing. */
function lookAhead(momentMs: number): void {
  if (!prepared || now() - lookedAheadAt < LOOK_AHEAD_EVERY_MS) return;
  lookedAheadAt = now();
  const ahead = planFrame(prepared, momentMs + AHEAD_MS, frame);
  if (ahead && !store.isReady(ahead)) void store.prepare(ahead).then(tellProblems);
  if (!playing) return;
  // A clip needs its next second, frame by frame.
  const index = prepared.spans.findIndex((span) => momentMs < span.leavesMs && momentMs >= span.startMs - 300);
  const span = prepared.spans[index];
  if (!span || ![...everyLayer(prepared.show.slides[index]!.layers)].some((layer) => layer.kind === 'clip')) return;
  for (let step = 1; step <= 12; step += 1) {
    const offsetMs = momentMs - span.startMs + (step * 1000) / CLIP_FRAMES_PER_SECOND;
    if (offsetMs < 0 || span.startMs + offsetMs > span.leavesMs) continue;
    void store.prepare({ ...frame, slide: planSlide(prepared, index, offsetMs, frame), incoming: null });
  }
}

function tellProblems(): void {
  for (const [assetId, error] of store.problems()) {
    if (told.has(assetId)) continue;
    told.add(assetId);
    say({ kind: 'problem', assetId, message: error.message });
  }
}

/** One frame's planes, for comparing with the server's. */
async function frameBytes(id: number, momentMs: number, widthPx: number, heightPx: number): Promise<void> {
  const plan = planFrame(prepared!, momentMs, { widthPx, heightPx })!;
  await store.prepare(plan);
  const own = createPainter(kernels, widthPx, heightPx);
  const i420 = i420Of(kernels, own.paint(plan, store));
  own.close();
  scope.postMessage({ kind: 'frame-bytes', id, i420 } satisfies FromWorker, [i420.buffer]);
}
