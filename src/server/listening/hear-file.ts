import { loudnessMeter } from '../../core/sound/loudness';
import { songHearing } from '../../core/sound/listening/hear-song';
import type { ListeningFacts } from '../../core/sound/listening/listening-facts';
import { lowCut } from '../../core/sound/voice/low-cut';
import { phrasesOf } from '../../core/sound/voice/phrases';
import { levelMeter } from '../../core/sound/voice/voice-levels';
import { LISTENING_RATE } from '../../core/sound/listening/spectrogram';
import { UnusableFileError } from '../assets/unusable-file-error';
import { FfmpegError, GUARDED_INPUT, startFfmpeg } from '../ffmpeg/run-ffmpeg';

const LOUDNESS_RATE = 48_000;
/** More than an hour of speech has. */
const MOST_PHRASES = 5000;

/**
 * Listens to a sound, or to a clip’s own: how loud it is, and of music its beats, bars and sections.
 *
 * @param wantsBeats false for clips
 * @throws {UnusableFileError}
 */
export async function hearFile(file: string, wantsBeats: boolean, signal?: AbortSignal): Promise<ListeningFacts> {
  const meter = loudnessMeter(LOUDNESS_RATE);
  await eachSample(file, 2, LOUDNESS_RATE, (samples) => meter.add(samples), signal);
  const hearing = songHearing(wantsBeats);
  const speech = levelMeter(LISTENING_RATE);
  const rumble = lowCut(LISTENING_RATE);
  if (wantsBeats)
    await eachSample(
      file,
      1,
      LISTENING_RATE,
      (samples) => {
        hearing.add(samples);
        speech.push(rumble.push(samples));
      },
      signal,
    );
  const heard = hearing.finish(meter.finish());
  const phrases = wantsBeats ? phrasesOf(speech.finish().rmsDb) : [];
  return phrases.length > 0 && phrases.length <= MOST_PHRASES ? { ...heard, phrases } : heard;
}

/** Decodes a file’s sound and hands it on as it comes, in whole frames. */
async function eachSample(
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
