import { lufsOfPower } from '../loudness';
import type { Cleaning } from './cleaning';
import { phrasesOf, type Phrase } from './phrases';
import { decibels, LEVEL_MS, type VoiceLevels } from './voice-levels';

const { max, min, abs, round } = Math;

/** How loud a cleaned voice is, heard from both sides. */
const AIM_LUFS = -19;
/** A stretch of speech is what lies between pauses of this length: a sentence, or part of a long one. */
const BETWEEN_MS = 240;
/** Shorter stretches are too short to be measured by themselves. */
const SHORTEST_MS = 500;
const MOST_UP_DB = 20;
const MOST_DOWN_DB = 20;
/** Syllables above this, against their own sentence, are pressed; those this far below are left. */
const PRESS_ABOVE_DB = -4;
const RATIO = 3;
/** What is pressed goes down in about this time and comes back in that, in steps of `LEVEL_MS`. */
const DOWN = 0.6;
const UP = 0.12;
/** Breaths lie this far from words, and so far below them. */
const BREATH_AWAY_MS = 50;
const BREATH_BELOW_DB = 12;
const BREATHS_DB = 18;
const LARGEST_PEAK_DB = -1.2;

/**
 * By how much a voice is turned up or down, in dB, once in `LEVEL_MS`: sentences to one loudness (gated as in ITU-R BS.1770), syllables together, breaths down.
 */
export function shapedLevel(levels: VoiceLevels, how: Cleaning): Float32Array {
  const count = levels.rmsDb.length;
  const gains = new Float32Array(count);
  const phrases = phrasesOf(levels.rmsDb);
  const stretches = stretchesOf(phrases, count);
  if (stretches.length === 0) return gains;
  const loudness = stretches.map((stretch) => loudnessOf(levels.weighted, gains, stretch));
  if (how.press) press(gains, levels, stretches, loudness, how.press);
  const level = (aims: (index: number) => number) => {
    const by = stretches.map((stretch, index) => aims(index) - loudnessOf(levels.weighted, gains, stretch));
    raise(
      gains,
      stretches,
      by.map((db) => max(-MOST_DOWN_DB, min(MOST_UP_DB, db))),
    );
  };
  // Pressing takes loudness away: it is given back, to each sentence its own or to all the same.
  if (how.even) level(() => AIM_LUFS);
  else if (how.press) level((index) => loudness[index]!);
  if (how.breaths) softenBreaths(gains, levels, phrases, how.breaths);
  for (let at = 0; at < count; at += 1) gains[at] = min(gains[at]!, LARGEST_PEAK_DB - decibels(levels.peak[at]!));
  return gains;
}

interface Steps {
  readonly from: number;
  readonly to: number;
}

function stretchesOf(phrases: readonly Phrase[], count: number): Steps[] {
  const joined: { from: number; to: number }[] = [];
  for (const { fromMs, toMs } of phrases) {
    const [from, to] = [round(fromMs / LEVEL_MS), min(count, round(toMs / LEVEL_MS))];
    const last = joined.at(-1);
    if (last && (from - last.to) * LEVEL_MS < BETWEEN_MS) last.to = to;
    else joined.push({ from, to });
  }
  const isShort = ({ from, to }: Steps) => (to - from) * LEVEL_MS < SHORTEST_MS;
  // What is too short to be measured goes with what is nearer to it.
  for (let at = joined.findIndex(isShort); at >= 0 && joined.length > 1; at = joined.findIndex(isShort)) {
    const [before, own, after] = [joined[at - 1], joined[at]!, joined[at + 1]];
    const withBefore = before && (!after || own.from - before.to <= after.from - own.to);
    joined.splice(withBefore ? at - 1 : at, 2, {
      from: (withBefore ? before : own).from,
      to: (withBefore ? own : after!).to,
    });
  }
  return joined;
}

/** Gated: what is 10 LU below the rest does not count. Both channels carry the voice. */
function loudnessOf(weighted: Float32Array, gains: Float32Array, { from, to }: Steps): number {
  const powers: number[] = [];
  // Blocks of 400 ms, as the standard has them, or what there is.
  const block = min(40, to - from);
  let sum = 0;
  for (let at = from; at < to; at += 1) {
    const power = (step: number) => 2 * weighted[step]! * 10 ** (gains[step]! / 10);
    sum += power(at);
    if (at - from >= block) sum -= power(at - block);
    if (at - from + 1 >= block) powers.push(sum / block);
  }
  const gated = (least: number) => {
    const counted = powers.filter((power) => lufsOfPower(power) > least);
    return counted.length === 0 ? 0 : counted.reduce((all, power) => all + power, 0) / counted.length;
  };
  return lufsOfPower(gated(lufsOfPower(gated(-70)) - 10));
}

