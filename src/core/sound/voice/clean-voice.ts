import type { Cleaning } from './cleaning';
import { lowCut } from './low-cut';
import { mendClicks } from './mend-clicks';
import { phrasesOf, trimmed, type Phrase } from './phrases';
import { noiseLearner, reduceNoise } from './reduce-noise';
import { shapedLevel, withGains } from './shape-level';
import { chain, type Stage } from './stage';
import { levelMeter } from './voice-levels';

/** What is known of a voice after it was cleaned. */
export interface CleanedVoice {
  /** What of it is worth hearing; null when nothing is said. */
  readonly trim: Phrase | null;
  readonly phrases: readonly Phrase[];
}

/** A recording is heard twice from its beginning, then turned up and down: three passes, of which none holds more than a moment of it. */
export interface VoiceCleaning {
  /** First pass: the recording as it came. */
  learn(samples: Float32Array): void;
  /** Second pass: the recording as it came; what is handed on goes into the third. */
  mend(): Stage;
  /** Third pass, once the second is through: what the second gave. */
  level(): (samples: Float32Array) => Float32Array;
  /** After the second pass. */
  outcome(): CleanedVoice;
}

/** Gentle noise reduction takes 6 dB, the strongest 30. */
const FLOOR_DB = { least: -6, most: -30 };

/**
 * Cleans one channel of speech: low cut, clicks, noise of the room, sentences to one loudness, syllables together, breaths down. Nothing is shifted or cut.
 *
 * @param rate samples a second; the windows are meant for 44,100 and 48,000
 */
export function voiceCleaning(rate: number, how: Cleaning): VoiceCleaning {
  const learner = noiseLearner();
  const firstly = how.lowCut ? lowCut(rate) : null;
  const meter = levelMeter(rate);
  let learnt = 0;
  let levels: ReturnType<typeof meter.finish> | null = null;
  const measured = () => (levels ??= meter.finish());
  const sampleOf = (ms: number) => Math.round((ms * rate) / 1000);
  return {
    learn(samples) {
      if (how.noise === undefined) return;
      const heard = firstly ? firstly.push(samples) : samples;
      const room = how.room && how.room.toMs > how.room.fromMs ? how.room : null;
      const [from, to] = room
        ? [sampleOf(room.fromMs), sampleOf(room.toMs)].map((at) => Math.max(0, Math.min(heard.length, at - learnt)))
        : [0, 0];
      learner.push(heard.subarray(0, from));
      learner.push(heard.subarray(from!, to), true);
      learner.push(heard.subarray(to));
      learnt += samples.length;
    },
    mend() {
      const stages: Stage[] = [];
      if (how.lowCut) stages.push(lowCut(rate));
      if (how.clicks) stages.push(mendClicks(rate));
      if (how.noise !== undefined)
        stages.push(reduceNoise(learner.finish(), FLOOR_DB.least + how.noise * (FLOOR_DB.most - FLOOR_DB.least)));
      const all = chain(stages);
      const measuredOnTheWay = (samples: Float32Array) => {
        meter.push(samples);
        return samples;
      };
      return {
        push: (samples) => measuredOnTheWay(all.push(samples)),
        finish: () => measuredOnTheWay(all.finish()),
      };
    },
    level: () => withGains(shapedLevel(measured(), how), rate),
    outcome() {
      const { rmsDb } = measured();
      const phrases = phrasesOf(rmsDb);
      return { phrases, trim: trimmed(phrases, rmsDb.length * 10) };
    },
  };
}
