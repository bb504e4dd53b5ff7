import type { FactsById } from '../show/asset-facts';
import type { PlacedSound } from '../show/placed-sound';
import { soundLengthMs } from './sound-length';
import type { SoundSpan } from './sound-spans';

/** One time through a sound: `[fromMs, toMs)` of its file, from `startMs` of the show on. */
export interface SoundRun {
  readonly startMs: number;
  readonly fromMs: number;
  readonly toMs: number;
}

/** A loop shorter than this would be a buzz; it plays once. */
const SHORTEST_LOOP_MS = 500;

/** How much of its file a sound plays at most, once through. */
export function onceThroughMs(sound: PlacedSound, facts: FactsById): number {
  return Math.max(0, endInFileMs(sound, facts) - sound.trimStartMs);
}

function endInFileMs(sound: PlacedSound, facts: FactsById): number {
  return Math.min(sound.trimEndMs ?? Infinity, soundLengthMs(facts.get(sound.assetId)));
}

/** Whether it begins again when it is through. */
export function doesLoop(sound: PlacedSound, facts: FactsById): boolean {
  return sound.loops === true && onceThroughMs(sound, facts) >= SHORTEST_LOOP_MS;
}

/** The times through a sound's file within its span: one, or several when it loops. */
export function pieceRuns({ sound, startMs, endMs }: SoundSpan, facts: FactsById): SoundRun[] {
  const onceMs = onceThroughMs(sound, facts);
  const count = doesLoop(sound, facts) ? Math.ceil((endMs - startMs) / onceMs) : 1;
  return Array.from({ length: count }, (_, time) => {
    const from = startMs + time * onceMs;
    return {
      startMs: from,
      fromMs: sound.trimStartMs,
      toMs: sound.trimStartMs + Math.min(onceMs, endMs - from),
    };
  });
}
