import { UnusableFileError } from '../assets/unusable-file-error';
import { FfmpegError, GUARDED_INPUT, startFfmpeg } from '../ffmpeg/run-ffmpeg';

/** Decodes a file’s sound and hands it on as it comes, in whole frames. */
export async function eachSample(
  file: string,
  channels: number,
  rate: number,
  take: (samples: Float32Array) => void,
  signal?: AbortSignal,
): Promise<void> {
  const running = startFfmpeg(
    [...GUARDED_INPUT, '-i', file, '-map', '0:a:0', '-ac', String(channels), '-ar', String(rate), '-f', 'f32le', '-'],
    signal,
  );
  running.process.stdin.end();
  const frameBytes = 4 * channels;
  let left: Buffer = Buffer.alloc(0);
  try {
    for await (const chunk of running.process.stdout as AsyncIterable<Buffer>) {
      const bytes = left.length > 0 ? Buffer.concat([left, chunk]) : chunk;
      const whole = bytes.length - (bytes.length % frameBytes);
      take(new Float32Array(Uint8Array.from(bytes.subarray(0, whole)).buffer));
      left = bytes.subarray(whole);
    }
    await running.finished;
  } catch (cause) {
    if (cause instanceof FfmpegError && cause.details !== '')
      throw new UnusableFileError('The sound cannot be read to its end; the file is damaged.', { cause });
    throw cause;
  }
}
