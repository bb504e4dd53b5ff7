import { describe, expect, it } from '@jest/globals';
import { bassLine } from './bass-lines';
import type { BassLine } from './band-style';
import { chordOf, classOver, phraseOf, scaleOver, SCALES, type Mode } from './harmony';
import { languageIn, type LanguageName } from './languages';
import { voiced } from './voicing';

describe('a chord', () => {
  it.each([
    ['I', [0, 4, 7], 0],
    ['vi', [9, 0, 4], 9],
    ['V7', [7, 11, 2, 5], 7],
    ['IVmaj7', [5, 9, 0, 4], 5],
    ['bVII', [10, 2, 5], 10],
    ['iim7b5', [2, 5, 8, 0], 2],
    ['Vsus4', [7, 0, 2], 7],
    ['I/3', [0, 4, 7], 4],
    ['i7/7', [0, 3, 7, 10], 10],
    ['Imaj9', [0, 4, 7, 11, 2], 0],
  ])('%s has the tones %j over %d', (name, tones, bass) => {
    expect(chordOf(name)).toMatchObject({ tones, bass });
  });
  it.each(['', 'VIII', 'Vsus', 'I/4', 'h', 'V 7'])('is not written as “%s”', (name) => {
    expect(() => chordOf(name)).toThrow(RangeError);
  });
});

describe('a phrase', () => {
  it('shares a bar among its chords, two and one in three beats', () => {
    expect(phraseOf('I V | I', 2, 4).map(({ beat, beats }) => [beat, beats])).toEqual([
      [0, 2],
      [2, 2],
      [4, 4],
    ]);
    expect(phraseOf('I V | I', 2, 3).map(({ beat, beats }) => [beat, beats])).toEqual([
      [0, 2],
      [2, 1],
      [3, 3],
    ]);
  });
  it('dwells on its beginning when it is longer, and keeps its end when it is shorter', () => {
    const names = (bars: number) => phraseOf('I | IV | ii | V', bars, 4).map(({ chord }) => chord.name);
    expect(names(6)).toEqual(['I', 'I', 'I', 'IV', 'ii', 'V']);
    expect(names(2)).toEqual(['ii', 'V']);
  });
});

it('the scale over a chord holds its tones, and of those beside one that was moved not the one it was', () => {
  expect(scaleOver('minor', chordOf('V'))).toEqual([0, 2, 3, 5, 7, 8, 11]);
  expect(scaleOver('major', chordOf('iv'))).toEqual([0, 2, 4, 5, 7, 8, 11]);
  expect(scaleOver('major', chordOf('VI7'))).toEqual([1, 2, 4, 5, 7, 9, 11]);
  expect(scaleOver('major', chordOf('I7'))).toEqual([0, 2, 4, 5, 7, 9, 10]);
  // Where nothing was moved, it is the scale itself.
  for (const mode of Object.keys(SCALES) as Mode[])
    expect(scaleOver(mode, { ...chordOf('I'), tones: [0, 7] })).toEqual(SCALES[mode]);
});

const LANGUAGES: LanguageName[] = ['plain', 'tender', 'jazz', 'drifting', 'dancing', 'hymn', 'driving'];
const said = LANGUAGES.flatMap((name) =>
  (['major', 'minor'] as const).map((mode) => ({ name, mode, language: languageIn(name, mode) })),
);
it.each(said)(
  '$name in $mode has phrases of four bars, answers that end at home and an ending that leads there',
  ({ language }) => {
    const { intro, open, closed, away, ending, last } = language;
    const phrases = [...intro, ...open, ...closed, ...away, ...ending];
    expect(phrases.filter((phrase) => phrase.split('|').length !== 4)).toEqual([]);
    for (const phrase of closed) expect(phraseOf(phrase, 4, 4).at(-1)!.chord.root).toBe(0);
    for (const phrase of ending) expect(phraseOf(phrase, 4, 4).at(-1)!.chord.root).toBe(7);
    // What asks does not end where it would be at rest.
    for (const phrase of open) expect(phraseOf(phrase, 4, 4).at(-1)!.chord.name).not.toMatch(/^(I|i)$/u);
    expect(chordOf(last).root).toBe(0);
  },
);

const chords = phraseOf('I | vi | IV | V7', 4, 4);
it('voices rise, keep to their range, have the third, and move no further than a fifth', () => {
  const set = voiced(
    chords.map(({ chord }) => chord),
    [36, 45, 41, 43],
    48,
    3,
    50,
    70,
  );
  expect(set).toHaveLength(4);
  set.forEach((pitches, at) => {
    expect(pitches).toEqual(pitches.toSorted((a, b) => a - b));
    expect([Math.min(...pitches) >= 50, Math.max(...pitches) <= 70]).toEqual([true, true]);
    expect(pitches.map((pitch) => classOver(pitch, 48))).toContain(chords[at]!.chord.tones[1]);
    if (at > 0)
      pitches.forEach((pitch, voice) => expect(Math.abs(pitch - set[at - 1]![voice]!)).toBeLessThanOrEqual(7));
  });
});

it.each<BassLine>(['roots', 'fifths', 'walking', 'marching', 'swaying', 'ahead', 'pulsing', 'held'])(
  'a bass that goes by %s begins each chord on its root, stays in its range and leaves no beat twice',
  (line) => {
    const notes = bassLine(line, chords, 48, [28, 48], 4);
    for (const { chord, beat } of chords)
      expect(classOver(notes.find((note) => note.beat === beat)!.pitch, 48)).toBe(chord.bass);
    expect(notes.filter(({ pitch }) => pitch < 28 || pitch > 48)).toEqual([]);
    notes
      .slice(1)
      .forEach(({ beat }, at) => expect(beat).toBeGreaterThanOrEqual(notes[at]!.beat + notes[at]!.beats - 1e-6));
  },
);
