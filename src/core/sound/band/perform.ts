import { dealer } from './dealing';
import { momentOfBeat, type Part, type Piece, type PlayedNote } from './piece';

/**
 * How a part is played: swung, a little early or late, chords spread. The last chord falls on its place to the millisecond.
 *
 * @returns rising in time
 */
export function perform(piece: Piece, part: Part, index: number): PlayedNote[] {
  const { form, style, wishes } = piece;
  const deal = dealer(wishes.seed, `play ${part.instrument} ${index}`);
  const lastBeat = form.bars * form.beatsABar;
  const lastMs = form.beatsMs.at(-1)!;
  let [chordBeat, inChord, early] = [-1, 0, 0];
  const notes = part.notes.map((note): PlayedNote => {
    const isLast = note.beat >= lastBeat;
    if (note.beat === chordBeat) inChord += 1;
    else {
      [chordBeat, inChord] = [note.beat, 0];
      // Those of one chord stray together.
      early = isLast ? 0 : (style.looseMs * deal.wobble()) / 1.2;
    }
    const beat = swung(note.beat, style.swing);
    const startMs = Math.max(0, momentOfBeat(form, beat) + early + part.spreadMs * inChord);
    const endMs = isLast
      ? form.lengthMs
      : momentOfBeat(form, swung(note.beat + part.held * note.beats, style.swing)) + early;
    // A chord at the end is rolled, so that it opens.
    const rolled = isLast && part.role === 'broken' ? 55 * inChord : 0;
    return {
      startMs: (isLast ? lastMs + part.spreadMs * inChord : startMs) + rolled,
      lengthMs: Math.max(40, endMs - startMs),
      pitch: note.pitch,
      loudness: Math.max(0.05, Math.min(1, note.loudness * (1 + 0.07 * deal.wobble()))),
    };
  });
  return notes.toSorted((a, b) => a.startMs - b.startMs);
}

/** Where half beats fall later, and what lies between them moves along. */
function swung(beat: number, swing: number): number {
  const whole = Math.floor(beat + 1e-9);
  const within = Math.max(0, beat - whole);
  return whole + (within < 0.5 ? within * 2 * swing : swing + (within - 0.5) * 2 * (1 - swing));
}
