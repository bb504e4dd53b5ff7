import type { Phrase } from '../sound/voice/phrases';
import { lettersToSay } from './sentences';

/** Sentences are said within about this of the length that their letters let expect, and so much besides. */
const SPREAD = 0.16;
const SPREAD_MS = 160;
/** A pause of this length is as good as certain to end a sentence or a part of one. */
const LONG_PAUSE_MS = 420;
const PAUSE_WORTH = 5;
/** Two sentences may be said in one breath. */
const WITHOUT_PAUSE_COSTS = 7;
const GRID_MS = 200;
/** How far from where it is expected an end is looked for: a share of what is said in all, and so much at least. */
const FAR = 0.25;
const FAR_MS = 4000;

interface EndPlace {
  /** Speech said before it, pauses left out. */
  readonly saidMs: number;
  /** Where what comes before it ends and what comes after it begins. */
  readonly endMs: number;
  readonly startMs: number;
  /** What ending a sentence here is worth; below 0 within a phrase. */
  readonly worth: number;
}

/**
 * When each sentence of a script is said: ends of sentences are laid into the pauses so that each lasts about as long as its letters let expect and long pauses
 * end sentences, the best of all ways found by dynamic programming.
 *
 * @param sentences in the order in which they are said
 * @returns one for each sentence; null where nothing is said
 */
export function sentenceTimes(sentences: readonly string[], phrases: readonly Phrase[]): Phrase[] | null {
  if (sentences.length === 0 || phrases.length === 0) return null;
  const letters = sentences.map(lettersToSay);
  const places = endPlaces(phrases);
  const saidMs = places.at(-1)!.saidMs;
  const msALetter = saidMs / letters.reduce((sum, count) => sum + count, 0);
  const ends = bestEnds(
    letters.map((count) => count * msALetter),
    places,
    saidMs,
  );
  return ends.map((end, index) => ({
    fromMs: index === 0 ? phrases[0]!.fromMs : places[ends[index - 1]!]!.startMs,
    toMs: places[end]!.endMs,
  }));
}

/** Where a sentence may end, in order; the last is the end of all. */
function endPlaces(phrases: readonly Phrase[]): EndPlace[] {
  const places: EndPlace[] = [];
  let saidMs = 0;
  phrases.forEach((phrase, index) => {
    const lengthMs = phrase.toMs - phrase.fromMs;
    for (let into = GRID_MS; into < lengthMs - GRID_MS / 2; into += GRID_MS) {
      const atMs = phrase.fromMs + into;
      places.push({ saidMs: saidMs + into, endMs: atMs, startMs: atMs, worth: -WITHOUT_PAUSE_COSTS });
    }
    saidMs += lengthMs;
    const next = phrases[index + 1];
    const pauseMs = next ? next.fromMs - phrase.toMs : LONG_PAUSE_MS;
    places.push({
      saidMs,
      endMs: phrase.toMs,
      startMs: next?.fromMs ?? phrase.toMs,
      worth: pauseWorth(pauseMs),
    });
  });
  return places;
}

export function pauseWorth(pauseMs: number): number {
  return PAUSE_WORTH * Math.min(1.4, pauseMs / LONG_PAUSE_MS);
}

export function lengthCost(saidMs: number, expectedMs: number): number {
  const off = (saidMs - expectedMs) / (SPREAD * expectedMs + SPREAD_MS);
  return 0.5 * off * off;
}

/** The index of the place where each sentence ends. */
function bestEnds(expected: readonly number[], places: readonly EndPlace[], saidMs: number): number[] {
  const count = places.length;
  const farMs = Math.max(FAR_MS, FAR * saidMs);
  let costs = new Float64Array(count).fill(Infinity);
  const cameFrom: Int32Array[] = [];
  let untilMs = 0;
  expected.forEach((lengthMs, sentence) => {
    untilMs += lengthMs;
    const next = new Float64Array(count).fill(Infinity);
    const from = new Int32Array(count).fill(-1);
    const isLast = sentence === expected.length - 1;
    for (let end = isLast ? count - 1 : 0; end < count; end += 1) {
      const place = places[end]!;
      if (!isLast && Math.abs(place.saidMs - untilMs) > farMs) continue;
      if (sentence === 0) {
        next[end] = lengthCost(place.saidMs, lengthMs) - place.worth;
        continue;
      }
      for (let start = end - 1; start >= 0; start -= 1) {
        const ownMs = place.saidMs - places[start]!.saidMs;
        if (ownMs > 3 * lengthMs + 3000 && !isLast) break;
        const cost = costs[start]! + lengthCost(ownMs, lengthMs) - place.worth;
        if (cost < next[end]!) {
          next[end] = cost;
          from[end] = start;
        }
      }
    }
    costs = next;
    cameFrom.push(from);
  });
  if (!Number.isFinite(costs[count - 1]!)) return inProportion(expected, places, saidMs);
  const ends: number[] = [];
  for (let [sentence, end] = [expected.length - 1, count - 1]; sentence >= 0; sentence -= 1) {
    ends.unshift(end);
    end = cameFrom[sentence]![end]!;
  }
  return ends;
}

/** More sentences than places between them: each as long as its letters. */
function inProportion(expected: readonly number[], places: readonly EndPlace[], saidMs: number): number[] {
  let untilMs = 0;
  return expected.map((lengthMs) => {
    untilMs += lengthMs;
    const at = places.findIndex((place) => place.saidMs >= Math.min(saidMs, untilMs) - 1);
    return at < 0 ? places.length - 1 : at;
  });
}
