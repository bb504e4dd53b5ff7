/// <reference lib="webworker" />
// The viewer's worker: draws frames with the same code as the film and puts them on the page's canvas.
import { CLIP_FRAMES_PER_SECOND, type FramePlan, type LayerPlan } from '../../core/frame/frame-plan';
import { countedAsUsual } from '../../core/timing/clip-rate';
import { planFrame, planSlide, prepareShow, type PreparedShow } from '../../core/frame/plan-frame';
import type { AssetId } from '../../core/show/ids';
import { everyLayer } from '../../core/show/layer';
import { loadKernels } from '../../drawing/kernel-module';
import { createPainter, type Painter } from '../../drawing/paint/paint-frame';
import { createPlateStore } from '../../drawing/plates/plate-store';
import { i420Of, pixelsOf, rgbaInto, rowOfRgba } from '../../drawing/planes/surface';
import { patientFetch } from './patient-fetch';
import { openPlateMaker } from './plate-maker';
import { withChange } from './show-change';
import type { FromWorker, ToWorker } from './worker-messages';

const ROOM_BYTES = 64 * 1024 * 1024;
const AHEAD_MS = 1500;
const LOOK_AHEAD_EVERY_MS = 250;
const CLIP_AHEAD_MS = 400;

const scope = self as unknown as DedicatedWorkerGlobalScope;
const say = (message: FromWorker) => scope.postMessage(message);

let prepared: PreparedShow | null = null;
let canvas: OffscreenCanvas | null = null;
let context: OffscreenCanvasRenderingContext2D | null = null;
let painter: Painter | null = null;
/** The frame as the canvas takes it, in the kernels' memory. */
let rgba = 0;
let frame = { widthPx: 960, heightPx: 540 };
/** While playing: the moment shown at a time of the page's clock. */
let playing: { momentMs: number; atMs: number; endMs: number; speed: number } | null = null;
let still = 0;
let lookedAheadAt = 0;
let lastDrawn = '';
/** The still moment whose plates have been asked for. */
let waitedFor: string | null = null;
const told = new Set<AssetId>();

const kernels = await loadKernels(new Uint8Array(await (await patientFetch('/drawing/kernels.wasm')).arrayBuffer()));
const store = createPlateStore({ kernels, make: await openPlateMaker(kernels), roomBytes: ROOM_BYTES });
scope.onmessage = (event: MessageEvent<ToWorker>) => hear(event.data);
say({ kind: 'ready' });
scope.requestAnimationFrame(tick);

