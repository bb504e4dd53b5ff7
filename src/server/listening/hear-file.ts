import { loudnessMeter } from '../../core/sound/loudness';
import { songHearing } from '../../core/sound/listening/hear-song';
import type { ListeningFacts } from '../../core/sound/listening/listening-facts';
import { lowCut } from '../../core/sound/voice/low-cut';
import { phrasesOf } from '../../core/sound/voice/phrases';
import { levelMeter } from '../../core/sound/voice/voice-levels';
import { LISTENING_RATE } from '../../core/sound/listening/spectrogram';
import { eachSample } from './each-sample';

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
