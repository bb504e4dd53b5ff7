import { mkdir, rm } from 'node:fs/promises';
import path from 'node:path';
import { nanoid } from 'nanoid';
import PQueue from 'p-queue';
import type { ClipFacts } from '../../core/show/asset-facts';
import type { AssetId, ShowId } from '../../core/show/ids';
import { evenedWithinMs, LONGEST_DRAWN_MS, type EvenedWish } from '../../core/timing/evened-clip';
import { faultOfRate, framesPerSecond } from '../../core/timing/frame-rate';
import type { BlobStore } from '../blobs/blob-store';
import { FfmpegError, probe, runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { DISK_FULL, Refusal } from '../http/refusal';
import { logger } from '../logger';
import { dataFolder } from '../paths';
import { sizeFilter } from './clip-frames';
import { clipInput } from './clip-input';
import type { ContactSheet, SheetEntry } from './contact-sheet';
import { takenIn } from './taken-in';

interface EvenedParts {
  readonly sheet: Pick<ContactSheet, 'takeIn' | 'entries'>;
  readonly blobs: Pick<BlobStore, 'localFile'>;
}

/** One at a time: it takes a core for itself. */
const queue = new PQueue({ concurrency: 1 });
/** More than this waiting is more than anybody waits for. */
const MOST_WAITING = 8;
/** Copies that were made since the server began, by what was wanted. */
const known = new Map<string, AssetId>();
const MOST_KNOWN = 1000;
/** Machines differ; one that takes so many times as long as a plain one has come to a stop. */
const PATIENCE = 20;
const LEAST_MS = 120_000;
const MOST_BYTES = 16 * 1024 ** 3;

/** The filter keeps the last ones to itself. */
const FRAMES_ON = 4;

/** Sound that MP4 holds as it is; other sound is packed without loss. */
const SOUNDS_KEPT = new Set(['aac', 'mp3', 'alac', 'opus', 'flac', 'ac3', 'eac3']);

/**
 * Puts a copy of a clip onto the show's sheet whose frames come evenly: at the wanted rate, with its sound and its times. The clip itself stays as it is.
 *
 * @param onProgress 0…1
 * @throws {Refusal}
 */
export async function evenClip(
  { sheet, blobs }: EvenedParts,
  show: ShowId,
  id: AssetId,
  wish: EvenedWish,
  onProgress: (share: number) => void,
  signal: AbortSignal,
): Promise<SheetEntry> {
  const fault = faultOfRate(wish.rate);
  if (fault !== null) throw new Refusal(422, `${fault.charAt(0).toUpperCase()}${fault.slice(1)}.`);
  const entries = await sheet.entries(show);
  const clip = entries.find((entry) => entry.assetId === id);
  if (clip?.facts?.kind !== 'clip') throw new Refusal(404, 'There is no such clip on the contact sheet.');
  const { facts } = clip;
  const withinMs = evenedWithinMs(facts, wish.rate, wish.way);
  if (withinMs === null)
    throw new Refusal(
      422,
      `Frames are drawn between for clips of up to ${LONGEST_DRAWN_MS / 60_000} minutes. Have them mixed instead.`,
    );
  const key = `${show} ${id} ${wish.rate.frames}/${wish.rate.seconds} ${wish.way}`;
  const there = entries.find(({ assetId, state }) => assetId === known.get(key) && state === 'ready');
  if (there) return there;
  if (queue.size >= MOST_WAITING) throw new Refusal(503, 'Many clips are being evened out. Ask again in a minute.');
  const folder = path.join(dataFolder(), 'uploads');
  await mkdir(folder, { recursive: true });
  const out = path.join(folder, `${nanoid(12)}.mp4`);
  try {
    const file = await blobs.localFile(id);
    await queue.add(
      () => writeEvened({ file, facts, out }, wish, { onProgress, signal, mostMs: LEAST_MS + PATIENCE * withinMs }),
      { signal },
    );
    const entry = await takenIn(sheet, show, out, `${clip.fileName.replace(/\.[^.]+$/, '')}, evened.mp4`, null);
    known.set(key, entry.assetId);
    if (known.size > MOST_KNOWN) known.delete(known.keys().next().value!);
    return entry;
  } catch (error) {
    if (!(error instanceof FfmpegError) || signal.aborted) throw error;
    logger().warn({ err: error, asset: id }, 'a clip could not be evened out');
    if (/no space left/i.test(error.details)) throw new Refusal(507, DISK_FULL);
    throw new Refusal(422, 'No evened copy could be made of this clip; it is as it was.');
  } finally {
    await rm(out, { force: true });
  }
}

/** Writes an evened copy, as large as the clip was filmed, in usual light. @throws {FfmpegError} */
export async function writeEvened(
  { file, facts, out }: { readonly file: string; readonly facts: ClipFacts; readonly out: string },
  { rate, way }: EvenedWish,
  {
    onProgress,
    signal,
    mostMs,
  }: { onProgress?(share: number): void; readonly signal?: AbortSignal; readonly mostMs?: number } = {},
): Promise<void> {
  const sound = (await probe(file)).streams.find((stream) => stream.codec_type === 'audio')?.codec_name;
  const frameCount = Math.max(1, Math.round((facts.lengthMs / 1000) * framesPerSecond(rate)));
  await runFfmpeg(
    [
      ...[...clipInput(file, 0), '-map', '0:a:0?'],
      ...['-vf', evenedFilter(facts, { rate, way }), '-r', `${rate.frames}/${rate.seconds}`],
      ...['-frames:v', String(frameCount)],
      ...['-c:v', 'libx264', '-preset', 'veryfast', '-crf', '14', '-pix_fmt', 'yuv420p', '-threads', '1'],
      ...['-colorspace', 'bt709', '-color_primaries', 'bt709', '-color_trc', 'bt709', '-color_range', 'tv'],
      ...['-c:a', sound && !SOUNDS_KEPT.has(sound) ? 'alac' : 'copy'],
      ...['-map_metadata', '0', '-movflags', '+faststart', '-f', 'mp4', '-y', out],
    ],
    {
      signal,
      limits: {
        ...(mostMs !== undefined && { timeMs: mostMs }),
        output: {
          file: out,
          mostBytes: MOST_BYTES,
          tooMuch: () => new Refusal(413, 'An evened copy of this clip would be too large. Cut it shorter first.'),
        },
      },
      onFrame: (count) => onProgress?.(Math.min(1, count / frameCount)),
    },
  );
}

/** Its last frame goes on, so that the copy is as long as the clip. Nothing is mixed across a cut. */
function evenedFilter({ widthPx, heightPx, hdr }: ClipFacts, { rate, way }: EvenedWish): string {
  const even = (px: number) => px + (px % 2);
  const between = way === 'mixed' ? 'mi_mode=blend' : 'mi_mode=mci:mc_mode=obmc:me_mode=bilat:me=epzs';
  return [
    sizeFilter({ widthPx: even(widthPx), heightPx: even(heightPx), hdr }),
    'format=yuv420p',
    `tpad=stop=${FRAMES_ON}:stop_mode=clone`,
    `minterpolate=fps=${rate.frames}/${rate.seconds}:${between}`,
  ].join(',');
}
