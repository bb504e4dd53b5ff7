import { modesOf, type BandStyle } from '../band-style';

/** A music box in three, held up by soft strings. */
export const LULLABY: BandStyle = {
  name: 'lullaby',
  language: 'tender',
  beatsABar: 3,
  bpm: { least: 66, usual: 88, most: 108 },
  keys: [48, 50, 53, 55],
  modes: modesOf('major', 'dorian'),
  swing: 0.5,
  rubato: 0.025,
  slowing: 0.5,
  looseMs: 8,
  ringMs: 4200,
  rhythms: 'waltz',
  parts: [
    { instrument: 'music-box', plays: { kind: 'tune' }, from: 0, low: 72, high: 93, level: 0.8, pan: 0.1 },
    {
      instrument: 'guitar',
      plays: {
        kind: 'broken',
        figures: [
          [0, 2, 1],
          [0, 2, 3],
          [0, 1, 2, 3, 2, 1],
        ],
        stepBeats: 1,
      },
      from: 0,
      low: 43,
      high: 67,
      level: 0.55,
      pan: -0.2,
      held: 2,
    },
    { instrument: 'pad', plays: { kind: 'chords', voices: 3 }, from: 0.4, low: 52, high: 70, level: 0.28, pan: 0 },
    {
      instrument: 'cello',
      plays: { kind: 'bass', line: 'held' },
      from: 0.45,
      low: 36,
      high: 50,
      level: 0.5,
      pan: 0.25,
    },
    { instrument: 'flute', plays: { kind: 'shadow' }, from: 0.68, low: 62, high: 84, level: 0.34, pan: 0.3 },
  ],
  room: { seconds: 2.1, wet: 0.22 },
  gainDb: 4.8,
};
