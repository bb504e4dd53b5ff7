import { loudnessMeter } from '../../core/sound/loudness';
import { songHearing } from '../../core/sound/listening/hear-song';
import type { ListeningFacts } from '../../core/sound/listening/listening-facts';
import { lowCut } from '../../core/sound/voice/low-cut';
import { phrasesOf } from '../../core/sound/voice/phrases';
import { levelMeter } from '../../core/sound/voice/voice-levels';
import { LISTENING_RATE } from '../../core/sound/listening/spectrogram';
import { bandPieceIn, scoreOf, tagsOf } from '../band/band-tag';
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
  let frames = 0;
  await eachSample(
    file,
    2,
    LOUDNESS_RATE,
    (samples) => {
      frames += samples.length / 2;
      meter.add(samples);
    },
    signal,
  );
  // What the house band played is known from its score.
  const score = wantsBeats ? scoreOf(bandPieceIn(await tagsOf(file), (1000 * frames) / LOUDNESS_RATE)) : null;
  const hearing = songHearing(wantsBeats, undefined, score);
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
