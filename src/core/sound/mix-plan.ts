import type { AssetId } from '../show/ids';

/** Everything that sounds in a show, as plain data. The viewer performs it with Web Audio, the film with `mixBlock`. */
export interface MixPlan {
  readonly lengthMs: number;
  readonly parts: readonly MixPart[];
}

export interface MixPart {
  readonly kind: 'music' | 'voice' | 'clip' | 'effect';
  readonly assetId: AssetId;
  /** When it starts in the show. */
  readonly startMs: number;
  readonly lengthMs: number;
  /** Where in the file it starts. */
  readonly fromMs: number;
  /** Strictly rising in `atMs` (show time); straight lines between, held outside. */
  readonly gains: readonly GainPoint[];
}

export interface GainPoint {
  readonly atMs: number;
  /** Linear, 0 is silence, 1 is as recorded. */
  readonly gain: number;
}

export const MIX_SAMPLE_RATE = 48_000;

/** Silence at −60 dB and below, so that a fader has a real bottom. */
export function gainOfDb(db: number): number {
  return db <= -60 ? 0 : 10 ** (db / 20);
}

/** The gain at a moment. @param gains at least one point */
export function gainAt(gains: readonly GainPoint[], momentMs: number): number {
  if (gains.length === 0) throw new RangeError('gains must hold at least one point');
  let before = gains[0]!;
  for (const point of gains) {
    if (point.atMs > momentMs) {
      if (point === before) return point.gain;
      return before.gain + ((point.gain - before.gain) * (momentMs - before.atMs)) / (point.atMs - before.atMs);
    }
    before = point;
  }
  return before.gain;
}
