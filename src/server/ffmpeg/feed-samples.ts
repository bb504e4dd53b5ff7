import { once } from 'node:events';
import { startFfmpeg } from './run-ffmpeg';

/** Hands 32-bit floats to ffmpeg as fast as it takes them. @param args what it is to do with what comes on its standard input */
export async function feedSamples(
  samples: AsyncIterable<Float32Array>,
  { rate, channels }: { readonly rate: number; readonly channels: number },
  args: readonly string[],
  signal?: AbortSignal,
): Promise<void> {
  const running = startFfmpeg(
    ['-f', 'f32le', '-ar', String(rate), '-ac', String(channels), '-i', '-', ...args],
    signal,
  );
  running.process.stdout.resume();
  // What is wrong is said by `finished`; a pipe that is gone says nothing more.
  running.process.stdin.on('error', () => {});
  const ended = running.finished.then(() => true);
  ended.catch(() => {});
  for await (const some of samples) {
    signal?.throwIfAborted();
    const room = running.process.stdin.write(Buffer.from(some.buffer, some.byteOffset, some.byteLength));
    if (!room) await Promise.race([once(running.process.stdin, 'drain'), ended]);
  }
  running.process.stdin.end();
  await running.finished;
}
