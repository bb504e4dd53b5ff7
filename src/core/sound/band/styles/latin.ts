import { modesOf, type BandStyle } from '../band-style';

/** Nylon strings off the beat, a bass that comes early, congas and claves. */
export const LATIN: BandStyle = {
  name: 'latin',
  language: 'dancing',
  beatsABar: 4,
  bpm: { least: 96, usual: 122, most: 152 },
  keys: [48, 50, 52, 53, 57],
  modes: modesOf('major', 'minor'),
  swing: 0.5,
  rubato: 0,
  slowing: 0.1,
  looseMs: 7,
  ringMs: 2400,
  rhythms: 'off-beat',
  parts: [
    { instrument: 'guitar', plays: { kind: 'tune' }, from: 0, low: 64, high: 83, level: 1, pan: 0.2 },
    { instrument: 'flute', plays: { kind: 'tune' }, from: 0.7, low: 64, high: 83, level: 0.4, pan: -0.3 },
    {
      instrument: 'guitar',
      plays: {
        kind: 'strokes',
        voices: 4,
        patterns: ['X...x...X...x...', 'X.x.x..xX.x.x.x.', 'X.xxx.xxX.xxx.xx'],
        beats: 0.5,
      },
      from: 0,
      low: 52,
      high: 69,
      level: 0.36,
      pan: -0.25,
      spreadMs: 6,
    },
    {
      instrument: 'double-bass',
      plays: { kind: 'bass', line: 'swaying' },
      from: 0,
      to: 0.6,
      low: 28,
      high: 47,
      level: 0.85,
      pan: 0,
      held: 0.9,
    },
    {
      instrument: 'double-bass',
      plays: { kind: 'bass', line: 'ahead' },
      from: 0.6,
      low: 28,
      high: 47,
      level: 0.85,
      pan: 0,
      held: 0.9,
    },
    {
      instrument: 'congas',
      plays: {
        kind: 'drums',
        beats: [
          {
            from: 0,
            strokes: {
              'high-conga': 'x..ox.o.x.x.x.o.',
              'low-conga': '..............xx',
              'bass-drum': 'o...x...o...x...',
            },
          },
          {
            from: 0.5,
            strokes: {
              'high-conga': 'x.x.o.x.x.x.o.x.',
              slap: '....x.......x...',
              'low-conga': '......x.......xx',
              'bass-drum': 'o...X...o...X...',
            },
          },
        ],
      },
      from: 0.25,
      low: 35,
      high: 81,
      level: 0.55,
      pan: -0.35,
    },
    {
      instrument: 'shaker',
      plays: {
        kind: 'drums',
        beats: [
          { from: 0, strokes: { shaker: 'X.ooX.ooX.ooX.oo' } },
          { from: 0.6, strokes: { shaker: 'X.ooX.ooX.ooX.oo', claves: 'o..o..o...o.o...' } },
        ],
      },
      from: 0.4,
      low: 35,
      high: 82,
      level: 0.42,
      pan: 0.4,
    },
  ],
  room: { seconds: 1.1, wet: 0.12 },
  gainDb: 4.2,
};
