import { describe, expect, it } from '@jest/globals';
import { BAND_MOODS, BAND_STYLES, type BandStyleName, type BandWishes } from './band-wishes';
import { compose, instrumentsOf } from './compose';
import { momentOfBeat } from './piece';
import { perform } from './perform';
import {
  barsOfTune,
  collapsed,
  featuresOf,
  outOfKey,
  outOfRange,
  parallels,
  playedByPhrase,
  rankCorrelation,
  repeatedBars,
  selfLikeness,
  tuneOf,
  underBass,
  unresolvedLeaps,
} from './score-measures.testing';
import { styleNamed } from './styles';

const wishesOf = (style: BandStyleName, over: Partial<BandWishes> = {}): BandWishes => ({
  style,
  mood: 'warm',
  energy: 0.6,
  lengthMs: 181_000,
  seed: 1,
  ...over,
});
const SEEDS = [1, 2, 3, 4, 5];
const mean = (values: readonly number[]) => values.reduce((sum, value) => sum + value, 0) / values.length;

describe.each(BAND_STYLES)('the band plays %s', (style) => {
  const pieces = BAND_MOODS.flatMap((mood) =>
    SEEDS.slice(0, 2).map((seed) => compose(wishesOf(style, { mood, seed, lengthMs: 90_000 }))),
  );
  const long = SEEDS.map((seed) => compose(wishesOf(style, { seed })));

  it.each([17_000, 60_000, 181_000, 600_000])(
    'with its last chord where it can ring out before %d ms are over',
    (lengthMs) => {
      const piece = compose(wishesOf(style, { lengthMs }));
      const lastMs = piece.form.beatsMs.at(-1)!;
      const ringMs = lengthMs - lastMs;
      expect(ringMs).toBeGreaterThan(Math.min(styleNamed(style).ringMs, 0.28 * lengthMs) * 0.69);
      expect(ringMs).toBeLessThan(styleNamed(style).ringMs * 1.31);
      const lastBeat = piece.form.bars * piece.form.beatsABar;
      const played = piece.parts.flatMap((part, index) => perform(piece, part, index));
      const ends = played.filter(({ startMs }) => startMs >= lastMs - 60);
      expect(
        Math.min(...ends.filter(({ startMs }) => startMs >= lastMs - 0.5).map(({ startMs }) => startMs)),
      ).toBeCloseTo(lastMs, 0);
      expect(piece.chords.at(-1)!.beat).toBe(lastBeat);
      // The tempo is the wanted one but for what whole bars need.
      if (lengthMs >= 60_000) {
        const slow = compose(wishesOf(style, { lengthMs, bpm: styleNamed(style).bpm.usual }));
        expect(Math.abs(slow.form.bpm / styleNamed(style).bpm.usual - 1)).toBeLessThan(0.02);
      }
    },
  );

  it('in its key, within what its instruments have, the bass below the tune, chords of several tones', () => {
    for (const piece of pieces) {
      expect(outOfKey(piece)).toEqual([]);
      expect(outOfRange(piece)).toEqual([]);
      expect(underBass(piece)).toEqual([]);
      expect(collapsed(piece)).toBe(0);
    }
  });

  it('with voices that do not go side by side, and leaps that turn back', () => {
    expect(mean(pieces.map(parallels))).toBeLessThan(0.03);
    expect(mean(long.map(unresolvedLeaps))).toBeLessThan(0.12);
  });

  it('with a tune that is neither a loop nor noise', () => {
    const bars = long.map((piece) => barsOfTune(tuneOf(piece)!.notes, piece.form.beatsABar));
    expect(Math.max(...bars.map(repeatedBars))).toBeLessThan(0.6);
    const likeness = mean(bars.map(selfLikeness));
    expect(likeness).toBeGreaterThan(0.6);
    expect(likeness).toBeLessThan(0.97);
  });

  it('louder and fuller where there is more energy', () => {
    expect(mean(long.map((piece) => rankCorrelation(playedByPhrase(piece))))).toBeGreaterThan(0.7);
    const [quiet, full] = [0.15, 0.95].map((energy) =>
      mean(playedByPhrase(compose(wishesOf(style, { energy }))).map(({ played }) => played)),
    );
    expect(full!).toBeGreaterThan(1.3 * quiet!);
  });

  it('in phrases of whole bars that fill it without gaps, ending on a cadence', () => {
    for (const piece of [...pieces, ...long]) {
      let bar = 0;
      for (const { firstBar, bars } of piece.form.phrases) {
        expect(firstBar).toBe(bar);
        bar += bars;
      }
      expect(bar).toBe(piece.form.bars);
      expect(piece.chords.at(-2)!.name).toMatch(/^(V|v)/u);
      expect(piece.chords.at(-1)!.name).toMatch(/^(I|i)(?!I|i|V|v)/u);
      // The tune comes home.
      expect((tuneOf(piece)!.notes.at(-1)!.pitch - piece.tonic) % 12).toBe(0);
    }
  });

  it('the same from the same seed, another from another', () => {
    expect(compose(wishesOf(style)).parts).toEqual(long[0]!.parts);
    expect(long[1]!.parts).not.toEqual(long[0]!.parts);
    const [one, other] = [long[0]!, long[1]!].map((piece) =>
      JSON.stringify(tuneOf(piece)!.notes.map(({ pitch }) => pitch - piece.tonic)),
    );
    expect(one).not.toBe(other);
  });

  it('without an instrument that is not wanted, and with one that is', () => {
    const own = instrumentsOf(styleNamed(style));
    const left = own.length > 1 ? own.at(-1)! : null;
    const more = own.includes('bells') ? 'clarinet' : 'bells';
    const piece = compose(wishesOf(style, { and: [more], energy: 1, ...(left && { without: [left] }) }));
    const there = piece.parts.map(({ instrument }) => instrument);
    expect(there).toContain(more);
    if (left) expect(there).not.toContain(left);
  });
});

