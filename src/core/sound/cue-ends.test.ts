import { describe, expect, it } from '@jest/globals';
import { slideId } from '../show/ids';
import type { SoundEnd, SoundStart } from '../show/placed-sound';
import type { SlideSpan } from '../timing/slide-span';
import { anchorName, endAt, startAt } from './cue-ends';

const spans: SlideSpan[] = ['a', 'b', 'c'].map((name, slideIndex) => ({
  slideId: slideId(name),
  slideIndex,
  startMs: 5000 * slideIndex,
  endMs: 5000 * (slideIndex + 1),
  transitionMs: 0,
  leavesMs: 5000 * (slideIndex + 1),
}));
const near = { spans, showMs: 15_000, reachMs: 300 };
const tied = (name: string, offsetMs: number) => ({ at: 'slide', slideId: slideId(name), offsetMs });

describe('an end of a song that is dragged', () => {
  it.each<[string, number, object]>([
    ['right after the song before', 2100, { at: 'after' }],
    ['with the slide whose start is near, before it', 4800, tied('b', 0)],
    ['with the slide whose start is near, past it', 5200, tied('b', 0)],
    ['so long after a slide', 7000, tied('b', 2000)],
  ])('begins %s', (_where, momentMs, starts) => expect(startAt(momentMs, 2000, near)).toEqual(starts));
  it.each<[string, number, object]>([
    ['with its file', 13_000, { at: 'own-end' }],
    ['with a slide', 9900, tied('c', 0)],
    ['so long after a slide', 11_500, tied('c', 1500)],
  ])('ends %s', (_where, momentMs, ends) => expect(endAt(momentMs, 13_200, near)).toEqual(ends));
  it('ends with the show when its file goes on, and at a moment in a show without slides', () => {
    expect(endAt(14_900, 60_000, near)).toEqual({ at: 'show-end', beforeMs: 0 });
    expect(endAt(900, 60_000, { spans: [], showMs: 5000, reachMs: 300 })).toEqual({ at: 'moment', momentMs: 900 });
  });
  it.each<[SoundStart | SoundEnd, string]>([
    [{ at: 'after' }, 'after the song before'],
    [{ at: 'own-end' }, 'its own end'],
    [{ at: 'show-end', beforeMs: 0 }, 'the show’s end'],
    [{ at: 'show-end', beforeMs: 2500 }, '2.5 s before the show’s end'],
    [{ at: 'moment', momentMs: 1500 }, '1.5 s into the show'],
    [{ at: 'here', offsetMs: 500 }, '0.5 s into its slide'],
    [{ at: 'slide', slideId: slideId('b'), offsetMs: 0 }, 'slide 2'],
    [{ at: 'slide', slideId: slideId('b'), offsetMs: 1000 }, '1.0 s into slide 2'],
  ])('says where %j is', (anchor, said) => expect(anchorName(anchor, spans)).toBe(said));
});
