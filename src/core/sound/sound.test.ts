import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../show/asset-facts';
import type { ClipLayer, Layer } from '../show/layer';
import { assetId, cueId, layerId, showId, slideId } from '../show/ids';
import { songAfter, voiceHere, type PlacedSound } from '../show/placed-sound';
import { emptyShow, type Show, type Slide } from '../show/show';
import { addToMix, sampleOf } from './mix-block';
import { gainAt, gainOfDb, MIX_SAMPLE_RATE, type MixPart } from './mix-plan';
import { peakCollector } from './peaks';
import { planMix } from './plan-mix';
import { musicLengthMs, soundSpans, spokenMs, takesOf } from './sound-spans';

const SONG = assetId('1'.repeat(64));
const VOICE = assetId('2'.repeat(64));
const CLIP = assetId('3'.repeat(64));
const facts = new Map<typeof SONG, AssetFacts>([
  [SONG, { kind: 'sound', lengthMs: 60_000, title: null, artist: null }],
  [VOICE, { kind: 'sound', lengthMs: 3000, title: null, artist: null }],
  [CLIP, { kind: 'clip', widthPx: 1920, heightPx: 1080, lengthMs: 8000, hasSound: true, takenAt: null }],
]);
const plain = (name: string, lengthMs: number): Slide => ({
  id: slideId(name),
  lengthMs,
  transition: { kind: 'cut' },
  backing: { kind: 'automatic' },
  layers: [],
  sounds: [],
});
const cue = (name: string, more: Partial<PlacedSound> = {}): PlacedSound => ({
  ...songAfter(cueId(name), SONG, 3000),
  ...more,
});
const showOf = (slides: Slide[], cues: PlacedSound[]): Show => ({ ...emptyShow(showId('x'), ''), slides, cues });

