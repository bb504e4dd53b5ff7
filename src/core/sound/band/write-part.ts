import type { PartPlan } from './band-style';
import { bassLine, nearestPitch } from './bass-lines';
import type { Dealer } from './dealing';
import type { FormPhrase } from './form';
import { classOver, type Chord, type PlacedChord } from './harmony';
import { DRUMS, type Drum } from './instruments';
import type { ScoreNote } from './piece';
import { chordAt, type TuneNote } from './tune';

/** What all parts of a phrase go by. Beats from the beginning of the piece. */
export interface WrittenPhrase {
  readonly phrase: FormPhrase;
  readonly chords: readonly PlacedChord[];
  readonly tune: readonly TuneNote[];
  /** Chords set for so many voices within a range. */
  voicesOf(voices: number, low: number, high: number): readonly (readonly number[])[];
  readonly tonic: number;
  readonly beatsABar: number;
}

const STEPS_A_BEAT = 4;
const STROKES: Readonly<Record<string, number>> = { x: 0.75, X: 1, o: 0.45 };

/** What a part plays in a phrase; loudness is 0…1 before the piece's own rise and fall. */
export function writePart(plan: PartPlan, written: WrittenPhrase, deal: Dealer): ScoreNote[] {
  const { plays, low, high } = plan;
  const { chords, tonic, beatsABar, phrase } = written;
  const chordNotes = (voices: number, only: number | null, range: readonly [number, number]): ScoreNote[] =>
    written
      .voicesOf(voices, ...range)
      .flatMap((pitches, at) =>
        pitches.flatMap((pitch, voice) =>
          only === null || voice === only
            ? [{ beat: chords[at]!.beat, beats: chords[at]!.beats, pitch, loudness: 0.75 }]
            : [],
        ),
      );
  switch (plays.kind) {
    case 'tune':
      return written.tune.map((note) => ({
        ...note,
        pitch: note.pitch + (plays.above ?? 0),
        loudness: note.beat % beatsABar === 0 ? 0.95 : Number.isInteger(note.beat) ? 0.88 : 0.8,
      }));
    case 'shadow':
      return written.tune.flatMap((note) => {
        const chord = chordAt(chords, note.beat);
        // The nearest tone of the chord a third to a sixth below.
        const below = [3, 4, 5, 8, 9].map((by) => note.pitch - by);
        const pitch = below.find((one) => one >= low && chord.tones.includes(classOver(one, tonic)));
        return pitch === undefined || note.beats < 0.5 ? [] : [{ ...note, pitch, loudness: 0.7 }];
      });
    case 'chords':
      return chordNotes(plays.voices, null, [low, high]);
    case 'voice':
      return joinedTies(chordNotes(plays.of, plays.voice, plays.from ?? [low, high]));
    case 'bass':
      return bassLine(plays.line, chords, tonic, [low, high], beatsABar).map((note) => ({
        ...note,
        loudness: note.beat % beatsABar === 0 ? 0.9 : 0.78,
      }));
    case 'broken':
      return broken(plan, plays, written);
    case 'strokes': {
      const pattern =
        plays.patterns[Math.min(plays.patterns.length - 1, Math.floor(phrase.energy * plays.patterns.length))]!;
      const set = written.voicesOf(plays.voices, low, high);
      return strokesIn(pattern, phrase, beatsABar).flatMap(({ beat, loudness }) => {
        const at = Math.max(
          0,
          chords.findLastIndex((one) => one.beat <= beat + 1e-6),
        );
        const until = chords[at]!.beat + chords[at]!.beats;
        return set[at]!.map((pitch) => ({
          beat,
          beats: Math.min(plays.beats, until - beat),
          pitch,
          loudness: 0.85 * loudness,
        }));
      });
    }
    case 'drums': {
      const beat = plays.beats.findLast(({ from }) => phrase.energy >= from) ?? plays.beats[0]!;
      const strokes = Object.entries(beat.strokes).flatMap(([drum, pattern]) =>
        strokesIn(pattern, phrase, beatsABar).map((stroke) => ({
          beat: stroke.beat,
          beats: 0.25,
          pitch: DRUMS[drum as Drum],
          loudness: stroke.loudness,
        })),
      );
      return phrase.leadsOn && phrase.energy > 0.35 ? withFill(strokes, written, deal) : strokes;
    }
  }
}