it('turns where a chapter begins, and goes down where a picture lingers', () => {
  const plain = compose(wishesOf('folk-guitar'));
  const moments = [
    { atMs: 70_000, what: 'chapter' as const },
    { atMs: 121_000, what: 'lingers' as const },
  ];
  const piece = compose(wishesOf('folk-guitar', { moments }));
  const starts = piece.form.sections.map(({ firstBar }) => momentOfBeat(piece.form, firstBar * piece.form.beatsABar));
  const barMs = momentOfBeat(piece.form, 4);
  expect(Math.min(...starts.map((atMs) => Math.abs(atMs - 70_000)))).toBeLessThan(2.5 * barMs);
  const energyAt = (of: typeof piece, atMs: number) =>
    of.form.phrases.findLast(({ firstBar }) => momentOfBeat(of.form, firstBar * of.form.beatsABar) <= atMs)!.energy;
  expect(energyAt(piece, 121_500)).toBeLessThan(energyAt(plain, 121_500) - 0.15);
});

it.each(BAND_STYLES)('is never silent, whoever of %s plays alone and however calm it is', (style) => {
  const own = instrumentsOf(styleNamed(style));
  for (const alone of own)
    for (const energy of [0, 1]) {
      const without = own.filter((instrument) => instrument !== alone);
      const piece = compose(wishesOf(style, { lengthMs: 60_000, energy, ...(without.length > 0 && { without }) }));
      const starts = piece.parts.flatMap(({ notes }) => notes.map(({ beat }) => beat));
      const { beatsABar, bars, phrases } = piece.form;
      for (const { firstBar, bars: count } of phrases)
        expect([
          alone,
          energy,
          firstBar,
          starts.some((beat) => beat >= firstBar * beatsABar - 1e-6 && beat < (firstBar + count) * beatsABar),
        ]).toEqual([alone, energy, firstBar, true]);
      if (alone !== 'shaker')
        expect([alone, energy, starts.some((beat) => beat >= bars * beatsABar - 1e-6)]).toEqual([alone, energy, true]);
    }
});

it('refuses to play without anybody', () => {
  expect(() => compose(wishesOf('quiet-piano', { without: ['piano', 'cello', 'viola'] }))).toThrow(RangeError);
});