/** Gains between sentences go evenly from the one to the other. */
function raise(gains: Float32Array, stretches: readonly Steps[], by: readonly number[]): void {
  stretches.forEach(({ from, to }, index) => {
    const start = index === 0 ? 0 : from;
    const end = index === stretches.length - 1 ? gains.length : to;
    for (let at = start; at < end; at += 1) gains[at] = gains[at]! + by[index]!;
    const next = stretches[index + 1];
    if (!next) return;
    for (let at = to; at < next.from; at += 1) {
      const share = (at - to + 1) / (next.from - to + 1);
      gains[at] = gains[at]! + by[index]! * (1 - share) + by[index + 1]! * share;
    }
  });
}

/** Against the sentence’s own loudness, so that pressing does not depend on how far the microphone was. */
function press(
  gains: Float32Array,
  { rmsDb }: VoiceLevels,
  stretches: readonly Steps[],
  loudness: readonly number[],
  amount: number,
): void {
  const ratio = 1 + amount * (RATIO - 1);
  stretches.forEach(({ from, to }, index) => {
    let gain = 0;
    for (let at = from; at < to; at += 1) {
      const over = rmsDb[at]! - (loudness[index]! - 3) - PRESS_ABOVE_DB;
      const wanted = over > 0 ? -over * (1 - 1 / ratio) : 0;
      gain += (wanted - gain) * (wanted < gain ? DOWN : UP);
      gains[at] = gains[at]! + gain;
    }
  });
}

function softenBreaths(gains: Float32Array, { rmsDb }: VoiceLevels, phrases: readonly Phrase[], amount: number): void {
  const away = BREATH_AWAY_MS / LEVEL_MS;
  const down = new Float32Array(gains.length);
  let beforeTo = 0;
  const within = (from: number, to: number) => {
    for (let at = from; at < to; at += 1) down[at] = -amount * BREATHS_DB;
  };
  const speech = speechLevel(rmsDb, phrases);
  const words = phrases.filter(({ fromMs, toMs }) => loudest(rmsDb, fromMs, toMs) > speech - BREATH_BELOW_DB);
  for (const { fromMs, toMs } of words) {
    within(beforeTo, round(fromMs / LEVEL_MS) - away);
    beforeTo = round(toMs / LEVEL_MS) + away;
  }
  within(beforeTo, gains.length);
  // Over a few steps, so that nothing is heard to open and close.
  let eased = down[0] ?? 0;
  for (let at = 0; at < gains.length; at += 1) {
    eased += (down[at]! - eased) * (down[at]! > eased ? 0.7 : 0.15);
    gains[at] = gains[at]! + eased;
  }
}

function speechLevel(rmsDb: Float32Array, phrases: readonly Phrase[]): number {
  const tops = phrases.map(({ fromMs, toMs }) => loudest(rmsDb, fromMs, toMs)).toSorted((a, b) => a - b);
  return tops[tops.length >> 1] ?? 0;
}

function loudest(rmsDb: Float32Array, fromMs: number, toMs: number): number {
  let largest = -200;
  for (let at = round(fromMs / LEVEL_MS); at < min(rmsDb.length, round(toMs / LEVEL_MS)); at += 1)
    largest = max(largest, rmsDb[at]!);
  return largest;
}

/** Turns samples up and down along gains that stand once in `LEVEL_MS`, with straight lines between. */
export function withGains(gainsDb: Float32Array, rate: number): (samples: Float32Array) => Float32Array {
  const step = round((rate * LEVEL_MS) / 1000);
  let index = 0;
  const gainAt = (at: number) => 10 ** (gainsDb[max(0, min(gainsDb.length - 1, at))]! / 20);
  let [segment, left, right] = [-1, 1, 1];
  return (samples) => {
    const out = new Float32Array(samples.length);
    for (let at = 0; at < samples.length; at += 1, index += 1) {
      const position = index / step - 0.5;
      const now = Math.floor(position);
      if (now !== segment) [segment, left, right] = [now, gainAt(now), gainAt(now + 1)];
      out[at] = samples[at]! * (left + (right - left) * abs(position - now));
    }
    return out;
  };
}
