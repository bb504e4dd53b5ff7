import { open } from 'node:fs/promises';
import { PassThrough } from 'node:stream';
import { createLimiter, LIMITER_DELAY } from '../../core/sound/limiter';
import { addToMix, amplify, sampleOf } from '../../core/sound/mix-block';
import { MIX_SAMPLE_RATE, type MixPart, type MixPlan } from '../../core/sound/mix-plan';
import { createStretcher } from '../../core/sound/sound-stretcher';
import type { AssetId } from '../../core/show/ids';
import { GUARDED_INPUT, startFfmpeg } from '../ffmpeg/run-ffmpeg';
import { exactReader } from '../ffmpeg/read-exactly';

const BLOCK_SAMPLES = MIX_SAMPLE_RATE;
const BYTES_A_SAMPLE = 8;
/** High enough that a speed is right to a millionth. */
const SPEED_RATE = 192_000;
/** Of a sound that is stretched, read at a time. */
const STRETCH_SAMPLES = 16_384;
/** Of each sound, some seconds. */
const AHEAD_BYTES = 2 * 1024 * 1024;
/** A sound is opened so long before it is wanted: what unpacks it takes a moment to begin. */
const OPENED_BEFORE_SAMPLES = 4 * MIX_SAMPLE_RATE;

interface WriteMixOptions {
  readonly fileOf: (assetId: AssetId) => string;
  /** 48 kHz stereo 32-bit floats, without header. */
  readonly outFile: string;
  /** Exactly this long, whatever the plan says: the film's frames decide. */
  readonly sampleCount: number;
  readonly signal?: AbortSignal;
  readonly onProgress?: (share: number) => void;
}

/** Performs a mix plan into a file, a second at a time, so that memory does not grow with the show. */
export async function writeMix(plan: MixPlan, options: WriteMixOptions): Promise<void> {
  const { fileOf, outFile, sampleCount, signal, onProgress } = options;
  const out = await open(outFile, 'w');
  const sounding = new Map<MixPart, SoundingPart>();
  const limiter = createLimiter();
  const whole = new Float32Array(2 * BLOCK_SAMPLES);
  // The limiter is late: what it holds back at first is left out, and it is asked for the rest at the end.
  let lateSamples = LIMITER_DELAY;
  try {
    for (let at = 0; at < sampleCount; at += BLOCK_SAMPLES) {
      signal?.throwIfAborted();
      const block = whole.subarray(0, 2 * Math.min(BLOCK_SAMPLES, sampleCount - at)).fill(0);
      const endSample = at + block.length / 2;
      for (const part of plan.parts) {
        const partStart = sampleOf(part.startMs);
        const partEnd = sampleOf(part.startMs + part.lengthMs);
        if (partStart >= endSample + OPENED_BEFORE_SAMPLES || partEnd <= at) continue;
        let source = sounding.get(part);
        if (!source) sounding.set(part, (source = openPart(part, fileOf(part.assetId), signal)));
        if (partStart >= endSample) continue;
        const wanted = Math.min(endSample, partEnd) - Math.max(at, partStart);
        addToMix(block, at, part, await source.read(wanted), Math.max(at, partStart) - partStart);
        if (partEnd <= endSample) {
          source.close();
          sounding.delete(part);
        }
      }
      amplify(block, plan.masterGain);
      limiter.run(block);
      await out.write(bytesOf(block.subarray(2 * Math.min(lateSamples, block.length / 2))));
      lateSamples = Math.max(0, lateSamples - block.length / 2);
      onProgress?.(endSample / sampleCount);
    }
    const rest = new Float32Array(2 * Math.min(LIMITER_DELAY, sampleCount));
    limiter.run(rest);
    await out.write(bytesOf(rest));
  } finally {
    for (const source of sounding.values()) source.close();
    await out.close();
  }
}

const bytesOf = (samples: Float32Array) => new Uint8Array(samples.buffer, samples.byteOffset, samples.byteLength);

interface SoundingPart {
  /** The next samples, interleaved stereo; fewer at the end of the file. */
  read(sampleCount: number): Promise<Float32Array>;
  close(): void;
}

function openPart(part: MixPart, file: string, signal?: AbortSignal): SoundingPart {
  const running = startFfmpeg(
    [
      ...(part.fromMs > 0 ? ['-ss', (part.fromMs / 1000).toFixed(6)] : []),
      ...GUARDED_INPUT,
      '-i',
      file,
      '-map',
      '0:a:0',
      '-ac',
      '2',
      // Faster or slower as a tape is: the samples are taken to be of another rate, then brought back to ours.
      ...(part.speed !== undefined
        ? ['-af', `aresample=${SPEED_RATE},asetrate=${Math.round(SPEED_RATE * part.speed)}`]
        : []),
      '-ar',
      String(MIX_SAMPLE_RATE),
      '-f',
      'f32le',
      '-',
    ],
    signal,
  );
  running.process.stdin.end();
  const stretcher = part.tempo === undefined ? null : createStretcher(part.tempo);
  // Unpacked ahead, while what came before is mixed.
  const ahead = running.process.stdout.pipe(new PassThrough({ highWaterMark: AHEAD_BYTES }));
  const reader = exactReader(ahead);
  const asRecorded = async (sampleCount: number) => {
    const bytes = await reader.read(sampleCount * BYTES_A_SAMPLE);
    const count = bytes.length - (bytes.length % BYTES_A_SAMPLE);
    // Samples lie at whole multiples of their size as a rule; where they do not, they are copied.
    return bytes.byteOffset % 4 === 0
      ? new Float32Array(bytes.buffer, bytes.byteOffset, count / 4)
      : new Float32Array(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + count) as ArrayBuffer);
  };
  return {
    async read(sampleCount) {
      if (!stretcher) return asRecorded(sampleCount);
      const out = new Float32Array(2 * sampleCount);
      let [filled, ended] = [0, false];
      for (;;) {
        const got = stretcher.take(sampleCount - filled / 2);
        out.set(got, filled);
        filled += got.length;
        if (filled === out.length || ended) return out.subarray(0, filled);
        const more = await asRecorded(STRETCH_SAMPLES);
        stretcher.add(more);
        ended = more.length < 2 * STRETCH_SAMPLES;
        if (ended) stretcher.end();
      }
    },
    close: () => void running.process.kill('SIGKILL'),
  };
}
