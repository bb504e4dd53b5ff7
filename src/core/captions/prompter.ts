import { LEVEL_MS } from '../sound/voice/voice-levels';
import { lengthCost, pauseWorth } from './align';
import { lettersToSay } from './sentences';

/** Most people read aloud at about this speed; their own is learnt as they go. */
const USUAL_MS_A_LETTER = 68;
/** What is expected at first counts as so many letters heard. */
const EXPECTED_LETTERS = 60;
const SHORTEST_PAUSE_MS = 130;
const SHORTEST_PHRASE_MS = 70;
/** So many levels are looked at together. */
const AROUND = 5;
/** Sentences that begin without a pause before them. */
const WITHOUT_PAUSE_COSTS = 5;
/** What a pause is worth as an end of a sentence before it counts against going on, and what is missing to that counts against ending. */
const PASSED_FREE = 1.6;
const ENDS_FREE = 3;
/** A sentence has no more pauses in it. */
const MOST_PHRASES = 14;
/** Speech lies so far above the room at least, or this share of the way to the loudest. */
const ABOVE_ROOM_DB = 7;
const SHARE = 0.3;
/** The loudest fades by so much a second, so that a cough is forgotten. */
const FORGETS_DB = 0.6;

/** Follows somebody who reads a script aloud, by the pauses alone. */
export interface Prompter {
  /** Takes the level of the next `LEVEL_MS`. */
  hear(rmsDb: number): void;
  /** Which sentence is being said, or comes next in a pause. */
  now(): number;
  /** A person says where they are. */
  goTo(sentence: number): void;
}

/** @param roomDb how loud the room is when nobody speaks */
export function createPrompter(sentences: readonly string[], roomDb: number): Prompter {
  const letters = sentences.map(lettersToSay);
  let [loudest, atSteps, phraseFrom, lastLoud] = [roomDb + 20, 0, -1, -1];
  /** Where it was last said to be: sentences before it are done. */
  let first = 0;
  let msALetter = USUAL_MS_A_LETTER;
  /** Speech of finished phrases, in all, after each of them; the first is the beginning. */
  let said: number[] = [0];
  /** `costs[k][s]`: the best way to have said `s` sentences by the end of phrase `k`. */
  let costs: Float64Array[] = [beginning()];
  /** What pauses that were passed within sentences count, in all, as `said`. */
  let passed: number[] = [0];
  let current = 0;
  let recent: number[] = [];

  function beginning(): Float64Array {
    const start = new Float64Array(sentences.length + 1).fill(Infinity);
    start[first] = 0;
    return start;
  }

  const expectedMs = (sentence: number) => letters[sentence]! * msALetter;

  const passing = (pauseMs: number) => Math.max(0, pauseWorth(pauseMs) - PASSED_FREE);
  const ending = (pauseMs: number) => Math.max(0, ENDS_FREE - pauseWorth(pauseMs));

  function endPhrase(lengthMs: number, pauseMs: number): void {
    said.push(said.at(-1)! + lengthMs);
    const end = ending(pauseMs);
    const own = new Float64Array(sentences.length + 1).fill(Infinity);
    for (let from = Math.max(0, costs.length - MOST_PHRASES); from < costs.length; from += 1) {
      const saidMs = said.at(-1)! - said[from]!;
      const passedHere = passed.at(-1)! - passed[from]!;
      for (let sentence = first; sentence < sentences.length; sentence += 1) {
        const there = costs[from]![sentence]! + passedHere + end;
        if (there === Infinity) continue;
        own[sentence + 1] = Math.min(own[sentence + 1]!, there + lengthCost(saidMs, expectedMs(sentence)));
        // Two sentences in one breath.
        if (sentence + 2 <= sentences.length)
          own[sentence + 2] = Math.min(
            own[sentence + 2]!,
            there + lengthCost(saidMs, expectedMs(sentence) + expectedMs(sentence + 1)) + WITHOUT_PAUSE_COSTS,
          );
      }
    }
    costs.push(own);
    passed.push(passed.at(-1)! + passing(pauseMs));
  }

  function decide(openMs: number, pauseMs: number): void {
    let best = Infinity;
    let [done, doneSentences] = [0, first];
    const now = said.at(-1)! + openMs;
    for (let from = Math.max(0, costs.length - MOST_PHRASES); from < costs.length; from += 1)
      for (let sentence = first; sentence < sentences.length; sentence += 1) {
        const there = costs[from]![sentence]! + passed.at(-1)! - passed[from]!;
        if (there === Infinity) continue;
        const saidMs = now - said[from]!;
        const expected = expectedMs(sentence);
        const isOver = saidMs > expected;
        const goesOn = there + (isOver ? lengthCost(saidMs, expected) : 0) + (pauseMs > 0 ? passing(pauseMs) : 0);
        if (goesOn < best) [best, current, done, doneSentences] = [goesOn, sentence, from, sentence];
        const last = sentence + 1 >= sentences.length;
        if (last || (!isOver && pauseMs === 0)) continue;
        // In a pause that may end it, or run on into the next.
        const moves = there + (pauseMs > 0 ? lengthCost(saidMs, expected) + ending(pauseMs) : WITHOUT_PAUSE_COSTS);
        if (moves < best) [best, current, done, doneSentences] = [moves, sentence + 1, from, sentence];
      }
    const lettersSaid = letters.slice(first, doneSentences).reduce((sum, count) => sum + count, 0);
    if (lettersSaid > 0)
      msALetter = (said[done]! + USUAL_MS_A_LETTER * EXPECTED_LETTERS) / (lettersSaid + EXPECTED_LETTERS);
  }

  return {
    hear(level) {
      recent = [...recent, level].slice(-AROUND);
      // A click is no speech.
      const rmsDb = recent.toSorted((a, b) => a - b)[recent.length >> 1]!;
      loudest = Math.max(rmsDb, loudest - (FORGETS_DB * LEVEL_MS) / 1000, roomDb + 20);
      const least = Math.max(roomDb + ABOVE_ROOM_DB, roomDb + SHARE * (loudest - roomDb));
      atSteps += 1;
      if (rmsDb >= least) {
        if (phraseFrom < 0) phraseFrom = atSteps - 1;
        else if (lastLoud >= 0 && (atSteps - lastLoud) * LEVEL_MS > SHORTEST_PAUSE_MS) {
          const lengthMs = (lastLoud - phraseFrom) * LEVEL_MS;
          if (lengthMs >= SHORTEST_PHRASE_MS) endPhrase(lengthMs, (atSteps - lastLoud) * LEVEL_MS);
          phraseFrom = atSteps - 1;
        }
        lastLoud = atSteps;
      }
      if (phraseFrom < 0 || sentences.length === 0 || atSteps % 5 !== 0) return;
      const pauseMs = (atSteps - lastLoud) * LEVEL_MS;
      decide((lastLoud - phraseFrom) * LEVEL_MS, pauseMs > SHORTEST_PAUSE_MS ? pauseMs : 0);
    },
    now: () => current,
    goTo(sentence) {
      first = Math.max(0, Math.min(sentences.length - 1, sentence));
      current = first;
      said = [0];
      passed = [0];
      costs = [beginning()];
      [phraseFrom, lastLoud] = [-1, -1];
    },
  };
}
