import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import sharp from 'sharp';
import { seenInShape } from '../core/builds/in-shape';
import { planFrame, prepareShow } from '../core/frame/plan-frame';
import { isShapeName, widthFor } from '../core/show/shape';
import { createPainter } from '../drawing/paint/paint-frame';
import { pixelsOf } from '../drawing/planes/surface';
import { createFileReader } from '../server/assets/file-reader';
import { storeFor } from '../server/films/draw-segment';
import { openNodeDrawing } from '../server/films/node-drawing';
import type { ShowFile } from '../server/schema/show-schema';
import { filesOfShow } from './files-of-show';
import { linkedFiles } from './linked-files';
import { readShow } from './show-file';
import { parsedArgs } from './parsed-args';
import type { Surroundings } from './tanager';
import { UsageError } from './usage-error';

/** Draws one moment of a saved show as PNG. */
export async function frameCommand(args: readonly string[], { folder, tell }: Surroundings): Promise<number> {
  const options = parseOptions(args, folder);
  const saved = await readShow(options.show);
  if (saved.slides.length === 0) throw new Error('The show has no slides, so there is nothing to draw.');
  const workFolder = await mkdtemp(path.join(tmpdir(), 'tanager-frame-'));
  try {
    const { widthPx, heightPx } = await drawn(options, saved, workFolder);
    tell(`${options.out}: ${widthPx} × ${heightPx}\n`);
  } finally {
    await rm(workFolder, { recursive: true, force: true });
  }
  return 0;
}

/** @returns the size of the picture */
async function drawn(
  options: FrameOptions,
  saved: ShowFile,
  workFolder: string,
): Promise<{ readonly widthPx: number; readonly heightPx: number }> {
  const link = linkedFiles(workFolder);
  const { files, facts } = await filesOfShow(saved, options.show, link);
  const show = options.shape === null ? saved : seenInShape(saved, facts, options.shape);
  const heightPx = options.heightPx ?? show.frame.heightPx;
  const frame = { widthPx: widthFor(show.frame, heightPx), heightPx };
  const plan = planFrame(prepareShow(show, facts), options.atSeconds * 1000, frame)!;
  const drawing = await openNodeDrawing();
  const reader = createFileReader((id) => files.get(id)!, facts);
  const store = storeFor(drawing, reader);
  try {
    await store.prepare(plan);
    for (const [id, error] of store.problems()) throw new Error(`${files.get(id)}: ${error.message}`);
    const pixels = pixelsOf(
      drawing.kernels,
      createPainter(drawing.kernels, frame.widthPx, frame.heightPx).paint(plan, store),
    );
    await sharp(pixels.rgba, { raw: { width: pixels.widthPx, height: pixels.heightPx, channels: 4 } })
      .removeAlpha()
      .png()
      .toFile(options.out);
    return frame;
  } finally {
    store.close();
    reader.close();
  }
}

interface FrameOptions {
  readonly show: string;
  readonly atSeconds: number;
  readonly out: string;
  readonly heightPx: number | null;
  readonly shape: string | null;
}

function parseOptions(args: readonly string[], folder: string): FrameOptions {
  const parsed = parsedArgs(args, {
    at: { type: 'string' },
    out: { type: 'string' },
    height: { type: 'string' },
    shape: { type: 'string' },
  });
  const { values, positionals } = parsed;
  if (positionals.length !== 1) throw new UsageError('Name one saved show.');
  const atSeconds = Number(values.at);
  if (values.at === undefined || values.at.trim() === '' || !Number.isFinite(atSeconds) || atSeconds < 0)
    throw new UsageError(`--at must be a number of seconds, 0 or more, got ${values.at}.`);
  if (!values.out) throw new UsageError('Say where the still goes with --out still.png.');
  const height = values.height === undefined ? null : Number(values.height);
  if (height !== null && !(Number.isInteger(height) && height >= 16 && height <= 4320 && height % 2 === 0))
    throw new UsageError(`--height must be an even number from 16 to 4320, got ${values.height}.`);
  if (values.shape !== undefined && !isShapeName(values.shape))
    throw new UsageError(`--shape must be two numbers such as 9:16, got ${values.shape}.`);
  return {
    show: path.resolve(folder, positionals[0]!),
    atSeconds,
    out: path.resolve(folder, values.out),
    heightPx: height,
    shape: values.shape ?? null,
  };
}
