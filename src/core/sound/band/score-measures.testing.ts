import { chordOf, classOver, scaleOver } from './harmony';
import { INSTRUMENT_RANGES, isDrum } from './instruments';
import type { Part, Piece, ScoreNote } from './piece';
import { sideBySide } from './voicing';

// Looked up once: these are asked for each pair and each sample.
const { abs, floor, max, min, round, sign, sqrt } = Math;

const pitched = (piece: Piece) => piece.parts.filter(({ instrument }) => !isDrum(instrument));
export const tuneOf = (piece: Piece): Part | undefined => piece.parts.find(({ role }) => role === 'tune');
const chordAt = (piece: Piece, beat: number) => chordOf(piece.chords.findLast((one) => one.beat <= beat + 1e-6)!.name);

/** Notes that are neither in the scale nor in the chord; a bass may walk through others. */
export function outOfKey(piece: Piece): ScoreNote[] {
  return pitched(piece)
    .filter(({ role }) => role !== 'bass')
    .flatMap(({ notes }) =>
      notes.filter(
        ({ pitch, beat }) => !scaleOver(piece.mode, chordAt(piece, beat)).includes(classOver(pitch, piece.tonic)),
      ),
    );
}

export function outOfRange(piece: Piece): ScoreNote[] {
  return piece.parts.flatMap(({ instrument, notes }) => {
    const { lowest, highest } = INSTRUMENT_RANGES[instrument];
    return notes.filter(({ pitch }) => pitch < lowest || pitch > highest);
  });
}

/** Notes of the tune that do not lie above every bass note that sounds with them. */
export function underBass(piece: Piece): ScoreNote[] {
  const basses = piece.parts.filter(({ role }) => role === 'bass').flatMap(({ notes }) => notes);
  return (tuneOf(piece)?.notes ?? []).filter(({ beat, pitch }) =>
    basses.some((bass) => bass.beat <= beat + 1e-6 && beat < bass.beat + bass.beats - 1e-6 && bass.pitch >= pitch),
  );
}

/** The share of leaps of a fifth or more after which the tune neither turns back nor rests. */
export function unresolvedLeaps(piece: Piece): number {
  const notes = tuneOf(piece)?.notes ?? [];
  const begins = new Set(piece.form.phrases.map(({ firstBar }) => firstBar * piece.form.beatsABar));
  let [leaps, loose] = [0, 0];
  for (let at = 0; at + 2 < notes.length; at += 1) {
    const [one, two, three] = [notes[at]!, notes[at + 1]!, notes[at + 2]!];
    const by = two.pitch - one.pitch;
    // After a rest, and with a new phrase, a new breath begins.
    if (begins.has(two.beat) || begins.has(three.beat)) continue;
    if (abs(by) < 7 || one.beat + one.beats < two.beat - 1e-6 || two.beat + two.beats < three.beat - 1e-6) continue;
    leaps += 1;
    if ((three.pitch - two.pitch) * by > 0) loose += 1;
  }
  return leaps < 3 ? 0 : loose / leaps;
}

/** The bars of a tune: when its notes begin within the bar, and their pitches. */
export function barsOfTune(
  notes: readonly { readonly beat: number; readonly pitch: number }[],
  beatsABar: number,
): { at: number; pitch: number }[][] {
  const bars: { at: number; pitch: number }[][] = [];
  for (const { beat, pitch } of notes) {
    const bar = floor(beat / beatsABar + 1e-6);
    (bars[bar] ??= []).push({ at: round(12 * (beat - bar * beatsABar)), pitch });
  }
  return bars.filter((bar) => bar !== undefined);
}

/** The share of bars that were heard before, note for note. */
export function repeatedBars(bars: readonly { at: number; pitch: number }[][]): number {
  const keys = bars.map((bar) => JSON.stringify(bar));
  return keys.filter((key, at) => keys.indexOf(key) < at).length / max(1, keys.length);
}

/**
 * How like itself a tune is, 0…1: for each bar the likeness of the likest before it, of rhythm (shared onsets against all) and contour (the same direction from note to note),
 * half each; the mean of that. Noise has less than 0.5, a loop has 1.
 */
export function selfLikeness(bars: readonly { at: number; pitch: number }[][]): number {
  const rest = bars.slice(1).map((bar, index) => max(...bars.slice(0, index + 1).map((other) => likeness(bar, other))));
  return rest.reduce((sum, value) => sum + value, 0) / max(1, rest.length);
}

function likeness(
  one: readonly { at: number; pitch: number }[],
  other: readonly { at: number; pitch: number }[],
): number {
  const both = one.filter(({ at }) => other.some((note) => note.at === at)).length;
  const rhythm = both / (one.length + other.length - both);
  const moves = (bar: typeof one) => bar.slice(1).map(({ pitch }, at) => sign(pitch - bar[at]!.pitch));
  const [first, second] = [moves(one), moves(other)];
  const count = max(first.length, second.length);
  const contour = count === 0 ? 1 : first.filter((move, at) => move === second[at]).length / count;
  return (rhythm + contour) / 2;
}

