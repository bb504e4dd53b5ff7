import { describe, expect, it } from '@jest/globals';
import { showId } from '../show/ids';
import { blankSlide } from '../show/new-slide';
import { emptyShow, type Show } from '../show/show';
import { FRAME_RATES } from '../timing/frame-rate';
import { faultOfFilm, planFilm, widthFor } from './plan-film';

const shape = { widthPx: 1920, heightPx: 1080, rate: { frames: 30, seconds: 1 } };

describe('planFilm', () => {
  it.each([[1000], [5000], [23_456], [156_923], [3_600_000]])(
    'cuts %d ms into segments that follow each other and hold every frame',
    (lengthMs) => {
      const plan = planFilm(shape, 1080, shape.rate, lengthMs, 2);
      expect(plan.segments[0]!.firstFrame).toBe(0);
      expect(plan.segments.at(-1)!.endFrame).toBe(plan.frameCount);
      plan.segments
        .slice(1)
        .forEach((segment, index) => expect(segment.firstFrame).toBe(plan.segments[index]!.endFrame));
      expect(Math.max(...plan.segments.map((segment) => segment.endFrame - segment.firstFrame))).toBeLessThanOrEqual(
        300,
      );
    },
  );
  it.each(Object.entries(FRAME_RATES))('cuts where a whole microsecond ends, at %s a second', (_name, rate) => {
    for (const { endFrame } of planFilm(shape, 720, rate, 61_000, 2).segments.slice(0, -1)) {
      const microseconds = (endFrame * 1_000_000 * rate.seconds) / rate.frames;
      expect(Math.abs(microseconds - Math.round(microseconds))).toBeLessThan(1e-6);
    }
  });
  it('gives every worker something to do in a short film', () => {
    expect(planFilm(shape, 720, shape.rate, 15_000, 2).segments.length).toBeGreaterThanOrEqual(6);
  });
  it.each([
    [1080, 1920],
    [720, 1280],
    [480, 854],
    [2160, 3840],
  ])('is as wide as the shape wants at %d', (height, width) => {
    expect(widthFor(shape, height)).toBe(width);
  });
});

describe('a film', () => {
  const lasting = (...lengths: number[]): Show => ({
    ...emptyShow(showId('s'), ''),
    slides: lengths.map((lengthMs, index) => blankSlide(lengthMs, '#000000', () => `s${index}`)),
  });
  const HOUR = 3_600_000;
  it.each<[string, Show, RegExp | null]>([
    ['needs a slide', lasting(), /no slides yet/],
    ['can last twelve hours', lasting(6 * HOUR, 6 * HOUR), null],
    ['and no longer', lasting(6 * HOUR, 6 * HOUR, 200), /12 hours at most/],
  ])('%s', (_name, show, sentence) => {
    if (sentence) expect(faultOfFilm(show)).toMatch(sentence);
    else expect(faultOfFilm(show)).toBeNull();
  });
});
