import { once } from 'node:events';
import { startFfmpeg } from '../ffmpeg/run-ffmpeg';

/** Packs one channel without losing anything a microphone gives: 24 bits. */
export async function encodeFlac(samples: AsyncIterable<Float32Array>, rate: number, out: string): Promise<void> {
  const running = startFfmpeg([
    '-f',
    'f32le',
    '-ar',
    String(rate),
    '-ac',
    '1',
    '-i',
    '-',
    '-c:a',
    'flac',
    '-sample_fmt',
    's32',
    '-f',
    'flac',
    '-y',
    out,
  ]);
  running.process.stdout.resume();
  // What is wrong is said by `finished`; a pipe that is gone says nothing more.
  running.process.stdin.on('error', () => {});
  const ended = running.finished.then(() => true);
  ended.catch(() => {});
  for await (const some of samples) {
    const room = running.process.stdin.write(Buffer.from(some.buffer, some.byteOffset, some.byteLength));
    if (!room) await Promise.race([once(running.process.stdin, 'drain'), ended]);
  }
  running.process.stdin.end();
  await running.finished;
}
