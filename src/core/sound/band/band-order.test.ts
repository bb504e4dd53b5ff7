import { describe, expect, it } from '@jest/globals';
import * as fc from 'fast-check';
import { assetId, cueId, showId, slideId } from '../../show/ids';
import { songAfter, type PlacedSound } from '../../show/placed-sound';
import { emptyShow, type Show } from '../../show/show';
import { bandSpans, wishesFor, type BandOrder } from './band-order';
import { BAND_INSTRUMENTS, BAND_MOODS, BAND_STYLES } from './band-wishes';
import { bandFault, compose } from './compose';
import { outOfKey, outOfRange } from './score-measures.testing';

const ORDER: BandOrder = { style: 'march', mood: 'glad', energy: 0.5, seed: 3, turns: true };
const slide = (id: string, lengthMs: number, chapter?: string) => ({
  id: slideId(id),
  lengthMs,
  transition: { kind: 'cut' as const },
  backing: { kind: 'automatic' as const },
  layers: [],
  sounds: [],
  ...(chapter !== undefined && { chapter }),
});
const showOf = (slides: Show['slides'], cues: readonly PlacedSound[] = []): Show => ({
  ...emptyShow(showId('s'), ''),
  slides,
  cues,
});
const SLIDES = [slide('a', 5000), slide('b', 5000, 'Later'), slide('c', 12_000), slide('d', 5000), slide('e', 5000)];

describe('what the band is told of a show', () => {
  it('is where chapters begin and pictures linger, counted from where the music begins', () => {
    expect(wishesFor(ORDER, showOf(SLIDES), 0, 32_000)).toEqual({
      style: 'march',
      mood: 'glad',
      energy: 0.5,
      seed: 3,
      lengthMs: 32_000,
      moments: [
        { atMs: 5000, what: 'chapter' },
        { atMs: 10_000, what: 'lingers' },
      ],
    });
    expect(wishesFor(ORDER, showOf(SLIDES), 8000, 32_000)!.moments).toEqual([{ atMs: 2000, what: 'lingers' }]);
  });
  it('is its length alone where the music shall not turn, and nothing where a piece cannot be so short or so long', () => {
    expect(wishesFor({ ...ORDER, turns: undefined }, showOf(SLIDES), 0, 32_000)).not.toHaveProperty('moments');
    expect(wishesFor(ORDER, showOf(SLIDES), 0, 7000)).toBeNull();
    expect(wishesFor(ORDER, showOf(SLIDES), 0, 1_300_000)).toBeNull();
  });
});

it('a piece is to fill its place, however long what is there of it is, and whatever was cut of that', () => {
  const id = assetId('c'.repeat(64));
  const song: PlacedSound = {
    ...songAfter(cueId('one'), id, 0),
    ends: { at: 'show-end', beforeMs: 2000 },
    trimStartMs: 300,
    trimEndMs: 900,
    band: ORDER,
  };
  for (const lengthMs of [4000, 90_000]) {
    const facts = new Map([[id, { kind: 'sound' as const, lengthMs, title: null, artist: null }]]);
    expect(bandSpans(showOf(SLIDES, [song]), facts).map(({ startMs, endMs }) => [startMs, endMs])).toEqual([
      [0, 30_000],
    ]);
  }
  expect(bandSpans(showOf(SLIDES, [{ ...song, band: undefined }]), new Map())).toEqual([]);
});

const wishes = fc.record({
  style: fc.constantFrom(...BAND_STYLES),
  mood: fc.constantFrom(...BAND_MOODS),
  energy: fc.double({ min: 0, max: 1, noNaN: true }),
  lengthMs: fc.integer({ min: 8000, max: 90_000 }),
  seed: fc.integer({ min: 0, max: 9999 }),
  bpm: fc.option(fc.integer({ min: 40, max: 200 }), { nil: undefined }),
  without: fc.subarray([...BAND_INSTRUMENTS], { maxLength: 3 }),
  and: fc.subarray([...BAND_INSTRUMENTS], { maxLength: 3 }),
});
it('whatever can be wished can be played: in its key and range, within its length, its last chord in its place', () => {
  let played = 0;
  fc.assert(
    fc.property(wishes, ({ bpm, ...rest }) => {
      const asked = { ...rest, ...(bpm !== undefined && { bpm }) };
      if (bandFault(asked) !== null) {
        expect(() => compose(asked)).toThrow(RangeError);
        return;
      }
      played += 1;
      const piece = compose(asked);
      expect([outOfKey(piece), outOfRange(piece)]).toEqual([[], []]);
      const { beatsMs } = piece.form;
      beatsMs.slice(1).forEach((atMs, beat) => expect(atMs).toBeGreaterThan(beatsMs[beat]!));
      expect(beatsMs.at(-1)!).toBeLessThan(asked.lengthMs - 500);
      for (const { notes } of piece.parts)
        for (const { beat, beats, loudness } of notes) {
          if (!(beat >= 0 && beats > 0 && loudness > 0 && loudness <= 1))
            throw new Error(`${beat} ${beats} ${loudness}`);
        }
    }),
    { numRuns: 150, seed: 11 },
  );
  expect(played).toBeGreaterThan(20);
});
