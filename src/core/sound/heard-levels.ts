import type { FactsById } from '../show/asset-facts';
import { CURVE_PER_SECOND, lufsOfPower } from './loudness';
import { powersOf } from './master-gain';
import type { MixPart } from './mix-plan';

export const LEVEL_POINT_MS = 1000 / CURVE_PER_SECOND;

/**
 * How loud a mix is in each half second, in LUFS, before the gain over all of it; −Infinity for silence.
 *
 * @returns null when nothing is known of one of its parts
 */
export function heardLevels(parts: readonly MixPart[], facts: FactsById, lengthMs: number): Float64Array | null {
  const powers = powersOf(parts, facts);
  if (!powers) return null;
  return Float64Array.from({ length: Math.ceil(lengthMs / LEVEL_POINT_MS) }, (_, at) => lufsOfPower(powers[at] ?? 0));
}
