import { peakCollector, type Peaks } from '../../core/sound/peaks';
import type { BandPiece } from '../../core/sound/band/piece-facts';
import { bandPieceIn, tagsOf } from '../band/band-tag';
import { FfmpegError, GUARDED_INPUT, startFfmpeg } from '../ffmpeg/run-ffmpeg';
import { UnusableFileError } from './unusable-file-error';

export interface Heard {
  /** Counted from the samples, not taken from the header, which is often wrong for MP3. */
  readonly lengthMs: number;
  readonly peaks: Peaks;
  readonly title: string | null;
  readonly artist: string | null;
  readonly genre: string | null;
  readonly band: BandPiece | null;
}

/** Enough for a waveform; the length is exact to 0.1 ms. */
const LISTENING_RATE = 11_025;

const LONGEST_TAG = 200;

/** Decodes a file's sound once for its length and waveform. @throws {UnusableFileError} */
export async function listen(file: string, signal?: AbortSignal): Promise<Heard> {
  const running = startFfmpeg(
    [...GUARDED_INPUT, '-i', file, '-map', '0:a:0', '-ac', '1', '-ar', String(LISTENING_RATE), '-f', 'f32le', '-'],
    signal,
  );
  running.process.stdin.end();
  const collector = peakCollector(LISTENING_RATE);
  let sampleCount = 0;
  let left: Buffer = Buffer.alloc(0);
  try {
    for await (const chunk of running.process.stdout as AsyncIterable<Buffer>) {
      const bytes = left.length > 0 ? Buffer.concat([left, chunk]) : chunk;
      const count = bytes.length >> 2;
      collector.add(new Float32Array(Uint8Array.from(bytes.subarray(0, count * 4)).buffer));
      left = bytes.subarray(count * 4);
      sampleCount += count;
    }
    await running.finished;
  } catch (cause) {
    if (cause instanceof FfmpegError && cause.details !== '')
      throw new UnusableFileError(
        'The sound cannot be read; the file is damaged. Export it again as MP3, M4A, WAV, FLAC, OGG or Opus.',
        { cause },
      );
    throw cause;
  }
  if (sampleCount === 0) throw new UnusableFileError('The file holds no sound.');
  const tags = await tagsOf(file);
  const lengthMs = (sampleCount * 1000) / LISTENING_RATE;
  return {
    lengthMs,
    peaks: collector.finish(),
    title: tags.title?.slice(0, LONGEST_TAG) ?? null,
    artist: tags.artist?.slice(0, LONGEST_TAG) ?? null,
    genre: tags.genre?.trim().slice(0, LONGEST_TAG) || null,
    band: bandPieceIn(tags, lengthMs),
  };
}