function hear(message: ToWorker): void {
  waitedFor = null;
  switch (message.kind) {
    case 'canvas':
      canvas = message.canvas;
      context = canvas.getContext('2d', { alpha: false });
      break;
    case 'show':
      prepared = prepareShow(message.show, countedAsUsual(message.facts));
      lastDrawn = '';
      break;
    case 'change':
      prepared = prepareShow(
        withChange(prepared!.show, message.change),
        new Map([...prepared!.facts, ...countedAsUsual(message.facts)]),
      );
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
    case 'rehearse':
      void rehearse();
      break;
    case 'print':
      void printOf(message.id, message.momentMs, message.widthPx, message.heightPx);
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
  const momentMs = playing
    ? Math.min(playing.endMs, playing.momentMs + playing.speed * Math.max(0, now() - playing.atMs))
    : still;
  const plan = planFrame(prepared, momentMs, frame);
  if (!plan) {
    if (lastDrawn !== 'nothing') {
      context.fillStyle = '#262422';
      context.fillRect(0, 0, canvas.width, canvas.height);
      lastDrawn = 'nothing';
    }
    return;
  }
  const key = playing ? '' : String(momentMs);
  if (!playing && key === lastDrawn) return lookAhead(momentMs);
  if (!store.isReady(plan)) {
    if (key !== waitedFor || playing) void store.prepare(plan).then(tellProblems);
    waitedFor = key;
    say({ kind: 'waiting', momentMs });
    return;
  }
  waitedFor = null;
  // Only once this moment is there: what comes later must not be made first.
  lookAhead(momentMs);
  draw(plan);
  tellWordsScale(plan);
  lastDrawn = key;
  countDrawn();
  say({ kind: 'drawn', momentMs });
}

function draw(plan: FramePlan): void {
  if (!painter || canvas!.width !== plan.widthPx || canvas!.height !== plan.heightPx) {
    painter?.close();
    painter = createPainter(kernels, plan.widthPx, plan.heightPx);
    if (rgba !== 0) kernels.release(rgba);
    rgba = kernels.allocate(rowOfRgba(plan.widthPx) * plan.heightPx * 4);
    canvas!.width = plan.widthPx;
    canvas!.height = plan.heightPx;
  }
  rgbaInto(kernels, painter.paint(plan, store), rgba);
  // A view of the kernels' memory, which may have moved since the last frame.
  const view = new Uint8ClampedArray(
    kernels.memory.buffer as ArrayBuffer,
    rgba,
    rowOfRgba(plan.widthPx) * plan.heightPx * 4,
  );
  context!.putImageData(new ImageData(view, rowOfRgba(plan.widthPx), plan.heightPx), 0, 0);
}

let toldScale = 1;
function tellWordsScale(plan: FramePlan): void {
  const size = { widthPx: plan.widthPx, heightPx: plan.heightPx };
  let scale = 1;
  const look = (layers: readonly LayerPlan[]): void => {
    for (const { content } of layers) {
      if (content.kind === 'group') look(content.layers);
      if (content.kind !== 'words') continue;
      const made = store.made({ kind: 'words', look: content.look, frame: size }, 'words');
      scale = Math.min(scale, made?.scale ?? 1);
    }
  };
  look((plan.incoming?.slide ?? plan.slide).layers);
  if (scale !== toldScale) say({ kind: 'words-scale', scale });
  toldScale = scale;
}

/** What comes next is read while there is time. */
function lookAhead(momentMs: number): void {
  if (!prepared || now() - lookedAheadAt < LOOK_AHEAD_EVERY_MS) return;
  lookedAheadAt = now();
  const ahead = planFrame(prepared, momentMs + AHEAD_MS, frame);
  if (ahead && !store.isReady(ahead)) void store.prepare(ahead).then(tellProblems);
  // A clip needs its next frames one by one, also before it is played and while it comes in.
  prepared.spans.forEach((span, index) => {
    if (momentMs >= span.leavesMs || momentMs < span.startMs - CLIP_AHEAD_MS) return;
    if (![...everyLayer(prepared!.show.slides[index]!.layers)].some((layer) => layer.kind === 'clip')) return;
    for (let aheadMs = 0; aheadMs < CLIP_AHEAD_MS; aheadMs += 1000 / CLIP_FRAMES_PER_SECOND) {
      const offsetMs = momentMs + aheadMs - span.startMs;
      if (offsetMs < 0 || span.startMs + offsetMs > span.leavesMs) continue;
      const plan: FramePlan = {
        ...frame,
        slide: planSlide(prepared!, index, offsetMs, frame),
        incoming: null,
        over: [],
      };
      if (!store.isReady(plan)) void store.prepare(plan);
    }
  });
}

function tellProblems(): void {
  for (const [assetId, error] of store.problems()) {
    if (told.has(assetId)) continue;
    told.add(assetId);
    say({ kind: 'problem', assetId, message: error.message });
  }
}

/** Slide by slide, from the middle of its coming in to its end; a clip second by second. */
async function rehearse(): Promise<void> {
  const of = prepared;
  if (!of) return;
  for (const [index, span] of of.spans.entries()) {
    if (prepared !== of) return void rehearse();
    const clips = [...everyLayer(of.show.slides[index]!.layers)].some((layer) => layer.kind === 'clip');
    const seenMs = span.leavesMs - span.startMs;
    const offsets = clips
      ? Array.from({ length: Math.ceil(seenMs / 1000) + 1 }, (_, second) => Math.min(seenMs - 1, 1000 * second))
      : [span.transitionMs / 2, seenMs / 2, span.endMs - span.startMs - 1];
    for (const offsetMs of offsets) {
      const plan = planFrame(of, Math.min(of.lengthMs - 1, of.seenFromMs[index]! + offsetMs), frame);
      if (plan) await store.prepare(plan);
    }
    say({ kind: 'rehearsed', done: index + 1, of: of.spans.length });
  }
  tellProblems();
}

let drew = { frames: 0, sinceMs: 0 };
/** Told once a second while it plays. */
function countDrawn(): void {
  if (!playing) {
    drew = { frames: 0, sinceMs: 0 };
    return;
  }
  if (drew.sinceMs === 0) drew = { frames: 0, sinceMs: now() };
  else drew.frames += 1;
  const overMs = now() - drew.sinceMs;
  if (overMs < 1000) return;
  say({ kind: 'drew', frames: drew.frames, overMs });
  drew = { frames: 0, sinceMs: now() };
}

/** A moment as a small picture; null when it cannot be drawn. The moment is planned at once, with the show as it is now. */
async function printOf(id: number, momentMs: number, widthPx: number, heightPx: number): Promise<void> {
  const plan = prepared && planFrame(prepared, momentMs, { widthPx, heightPx });
  let bitmap: ImageBitmap | null = null;
  if (plan) {
    await store.prepare(plan);
    const own = createPainter(kernels, widthPx, heightPx);
    const { rgba: pixels } = pixelsOf(kernels, own.paint(plan, store));
    bitmap = await createImageBitmap(new ImageData(Uint8ClampedArray.from(pixels), widthPx, heightPx));
    own.close();
  }
  scope.postMessage({ kind: 'print', id, bitmap } satisfies FromWorker, bitmap ? [bitmap] : []);
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
