import { describe, expect, it } from '@jest/globals';
import type { AssetFacts } from '../show/asset-facts';
import { assetId, cueId, layerId, showId, slideId, type AssetId } from '../show/ids';
import type { WordsLayer } from '../show/layer';
import { leastLengthMs } from './least-length';
import type { Slide } from '../show/show';
import type { Transition } from '../show/transition';
import { emptyShow, type Show } from '../show/show';
import { fitToMusic, keepsItsLength, lengthFollowsContent, shareOfTime } from './fit-to-music';
import { FRAME_RATES, framesPerSecond, rateName, wholeRate } from './frame-rate';
import { frameAtMoment, frameCount, momentOfFrame, momentSeen } from './frames';
import { voiceHere } from '../show/placed-sound';
import { slideIndexAt, slideSpans } from './slide-span';

function slide(name: string, lengthMs: number, transition: Transition = { kind: 'dissolve', lengthMs: 1000 }): Slide {
  return { id: slideId(name), lengthMs, transition, backing: { kind: 'automatic' }, layers: [], sounds: [] };
}

describe('slideSpans', () => {
  const spans = slideSpans([slide('a', 5000), slide('b', 1200), slide('c', 4000, { kind: 'cut' })]);

  it('follows each other without gaps', () => {
    expect(spans.map((span) => [span.startMs, span.endMs])).toEqual([
      [0, 5000],
      [5000, 6200],
      [6200, 10_200],
    ]);
  });
  it('has no transition into the first slide, at most half of either neighbour elsewhere, none for a cut', () => {
    expect(spans.map((span) => span.transitionMs)).toEqual([0, 600, 0]);
  });
  it('lets a transition take no more than half of the slide before it', () => {
    const long = { kind: 'dissolve', lengthMs: 3000 } as const;
    expect(slideSpans([slide('a', 1000), slide('b', 9000, long)])[1]!.transitionMs).toBe(500);
    expect(slideSpans([slide('a', 9000), slide('b', 1000, long)])[1]!.transitionMs).toBe(500);
  });
  it('keeps a slide on screen under the transition that follows', () => {
    expect(spans.map((span) => span.leavesMs)).toEqual([5600, 6200, 10_200]);
  });
  it.each([
    [-5, 0],
    [0, 0],
    [4999.9, 0],
    [5000, 1],
    [6199, 1],
    [6200, 2],
    [99_999, 2],
  ])('finds the slide that owns %d ms', (momentMs, index) => {
    expect(slideIndexAt(spans, momentMs)).toBe(index);
  });
  it('finds no slide in an empty show', () => {
    expect(slideIndexAt([], 0)).toBeNull();
  });
});

describe('frames', () => {
  it.each(Object.entries(FRAME_RATES))(
    'gives back every frame of an hour from its own moment at %s a second, and finds it as the first one there',
    (_name, rate) => {
      let wrong = 0;
      for (let frame = 0; frame < framesPerSecond(rate) * 3600; frame += 1) {
        const momentMs = momentOfFrame(frame, rate);
        if (frameAtMoment(momentMs, rate) !== frame || momentSeen(momentMs, rate) !== momentMs) wrong += 1;
      }
      expect(wrong).toBe(0);
    },
  );
  it.each([
    [10_000, '30', 300],
    [10_016, '30', 300],
    [10_017, '30', 301],
    [1, '30', 1],
    [0, '30', 1],
    [1_001_000, '29.97', 30_000],
    [1_001_000, '23.976', 24_000],
  ])('counts the frames of %d ms at %s', (lengthMs, rate, count) => {
    expect(frameCount(lengthMs, FRAME_RATES[rate]!)).toBe(count);
  });
  it('sees what begins between two frames in the later one', () => {
    expect(momentSeen(1, FRAME_RATES['25']!)).toBe(40);
    expect(momentSeen(40.001, FRAME_RATES['25']!)).toBe(40);
    expect(momentSeen(0, FRAME_RATES['29.97']!)).toBe(0);
  });
  it('names rates as people do, and knows those that are nearly whole', () => {
    expect(Object.values(FRAME_RATES).map(rateName)).toEqual(Object.keys(FRAME_RATES));
    expect([wholeRate(29.97), wholeRate(30), wholeRate(12.5)]).toEqual([
      { frames: 30_000, seconds: 1001 },
      { frames: 30, seconds: 1 },
      { frames: 12_500, seconds: 1000 },
    ]);
  });
  it('quotes a rate that makes no sense', () => {
    expect(() => frameCount(1000, { frames: 0, seconds: 1 })).toThrow('must be more than 0, got 0 in 1 s');
  });
});

