import { joined, NOTHING, type Stage } from './stage';

const { abs, floor, max, min, round } = Math;

/** Prediction of each sample from so many before it. */
const ORDER = 24;
/** Samples worked on at once, and how many of those before and after are seen with them. */
const BLOCK = 4096;
const MARGIN = 512;
/** A click is so many times larger than what cannot be predicted otherwise, taken over stretches of this many samples and as many of them around. */
const TIMES = 16;
const STEP = 64;
const REACH = 8;
const LEAST_SIZE = 1e-6;
/** Speech itself has such moments where the voice begins; they last longer than a click. */
const LONGEST_MS = 1.2;
/** Samples mended beyond what was found at either side. */
const AROUND = 3;

/**
 * Finds samples that cannot be predicted from those before them and fills them anew with what the model of the sound around them would have them be: the
 * least-squares interpolation of autoregressive signals (Janssen, Veldhuis, Vries 1986, “Adaptive interpolation of discrete-time signals that can be
 * modeled as autoregressive processes”), one pass.
 */
export function mendClicks(rate: number): Stage {
  const longest = round((LONGEST_MS * rate) / 1000);
  /** The last `MARGIN` samples done, as mended. */
  let before: Float32Array = new Float32Array(MARGIN);
  let waiting: Float32Array = NOTHING;
  const work = (block: Float32Array, after: Float32Array): Float32Array => {
    const all = joined(before, block, after);
    mendIn(all, MARGIN, MARGIN + block.length, longest);
    const done = all.slice(MARGIN, MARGIN + block.length);
    before = all.slice(block.length, block.length + MARGIN);
    return done;
  };
  return {
    push(samples) {
      waiting = joined(waiting, samples);
      const done: Float32Array[] = [];
      while (waiting.length >= BLOCK + MARGIN) {
        done.push(work(waiting.subarray(0, BLOCK), waiting.subarray(BLOCK, BLOCK + MARGIN)));
        waiting = waiting.slice(BLOCK);
      }
      return joined(...done);
    },
    finish() {
      const rest = waiting.length > 0 ? work(waiting, new Float32Array(MARGIN)) : NOTHING;
      waiting = NOTHING;
      return rest;
    },
  };
}

/** Mends what lies in `[from, to)`. */
function mendIn(samples: Float32Array, from: number, to: number, longest: number): void {
  const model = autoregression(samples);
  if (!model) return;
  const surprise = surprises(samples, model);
  const usual = usualSizes(surprise);
  const leastAt = (at: number) => TIMES * max(LEAST_SIZE, usual[floor(at / STEP)]!);
  let at = from;
  while (at < to) {
    const least = leastAt(at);
    if (abs(surprise[at]!) <= least) {
      at += 1;
      continue;
    }
    let last = at;
    // Quieter samples within it belong to it.
    for (let next = at + 1; next < min(samples.length - ORDER, at + longest + 12); next += 1)
      if (abs(surprise[next]!) > least / 3) last = next;
      else if (next - last > 10) break;
    if (last - at < longest) fill(samples, model, at - AROUND, last + AROUND + 1);
    at = last + 1;
  }
}

/** Coefficients by which a sample follows from those before it (Burg 1967), or null for silence. */
function autoregression(samples: Float32Array): Float64Array | null {
  const count = samples.length;
  const forward = Float64Array.from(samples);
  const backward = Float64Array.from(samples);
  let coefficients = new Float64Array(ORDER + 1);
  coefficients[0] = 1;
  let energy = 0;
  for (const sample of samples) energy += sample * sample;
  if (energy < 1e-9 * count) return null;
  for (let order = 1; order <= ORDER; order += 1) {
    let top = 0;
    let bottom = 0;
    for (let at = order; at < count; at += 1) {
      const f = forward[at]!;
      const b = backward[at - 1]!;
      top += f * b;
      bottom += f * f + b * b;
    }
    const reflection = bottom > 0 ? (-2 * top) / bottom : 0;
    const next = Float64Array.from(coefficients);
    for (let at = 1; at <= order; at += 1) next[at] = coefficients[at]! + reflection * coefficients[order - at]!;
    coefficients = next;
    for (let at = count - 1; at >= order; at -= 1) {
      const f = forward[at]!;
      const b = backward[at - 1]!;
      forward[at] = f + reflection * b;
      backward[at] = b + reflection * f;
    }
  }
  return coefficients;
}