describe('planMix', () => {
  it('fades the song out at the end of the show, wherever that is', () => {
    for (const lengthMs of [20_000, 40_000]) {
      const [music] = planMix(showOf([plain('a', lengthMs)], [cue('q')]), facts).parts;
      expect(music).toMatchObject({ kind: 'music', startMs: 0, lengthMs });
      expect(gainAt(music!.gains, lengthMs - 3000)).toBeCloseTo(1);
      expect(gainAt(music!.gains, lengthMs - 1500)).toBeCloseTo(0.5);
      expect(gainAt(music!.gains, lengthMs)).toBe(0);
    }
  });
  it('plays songs one after the other and leaves out those that would start too late', () => {
    const show = showOf([plain('a', 100_000)], [cue('q'), cue('r', { trimStartMs: 10_000 }), cue('s')]);
    expect(soundSpans(show, facts).map(({ sound, startMs, endMs }) => [sound.id, startMs, endMs])).toEqual([
      ['q', 0, 60_000],
      ['r', 60_000, 100_000],
    ]);
    expect(musicLengthMs(show, facts)).toBe(170_000);
  });
  it('begins a song where it is trimmed to, and a clip’s sound where the clip is', () => {
    const clip: Slide = {
      ...plain('b', 4000),
      layers: [{ kind: 'clip', id: layerId('c'), assetId: CLIP, trimStartMs: 2500, soundGainDb: 0 }],
    };
    const { parts } = planMix(showOf([plain('a', 10_000), clip], [cue('q', { trimStartMs: 7000 })]), facts);
    expect(parts.map((part) => [part.kind, part.startMs, part.fromMs])).toEqual([
      ['music', 0, 7000],
      ['clip', 10_000, 2500],
    ]);
  });
  it('brings music down under a voice and back up after it', () => {
    const spoken: Slide = { ...plain('b', 10_000), sounds: [voiceHere(cueId('v'), VOICE, 1000)] };
    const { parts } = planMix(showOf([plain('a', 10_000), spoken, plain('c', 20_000)], [cue('q')]), facts);
    const music = parts.find((part) => part.kind === 'music')!;
    expect(parts.find((part) => part.kind === 'voice')).toMatchObject({ startMs: 11_000, lengthMs: 3000 });
    expect(gainAt(music.gains, 10_000)).toBeCloseTo(1);
    expect(gainAt(music.gains, 12_500)).toBeCloseTo(gainOfDb(-11), 5);
    expect(gainAt(music.gains, 15_000)).toBeCloseTo(1);
  });
  it('begins what is tied to a slide in the frame in which that is first seen, and gives songs a place of their own', () => {
    const slides = [
      plain('a', 10_010),
      { ...plain('b', 10_000), sounds: [voiceHere(cueId('v'), VOICE, 500)] },
      plain('c', 9000),
    ];
    const at = (id: string, offsetMs = 0) => ({ at: 'slide' as const, slideId: slideId(id), offsetMs });
    const show: Show = {
      ...showOf(slides, [
        cue('to b', { ends: at('b') }),
        cue('next'),
        cue('from b', { starts: at('b'), ends: at('c', 100) }),
        cue('last', { starts: { at: 'show-end', beforeMs: 4000 } }),
        cue('bell', {
          kind: 'effect',
          starts: { at: 'moment', momentMs: 1001 },
          ends: { at: 'moment', momentMs: 2000 },
        }),
      ]),
      frame: { widthPx: 1920, heightPx: 1080, rate: { frames: 25, seconds: 1 } },
    };
    const heard = soundSpans(show, facts).map(({ sound, startMs, endMs }) => [sound.id, startMs, endMs]);
    expect(heard).toEqual([
      ['to b', 0, 10_040],
      ['next', 10_040, 29_010],
      ['from b', 10_040, 20_140],
      ['last', 25_010, 29_010],
      ['bell', 1040, 2000],
      ['v', 10_540, 13_540],
    ]);
    const { parts } = planMix(show, facts);
    expect(parts.map((part) => part.kind)).toEqual(['music', 'music', 'music', 'music', 'voice', 'effect']);
    // A bell neither goes down under a voice nor pushes the music down.
    expect(gainAt(parts.find((part) => part.kind === 'effect')!.gains, 1500)).toBe(1);
    expect(gainAt(parts[0]!.gains, 1500)).toBeCloseTo(1);
  });
  it('draws what begins on a slide beside it, and knows when all that is spoken has been heard', () => {
    const slide: Slide = {
      ...plain('a', 4000),
      sounds: [
        voiceHere(cueId('v'), VOICE, 500),
        { ...voiceHere(cueId('late'), VOICE, 2000), trimStartMs: 400 },
        { ...voiceHere(cueId('bell'), SONG, 1000), kind: 'effect' },
        voiceHere(cueId('past'), VOICE, 4000),
      ],
    };
    expect(takesOf(slide, facts)).toEqual([
      { id: 'v', kind: 'voice', from: 0.125, to: 0.875 },
      { id: 'late', kind: 'voice', from: 0.5, to: 1 },
      { id: 'bell', kind: 'effect', from: 0.25, to: 1 },
    ]);
    expect(spokenMs(slide, facts)).toBe(7000);
    expect(spokenMs(plain('b', 4000), facts)).toBe(0);
  });
  it('hears clips in groups, and none that is hidden or lies in what is hidden', () => {
    const clip = (id: string, more: Partial<ClipLayer> = {}): ClipLayer => ({
      kind: 'clip',
      id: layerId(id),
      assetId: CLIP,
      trimStartMs: 0,
      soundGainDb: 0,
      ...more,
    });
    const group = (id: string, inner: ClipLayer, hidden = false): Layer => ({
      kind: 'group',
      id: layerId(id),
      layers: [inner],
      hidden,
    });
    const heard = (layer: Layer) => planMix(showOf([{ ...plain('a', 5000), layers: [layer] }], []), facts).parts.length;
    expect(heard(group('g', clip('in a group')))).toBe(1);
    expect(heard(group('g', clip('in a hidden one'), true))).toBe(0);
    expect(heard(clip('hidden', { hidden: true }))).toBe(0);
  });
  it('hears clips at other speeds with their pitch, but none backwards, too fast or standing', () => {
    const parts = (more: Partial<ClipLayer>, lengthMs = 5000) => {
      const layer = {
        kind: 'clip',
        id: layerId('c'),
        assetId: CLIP,
        trimStartMs: 1000,
        soundGainDb: 0,
        ...more,
      } as const;
      const show = showOf([{ ...plain('a', lengthMs), layers: [layer] }], []);
      return planMix(show, facts).parts.map(({ startMs, lengthMs: lasts, fromMs, tempo, gains }) => ({
        ...{ startMs, lengthMs: lasts, fromMs, tempo },
        gains,
      }));
    };
    const times = (more: Partial<ClipLayer>, lengthMs?: number) =>
      parts(more, lengthMs).map(({ startMs, lengthMs: lasts, fromMs, tempo }) => [startMs, lasts, fromMs, tempo]);
    expect(times({ speed: 0.5 })).toEqual([[0, 5000, 1000, 0.5]]);
    expect(times({ speed: 4, trimEndMs: 5000 })).toEqual([[0, 1000, 1000, 4]]);
    expect([times({ speed: 5 }), times({ speed: 0.2 }), times({ backwards: true })]).toEqual([[], [], []]);
    expect(times({ trimEndMs: 3000, freezes: [{ atMs: 2000, lengthMs: 700 }] })).toEqual([
      [0, 1000, 1000, undefined],
      [1700, 1000, 2000, undefined],
    ]);
    expect(times({ trimEndMs: 2500, after: 'again' }, 4000)).toEqual([
      [0, 1500, 1000, undefined],
      [1500, 1500, 1000, undefined],
      [3000, 1000, 1000, undefined],
    ]);
    const [first, last] = parts({ trimEndMs: 3000, after: 'again', fadeInMs: 1000, fadeOutMs: 2000 }, 4000);
    expect(gainAt(first!.gains, 500)).toBeCloseTo(0.5);
    expect(gainAt(first!.gains, 1500)).toBeCloseTo(1);
    expect(gainAt(last!.gains, 3000)).toBeCloseTo(0.5);
  });
  it('lets a clip sound for as long as its slide, from its trim, and never a muted one', () => {
    const clip = (soundGainDb: number): Slide => ({
      ...plain('b', 5000),
      layers: [{ kind: 'clip', id: layerId('l'), assetId: CLIP, trimStartMs: 2000, soundGainDb }],
    });
    expect(planMix(showOf([clip(0)], []), facts).parts).toMatchObject([
      { kind: 'clip', startMs: 0, fromMs: 2000, lengthMs: 5000 },
    ]);
    expect(planMix(showOf([clip(-60)], []), facts).parts).toEqual([]);
  });
  it('is silent for a show without slides', () => {
    expect(planMix(showOf([], [cue('q')]), facts)).toEqual({ lengthMs: 0, parts: [], masterGain: 1 });
  });
});

