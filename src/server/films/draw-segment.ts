import { renameSafely } from '../blobs/whole';
import type { FramePlan, LayerPlan } from '../../core/frame/frame-plan';
import { planFrame, type PreparedShow } from '../../core/frame/plan-frame';
import { withFramesAfter } from '../../core/film/plan-film';
import { momentOfFrame } from '../../core/timing/frames';
import { createPainter } from '../../drawing/paint/paint-frame';
import { makePlate } from '../../drawing/plates/make-plate';
import { createPlateStore, type PlateStore } from '../../drawing/plates/plate-store';
import { i420Of } from '../../drawing/planes/surface';
import type { PictureReader } from '../../drawing/picture-reader';
import { startSegment } from './encode-segment';
import { framesBefore } from './encodings';
import type { DrawnSegment, FilmWork, SegmentOrder } from './film-work';
import { glimpseOf } from './glimpse';
import type { NodeDrawing } from './node-drawing';

/** Pictures kept between frames, as many as so many frames take, at least this: a frame needs a handful of its own size, and what has been seen is hardly seen again. */
const ROOM_FRAMES = 24;
const LEAST_ROOM_BYTES = 48 * 1024 * 1024;
/** Pictures for the frame this far ahead are read while the encoder works. */
const AHEAD_MS = 1200;

const GLIMPSE_EVERY_MS = 2000;

/** What is told while a segment is drawn. */
interface Telling {
  frame(): void;
  glimpse(jpeg: Uint8Array): void;
}

export const roomFor = ({ widthPx, heightPx }: { readonly widthPx: number; readonly heightPx: number }): number =>
  Math.max(LEAST_ROOM_BYTES, ROOM_FRAMES * widthPx * heightPx * 1.5);

/** Plates made in this thread. */
export function storeFor(
  drawing: NodeDrawing,
  reader: PictureReader,
  roomBytes = roomFor({ widthPx: 1920, heightPx: 1080 }),
): PlateStore {
  return createPlateStore({
    kernels: drawing.kernels,
    make: (plate) => makePlate({ ...drawing, reader }, plate),
    roomBytes,
  });
}

/** Draws the segment's frames in order into the encoder. The file appears under its name only when it is whole. */
export async function drawSegment(
  prepared: PreparedShow,
  work: FilmWork,
  order: SegmentOrder,
  drawing: NodeDrawing,
  store: PlateStore,
  telling: Telling,
): Promise<DrawnSegment> {
  const { widthPx, heightPx, encoding } = work;
  const { rate } = prepared.show.frame;
  const painter = createPainter(drawing.kernels, widthPx, heightPx);
  const { firstFrame, endFrame } = order.segment;
  const drawnEnd = withFramesAfter(order.segment, encoding.looksAhead ?? 0).endFrame;
  const encoder = startSegment(`${order.outFile}.part`, work, rate, encoding, {
    frameCount: endFrame - firstFrame,
    framesBefore: framesBefore(order.segment, encoding),
    framesAfter: drawnEnd - endFrame,
  });
  // One is drawn into while the encoder takes the other.
  const buffers = [0, 1].map(() => new Uint8Array((widthPx * heightPx * 3) / 2));
  let drawMs = 0;
  let readMs = 0;
  let stillFrames = 0;
  let glimpsedMs = -Infinity;
  /** The last frame, and its plan as text: a frame that would be the very same is not drawn again. */
  let last: { readonly said: string; readonly buffer: Uint8Array } = { said: '', buffer: buffers[1]! };
  let written: Promise<void> = Promise.resolve();
  let ahead: Promise<void> = Promise.resolve();
  try {
    for (let frame = firstFrame; frame < drawnEnd; frame += 1) {
      const startedMs = performance.now();
      const plan = planFrame(prepared, momentOfFrame(frame, rate), work)!;
      const said = JSON.stringify(plan);
      const buffer: Uint8Array =
        last.said === said
          ? last.buffer
          : await drawn(
              plan,
              buffers.find((one) => one !== last.buffer)!,
            );
      if (last.said === said && frame < endFrame) stillFrames += 1;
      last = { said, buffer };
      drawMs += performance.now() - startedMs;
      if (startedMs - glimpsedMs > GLIMPSE_EVERY_MS) {
        glimpsedMs = startedMs;
        telling.glimpse(await glimpseOf(buffer, widthPx, heightPx));
      }
      await written;
      written = encoder.write(buffer);
      written.catch(() => {});
      if (frame % 10 === 0) {
        await ahead;
        ahead = prepareAhead(frame);
      }
      if (frame < endFrame) telling.frame();
    }
    await Promise.all([written, ahead]);
    const encodeMs = await encoder.finish();
    await renameSafely(`${order.outFile}.part`, order.outFile);
    return { drawMs, readMs, encodeMs, stillFrames };
  } finally {
    encoder.abort();
    painter.close();
  }

  async function drawn(plan: FramePlan, into: Uint8Array): Promise<Uint8Array> {
    if (!store.isReady(plan)) {
      const startedMs = performance.now();
      await store.prepare(plan);
      readMs += performance.now() - startedMs;
    }
    return i420Of(drawing.kernels, painter.paint(plan, store), into);
  }

  /** Only pictures: a clip's frames are read in order, and reading ahead would make its decoder jump. */
  async function prepareAhead(frame: number): Promise<void> {
    const momentMs = momentOfFrame(frame, rate) + AHEAD_MS;
    if (momentMs >= momentOfFrame(drawnEnd, rate)) return;
    const plan = planFrame(prepared, momentMs, work)!;
    const slides = [plan.slide, ...(plan.incoming ? [plan.incoming.slide] : [])];
    if (slides.some((slide) => slide.layers.some(hasClip))) return;
    const startedMs = performance.now();
    if (store.isReady(plan)) return;
    await store.prepare(plan);
    drawMs += performance.now() - startedMs;
  }
}

function hasClip({ content, masks }: LayerPlan): boolean {
  return (
    content.kind === 'clip' ||
    masks.some((mask) => hasClip(mask.layer)) ||
    (content.kind === 'group' && content.layers.some(hasClip))
  );
}
