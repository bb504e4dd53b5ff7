import type { FactsById } from '../show/asset-facts';
import type { PlacedSound } from '../show/placed-sound';
import type { Joints } from './listening/joints';
import { soundLengthMs } from './sound-length';
import type { SoundSpan } from './sound-spans';
import { tailorSong, type TailoredSong } from './tailor/tailor-song';

/** One time through a sound: `[fromMs, toMs)` of its file, from `startMs` of the show on. */
export interface SoundRun {
  readonly startMs: number;
  readonly fromMs: number;
  readonly toMs: number;
  /** How much faster than recorded. */
  readonly speed: number;
}

/** Where in its file a run is at a moment of the show. */
export function fileMomentOf({ startMs, fromMs, speed }: SoundRun, momentMs: number): number {
  return fromMs + (momentMs - startMs) * speed;
}

/** When in the show a moment of the file is heard in a run. */
export function showMomentOf({ startMs, fromMs, speed }: SoundRun, fileMs: number): number {
  return startMs + (fileMs - fromMs) / speed;
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

/** Whether it is made as long as there is room for it: its end is tied to something, and it is known where it can be joined. */
export function isTailored(sound: PlacedSound, facts: FactsById): boolean {
  return sound.tailored !== undefined && sound.ends.at !== 'own-end' && jointsOf(sound, facts) !== undefined;
}

function jointsOf(sound: PlacedSound, facts: FactsById): Joints | undefined {
  const known = facts.get(sound.assetId);
  return known?.kind === 'sound' ? known.listening?.joints : undefined;
}

/** How a song is tailored to its span; null when it is not, or cannot be. */
export function tailoringOf({ sound, startMs, endMs }: SoundSpan, facts: FactsById): TailoredSong | null {
  if (!isTailored(sound, facts)) return null;
  const used = { fromMs: sound.trimStartMs, toMs: endInFileMs(sound, facts) };
  return tailorSong(jointsOf(sound, facts)!, used, endMs - startMs, sound.tailored);
}

/** Whether it begins again when it is through. */
export function doesLoop(sound: PlacedSound, facts: FactsById): boolean {
  return sound.loops === true && sound.tailored === undefined && onceThroughMs(sound, facts) >= SHORTEST_LOOP_MS;
}

/** The stretches of a sound's file that are heard within its span: one, several when it loops, those between its joins when it is tailored. */
export function pieceRuns(span: SoundSpan, facts: FactsById): SoundRun[] {
  const { sound, startMs, endMs } = span;
  const tailored = tailoringOf(span, facts);
  if (tailored) {
    let from = startMs;
    return tailored.pieces.map((piece) => {
      const run = { startMs: from, ...piece, speed: tailored.speed };
      from += (piece.toMs - piece.fromMs) / tailored.speed;
      return run;
    });
  }
  const onceMs = onceThroughMs(sound, facts);
  const count = doesLoop(sound, facts) ? Math.ceil((endMs - startMs) / onceMs) : 1;
  return Array.from({ length: count }, (_, time) => {
    const from = startMs + time * onceMs;
    return {
      startMs: from,
      fromMs: sound.trimStartMs,
      toMs: sound.trimStartMs + Math.min(onceMs, endMs - from),
      speed: 1,
    };
  });
}
