import { modesOf, type BandStyle } from '../band-style';

/** Pads that come and go, bells far away, hardly a beat. */
export const AMBIENT: BandStyle = {
  name: 'ambient',
  language: 'drifting',
  beatsABar: 4,
  bpm: { least: 48, usual: 60, most: 76 },
  keys: [48, 50, 52, 53, 57],
  modes: modesOf('lydian', 'minor', 'major'),
  swing: 0.5,
  rubato: 0.02,
  slowing: 0.3,
  looseMs: 18,
  ringMs: 6500,
  rhythms: 'long',
  parts: [
    { instrument: 'pad', plays: { kind: 'chords', voices: 4 }, from: 0, low: 50, high: 74, level: 0.52, pan: 0 },
    { instrument: 'pad', plays: { kind: 'bass', line: 'held' }, from: 0.25, low: 33, high: 48, level: 0.55, pan: 0 },
    { instrument: 'electric-piano', plays: { kind: 'tune' }, from: 0.2, low: 64, high: 86, level: 0.82, pan: 0.15 },
    {
      instrument: 'bells',
      plays: {
        kind: 'broken',
        figures: [
          [3, 4, 5, 4],
          [3, 5, 4, 6, 5, 4, 6, 5],
        ],
        stepBeats: 1,
      },
      from: 0.5,
      low: 60,
      high: 96,
      level: 0.42,
      pan: -0.35,
      held: 3,
    },
    {
      instrument: 'violin',
      plays: { kind: 'voice', of: 4, voice: 3, from: [50, 74] },
      from: 0.66,
      low: 55,
      high: 76,
      level: 0.3,
      pan: 0.3,
    },
  ],
  room: { seconds: 4.2, wet: 0.34 },
  gainDb: 2.6,
};
