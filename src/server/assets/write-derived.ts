import { createReadStream, existsSync } from 'node:fs';
import { writeFile } from 'node:fs/promises';
import path from 'node:path';
import type { Sharp } from 'sharp';
import type { ClipFacts } from '../../core/show/asset-facts';
import { whole } from '../blobs/whole';
import { GUARDED_INPUT, runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { clipFilter } from './clip-frames';
import { clipInput } from './clip-input';
import type { LookedAt } from './look-at-file';
import { UnusableFileError } from './unusable-file-error';

/** Width of the contact sheet's print. */
export const SHEET_PRINT_WIDTH = 320;
/** Clips are handed out as JPEG frames this wide. */
const CLIP_WIDTH_PX = 960;
/** A clip may unpack to so many bytes for each of its own, and to so many in any case: still scenes are small in their files. */
const MOST_UNPACKED = { times: 400, bytes: 64 * 1024 * 1024 };

/** Everything a browser needs that takes long to make, made at intake into a folder; larger prints follow later. */
export async function writeDerived(
  file: string,
  { facts, peaks, small, byteCount }: LookedAt,
  folder: string,
): Promise<void> {
  const at = (name: string) => path.join(folder, name);
  if (facts.kind === 'picture' && small)
    await whole(at(proxyName(SHEET_PRINT_WIDTH, facts.hasTransparency)), (part) =>
      encodedProxy(small, facts.hasTransparency, SHEET_PRINT_WIDTH).toFile(part),
    );
  if (facts.kind === 'clip') await writeClip(file, facts, byteCount, at);
  if (facts.kind === 'sound' || (facts.kind === 'clip' && facts.hasSound))
    await writeListeningCopy(file, at('listening.opus'));
  if (peaks) await whole(at('peaks'), (part) => writeFile(part, peaks.values));
}

export function proxyName(widthPx: number, hasTransparency: boolean): string {
  return `${widthPx}.${hasTransparency ? 'webp' : 'jpg'}`;
}

export function encodedProxy(picture: Sharp, hasTransparency: boolean, widthPx: number): Sharp {
  if (hasTransparency) return picture.webp({ lossless: true });
  const isSmall = widthPx <= SHEET_PRINT_WIDTH;
  return picture.flatten().jpeg({ quality: isSmall ? 82 : 92, chromaSubsampling: isSmall ? '4:2:0' : '4:4:4' });
}

/** A clip's frames as one run of JPEGs with an index of where each begins, at a steady rate: any frame can be had at once. */
async function writeClip(
  file: string,
  facts: ClipFacts,
  byteCount: number,
  at: (name: string) => string,
): Promise<void> {
  // What was unpacked before HDR was toned down is unpacked again.
  if (existsSync(at('frames.index')) && !facts.hdr) return;
  const widthPx = Math.min(CLIP_WIDTH_PX, even(facts.widthPx));
  const heightPx = even((widthPx * facts.heightPx) / facts.widthPx);
  const mostBytes = MOST_UNPACKED.bytes + MOST_UNPACKED.times * byteCount;
  await whole(at('frames.mjpeg'), (part) =>
    runFfmpeg(
      [
        ...clipInput(file, 0),
        '-vf',
        clipFilter({ widthPx, heightPx, hdr: facts.hdr }, 0, 'jpeg'),
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
      ],
      {
        limits: {
          output: {
            file: part,
            mostBytes,
            tooMuch: () =>
              new UnusableFileError(
                'This clip unpacks to far more than it holds, so it was set aside. Export it again as MP4.',
              ),
          },
        },
      },
    ),
  );
  await whole(at(proxyName(SHEET_PRINT_WIDTH, false)), (part) =>
    runFfmpeg([
      ...GUARDED_INPUT,
      '-i',
      file,
      '-map',
      '0:v:0',
      '-frames:v',
      '1',
      '-vf',
      clipFilter({ widthPx: SHEET_PRINT_WIDTH, heightPx: -2, hdr: facts.hdr }, 0, 'jpeg'),
      '-f',
      'mjpeg',
      '-y',
      part,
    ]),
  );
  const starts = await jpegStarts(at('frames.mjpeg'));
  await whole(at('frames.index'), (part) => writeFile(part, new Uint8Array(Float64Array.from(starts).buffer)));
}

async function writeListeningCopy(file: string, to: string): Promise<void> {
  if (existsSync(to)) return;
  await whole(to, (part) =>
    runFfmpeg([
      ...GUARDED_INPUT,
      '-i',
      file,
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

/**
 * Where each JPEG of a run begins, and the end of the last. Inside a picture's data FF is always followed by 00 or a restart marker, so FF D9 ends it. Read
 * a piece at a time: a clip of two hours is gigabytes.
 */
export async function jpegStarts(file: string): Promise<number[]> {
  const starts = [0];
  let offset = 0;
  let endsWithFf = false;
  for await (const piece of createReadStream(file, { highWaterMark: 1024 * 1024 }) as AsyncIterable<Buffer>) {
    if (endsWithFf && piece[0] === 0xd9) starts.push(offset + 1);
    for (let at = piece.indexOf(END); at >= 0; at = piece.indexOf(END, at + 2)) starts.push(offset + at + 2);
    offset += piece.length;
    endsWithFf = piece.at(-1) === 0xff;
  }
  return starts;
}

const END = Buffer.from([0xff, 0xd9]);

function even(value: number): number {
  return Math.max(2, 2 * Math.round(value / 2));
}
