import { rm, stat } from 'node:fs/promises';
import path from 'node:path';
import { tooLongForSize, type FilmSpec } from '../../core/film/film-spec';
import { framesPerSecond } from '../../core/timing/frame-rate';
import { runFfmpeg } from '../ffmpeg/run-ffmpeg';
import { COLOUR_TAGS, CONTAINER_ARGS } from './encodings';
import { FilmFailedError } from './film-failed-error';
import { ticksASecond } from './encode-segment';

interface SizedFilm {
  readonly spec: FilmSpec;
  /** ffmpeg's arguments for the pictures as they were drawn. */
  readonly input: readonly string[];
  /** And for the mix. */
  readonly sound: readonly string[] | null;
  readonly beside: { readonly inputs: readonly string[]; readonly args: readonly string[] };
  readonly frameCount: number;
  readonly lengthMs: number;
  readonly workFolder: string;
  readonly outFile: string;
  readonly signal?: AbortSignal | undefined;
  readonly onShare: (share: number) => void;
}

/** The file is to be between these shares of what it may be. */
const LEAST_SHARE = 0.97;
export const WANTED_SHARE = 0.985;
const MOST_TRIES = 4;
/** With fewer bits a second no picture is left. */
const LEAST_BITS = 24_000;
const SOUND_BITS: readonly (readonly [leastOverall: number, sound: string])[] = [
  [1_500_000, '192k'],
  [700_000, '128k'],
  [350_000, '96k'],
  [0, '64k'],
];

/**
 * Makes a file of a size: two passes of the encoder over all of the film, the second again with what the last one told until the file is no larger than it may
 * be and at most three hundredths smaller. A film that needs less than it may is as good as the encoder gets, and smaller.
 *
 * @throws {FilmFailedError} when the film is too long for the size
 */
export async function fitToSize(film: SizedFilm): Promise<void> {
  const { spec, input, sound, lengthMs, workFolder, outFile, signal, frameCount } = film;
  const most = spec.mostBytes!;
  const seconds = lengthMs / 1000;
  const overall = (most * 8) / seconds;
  const soundFile = path.join(workFolder, 'sound.m4a');
  let soundBytes = 0;
  if (sound) {
    const rate = SOUND_BITS.find(([least]) => overall >= least)![1];
    await runFfmpeg([...sound, '-c:a', 'aac', '-b:a', rate, '-f', 'ipod', '-y', soundFile], { signal });
    soundBytes = (await stat(soundFile)).size;
  }
  const log = path.join(workFolder, 'passes');
  const passes = 2;
  let pass = 0;
  const encoded = async (bits: number, number: 1 | 2, out: string) => {
    const share = pass;
    pass = Math.min(pass + 1, passes);
    await runFfmpeg(
      [
        ...input,
        ...(number === 2 ? [...(sound ? ['-i', soundFile] : []), ...film.beside.inputs] : []),
        ...['-map', '0:v:0', ...(number === 2 && sound ? ['-map', '1:a:0', '-c:a', 'copy'] : [])],
        ...['-c:v', 'libx264', '-preset', 'medium', '-b:v', String(Math.round(bits)), '-pix_fmt', 'yuv420p'],
        ...['-profile:v', 'high', '-g', String(Math.round(framesPerSecond(spec.rate) * 4))],
        ...['-pass', String(number), '-passlogfile', log],
        ...COLOUR_TAGS,
        ...(number === 2
          ? [...film.beside.args, '-video_track_timescale', String(ticksASecond(spec.rate)), ...CONTAINER_ARGS.mp4]
          : ['-an', '-f', 'null']),
        ...['-y', out],
      ],
      { signal, onFrame: (count) => film.onShare(Math.min(1, (share + count / frameCount) / passes)) },
    );
  };
  const aroundBytes = 3000 + frameCount * (sound ? 16 : 12);
  let bits = ((most * WANTED_SHARE - soundBytes - aroundBytes) * 8) / seconds;
  if (bits < LEAST_BITS) throw tooLong(most);
  await encoded(bits, 1, '-');
  for (let tries = 1; ; tries += 1) {
    await encoded(bits, 2, outFile);
    const { size } = await stat(outFile);
    const fits = size <= most;
    if (fits && (size >= most * LEAST_SHARE || tries >= MOST_TRIES)) break;
    if (tries >= MOST_TRIES + 1) throw tooLong(most);
    const pictureBytes = Math.max(1, size - soundBytes - aroundBytes);
    const wantedBytes = most * (WANTED_SHARE - (fits ? 0 : 0.005 * tries)) - soundBytes - aroundBytes;
    const next = bits * Math.min(2, wantedBytes / pictureBytes);
    // More bits than it can use change nothing.
    if (fits && next > bits * 1.9) break;
    bits = next;
    if (bits < LEAST_BITS) throw tooLong(most);
  }
  for (const ending of ['-0.log', '-0.log.mbtree']) await rm(`${log}${ending}`, { force: true });
}

const tooLong = (mostBytes: number) => new FilmFailedError(tooLongForSize(mostBytes), '');
