/** A chord over the tonic; pitch classes are semitones above it, 0…11. */
export interface Chord {
  /** As it is written: `ii7`, `V/3`, `bVII`. */
  readonly name: string;
  readonly root: number;
  readonly bass: number;
  /** Root, third, fifth and what comes on top; no doubles. */
  readonly tones: readonly number[];
}

const DEGREES: Readonly<Record<string, number>> = { i: 0, ii: 2, iii: 4, iv: 5, v: 7, vi: 9, vii: 11 };
const WRITTEN =
  /^(b|#)?(VII|VI|IV|V|III|II|I|vii|vi|iv|v|iii|ii|i)(°|sus4|sus2|maj7|maj9|add9|m7b5|7|9|6)?(?:\/(3|5|7))?$/u;

/**
 * A chord from its Roman numeral: large for major, small for minor, degrees those of the major scale; `b` and `#` before it move its root.
 *
 * @throws {RangeError} for what is no chord
 */
export function chordOf(name: string): Chord {
  const found = WRITTEN.exec(name);
  if (!found) throw new RangeError(`a chord must be a Roman numeral as in “ii7/3”, got “${name}”`);
  const [, moved, numeral, colour, over] = found;
  const root = (DEGREES[numeral!.toLowerCase()]! + (moved === 'b' ? 11 : moved === '#' ? 1 : 0)) % 12;
  const isMinor = numeral === numeral!.toLowerCase();
  const third = colour === 'sus4' ? 5 : colour === 'sus2' ? 2 : isMinor || colour === '°' ? 3 : 4;
  const fifth = colour === '°' || colour === 'm7b5' ? 6 : 7;
  const above =
    { '7': [10], m7b5: [10], maj7: [11], maj9: [11, 2], '9': [10, 2], add9: [2], '6': [9] }[colour ?? ''] ?? [];
  const tones = [0, third, fifth, ...above].map((tone) => (root + tone) % 12);
  const bass = over === undefined ? root : tones[{ '3': 1, '5': 2, '7': 3 }[over]!]!;
  return { name, root, bass, tones };
}

/** The pitch class of a MIDI pitch over a tonic, 0…11. */
export const classOver = (pitch: number, tonic: number): number => (((pitch - tonic) % 12) + 12) % 12;

/** A chord and how long it stands, in beats from the beginning of its phrase. */
export interface PlacedChord {
  readonly chord: Chord;
  readonly beat: number;
  readonly beats: number;
}

/** Bars apart by `|`, chords within a bar by spaces; those of one bar share it evenly. */
export function phraseOf(written: string, bars: number, beatsABar: number): PlacedChord[] {
  const all = written.split('|').map((bar) => bar.trim().split(/\s+/));
  // A longer phrase dwells on its beginning, a shorter one keeps its end.
  const chosen =
    bars <= all.length
      ? all.slice(all.length - bars)
      : [...Array.from({ length: bars - all.length }, () => all[0]!), ...all];
  return chosen.flatMap((chords, bar) =>
    chords.map((name, at) => ({
      chord: chordOf(name),
      beat: bar * beatsABar + shareOf(at, chords.length, beatsABar),
      beats: shareOf(at + 1, chords.length, beatsABar) - shareOf(at, chords.length, beatsABar),
    })),
  );
}

/** Two chords in a bar of three stand two beats and one. */
const shareOf = (at: number, of: number, beats: number) => Math.ceil((at * beats) / of);

export type Mode = 'major' | 'minor' | 'dorian' | 'mixolydian' | 'lydian';

export const SCALES: Readonly<Record<Mode, readonly number[]>> = {
  major: [0, 2, 4, 5, 7, 9, 11],
  minor: [0, 2, 3, 5, 7, 8, 10],
  dorian: [0, 2, 3, 5, 7, 9, 10],
  mixolydian: [0, 2, 4, 5, 7, 9, 10],
  lydian: [0, 2, 4, 6, 7, 9, 11],
};

/**
 * The scale while a chord sounds. A tone of the chord that the scale has not takes the place of one beside it: a major third or sixth over the root was raised, and
 * takes the lower one's; any other was lowered, and takes the upper one's.
 */
export function scaleOver(mode: Mode, chord: Chord): number[] {
  const scale = SCALES[mode];
  const moved = chord.tones.filter((tone) => !scale.includes(tone));
  const replaced = moved.map((tone) => (tone + ([4, 9].includes(classOver(tone, chord.root)) ? 11 : 1)) % 12);
  const kept = scale.filter((note) => chord.tones.includes(note) || !replaced.includes(note));
  return [...new Set([...kept, ...moved])].sort((a, b) => a - b);
}
