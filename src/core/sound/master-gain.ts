import type { FactsById } from '../show/asset-facts';
import { USUAL_LOUDNESS, type LoudnessAim } from '../show/mix-said';
import { CURVE_PER_SECOND, gatedLufs, powerOfLufs } from './loudness';
import { gainAt, gainOfDb, type MixPart } from './mix-plan';

/** A whisper is not made into a shout, nor a roar into silence. */
const MOST_DB = 20;
const LEAST_DB = -59;
const POINT_MS = 1000 / CURVE_PER_SECOND;
/** Each stretch of a sound is weighed where its gain changes too. */
const WITHIN = [0.125, 0.375, 0.625, 0.875];

/**
 * What brings a mix to the loudness it is to have, worked out from how loud its parts are known to be, so that the viewer and the film need not hear all of it
 * first. Sounds that are there at once add by their powers.
 *
 * @returns 1 when it is to stay as it is, or nothing is known of one of the parts
 */
export function masterGain(parts: readonly MixPart[], facts: FactsById, aim: LoudnessAim = USUAL_LOUDNESS): number {
  if (aim === 'as-it-is' || parts.length === 0) return 1;
  const lufs = expectedLufs(parts, facts);
  if (lufs === null) return 1;
  return gainOfDb(Math.max(LEAST_DB, Math.min(MOST_DB, Number(aim) - lufs)));
}

/** @returns null when nothing is known of one of the parts, or all is silent */
export function expectedLufs(parts: readonly MixPart[], facts: FactsById): number | null {
  const powers = powersOf(parts, facts);
  return powers && gatedLufs([...powers]);
}

/** The power of a mix in each half second. @returns null when nothing is known of one of its parts */
export function powersOf(parts: readonly MixPart[], facts: FactsById): Float64Array | null {
  const endMs = parts.reduce((latest, part) => Math.max(latest, part.startMs + part.lengthMs), 0);
  const powers = new Float64Array(Math.ceil(endMs / POINT_MS));
  for (const part of parts) {
    const known = facts.get(part.assetId);
    const curve = known && known.kind !== 'picture' ? known.listening?.loudness.curve : undefined;
    if (!curve) return null;
    const partEndMs = part.startMs + part.lengthMs;
    for (let point = Math.floor(part.startMs / POINT_MS); point * POINT_MS < partEndMs; point += 1)
      for (const share of WITHIN) {
        const atMs = (point + share) * POINT_MS;
        if (atMs < part.startMs || atMs >= partEndMs) continue;
        const tenths =
          curve[Math.floor((part.fromMs + (atMs - part.startMs) * (part.speed ?? part.tempo ?? 1)) / POINT_MS)];
        if (tenths === undefined) continue;
        powers[point]! += (powerOfLufs(tenths / 10) * gainAt(part.gains, atMs) ** 2) / WITHIN.length;
      }
  }
  return powers;
}
