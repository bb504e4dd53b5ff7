// Runs in a process of its own: draws and encodes the segments it is sent, one at a time, and reports.
import sharp from 'sharp';
import { prepareShow } from '../../core/frame/plan-frame';
import { countedAsUsual } from '../../core/timing/clip-rate';
import { createFileReader } from '../assets/file-reader';
import { FfmpegError } from '../ffmpeg/run-ffmpeg';
import { isDiskFull } from '../http/refusal';
import { drawSegment, roomFor, storeFor } from './draw-segment';
import { packSegment } from './page/pack-segment';
import type { FilmWork, SegmentOrder, WorkerReport } from './film-work';
import { openNodeDrawing } from './node-drawing';

// The encoders fill the cores; pictures are decoded on one thread each.
sharp.concurrency(1);
sharp.cache(false);

/** Everything to draw with, made once the work is known. */
let opened: ReturnType<typeof open> | null = null;
/** One after the other, in the order they came. */
let last: Promise<void> = Promise.resolve();

// A server that is gone needs nothing any more.
process.on('disconnect', () => process.exit(0));
process.on('message', (message: { readonly work: FilmWork } | SegmentOrder) => {
  if ('work' in message) {
    opened = open(message.work);
    return;
  }
  last = last
    .then(() => perform(message))
    .catch((error: unknown) =>
      report({
        kind: 'failed',
        message: error instanceof Error ? error.message : String(error),
        details: error instanceof FfmpegError ? error.details : '',
        diskFull: isDiskFull(error) || (error instanceof FfmpegError && /No space left/.test(error.details)),
      }),
    );
});

async function open(work: FilmWork) {
  const files = new Map(work.files);
  const drawing = await openNodeDrawing();
  // A page plays its clips as viewers do.
  const facts = work.encoding.container === 'pack' ? countedAsUsual(work.facts) : work.facts;
  const reader = createFileReader((assetId) => {
    const file = files.get(assetId);
    if (!file) throw new Error('The file is missing.');
    return file;
  }, facts);
  return {
    work,
    files,
    drawing,
    reader,
    prepared: prepareShow(work.show, facts),
    store: storeFor(drawing, reader, roomFor(work)),
  };
}

async function perform(order: SegmentOrder): Promise<void> {
  const { work, files, drawing, reader, prepared, store } = await opened!;
  for (const [id, file] of order.files ?? []) files.set(id, file);
  if (work.encoding.container === 'pack') {
    const packed = await packSegment(
      prepared,
      work,
      order,
      drawing,
      reader,
      (done) => report({ kind: 'frames', done }),
      (jpeg) => report({ kind: 'glimpse', jpeg }),
    );
    return report({ kind: 'segment', ...packed });
  }
  const drawn = await drawSegment(prepared, work, order, drawing, store, {
    frame: () => report({ kind: 'frames', done: 1 }),
    glimpse: (jpeg) => report({ kind: 'glimpse', jpeg }),
  });
  const problems = [...store.problems()].map(([assetId, error]) => ({ assetId, message: error.message }));
  report({ kind: 'segment', drawn, problems });
}

function report(message: WorkerReport): void {
  // Whom it is meant for may be gone; then this ends as well.
  process.send!(message, () => {});
}
