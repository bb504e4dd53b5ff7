import { BAND_RATE } from './tone';

// Looked up once: these are asked for each pair and each sample.
const { exp, round } = Math;

/** Delays of the room's eight walls, in samples: primes, so that no echo stands out. */
const DELAYS = [1433, 1601, 1867, 2053, 2251, 2399, 2617, 2801];
const BEFORE = round(0.016 * BAND_RATE);

/** Each side hears the walls of the other a little, so that the room is left when left and right become one; the power stays. */
const [OWN, ACROSS] = [0.96, 0.28];

export interface Room {
  /** Adds the room's sound to both channels. */
  run(left: Float32Array, right: Float32Array, frames: number): void;
}

/** A room as a network of delays that feed each other (Jot and Chaigne 1991), what is high dying away sooner. */
export function createRoom(seconds: number, wet: number): Room {
  const lines = DELAYS.map((length) => new Float32Array(length));
  const at = new Int32Array(DELAYS.length);
  const gains = DELAYS.map((length) => 10 ** ((-3 * length) / (seconds * BAND_RATE)));
  const dull = new Float64Array(DELAYS.length);
  const before = [new Float32Array(BEFORE), new Float32Array(BEFORE)];
  const low = [0, 0];
  let beforeAt = 0;
  const out = new Float64Array(DELAYS.length);
  // The deepest sounds stay out of the room, where they would only be mud.
  const CUT = 1 - exp((-2 * Math.PI * 180) / BAND_RATE);
  const DULL = 1 - exp((-2 * Math.PI * 5200) / BAND_RATE);
  return {
    run(left, right, frames) {
      for (let frame = 0; frame < frames; frame += 1) {
        const [lateLeft, lateRight] = [before[0]![beforeAt]!, before[1]![beforeAt]!];
        before[0]![beforeAt] = left[frame]!;
        before[1]![beforeAt] = right[frame]!;
        beforeAt = beforeAt + 1 === BEFORE ? 0 : beforeAt + 1;
        low[0]! += CUT * (lateLeft - low[0]!);
        low[1]! += CUT * (lateRight - low[1]!);
        const [inLeft, inRight] = [lateLeft - low[0]!, lateRight - low[1]!];
        let sum = 0;
        for (let line = 0; line < 8; line += 1) {
          const value = lines[line]![at[line]!]! * gains[line]!;
          dull[line]! += DULL * (value - dull[line]!);
          out[line] = dull[line]!;
          sum += dull[line]!;
        }
        // A Householder matrix: each wall gets what it had, less a quarter of all.
        const shared = sum / 4;
        for (let line = 0; line < 8; line += 1) {
          const place = at[line]!;
          lines[line]![place] = out[line]! - shared + (line % 2 === 0 ? inLeft : inRight);
          at[line] = place + 1 === DELAYS[line]! ? 0 : place + 1;
        }
        const [lateOne, lateOther] = [out[0]! + out[2]! - out[4]! + out[6]!, out[1]! + out[3]! - out[5]! + out[7]!];
        left[frame] = left[frame]! + wet * (OWN * lateOne + ACROSS * lateOther);
        right[frame] = right[frame]! + wet * (OWN * lateOther + ACROSS * lateOne);
      }
    },
  };
}
