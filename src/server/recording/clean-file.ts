import { open, rm } from 'node:fs/promises';
import { createReadStream } from 'node:fs';
import { voiceCleaning, type CleanedVoice } from '../../core/sound/voice/clean-voice';
import type { Cleaning } from '../../core/sound/voice/cleaning';
import { eachSample } from '../listening/each-sample';
import { encodeFlac } from './encode-flac';

/** Speech has nothing above what this carries. */
const CLEANING_RATE = 48_000;

/** What is mended but not levelled lies here meanwhile. */
export const mendedBeside = (out: string): string => `${out}.mended`;

/**
 * Cleans a recording into a file of its own, as long as the recording and in step with it. It is read through twice, and what comes of the second time lies
 * on the disk until it is levelled.
 *
 * @throws {UnusableFileError}
 */
export async function cleanFile(file: string, out: string, how: Cleaning): Promise<CleanedVoice> {
  const cleaning = voiceCleaning(CLEANING_RATE, how);
  await eachSample(file, 1, CLEANING_RATE, (samples) => cleaning.learn(samples));
  const mended = mendedBeside(out);
  try {
    const handle = await open(mended, 'w');
    try {
      const stage = cleaning.mend();
      let writing: Promise<unknown> = Promise.resolve();
      const write = (samples: Float32Array) => {
        if (samples.length === 0) return;
        const bytes = Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength);
        writing = writing.then(() => handle.appendFile(bytes));
      };
      await eachSample(file, 1, CLEANING_RATE, (samples) => write(stage.push(samples)));
      write(stage.finish());
      await writing;
    } finally {
      await handle.close();
    }
    await encodeFlac(levelled(mended, cleaning.level()), CLEANING_RATE, out);
    return cleaning.outcome();
  } finally {
    await rm(mended, { force: true });
  }
}

async function* levelled(file: string, level: (samples: Float32Array) => Float32Array): AsyncGenerator<Float32Array> {
  for await (const samples of floatsOf(file)) yield level(samples);
}

/** The samples that lie in a file as 32-bit floats, a piece at a time. */
export async function* floatsOf(file: string, endByte?: number): AsyncGenerator<Float32Array> {
  let left: Buffer = Buffer.alloc(0);
  const options = endByte === undefined ? {} : { end: endByte - 1 };
  for await (const chunk of createReadStream(file, options) as AsyncIterable<Buffer>) {
    const bytes = left.length > 0 ? Buffer.concat([left, chunk]) : chunk;
    const whole = bytes.length - (bytes.length % 4);
    if (whole > 0) yield new Float32Array(Uint8Array.from(bytes.subarray(0, whole)).buffer);
    left = bytes.subarray(whole);
  }
}
