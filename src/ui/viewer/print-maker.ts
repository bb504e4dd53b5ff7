import { aloneShow } from '../../core/frame/alone';
import type { PreparedShow } from '../../core/frame/plan-frame';
import type { FactsById } from '../../core/show/asset-facts';
import type { ShowId } from '../../core/show/ids';
import { assetIdsOf, type Show } from '../../core/show/show';
import type { FromWorker, ToWorker } from './worker-messages';

export interface PrintOrder {
  readonly show: Show;
  readonly facts: FactsById;
  readonly momentMs: number;
  readonly widthPx: number;
  readonly heightPx: number;
}

/** So long after the last print the worker is let go: it holds pictures. */
const IDLE_MS = 8000;

interface Maker {
  readonly worker: Worker;
  readonly asked: Map<number, (bitmap: ImageBitmap | null) => void>;
  /** Until the worker hears. */
  waiting: ToWorker[] | null;
  /** What the worker has. */
  sent: { readonly show: Show; readonly facts: FactsById } | null;
  idle: ReturnType<typeof setTimeout> | null;
}

const makers = new Map<ShowId, Maker>();
let counted = 0;

/** A small picture of a moment, drawn as the film draws it by a worker that all prints of a show share; null when it cannot be drawn. */
export function makePrint({ show, facts, momentMs, widthPx, heightPx }: PrintOrder): Promise<ImageBitmap | null> {
  const maker = makers.get(show.id) ?? open(show.id);
  if (maker.idle !== null) clearTimeout(maker.idle);
  maker.idle = null;
  const id = (counted += 1);
  const made = new Promise<ImageBitmap | null>((resolve) => {
    maker.asked.set(id, resolve);
  });
  if (maker.sent?.show !== show || maker.sent.facts !== facts) {
    const used = assetIdsOf(show).flatMap((id) => {
      const known = facts.get(id);
      return known ? [[id, known] as const] : [];
    });
    post(maker, { kind: 'show', show, facts: new Map(used) });
    maker.sent = { show, facts };
  }
  post(maker, { kind: 'print', id, momentMs, widthPx, heightPx });
  return made;
}

/** What is built up over a slide is there by then. */
const SHARE_OF_WAY = 0.66;

/** A slide by itself, when most of it is there. @param heightPx the width follows the show’s shape */
export function printOfSlide(prepared: PreparedShow, index: number, heightPx: number): Promise<ImageBitmap | null> {
  const { frame } = prepared.show;
  const { startMs, leavesMs } = prepared.spans[index]!;
  return makePrint({
    show: aloneShow(prepared, index),
    facts: prepared.facts,
    momentMs: (leavesMs - startMs) * SHARE_OF_WAY,
    widthPx: 16 * Math.max(1, Math.round((heightPx * frame.widthPx) / frame.heightPx / 16)),
    heightPx,
  });
}

function post(maker: Maker, message: ToWorker): void {
  if (maker.waiting) maker.waiting.push(message);
  else maker.worker.postMessage(message);
}

function open(id: ShowId): Maker {
  const worker = new Worker(`/drawing/worker.js?show=${id}`, { type: 'module' });
  const maker: Maker = { worker, asked: new Map(), waiting: [], sent: null, idle: null };
  makers.set(id, maker);
  const close = () => {
    worker.terminate();
    makers.delete(id);
    for (const answer of maker.asked.values()) answer(null);
  };
  worker.onerror = close;
  worker.onmessage = (event: MessageEvent<FromWorker>) => {
    const { data } = event;
    if (data.kind === 'ready') {
      const queued = maker.waiting ?? [];
      maker.waiting = null;
      for (const message of queued) worker.postMessage(message);
    }
    if (data.kind !== 'print') return;
    maker.asked.get(data.id)?.(data.bitmap);
    maker.asked.delete(data.id);
    if (maker.asked.size === 0) maker.idle = setTimeout(close, IDLE_MS);
  };
  return maker;
}