/** The lowest tone, and those of the chord above it, the first of them at least so many semitones away. */
export function ladderOf(chord: Chord, tonic: number, lowest: number, high: number, apart: number): number[] {
  const tones = [lowest];
  for (let pitch = lowest + apart; pitch <= high; pitch += 1)
    if (chord.tones.includes(classOver(pitch, tonic))) tones.push(pitch);
  return tones;
}

function broken(
  { low, high }: PartPlan,
  { figures, stepBeats }: { readonly figures: readonly (readonly number[])[]; readonly stepBeats: number },
  { chords, tonic, phrase }: WrittenPhrase,
): ScoreNote[] {
  const figure = figures[Math.min(figures.length - 1, Math.floor(phrase.energy * figures.length))]!;
  let lowest = low + 3;
  return chords.flatMap(({ chord, beat, beats }) => {
    lowest = nearestPitch(tonic + chord.bass, lowest, low, low + 11);
    const ladder = ladderOf(chord, tonic, lowest, high, 3);
    return Array.from({ length: Math.round(beats / stepBeats) }, (_, step) => {
      const tone = figure[step % figure.length]!;
      return {
        beat: beat + step * stepBeats,
        beats: stepBeats,
        pitch: ladder[Math.min(ladder.length - 1, tone)]!,
        loudness: step === 0 ? 0.8 : tone === Math.max(...figure) ? 0.66 : 0.6,
      };
    });
  });
}

function strokesIn(
  pattern: string,
  { firstBar, bars }: FormPhrase,
  beatsABar: number,
): { beat: number; loudness: number }[] {
  const steps = beatsABar * STEPS_A_BEAT;
  return Array.from({ length: bars * steps }, (_, step) => ({
    beat: firstBar * beatsABar + step / STEPS_A_BEAT,
    loudness: STROKES[pattern[step % Math.min(pattern.length, steps)]!] ?? 0,
  })).filter(({ loudness }) => loudness > 0);
}

/** The last bar before something new ends with a run of strokes. */
function withFill(strokes: ScoreNote[], { phrase, beatsABar }: WrittenPhrase, deal: Dealer): ScoreNote[] {
  const end = (phrase.firstBar + phrase.bars) * beatsABar;
  const from = end - (phrase.energy > 0.7 ? 2 : 1);
  const drums = [...new Set(strokes.map(({ pitch }) => pitch))];
  const main = drums.includes(DRUMS.snare) ? DRUMS.snare : (drums[0] ?? DRUMS.snare);
  const fill = Array.from({ length: (end - from) * STEPS_A_BEAT }, (_, step) => ({
    beat: from + step / STEPS_A_BEAT,
    beats: 0.25,
    pitch: deal.chance(0.3) ? deal.pick(drums) : main,
    loudness: 0.5 + (0.4 * step) / ((end - from) * STEPS_A_BEAT),
  })).filter((_, step) => step % 2 === 0 || deal.chance(0.55));
  return [...strokes.filter(({ beat }) => beat < from), ...fill];
}

/** A voice that stays on its tone holds it. */
function joinedTies(notes: readonly ScoreNote[]): ScoreNote[] {
  const joined: ScoreNote[] = [];
  for (const note of notes) {
    const last = joined.at(-1);
    if (
      last &&
      last.pitch === note.pitch &&
      Math.abs(last.beat + last.beats - note.beat) < 1e-6 &&
      last.beats + note.beats <= 4
    )
      joined[joined.length - 1] = { ...last, beats: last.beats + note.beats };
    else joined.push(note);
  }
  return joined;
}
