import type { AssetId } from '../show/ids';

/** Everything that sounds in a show, as plain data. The viewer performs it with Web Audio, the film with `mixBlock`. */
export interface MixPlan {
  readonly lengthMs: number;
  readonly parts: readonly MixPart[];
  /** Over all of it, before the limiter. */
  readonly masterGain: number;
}

export interface MixPart {
  readonly kind: 'music' | 'voice' | 'clip' | 'effect';
  readonly assetId: AssetId;
  /** When it starts in the show. */
  readonly startMs: number;
  readonly lengthMs: number;
  /** Where in the file it starts. */
  readonly fromMs: number;
  /** How much faster than recorded it is played; pitch goes with it. As recorded when it is not said. */
  readonly speed?: number;
  /** Sound time by show time, its pitch kept (`createStretcher`); 1 when it is not said. */
  readonly tempo?: number;
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
  let low = 0;
  let high = gains.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (gains[middle]!.atMs > momentMs) high = middle;
    else low = middle + 1;
  }
  const [before, after] = [gains[low - 1], gains[low]];
  if (!before) return after!.gain;
  if (!after) return before.gain;
  return before.gain + ((after.gain - before.gain) * (momentMs - before.atMs)) / (after.atMs - before.atMs);
}