describe('gainAt', () => {
  const gains = [
    { atMs: 100, gain: 0 },
    { atMs: 200, gain: 1 },
  ];
  it.each([
    [0, 0],
    [100, 0],
    [150, 0.5],
    [200, 1],
    [900, 1],
  ])('at %d ms is %d', (atMs, gain) => {
    expect(gainAt(gains, atMs)).toBeCloseTo(gain);
  });
  it('needs a point', () => {
    expect(() => gainAt([], 0)).toThrow(RangeError);
  });
});

describe('addToMix', () => {
  const part: MixPart = {
    kind: 'music',
    assetId: SONG,
    startMs: 500,
    lengthMs: 1000,
    fromMs: 0,
    gains: [{ atMs: 500, gain: 0.5 }],
  };
  const ones = (frames: number) => new Float32Array(2 * frames).fill(1);

  it('places a part to the sample, in blocks of any size', () => {
    const whole = new Float32Array(2 * 2 * MIX_SAMPLE_RATE);
    addToMix(whole, 0, part, ones(48_000), 0);
    const pieces = new Float32Array(whole.length);
    for (let at = 0; at < 96_000; at += 7777) {
      const block = pieces.subarray(2 * at, 2 * Math.min(96_000, at + 7777));
      addToMix(block, at, part, ones(48_000), 0);
    }
    expect(pieces).toEqual(whole);
    expect([whole[2 * 23_999], whole[2 * 24_000], whole[2 * 71_999], whole[2 * 72_000]]).toEqual([0, 0.5, 0.5, 0]);
  });
  it('adds to what sounds already', () => {
    const block = new Float32Array(2000).fill(0.25);
    addToMix(block, sampleOf(500), part, ones(1000), 0);
    expect(block[0]).toBeCloseTo(0.75);
  });
});

describe('peakCollector', () => {
  it('keeps the loudest sample of each fiftieth of a second, however the blocks come', () => {
    const samples = Float32Array.from({ length: 11_025 }, (_, index) => (index === 5000 ? -0.9 : 0.1));
    const peaksOf = (size: number) => {
      const collector = peakCollector(11_025);
      for (let at = 0; at < samples.length; at += size) collector.add(samples.subarray(at, at + size));
      return collector.finish().values;
    };
    const peaks = peaksOf(11_025);
    expect(peaks).toHaveLength(50);
    expect(peaks[Math.floor(5000 / 220.5)]).toBe(229);
    expect(peaks[0]).toBe(26);
    expect(peaksOf(97)).toEqual(peaks);
  });
});
