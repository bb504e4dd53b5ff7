import { describe, expect, it } from '@jest/globals';
import { assetId, cueId, showId, slideId } from '../../core/show/ids';
import { songAfter, type PlacedSound } from '../../core/show/placed-sound';
import { emptyShow, type Show } from '../../core/show/show';
import type { AssetFacts } from '../../core/show/asset-facts';
import { pieceToPlayAnew } from './use-band-follows';

const ID = assetId('b'.repeat(64));
const band = { style: 'lullaby', mood: 'warm', energy: 0.5, seed: 4, turns: true } as const;
const song: PlacedSound = {
  ...songAfter(cueId('song'), ID, 0),
  ends: { at: 'show-end', beforeMs: 0 },
  tailored: {},
  band,
};
const slide = (id: string, lengthMs: number, chapter?: string) => ({
  id: slideId(id),
  lengthMs,
  transition: { kind: 'cut' as const },
  backing: { kind: 'automatic' as const },
  layers: [],
  sounds: [],
  ...(chapter !== undefined && { chapter }),
});
const showOf = (more: Partial<Show>): Show => ({
  ...emptyShow(showId('s'), ''),
  cues: [song],
  slides: [slide('a', 12_000), slide('b', 12_000)],
  ...more,
});
const played = (lengthMs: number, moments?: { atMs: number; what: 'chapter' | 'lingers' }[]) =>
  new Map<typeof ID, AssetFacts>([
    [
      ID,
      {
        kind: 'sound',
        lengthMs,
        title: null,
        artist: null,
        band: {
          method: 1,
          wishes: { style: 'lullaby', mood: 'warm', energy: 0.5, seed: 4, lengthMs, ...(moments && { moments }) },
        },
      },
    ],
  ]);

describe('what the band plays anew', () => {
  it('is nothing while a piece is as long as the show', () => {
    expect(pieceToPlayAnew({ show: showOf({}), facts: played(24_000) })).toBeNull();
  });
  it('is a piece that the show has outgrown, or that plays on after it', () => {
    for (const lengthMs of [20_000, 30_000])
      expect(pieceToPlayAnew({ show: showOf({}), facts: played(lengthMs) })?.wishes).toMatchObject({
        lengthMs: 24_000,
        style: 'lullaby',
      });
  });
  it('is a piece whose chapters begin elsewhere now', () => {
    const show = showOf({ slides: [slide('a', 12_000), slide('b', 12_000, 'Later')] });
    expect(pieceToPlayAnew({ show, facts: played(24_000) })?.wishes.moments).toEqual([
      { atMs: 12_000, what: 'chapter' },
    ]);
    expect(pieceToPlayAnew({ show, facts: played(24_000, [{ atMs: 12_000, what: 'chapter' }]) })).toBeNull();
  });
  it('is nothing where the pictures follow the music, where it keeps its own end, and where no piece is so short', () => {
    const facts = played(20_000);
    expect(pieceToPlayAnew({ show: showOf({ pace: { fit: 'music' } as never }), facts })).toBeNull();
    expect(pieceToPlayAnew({ show: showOf({ cues: [{ ...song, ends: { at: 'own-end' } }] }), facts })).toBeNull();
    expect(pieceToPlayAnew({ show: showOf({ slides: [slide('a', 5000)] }), facts })).toBeNull();
  });
});