describe('fitToMusic', () => {
  it.each([
    [3, 10_000],
    [7, 61_234],
    [24, 156_923],
    [500, 250_001],
  ])('makes %d pictures last exactly %d ms', (count, musicMs) => {
    const fitted = fitToMusic(
      Array.from({ length: count }, (_, index) => slide(String(index), 5000)),
      musicMs,
      () => false,
    );
    const lengths = fitted.ok ? fitted.lengths.map((entry) => entry.lengthMs) : [];
    expect(lengths.reduce((sum, length) => sum + length, 0)).toBe(musicMs);
    expect(Math.max(...lengths) - Math.min(...lengths)).toBeLessThanOrEqual(1);
  });
  it('keeps the length of clips and narrated slides', () => {
    const clip: Slide = {
      ...slide('clip', 8000),
      layers: [{ kind: 'clip', id: layerId('l'), assetId: assetId('b'.repeat(64)), trimStartMs: 0, soundGainDb: 0 }],
    };
    const spoken: Slide = {
      ...slide('spoken', 12_000),
      sounds: [voiceHere(cueId('v'), assetId('c'.repeat(64)), 0)],
    };
    const fitted = fitToMusic([clip, slide('a', 5000), spoken, slide('b', 5000)], 30_000, lengthFollowsContent);
    expect(fitted).toEqual({
      ok: true,
      lengths: [
        { slideId: 'a', lengthMs: 5000, by: 'music' },
        { slideId: 'b', lengthMs: 5000, by: 'music' },
      ],
    });
  });
  it('keeps lengths that a hand holds, and gives what lingers its larger share', () => {
    const held: Slide = { ...slide('held', 4000), chosen: { length: 'hand' } };
    const lingers: Slide = {
      ...slide('lingers', 5000),
      layers: [{ kind: 'picture', id: layerId('l'), assetId: assetId('d'.repeat(64)), move: { kind: 'still' } }],
    };
    const show: Show = {
      ...emptyShow(showId('s'), ''),
      slides: [held, lingers, slide('a', 5000), { ...slide('b', 5000), chosen: { length: 'music' } }],
      marks: { ['d'.repeat(64)]: 'linger' },
    };
    const fitted = fitToMusic(show.slides, 40_000, keepsItsLength, shareOfTime(show));
    expect(fitted.ok && fitted.lengths.map((entry) => [entry.slideId, entry.lengthMs])).toEqual([
      ['lingers', 16_000],
      ['a', 10_000],
      ['b', 10_000],
    ]);
  });
  it('gives no slide less than its words, their coming and going, and its voice need, and shares the rest', () => {
    const words = (title: string, more: Partial<WordsLayer> = {}): WordsLayer => ({
      kind: 'words',
      id: layerId('w'),
      title,
      subtitle: '',
      place: 'top',
      ...more,
    });
    const twenty = 'lantern '.repeat(22);
    const worded: Slide = { ...slide('worded', 5000), layers: [words(twenty)] };
    const leaving: Slide = {
      ...slide('leaving', 5000),
      layers: [
        words(twenty, {
          come: {
            entrance: { way: 'fade', by: 'all', atMs: 1000, lengthMs: 500 },
            exit: { way: 'rise', by: 'all', atMs: 200, lengthMs: 800 },
          },
        }),
      ],
    };
    const voice = assetId('c'.repeat(64));
    const facts = new Map<AssetId, AssetFacts>([[voice, { kind: 'sound', lengthMs: 3000, title: null, artist: null }]]);
    const spoken: Slide = { ...slide('spoken', 5000), sounds: [voiceHere(cueId('v'), voice, 700)] };
    const least = (one: Slide) => leastLengthMs(one, facts, undefined);
    expect([slide('plain', 9000), worded, leaving, spoken].map(least)).toEqual([
      500,
      900 + 6000,
      2500 + 6000,
      3700 + 900,
    ]);
    const slides = [slide('a', 1), worded, slide('b', 1)];
    const fitted = fitToMusic(
      slides,
      9900,
      () => false,
      () => 1,
      least,
    );
    expect(fitted.ok && fitted.lengths.map((entry) => entry.lengthMs)).toEqual([1500, 6900, 1500]);
    expect(
      fitToMusic(
        slides,
        7899,
        () => false,
        () => 1,
        least,
      ),
    ).toMatchObject({ ok: false, shortestMs: 7900 });
    const exact = fitToMusic(
      slides,
      7900,
      () => false,
      () => 1,
      least,
    );
    expect(exact.ok && exact.lengths.map((entry) => entry.lengthMs)).toEqual([500, 6900, 500]);
  });
  it('says what is the least when the music is too short', () => {
    expect(fitToMusic([slide('a', 5000), slide('b', 5000)], 900, () => false)).toEqual({
      ok: false,
      reason: 'music-too-short',
      shortestMs: 1000,
    });
    expect(fitToMusic([slide('a', 5000)], 900, () => true)).toMatchObject({ ok: false, reason: 'no-slides' });
  });
});
