import { modesOf, type BandStyle } from '../band-style';

/** Frame drums, congas and a marimba that keeps coming round. */
export const HAND_DRUMS: BandStyle = {
  name: 'hand-drums',
  language: 'driving',
  beatsABar: 4,
  bpm: { least: 84, usual: 108, most: 138 },
  keys: [48, 50, 52, 55, 57],
  modes: modesOf('mixolydian', 'dorian'),
  swing: 0.5,
  rubato: 0,
  slowing: 0.06,
  looseMs: 6,
  ringMs: 2200,
  rhythms: 'busy',
  parts: [
    { instrument: 'marimba', plays: { kind: 'tune' }, from: 0.35, low: 62, high: 83, level: 0.75, pan: 0.2 },
    {
      instrument: 'marimba',
      plays: {
        kind: 'broken',
        figures: [
          [0, 2, 0, 1, 0, 2, 1, 2],
          [0, 3, 1, 2, 0, 3, 2, 1],
        ],
        stepBeats: 0.5,
      },
      from: 0.2,
      low: 48,
      high: 69,
      level: 0.5,
      pan: -0.25,
    },
    {
      instrument: 'double-bass',
      plays: { kind: 'bass', line: 'ahead' },
      from: 0.5,
      low: 31,
      high: 47,
      level: 0.6,
      pan: 0,
      held: 0.7,
    },
    {
      instrument: 'frame-drums',
      plays: {
        kind: 'drums',
        beats: [
          { from: 0, strokes: { 'low-tom': 'X.......x.....x.', rim: '....o.oo....o.o.' } },
          {
            from: 0.5,
            strokes: { 'low-tom': 'X..x..x.X..x..x.', 'high-tom': '....x.....x.x...', rim: 'o.oo..oo.o.oo.oo' },
          },
        ],
      },
      from: 0,
      low: 35,
      high: 81,
      level: 0.72,
      pan: 0,
    },
    {
      instrument: 'congas',
      plays: {
        kind: 'drums',
        beats: [
          { from: 0, strokes: { 'high-conga': '..x...x...x...xx', 'low-conga': '......x.......x.' } },
          {
            from: 0.65,
            strokes: { 'high-conga': 'x.xxo.xxx.xxo.xx', slap: '....X.......X...', 'low-conga': '..x...x...x...xx' },
          },
        ],
      },
      from: 0.3,
      low: 35,
      high: 81,
      level: 0.55,
      pan: -0.4,
    },
    {
      instrument: 'shaker',
      plays: { kind: 'drums', beats: [{ from: 0, strokes: { shaker: 'x.o.x.o.x.o.x.o.' } }] },
      from: 0.4,
      low: 35,
      high: 82,
      level: 0.38,
      pan: 0.4,
    },
  ],
  room: { seconds: 1.1, wet: 0.12 },
  gainDb: 6,
};
