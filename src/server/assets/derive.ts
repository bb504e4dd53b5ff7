import { randomUUID } from 'node:crypto';
import { existsSync } from 'node:fs';
import { mkdir, readFile, rename, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { CLIP_FRAMES_PER_SECOND } from '../../core/frame/frame-plan';
import type { Sharp } from 'sharp';
import type { ClipFacts, PictureFacts } from '../../core/show/asset-facts';
import type { AssetId } from '../../core/show/ids';
import type { BlobStore } from '../blobs/blob-store';
import { GUARDED_INPUT, runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { clipFilter } from './clip-frames';
import type { LookedAt } from './look-at-file';
import { MOST_PIXELS } from './look-at-picture';
import { openPicture } from './open-picture';

/** Widths at which pictures are handed to browsers; the first is the contact sheet's print. */
export const PRINT_WIDTHS = [320, 960, 1920, 2880] as const;
/** Clips are handed out as JPEG frames this wide. */
const CLIP_WIDTH_PX = 960;

/** Everything a browser needs that takes long to make, made at intake; larger prints follow later. */
export async function deriveAtIntake(id: AssetId, { facts, peaks, small }: LookedAt, blobs: BlobStore): Promise<void> {
  await mkdir(path.dirname(blobs.derivedFile(id, '-')), { recursive: true });
  if (facts.kind === 'picture' && small)
    await whole(printPlace(id, facts, PRINT_WIDTHS[0], blobs), (part) =>
      encoded(small, facts, PRINT_WIDTHS[0]).toFile(part),
    );
  if (facts.kind === 'clip') await deriveClip(id, facts, blobs);
  if (facts.kind === 'sound' || (facts.kind === 'clip' && facts.hasSound)) await deriveListeningCopy(id, blobs);
  if (peaks) await whole(blobs.derivedFile(id, 'peaks'), (file) => writeFile(file, peaks.values));
}

const beingMade = new Map<string, Promise<void>>();

/** The picture at the smallest width of `PRINT_WIDTHS` that is at least `widthPx`; made when it is first asked for, once even when asked for twice. */
export async function printFile(
  id: AssetId,
  facts: PictureFacts,
  widthPx: number,
  blobs: BlobStore,
): Promise<{ file: string; mime: string }> {
  const width = PRINT_WIDTHS.find((candidate) => candidate >= widthPx) ?? PRINT_WIDTHS.at(-1)!;
  const file = printPlace(id, facts, width, blobs);
  if (!existsSync(file)) {
    const making =
      beingMade.get(file) ?? makePrint(id, facts, width, file, blobs).finally(() => beingMade.delete(file));
    beingMade.set(file, making);
    await making;
  }
  return { file, mime: facts.hasTransparency ? 'image/webp' : 'image/jpeg' };
}

async function makePrint(
  id: AssetId,
  facts: PictureFacts,
  width: number,
  file: string,
  blobs: BlobStore,
): Promise<void> {
  await mkdir(path.dirname(file), { recursive: true });
  const picture = await openPicture(blobs.fileOf(id), width, { limitInputPixels: MOST_PIXELS, failOn: 'none' });
  await whole(file, (part) =>
    encoded(picture.resize({ width, withoutEnlargement: true }).toColourspace('srgb'), facts, width).toFile(part),
  );
}

function printPlace(id: AssetId, facts: PictureFacts, width: number, blobs: BlobStore): string {
  return blobs.derivedFile(id, `${width}.${facts.hasTransparency ? 'webp' : 'jpg'}`);
}

function encoded(picture: Sharp, facts: PictureFacts, width: number): Sharp {
  return facts.hasTransparency
    ? picture.webp({ lossless: true })
    : picture.flatten().jpeg({ quality: width <= 320 ? 82 : 92, chromaSubsampling: width <= 320 ? '4:2:0' : '4:4:4' });
}

/** A clip's frames as one run of JPEGs with an index of where each begins, at a steady rate: any frame can be had at once. */
async function deriveClip(id: AssetId, facts: ClipFacts, blobs: BlobStore): Promise<void> {
  const framesFile = blobs.derivedFile(id, 'frames.mjpeg');
  const indexFile = blobs.derivedFile(id, 'frames.index');
  if (existsSync(indexFile)) return;
  const widthPx = Math.min(CLIP_WIDTH_PX, even(facts.widthPx));
  const heightPx = even((widthPx * facts.heightPx) / facts.widthPx);
  await whole(framesFile, (part) =>
    runFfmpeg([
      ...GUARDED_INPUT,
      '-copyts',
      '-start_at_zero',
      '-i',
      blobs.fileOf(id),
      '-map',
      '0:v:0',
      '-vf',
      clipFilter(widthPx, heightPx, 0, 'jpeg'),
      '-fps_mode',
      'passthrough',
      '-pix_fmt',
      'yuvj420p',
      '-c:v',
      'mjpeg',
      '-q:v',
      '3',
      '-f',
      'mjpeg',
      '-y',
      part,
    ]),
  );
  const starts = jpegStarts(await readFile(framesFile));
  await whole(blobs.derivedFile(id, '320.jpg'), (part) =>
    runFfmpeg([
      ...GUARDED_INPUT,
      '-i',
      blobs.fileOf(id),
      '-map',
      '0:v:0',
      '-frames:v',
      '1',
      '-vf',
      'scale=320:-2',
      '-f',
      'mjpeg',
      '-y',
      part,
    ]),
  );
  await whole(indexFile, (file) => writeFile(file, new Uint8Array(Float64Array.from(starts).buffer)));
}

async function deriveListeningCopy(id: AssetId, blobs: BlobStore): Promise<void> {
  const file = blobs.derivedFile(id, 'listening.opus');
  if (existsSync(file)) return;
  await whole(file, (part) =>
    runFfmpeg([
      ...GUARDED_INPUT,
      '-i',
      blobs.fileOf(id),
      '-map',
      '0:a:0',
      '-ac',
      '2',
      '-ar',
      '48000',
      '-c:a',
      'libopus',
      '-b:a',
      '160k',
      '-f',
      'ogg',
      '-y',
      part,
    ]),
  );
}

/** One second of a clip's frames: the JPEGs and the length of each, counted from `second · CLIP_FRAMES_PER_SECOND`. Null past the end. */
export async function clipSecond(
  id: AssetId,
  second: number,
  blobs: BlobStore,
): Promise<{ lengths: number[]; file: string; from: number; to: number } | null> {
  const index = await readFile(blobs.derivedFile(id, 'frames.index'));
  const starts = new Float64Array(Uint8Array.from(index).buffer);
  const first = second * CLIP_FRAMES_PER_SECOND;
  const end = Math.min(starts.length - 1, first + CLIP_FRAMES_PER_SECOND);
  if (!Number.isInteger(second) || second < 0 || first >= end) return null;
  const lengths = Array.from({ length: end - first }, (_, at) => starts[first + at + 1]! - starts[first + at]!);
  return { lengths, file: blobs.derivedFile(id, 'frames.mjpeg'), from: starts[first]!, to: starts[end]! };
}

/** Where each JPEG begins, and the end of the last. Inside a picture's data FF is always followed by 00 or a restart marker, so FF D9 ends it. */
function jpegStarts(bytes: Buffer): number[] {
  const starts = [0];
  for (let at = bytes.indexOf(END); at >= 0; at = bytes.indexOf(END, at + 2)) starts.push(at + 2);
  return starts;
}

const END = Buffer.from([0xff, 0xd9]);

/** A file appears under its name only when it is whole. */
async function whole(file: string, make: (part: string) => Promise<unknown>): Promise<void> {
  const part = `${file}.${randomUUID()}.part`;
  await make(part);
  await rename(part, file);
}

function even(value: number): number {
  return Math.max(2, 2 * Math.round(value / 2));
}
