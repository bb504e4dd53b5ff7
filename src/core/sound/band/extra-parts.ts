import type { BandInstrument } from './band-wishes';
import type { PartPlan } from './band-style';

type Extra = Omit<PartPlan, 'instrument'>;

const held = (low: number, high: number, pan: number): Extra => ({
  plays: { kind: 'chords', voices: 3 },
  from: 0.2,
  low,
  high,
  level: 0.4,
  pan,
});
const along = (low: number, high: number, pan: number, above = 0): Extra => ({
  plays: { kind: 'tune', above },
  from: 0.5,
  low,
  high,
  level: 0.5,
  pan,
});
const under: Extra = { plays: { kind: 'bass', line: 'fifths' }, from: 0.2, low: 31, high: 50, level: 0.75, pan: 0 };
const steps = (low: number, high: number, pan: number): Extra => ({
  plays: {
    kind: 'broken',
    figures: [
      [0, 2, 1, 2],
      [0, 2, 1, 3],
    ],
    stepBeats: 0.5,
  },
  from: 0.2,
  low,
  high,
  level: 0.45,
  pan,
});

/** What an instrument does in a style that has no part for it. */
export const EXTRA_PARTS: Readonly<Record<BandInstrument, Extra>> = {
  piano: steps(48, 79, -0.2),
  'electric-piano': held(52, 74, 0.2),
  guitar: steps(45, 74, 0.3),
  'steel-guitar': steps(47, 76, -0.3),
  'double-bass': under,
  violin: along(60, 84, -0.3),
  viola: held(50, 70, 0.2),
  cello: { plays: { kind: 'voice', of: 3, voice: 0 }, from: 0.2, low: 43, high: 67, level: 0.5, pan: 0.3 },
  flute: along(62, 84, 0.3),
  clarinet: { plays: { kind: 'shadow' }, from: 0.3, low: 52, high: 80, level: 0.5, pan: 0.25 },
  cornet: along(58, 80, -0.2),
  horn: held(48, 68, -0.3),
  trombone: held(44, 65, 0.35),
  tuba: { ...under, low: 29, high: 48 },
  organ: held(50, 72, 0),
  pedals: { plays: { kind: 'bass', line: 'held' }, from: 0.2, low: 28, high: 48, level: 0.6, pan: 0 },
  'music-box': along(72, 96, 0.35),
  vibraphone: held(57, 79, 0.3),
  marimba: steps(52, 81, -0.35),
  pad: held(50, 72, 0),
  bells: {
    plays: { kind: 'broken', figures: [[2, 3, 4, 3]], stepBeats: 1 },
    from: 0.45,
    low: 65,
    high: 93,
    level: 0.35,
    pan: 0.4,
  },
  'synth-bass': { ...under, plays: { kind: 'bass', line: 'pulsing' } },
  plucks: steps(55, 86, 0.35),
  'drum-kit': {
    plays: {
      kind: 'drums',
      beats: [
        { from: 0, strokes: { kick: 'x.......x.......', hat: 'x...x...x...x...' } },
        { from: 0.5, strokes: { kick: 'x.......x.x.....', snare: '....x.......x...', hat: 'x.x.x.x.x.x.x.x.' } },
      ],
    },
    from: 0.3,
    low: 35,
    high: 81,
    level: 0.55,
    pan: 0,
  },
  brushes: {
    plays: { kind: 'drums', beats: [{ from: 0, strokes: { sweep: 'x.......x.......', brush: '....x.......x...' } }] },
    from: 0.25,
    low: 35,
    high: 81,
    level: 0.5,
    pan: 0,
  },
  'march-drums': {
    plays: {
      kind: 'drums',
      beats: [{ from: 0, strokes: { 'bass-drum': 'x.......x.......', snare: '....x..o....x.oo' } }],
    },
    from: 0.35,
    low: 35,
    high: 81,
    level: 0.55,
    pan: 0,
  },
  congas: {
    plays: {
      kind: 'drums',
      beats: [{ from: 0, strokes: { 'low-conga': '......x.......xx', 'high-conga': 'x.o.....x.o.....' } }],
    },
    from: 0.3,
    low: 35,
    high: 81,
    level: 0.5,
    pan: -0.2,
  },
  'frame-drums': {
    plays: { kind: 'drums', beats: [{ from: 0, strokes: { 'low-tom': 'x.......x..x....', rim: '....o..o....o...' } }] },
    from: 0.25,
    low: 35,
    high: 81,
    level: 0.55,
    pan: 0.1,
  },
  shaker: {
    plays: {
      kind: 'drums',
      beats: [
        { from: 0, strokes: { shaker: 'x.o.x.o.x.o.x.o.' } },
        { from: 0.6, strokes: { shaker: 'xooxxooxxooxxoox' } },
      ],
    },
    from: 0.25,
    low: 35,
    high: 82,
    level: 0.4,
    pan: 0.35,
  },
  'beat-machine': {
    plays: {
      kind: 'drums',
      beats: [
        { from: 0, strokes: { kick: 'x.......x.......', hat: '..x...x...x...x.' } },
        { from: 0.5, strokes: { kick: 'x...x...x...x...', clap: '....x.......x...', hat: '..x...x...x...x.' } },
      ],
    },
    from: 0.3,
    low: 35,
    high: 81,
    level: 0.55,
    pan: 0,
  },
};