function surprises(samples: Float32Array, model: Float64Array): Float32Array {
  const out = new Float32Array(samples.length);
  for (let at = ORDER; at < samples.length; at += 1) {
    let sum = 0;
    for (let back = 0; back <= ORDER; back += 1) sum += model[back]! * samples[at - back]!;
    out[at] = sum;
  }
  return out;
}

/** How large surprises usually are around each stretch of `STEP` samples: clicks in loud syllables must be larger than those in pauses. */
function usualSizes(surprise: Float32Array): Float32Array {
  const count = Math.ceil(surprise.length / STEP);
  const means = new Float32Array(count);
  for (let step = 0; step < count; step += 1) {
    const end = min(surprise.length, (step + 1) * STEP);
    let sum = 0;
    for (let at = step * STEP; at < end; at += 1) sum += abs(surprise[at]!);
    means[step] = sum / (end - step * STEP);
  }
  const usual = new Float32Array(count);
  for (let step = 0; step < count; step += 1) {
    const around = means.slice(max(0, step - REACH), step + REACH + 1).sort();
    usual[step] = around[around.length >> 1]!;
  }
  return usual;
}

/** Fills `[from, to)` so that what cannot be predicted becomes as small as it can be. */
function fill(samples: Float32Array, model: Float64Array, from: number, to: number): void {
  const count = to - from;
  if (from < ORDER || to + ORDER > samples.length) return;
  const matrix = Array.from({ length: count }, () => new Float64Array(count));
  const right = new Float64Array(count);
  // With A the matrix of the model and A = [known, unknown]: (Aᵤ’Aᵤ) u = −Aᵤ’ A_k k.
  const share = new Float64Array(2 * ORDER + 1);
  for (let lag = 0; lag <= ORDER; lag += 1) {
    let sum = 0;
    for (let at = 0; at + lag <= ORDER; at += 1) sum += model[at]! * model[at + lag]!;
    share[ORDER + lag] = sum;
    share[ORDER - lag] = sum;
  }
  for (let row = 0; row < count; row += 1) {
    for (let lag = -ORDER; lag <= ORDER; lag += 1) {
      const column = row + lag;
      const weight = share[ORDER + lag]!;
      if (column >= 0 && column < count) matrix[row]![column] = weight;
      else right[row] = right[row]! - weight * samples[from + column]!;
    }
  }
  const solved = solve(matrix, right);
  if (solved.every(Number.isFinite)) samples.set(Float32Array.from(solved), from);
}

/** By elimination; the matrix is symmetric and positive. */
function solve(matrix: readonly Float64Array[], right: Float64Array): Float64Array {
  const count = right.length;
  for (let pivot = 0; pivot < count; pivot += 1)
    for (let row = pivot + 1; row < count; row += 1) {
      const factor = matrix[row]![pivot]! / matrix[pivot]![pivot]!;
      if (factor === 0) continue;
      for (let column = pivot; column < count; column += 1)
        matrix[row]![column] = matrix[row]![column]! - factor * matrix[pivot]![column]!;
      right[row] = right[row]! - factor * right[pivot]!;
    }
  for (let row = count - 1; row >= 0; row -= 1) {
    let sum = right[row]!;
    for (let column = row + 1; column < count; column += 1) sum -= matrix[row]![column]! * right[column]!;
    right[row] = sum / matrix[row]![row]!;
  }
  return right;
}
