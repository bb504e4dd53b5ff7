/** What a clip may be slowed down or quickened to and still be heard. */
export const SLOWEST_HEARD = 0.25;
export const FASTEST_HEARD = 4;

/** One window; half of it is new with each step. About 43 ms: two periods of a low voice. */
const WINDOW = 2048;
const STEP = WINDOW / 2;
/** So far around its place a window is looked for that goes on from the one before; more than half a period of a low voice. */
const REACH = 576;
/** Looked for at every fourth place by every fourth sample first, then at each around the best. */
const COARSE = 4;

const { cos, floor, max, min, PI, round, sqrt } = Math;
const RISE = Float32Array.from({ length: STEP }, (_, at) => 0.5 - 0.5 * cos((PI * (at + 0.5)) / STEP));

/** What is added beyond a stretch's end, so that its last windows have what they look at, in milliseconds. */
export const STRETCH_TAIL_MS = 200;

/** Sound at another speed and its own pitch, as it comes in. Stereo, interleaved, 48 kHz. */
export interface Stretcher {
  add(samples: Float32Array): void;
  /** Nothing more comes. */
  end(): void;
  /** What is ready of the next so many pairs; fewer only while more must be added, or at the end. */
  take(pairCount: number): Float32Array;
}

/**
 * By waveform similarity (WSOLA; Verhelst and Roelands 1993): windows of the sound are laid over one another by halves at an even pace, each taken from about
 * where the speed wants it, at the place that goes on most alike (normalised correlation of both sides together) from the window before. What comes out does not
 * depend on the pieces in which it was added or taken.
 *
 * @param rate sound time by show time, 0.25…4
 * @throws {RangeError} on a rate outside
 */
export function createStretcher(rate: number): Stretcher {
  if (!(rate >= SLOWEST_HEARD && rate <= FASTEST_HEARD))
    throw new RangeError(`a sound is stretched by ${SLOWEST_HEARD} to ${FASTEST_HEARD}, not by ${rate}`);
  /** Pairs from `heldFrom` on, and their sums. */
  let held: Float32Array = new Float32Array(0);
  let mono: Float32Array = new Float32Array(0);
  let heldFrom = 0;
  let total = 0;
  let ended = false;
  let step = 0;
  /** Where the last window was taken from. */
  let lastAt = 0;
  const ready: Float32Array[] = [];
  let readyPairs = 0;
  let given = 0;

  return {
    add(samples) {
      const pairs = samples.length >> 1;
      held = joined(held, samples.subarray(0, 2 * pairs));
      const sums = new Float32Array(pairs);
      for (let at = 0; at < pairs; at += 1) sums[at] = samples[2 * at]! + samples[2 * at + 1]!;
      mono = joined(mono, sums);
      total += pairs;
    },
    end() {
      ended = true;
    },
    take(pairCount) {
      const wanted = min(pairCount, max(0, (ended ? round(total / rate) : floor(total / rate)) - given));
      while (readyPairs < wanted && (ended || reaches())) lay();
      const out = new Float32Array(2 * min(wanted, readyPairs));
      let filled = 0;
      while (filled < out.length) {
        const first = ready[0]!;
        const part = first.subarray(0, min(first.length, out.length - filled));
        out.set(part, filled);
        filled += part.length;
        if (part.length === first.length) ready.shift();
        else ready[0] = first.subarray(part.length);
      }
      readyPairs -= out.length / 2;
      given += out.length / 2;
      return out;
    },
  };

  /** Whether all that the next step could look at is there. */
  function reaches(): boolean {
    const furthest = max(placeOf(step) + REACH, lastAt + STEP) + WINDOW;
    return furthest <= total;
  }

  function placeOf(index: number): number {
    return round(index * STEP * rate);
  }

  /** Lays one more window: its first half over the second of the one before. */
  function lay(): void {
    const goesOn = lastAt + STEP;
    const at = step === 0 ? 0 : likest(goesOn, placeOf(step));
    const out = new Float32Array(2 * STEP);
    for (let i = 0; i < STEP; i += 1) {
      const rise = RISE[i]!;
      const [to, now, before] = [2 * i, at + i, goesOn + i];
      if (step === 0) {
        out[to] = sample(2 * now);
        out[to + 1] = sample(2 * now + 1);
      } else {
        out[to] = rise * sample(2 * now) + (1 - rise) * sample(2 * before);
        out[to + 1] = rise * sample(2 * now + 1) + (1 - rise) * sample(2 * before + 1);
      }
    }
    ready.push(out);
    readyPairs += STEP;
    lastAt = at;
    step += 1;
    forget(min(lastAt + STEP, placeOf(step) - REACH));
  }

  function sample(index: number): number {
    return held[index - 2 * heldFrom] ?? 0;
  }

  /** The place around `wanted` at which the sound is most like what follows from `goesOn` on. */
  function likest(goesOn: number, wanted: number): number {
    const from = max(0, wanted - REACH);
    const to = max(from, wanted + REACH);
    // Going on where it went on is as like as can be.
    if (rate === 1) return goesOn;
    // In silence every place is as good: then the one that is wanted.
    let [best, bestAt] = [likeness(goesOn, wanted, COARSE) + 1e-6, wanted];
    const weigh = (at: number, stride: number) => {
      const like = likeness(goesOn, at, stride);
      if (like > best) [best, bestAt] = [like, at];
    };
    for (let at = from; at <= to; at += COARSE) weigh(at, COARSE);
    const around = bestAt;
    best = likeness(goesOn, around, 2);
    for (let at = max(from, around - COARSE + 1); at < min(to + 1, around + COARSE); at += 1) weigh(at, 2);
    return bestAt;
  }

  /** −1…1 over the half that will lie over each other; 0 for silence. */
  function likeness(one: number, other: number, stride: number): number {
    const [a, b] = [one - heldFrom, other - heldFrom];
    const last = min(STEP, mono.length - max(a, b));
    let [both, ones, others] = [0, 0, 0];
    for (let i = 0; i < last; i += stride) {
      const [x, y] = [mono[a + i]!, mono[b + i]!];
      both += x * y;
      ones += x * x;
      others += y * y;
    }
    const power = sqrt(ones * others);
    return power > 1e-12 ? both / power : 0;
  }

  /** What lies before is never looked at again. */
  function forget(before: number): void {
    const gone = floor(min(before, total)) - heldFrom;
    // Seldom, since what stays is moved.
    if (gone < 16 * WINDOW) return;
    held = held.slice(2 * gone);
    mono = mono.slice(gone);
    heldFrom += gone;
  }
}

function joined(one: Float32Array, other: Float32Array): Float32Array {
  if (one.length === 0) return Float32Array.from(other);
  const both = new Float32Array(one.length + other.length);
  both.set(one);
  both.set(other, one.length);
  return both;
}
