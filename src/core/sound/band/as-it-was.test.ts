import { describe, expect, it } from '@jest/globals';
import { fingerprint } from '../../fingerprint.testing';
import { BAND_MOODS, BAND_STYLES, type BandWishes } from './band-wishes';
import { compose, instrumentsOf } from './compose';
import { asMusicXml } from './music-xml';
import { perform } from './perform';
import { heardInScore } from './piece-facts';
import { styleNamed } from './styles';

// A show asks the band for its piece again whenever its length changes, on any machine: the same wishes are the same piece, today and in a year. Where a style is
// meant to change, the snapshots are written anew, and the pieces that ship are played again.

/** Short and long, slow and fast, bare and with guests, and with what happens in a show. */
const WISHES: readonly Omit<BandWishes, 'style' | 'mood'>[] = [
  { energy: 0.1, lengthMs: 17_000, seed: 1 },
  { energy: 0.35, lengthMs: 31_400, seed: 7, bpm: 64 },
  { energy: 0.6, lengthMs: 61_000, seed: 2, bpm: 132 },
  {
    energy: 0.8,
    lengthMs: 124_500,
    seed: 3,
    moments: [
      { atMs: 31_000, what: 'chapter' },
      { atMs: 58_000, what: 'lingers' },
      { atMs: 90_000, what: 'chapter' },
    ],
  },
  { energy: 1, lengthMs: 240_000, seed: 4 },
];

describe('the band writes and plays what it did', () => {
  it.each(BAND_STYLES)('%s', (style) => {
    const own = instrumentsOf(styleNamed(style));
    const guests = (['flute', 'cello', 'horn', 'steel-guitar'] as const)
      .filter((one) => !own.includes(one))
      .slice(0, 2);
    const prints = WISHES.map((wishes, at) => {
      const mood = BAND_MOODS[(at + style.length) % BAND_MOODS.length]!;
      const piece = compose({ ...wishes, style, mood, ...(at === 2 && { and: guests }) });
      return {
        bars: piece.form.bars,
        score: fingerprint([piece.form, piece.chords, piece.parts]),
        written: fingerprint(asMusicXml(piece)),
        known: fingerprint(heardInScore(piece)),
        played: piece.parts.map(
          (part, index) => `${part.instrument}: ${part.notes.length} ${fingerprint(perform(piece, part, index))}`,
        ),
      };
    });
    expect(prints).toMatchSnapshot();
  });
});
