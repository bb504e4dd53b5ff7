import { describe, expect, it } from '@jest/globals';
import type { ShowBeat } from '../sound/show-beats';
import { catchName, caughtSeam } from './caught-seam';

const beats: ShowBeat[] = [4000, 4500, 5000, 5500].map((atMs, index) => ({
  atMs,
  begins: index === 2 ? 'bar' : 'beat',
  bar: index < 2 ? 3 : 4,
  beat: [3, 4, 1, 2][index]!,
}));
const music = { beats, accentsMs: [4260, 7000] };

describe('a seam that is dragged', () => {
  it.each<[string, number, number, string | null]>([
    ['the beat it is near to', 900, 1000, 'bar 4, beat 1'],
    ['the nearer of two beats', 390, 500, 'bar 3, beat 4'],
    ['a loud stroke between beats', 240, 260, 'a loud stroke'],
    ['nothing when nothing is near', 2500, 2500, null],
    ['nothing when it is not moved', 0, 0, null],
  ])('is caught by %s', (_what, askedMs, byMs, name) => {
    const caught = caughtSeam(music, 4000, askedMs);
    expect([caught.byMs, caught.by && catchName(caught.by)]).toEqual([byMs, name]);
  });
  it('lies free in a show without music', () => {
    expect(caughtSeam({ beats: [], accentsMs: [] }, 4000, 330)).toEqual({ byMs: 330, by: null });
  });
});