/** The share of moves in which two voices of a chord go side by side in fifths or octaves. */
export function parallels(piece: Piece): number {
  const voices = piece.parts.filter(({ role }) => role === 'voice' || role === 'bass');
  let [moves, parallel] = [0, 0];
  const at = (part: Part, beat: number) =>
    part.notes.find((note) => note.beat <= beat + 1e-6 && beat < note.beat + note.beats - 1e-6)?.pitch;
  for (let chord = 1; chord < piece.chords.length; chord += 1)
    for (let one = 0; one < voices.length; one += 1)
      for (let other = one + 1; other < voices.length; other += 1) {
        const [before, now] = [piece.chords[chord - 1]!.beat, piece.chords[chord]!.beat];
        const pitches = [
          at(voices[one]!, before),
          at(voices[one]!, now),
          at(voices[other]!, before),
          at(voices[other]!, now),
        ];
        if (pitches.some((pitch) => pitch === undefined)) continue;
        moves += 1;
        if (sideBySide(pitches[0]!, pitches[1]!, pitches[2]!, pitches[3]!)) parallel += 1;
      }
  return moves === 0 ? 0 : parallel / moves;
}

/** The chords of several voices that have fewer than three pitches between them. */
export function collapsed(piece: Piece): number {
  const others = pitched(piece).filter(({ role }) => role !== 'tune');
  return piece.chords.filter(({ beat }) => {
    const sounding = others.map(({ notes }) =>
      notes.filter((note) => note.beat < beat + 2 - 1e-6 && note.beat + note.beats > beat + 1e-6),
    );
    const there = new Set(sounding.flat().map(({ pitch }) => pitch % 12));
    // A bass alone is no chord that fell in on itself.
    return there.size === 1 && sounding.filter((notes) => notes.length > 0).length > 1;
  }).length;
}

/** How much is played in each phrase: the sum of loudness a beat. */
export function playedByPhrase(piece: Piece): { energy: number; played: number }[] {
  const { beatsABar } = piece.form;
  return piece.form.phrases.map(({ firstBar, bars, energy }) => {
    const [from, to] = [firstBar * beatsABar, (firstBar + bars) * beatsABar];
    const all = piece.parts.flatMap(({ notes }) => notes.filter(({ beat }) => beat >= from - 1e-6 && beat < to - 1e-6));
    return { energy, played: all.reduce((sum, { loudness }) => sum + loudness ** 2, 0) / (to - from) };
  });
}

/** How alike two lists rank, −1…1 (Spearman). */
export function rankCorrelation(pairs: readonly { energy: number; played: number }[]): number {
  const rank = (values: readonly number[]) =>
    values.map(
      (value) => values.filter((other) => other < value).length + values.filter((other) => other === value).length / 2,
    );
  const [one, other] = [rank(pairs.map(({ energy }) => energy)), rank(pairs.map(({ played }) => played))];
  const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;
  const [a, b] = [mean(one), mean(other)];
  const top = one.reduce((sum, value, at) => sum + (value - a) * (other[at]! - b), 0);
  return (
    top /
    sqrt(
      one.reduce((sum, value) => sum + (value - a) ** 2, 0) * other.reduce((sum, value) => sum + (value - b) ** 2, 0) ||
        1,
    )
  );
}

/** What tells kinds of music apart in a score, names of instruments left out. */
export function featuresOf(piece: Piece): number[] {
  const beats = piece.form.bars * piece.form.beatsABar;
  const all = piece.parts.flatMap(({ notes }) => notes);
  const tones = pitched(piece).flatMap(({ notes }) => notes);
  const drums = all.length - tones.length;
  const mean = (values: readonly number[]) =>
    values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;
  const share = (of: readonly ScoreNote[], is: (note: ScoreNote) => boolean) =>
    of.length === 0 ? 0 : of.filter(is).length / of.length;
  const isOff = (note: ScoreNote) => abs(note.beat - round(note.beat)) > 0.1;
  const tune = tuneOf(piece)?.notes ?? [];
  const bass = piece.parts.filter(({ role }) => role === 'bass').flatMap(({ notes }) => notes);
  return [
    tones.length / beats,
    drums / beats,
    share(all, isOff),
    share(tones, (note) => abs((note.beat % 1) - 0.25) < 0.05 || abs((note.beat % 1) - 0.75) < 0.05),
    mean(tones.map(({ pitch }) => pitch)) / 12,
    mean(tones.map((note) => min(8, note.beats))),
    mean(tune.map((note) => note.beats)),
    share(tune, isOff),
    bass.length / beats,
    share(bass, isOff),
    mean(bass.map(({ pitch }) => pitch)) / 12,
    piece.chords.length / piece.form.bars,
    share(tones, ({ beat, pitch }) => !chordAt(piece, beat).tones.slice(0, 3).includes(classOver(pitch, piece.tonic))),
    mean(piece.chords.map(({ name }) => chordOf(name).tones.length)),
    piece.form.bpm / 60,
    piece.form.beatsABar,
    mean(tune.map(({ pitch }) => pitch)) / 12,
    piece.parts.length / 3,
  ];
}
