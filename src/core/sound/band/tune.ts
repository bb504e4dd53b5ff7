import { classOver, scaleOver, type Chord, type Mode, type PlacedChord } from './harmony';
import { RHYTHMS, type Rhythms } from './rhythms';
import type { Dealer } from './dealing';
import type { BandStyle } from './band-style';

// Looked up once: these are asked for each pair and each sample.
const { abs, max, min } = Math;

/** A note as it is written: beats from the beginning of the piece, the pitch a MIDI number. */
export interface TuneNote {
  readonly beat: number;
  readonly beats: number;
  readonly pitch: number;
}

/** What a tune is made of: two bars of rhythm, and how it wants to move, in steps of the scale from note to note. */
export interface Motif {
  readonly bars: readonly (readonly number[])[];
  readonly steps: readonly number[];
  readonly end: readonly number[];
}

const STEPS = [1, 1, 1, 1, -1, -1, -1, -1, -1, 2, 2, -2, -2, 0, 3, -3, 4];

export function motifOf(deal: Dealer, style: BandStyle, energy: number): Motif {
  const rhythms: Rhythms = RHYTHMS[style.rhythms];
  const bar = () => deal.pick(deal.chance(energy) ? rhythms.lively : rhythms.calm);
  const bars = [bar(), bar()];
  const count = bars.flat().filter((beats) => beats > 0).length;
  return { bars, steps: Array.from({ length: count }, () => deal.pick(STEPS)), end: deal.pick(rhythms.ends) };
}

interface PhraseWish {
  readonly bars: number;
  readonly beatsABar: number;
  /** Beats from the piece's beginning. */
  readonly fromBeat: number;
  readonly chords: readonly PlacedChord[];
  readonly mode: Mode;
  /** MIDI number of a tonic. */
  readonly tonic: number;
  readonly low: number;
  readonly high: number;
  /** It comes home at its end. */
  readonly closes: boolean;
  /** Where the phrase before ended; null for the first. */
  readonly from: number | null;
  /** How often it was heard before: later ones are varied. */
  readonly heard: number;
}

interface Slot {
  readonly beat: number;
  readonly beats: number;
  readonly chord: Chord;
  readonly wantedSteps: number;
  readonly isStrong: boolean;
}

/**
 * A phrase of a tune: the motif, the motif again a step away as its answer, and an end. Pitches are the cheapest way through what the chords allow (dynamic programming over
 * pairs of notes), where leaping without coming back, leaving a chord by a leap, and straying from the motif cost.
 */
export function tunePhrase(motif: Motif, wish: PhraseWish, deal: Dealer): TuneNote[] {
  const slots = slotsOf(motif, wish, deal);
  if (slots.length === 0) return [];
  const pitches = cheapest(slots, wish, deal);
  return slots.map(({ beat, beats }, at) => ({ beat: wish.fromBeat + beat, beats, pitch: pitches[at]! }));
}

function slotsOf(motif: Motif, { bars, beatsABar, chords, heard }: PhraseWish, deal: Dealer): Slot[] {
  const slots: Slot[] = [];
  let note = 0;
  for (let bar = 0; bar < bars; bar += 1) {
    const isEnd = bar === bars - 1;
    const inMotif = bar % motif.bars.length;
    if (inMotif === 0) note = 0;
    let beat = bar * beatsABar;
    for (const beats of isEnd ? motif.end : varied(motif.bars[inMotif]!, heard, deal)) {
      if (beats > 0) {
        const chord = chordAt(chords, beat);
        const isStrong = Number.isInteger(beat) && (beat % beatsABar === 0 || (beatsABar === 4 && beat % 2 === 0));
        slots.push({ beat, beats, chord, wantedSteps: motif.steps[note % motif.steps.length]!, isStrong });
        note += 1;
      }
      beat += abs(beats);
    }
  }
  return slots;
}

/** When a tune comes back, one of its longer notes may be two. */
function varied(bar: readonly number[], heard: number, deal: Dealer): readonly number[] {
  if (heard === 0 || !deal.chance(0.3 + 0.1 * min(3, heard))) return bar;
  const long = bar.findIndex((beats) => beats >= 1.5);
  const at = long >= 0 ? long : bar.findIndex((beats) => beats === 1);
  if (at < 0) return bar;
  const split = bar[at]! >= 1.5 ? [bar[at]! - 0.5, 0.5] : [0.5, 0.5];
  return bar.toSpliced(at, 1, ...split);
}

