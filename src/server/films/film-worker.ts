// Runs in a worker thread: draws and encodes the segments it is sent, one at a time, and reports.
import { parentPort, workerData } from 'node:worker_threads';
import sharp from 'sharp';
import { prepareShow } from '../../core/frame/plan-frame';
import type { AssetId } from '../../core/show/ids';
import { createFileReader } from '../assets/file-reader';
import { FfmpegError } from '../ffmpeg/run-ffmpeg';
import { drawSegment, storeFor } from './draw-segment';
import type { FilmWork, SegmentOrder, WorkerReport } from './film-work';
import { openNodeDrawing } from './node-drawing';

// The encoders fill the cores; pictures are decoded on one thread each.
sharp.concurrency(1);
sharp.cache(false);

const work = workerData as FilmWork;
const port = parentPort!;
const prepared = prepareShow(work.show, work.facts);
const drawing = await openNodeDrawing();
const reader = createFileReader((assetId) => fileOf(assetId));
const store = storeFor(drawing, reader);
const told = new Set<AssetId>();

port.on('message', (order: SegmentOrder) => {
  perform(order).catch((error: unknown) =>
    report({
      kind: 'failed',
      message: error instanceof Error ? error.message : String(error),
      details: error instanceof FfmpegError ? error.details : '',
    }),
  );
});

async function perform(order: SegmentOrder): Promise<void> {
  const drawn = await drawSegment(prepared, work, order, drawing, store, (done) => report({ kind: 'frames', done }));
  for (const [assetId, error] of store.problems()) {
    if (told.has(assetId)) continue;
    told.add(assetId);
    report({ kind: 'problem', assetId, message: error.message });
  }
  report({ kind: 'segment', index: order.segment.index, ...drawn });
}

function report(message: WorkerReport): void {
  port.postMessage(message);
}

function fileOf(assetId: AssetId): string {
  const file = work.files.get(assetId);
  if (!file) throw new Error('The file is missing.');
  return file;
}
