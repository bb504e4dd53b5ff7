import { describe, expect, it } from '@jest/globals';
import { blankSlide } from '../show/new-slide';
import { LONGEST_SLIDE_MS } from '../show/limits';
import { movedSeam, type SeamWay } from './moved-seam';

let counted = 0;
const slides = [4000, 3000, 5000].map((lengthMs) => blankSlide(lengthMs, '#102030', () => `s${(counted += 1)}`));

describe('movedSeam', () => {
  it.each<[string, number, number, SeamWay, number[]]>([
    ['ripple: only the slide itself gets longer', 0, 700, 'ripple', [4700]],
    ['ripple: not shorter than the shortest', 0, -9000, 'ripple', [200]],
    ['ripple: not longer than a day', 2, 1e9, 'ripple', [LONGEST_SLIDE_MS]],
    ['roll: the next gives what this one takes', 0, 700, 'roll', [4700, 2300]],
    ['roll: the next takes what this one gives', 1, -500, 'roll', [2500, 5500]],
    ['roll: the next keeps the shortest', 0, 9000, 'roll', [6800, 200]],
    ['roll: and so does this one', 0, -9000, 'roll', [200, 6800]],
    ['roll: the last has no next', 2, 1000, 'roll', [6000]],
    ['whole milliseconds', 0, 333.4, 'roll', [4333, 2667]],
  ])('%s', (_name, index, byMs, way, lengths) => {
    expect(movedSeam(slides, index, byMs, way)).toEqual(
      lengths.map((lengthMs, at) => ({ slideId: slides[index + at]!.id, lengthMs })),
    );
  });
  it('names a slide that is not there', () =>
    expect(() => movedSeam(slides, 3, 100, 'roll')).toThrow(/no slide 3 among 3/));
});