export function chordAt(chords: readonly PlacedChord[], beat: number): Chord {
  return (chords.findLast((one) => one.beat <= beat + 1e-6) ?? chords[0]!).chord;
}

/** By semitones: what a move costs. */
const MOVE_COSTS = [1.3, 0, 0, 0.4, 0.5, 1, 8, 1.5, 2.4, 2.8, 8, 9, 3];
const LEAP = 5;

function cheapest(slots: readonly Slot[], wish: PhraseWish, deal: Dealer): number[] {
  const { low, high, mode, tonic, closes } = wish;
  const middle = (low + high) / 2;
  const choices = slots.map(({ chord }) => {
    const scale = scaleOver(mode, chord);
    const found: number[] = [];
    for (let pitch = low; pitch <= high; pitch += 1) if (scale.includes(classOver(pitch, tonic))) found.push(pitch);
    return found;
  });
  const inChord = (pitch: number, { chord }: Slot) => chord.tones.includes(classOver(pitch, tonic));
  const alone = slots.map((slot, at) =>
    choices[at]!.map((pitch) => {
      const off = inChord(pitch, slot) ? 0 : slot.isStrong ? (slot.beats >= 1 ? 6 : 3) : slot.beats >= 1 ? 2.5 : 0.7;
      const isLast = at === slots.length - 1;
      const home = classOver(pitch, tonic);
      const end = !isLast
        ? 0
        : closes
          ? home === 0
            ? 0
            : home === 4 || home === 3
              ? 1.5
              : 30
          : home === 0
            ? 1.5
            : inChord(pitch, slot)
              ? 0
              : 8;
      const far = at === 0 && wish.from !== null ? 0.22 * abs(pitch - wish.from) : 0;
      return off + end + far + 0.05 * abs(pitch - middle) + 0.5 * deal.unit();
    }),
  );
  const stepsBetween = (at: number, from: number, to: number) => {
    const scale = choices[at]!;
    const low = min(from, to);
    const count = scale.filter((pitch) => pitch > low && pitch <= max(from, to)).length;
    return to >= from ? count : -count;
  };
  const move = (at: number, from: number, to: number) => {
    const size = abs(to - from);
    const strays = 0.8 * abs(stepsBetween(at, from, to) - slots[at]!.wantedSteps);
    const leavesChord = size > 2 && (!inChord(from, slots[at - 1]!) || !inChord(to, slots[at]!)) ? 5 : 0;
    return (MOVE_COSTS[size] ?? 14) + min(3, strays) + leavesChord;
  };
  const turn = (first: number, second: number, third: number) => {
    const [one, other] = [second - first, third - second];
    if (abs(one) < LEAP) return 0;
    if (one * other > 0) return abs(other) >= 3 ? 10 : 6;
    return abs(other) > 4 ? 4 : other === 0 ? 2 : 0;
  };
  if (slots.length === 1) return [choices[0]![leastOf(alone[0]!)]!];
  // What the cheapest way costs that ends with a pair of notes, and the note before them.
  let costs = choices[0]!.map((from, i) =>
    choices[1]!.map((to, j) => alone[0]![i]! + alone[1]![j]! + move(1, from, to)),
  );
  const before: number[][][] = [];
  for (let at = 2; at < slots.length; at += 1) {
    const back: number[][] = choices[at - 1]!.map(() => []);
    const next = choices[at - 1]!.map((second, j) =>
      choices[at]!.map((third, k) => {
        const own = alone[at]![k]! + move(at, second, third);
        let [best, from] = [Infinity, 0];
        for (let i = 0; i < choices[at - 2]!.length; i += 1) {
          const cost = costs[i]![j]! + turn(choices[at - 2]![i]!, second, third);
          if (cost < best) [best, from] = [cost, i];
        }
        back[j]![k] = from;
        return best + own;
      }),
    );
    before.push(back);
    costs = next;
  }
  let [best, j, k] = [Infinity, 0, 0];
  costs.forEach((row, second) =>
    row.forEach((cost, third) => {
      if (cost < best) [best, j, k] = [cost, second, third];
    }),
  );
  const found = [choices.at(-1)![k]!, choices.at(-2)![j]!];
  for (let at = slots.length - 1; at >= 2; at -= 1) {
    const i = before[at - 2]![j]![k]!;
    found.push(choices[at - 2]![i]!);
    [j, k] = [i, j];
  }
  return found.reverse();
}

const leastOf = (costs: readonly number[]) => costs.reduce((best, cost, at) => (cost < costs[best]! ? at : best), 0);
