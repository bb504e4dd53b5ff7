import { describe, expect, it } from '@jest/globals';
import { slideSpans } from '../timing/slide-span';
import { besideMoment, differencesOf } from './differences';
import { blankSlide } from './new-slide';
import { cueId, assetId, slideId } from './ids';
import { songAfter } from './placed-sound';
import type { Slide } from './show';

const slide = (id: string, lengthMs = 4000): Slide => ({
  ...blankSlide(lengthMs, '#000000', () => id),
  id: slideId(id),
});
const [a, b, c, d] = [slide('a'), slide('b'), slide('c'), slide('d')];
const show = (slides: readonly Slide[], cues: readonly ReturnType<typeof songAfter>[] = []) => ({ slides, cues });

describe('what differs between two versions', () => {
  it('is nothing between a show and itself', () => {
    expect(differencesOf(show([a, b]), show([a, b]))).toEqual({
      added: [],
      removed: [],
      changed: [],
      moved: false,
      music: false,
    });
  });
  it('is what came, what went, what was changed, what was moved, and the music', () => {
    const found = differencesOf(
      show([a, b, c]),
      show([c, { ...a, lengthMs: 900 }, d], [songAfter(cueId('s'), assetId('a'.repeat(64)), 0)]),
    );
    expect(found).toEqual({ added: ['d'], removed: ['b'], changed: ['a'], moved: true, music: true });
  });
});

describe('the moment beside a moment', () => {
  const from = slideSpans([a, b, c]);
  it('is the same share of the same slide, however long it is', () => {
    const to = slideSpans([d, slide('b', 8000)]);
    expect(besideMoment(5000, from, to)).toBe(4000 + 2000);
  });
  it('is the end of the slide before where the slide is not there', () => {
    expect(besideMoment(6000, from, slideSpans([a, c]))).toBe(3999);
  });
  it('is the beginning where nothing is in common', () => {
    expect(besideMoment(6000, from, slideSpans([d]))).toBe(0);
  });
});
