import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { prepareShow, type PreparedShow } from '../frame/plan-frame';
import { showId } from '../show/ids';
import { blankSlide } from '../show/new-slide';
import { widthFor } from '../show/shape';
import { emptyShow, type Show, type Slide } from '../show/show';
import { FRAME_RATES } from '../timing/frame-rate';
import { frameCount } from '../timing/frames';
import { planFilm } from './plan-film';

const slides = (...lengths: number[]): Slide[] =>
  lengths.map((lengthMs, index) => blankSlide(lengthMs, '#000000', () => `s${index * 37}`));
const showOf = (some: readonly Slide[], rate = FRAME_RATES['30']!): Show => {
  const empty = emptyShow(showId('s'), '');
  return { ...empty, frame: { ...empty.frame, rate }, slides: some };
};
const prepared = (some: readonly Slide[], rate?: Show['frame']['rate']): PreparedShow =>
  prepareShow(showOf(some, rate), new Map());

describe('planFilm', () => {
  it('cuts every show at every rate into segments that follow each other, hold every frame and are no longer than eight seconds', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 40, max: 40_000 }), { minLength: 1, maxLength: 40 }),
        fc.constantFrom(...Object.values(FRAME_RATES)),
        (lengths, rate) => {
          const { segments, frameCount: count } = planFilm(prepared(slides(...lengths), rate));
          expect(count).toBe(
            frameCount(
              lengths.reduce((sum, length) => sum + length, 0),
              rate,
            ),
          );
          expect(segments[0]!.firstFrame).toBe(0);
          expect(segments.at(-1)!.endFrame).toBe(count);
          expect(segments[0]!.follows).toBe(0);
          segments.slice(1).forEach(({ firstFrame, follows }, index) => {
            expect(firstFrame).toBe(segments[index]!.endFrame);
            expect(follows).toBe(segments[index]!.endFrame - segments[index]!.firstFrame);
          });
          for (const { firstFrame, endFrame } of segments) {
            expect(endFrame).toBeGreaterThan(firstFrame);
            expect(endFrame - firstFrame).toBeLessThanOrEqual(Math.ceil((8 * rate.frames) / rate.seconds));
          }
        },
      ),
    );
  });
  it('cuts at slides that last some seconds, and within one that stays long', () => {
    const cuts = planFilm(prepared(slides(5000, 5000, 20_000, 5000))).segments.map(({ firstFrame }) => firstFrame);
    expect(cuts).toEqual([0, 150, 300, 500, 700, 900]);
  });
  it('puts short slides together, and cuts them after a change as before it', () => {
    const short = slides(...Array.from({ length: 60 }, () => 600));
    const cutsBefore = (some: readonly Slide[]) => {
      const { segments } = planFilm(prepared(some));
      return new Set(segments.map(({ firstFrame }) => some[Math.round(firstFrame / 18)]!.id));
    };
    const before = cutsBefore(short);
    expect(before.size).toBeLessThan(18);
    const after = cutsBefore(short.filter((_, index) => index !== 7));
    const late = short.slice(25).map(({ id }) => id);
    expect(late.filter((id) => before.has(id) !== after.has(id))).toEqual([]);
  });
  it('makes a stretch of the show only', () => {
    const plan = planFilm(prepared(slides(5000, 5000, 5000)), { fromMs: 4000, toMs: 11_000 });
    expect(plan).toMatchObject({ firstFrame: 120, endFrame: 330, frameCount: 210 });
    expect(plan.segments.map(({ firstFrame }) => firstFrame)).toEqual([120, 150 + 150]);
  });
  it.each([
    [1080, 1920],
    [720, 1280],
    [480, 854],
    [2160, 3840],
  ])('is as wide as the shape wants at %d', (height, width) => {
    expect(widthFor({ widthPx: 1920, heightPx: 1080 }, height)).toBe(width);
  });
});