it('finds known tunes to lie in the band of likeness that is asked of ours, noise below it and a loop above', () => {
  // Four old tunes by their scale steps and lengths, written down from memory; all older than a hundred and fifty years.
  const tunes: (readonly [number, number])[][] = [
    [
      [0, 1],
      [0, 1],
      [7, 1],
      [7, 1],
      [9, 1],
      [9, 1],
      [7, 2],
      [5, 1],
      [5, 1],
      [4, 1],
      [4, 1],
      [2, 1],
      [2, 1],
      [0, 2],
      [7, 1],
      [7, 1],
      [5, 1],
      [5, 1],
      [4, 1],
      [4, 1],
      [2, 2],
      [7, 1],
      [7, 1],
      [5, 1],
      [5, 1],
      [4, 1],
      [4, 1],
      [2, 2],
    ],
    [
      [4, 1],
      [4, 1],
      [5, 1],
      [7, 1],
      [7, 1],
      [5, 1],
      [4, 1],
      [2, 1],
      [0, 1],
      [0, 1],
      [2, 1],
      [4, 1],
      [4, 1.5],
      [2, 0.5],
      [2, 2],
      [4, 1],
      [4, 1],
      [5, 1],
      [7, 1],
      [7, 1],
      [5, 1],
      [4, 1],
      [2, 1],
      [0, 1],
      [0, 1],
      [2, 1],
      [4, 1],
      [2, 1.5],
      [0, 0.5],
      [0, 2],
    ],
    [
      [0, 1],
      [2, 1],
      [4, 1],
      [0, 1],
      [0, 1],
      [2, 1],
      [4, 1],
      [0, 1],
      [4, 1],
      [5, 1],
      [7, 2],
      [4, 1],
      [5, 1],
      [7, 2],
      [7, 0.5],
      [9, 0.5],
      [7, 0.5],
      [5, 0.5],
      [4, 1],
      [0, 1],
      [7, 0.5],
      [9, 0.5],
      [7, 0.5],
      [5, 0.5],
      [4, 1],
      [0, 1],
    ],
    [
      [7, 1],
      [4, 1],
      [4, 2],
      [5, 1],
      [2, 1],
      [2, 2],
      [0, 1],
      [2, 1],
      [4, 1],
      [5, 1],
      [7, 1],
      [7, 1],
      [7, 2],
      [7, 1],
      [4, 1],
      [4, 2],
      [5, 1],
      [2, 1],
      [2, 2],
      [0, 1],
      [4, 1],
      [7, 1],
      [7, 1],
      [0, 4],
    ],
  ];
  const known = tunes.map((tune) => {
    let beat = 0;
    return selfLikeness(
      barsOfTune(
        tune.map(([pitch, beats]) => {
          const note = { beat, pitch };
          beat += beats;
          return note;
        }),
        4,
      ),
    );
  });
  expect(Math.min(...known)).toBeGreaterThan(0.6);
  expect(Math.max(...known)).toBeLessThan(0.97);
  const noise = Array.from({ length: 16 }, (_, bar) =>
    [0, 1, 2, 3, 4, 5, 6, 7]
      .filter((at) => (bar * 37 + at * 101) % 7 < 3)
      .map((at) => ({ at: at * 6, pitch: (bar * 31 + at * 17) % 12 })),
  ).filter((bar) => bar.length > 0);
  expect(selfLikeness(noise)).toBeLessThan(0.75);
  expect(selfLikeness(Array.from({ length: 8 }, () => [{ at: 0, pitch: 1 }]))).toBe(1);
});

it('styles are told apart by what is in their scores', () => {
  const rows = BAND_STYLES.flatMap((style) =>
    Array.from({ length: 20 }, (_, seed) => ({
      style,
      isKnown: seed < 10,
      features: featuresOf(
        compose(
          wishesOf(style, {
            seed: 100 + seed,
            lengthMs: 60_000,
            energy: 0.3 + 0.03 * seed,
            mood: BAND_MOODS[seed % 6]!,
          }),
        ),
      ),
    })),
  );
  const spread = rows[0]!.features.map((_, at) => {
    const values = rows.map(({ features }) => features[at]!);
    const centre = mean(values);
    return Math.sqrt(mean(values.map((value) => (value - centre) ** 2))) || 1;
  });
  const apart = (one: readonly number[], other: readonly number[]) =>
    one.reduce((sum, value, at) => sum + ((value - other[at]!) / spread[at]!) ** 2, 0);
  const known = rows.filter(({ isKnown }) => isKnown);
  const asked = rows.filter(({ isKnown }) => !isKnown);
  const right = asked.filter(({ style, features }) => {
    const nearest = known.reduce((best, row) =>
      apart(row.features, features) < apart(best.features, features) ? row : best,
    );
    return nearest.style === style;
  });
  expect(right.length / asked.length).toBeGreaterThanOrEqual(0.9);
});
