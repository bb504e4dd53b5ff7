import { describe, expect, it } from '@jest/globals';
import { atSpeed, clipPart, trimmedFrom, trimmedTo } from './clip-trim';

const plain = { trimStartMs: 1000 };

describe('the part of a clip that is shown', () => {
  it('goes from where it begins for as long as the slide lasts, faster or slower by its speed', () => {
    expect(clipPart(plain, 3000, 10_000)).toEqual({ fromMs: 1000, toMs: 4000, heldMs: 0 });
    expect(clipPart({ ...plain, speed: 2 }, 3000, 10_000)).toEqual({ fromMs: 1000, toMs: 7000, heldMs: 0 });
  });
  it('ends with the clip; then its last frame is held', () => {
    expect(clipPart(plain, 3000, 3000)).toEqual({ fromMs: 1000, toMs: 3000, heldMs: 1000 });
    expect(clipPart({ ...plain, speed: 0.5 }, 6000, 3000)).toEqual({ fromMs: 1000, toMs: 3000, heldMs: 2000 });
  });
});

describe('trimming', () => {
  it('by its beginning keeps its end: the slide is as much shorter or longer', () => {
    expect(trimmedFrom(plain, 3000, 10_000, 2000)).toEqual({ trimStartMs: 2000, lengthMs: 2000 });
    expect(trimmedFrom(plain, 3000, 10_000, -500)).toEqual({ trimStartMs: 0, lengthMs: 4000 });
    expect(trimmedFrom({ ...plain, speed: 2 }, 3000, 10_000, 3000)).toEqual({ trimStartMs: 3000, lengthMs: 2000 });
  });
  it('by its end keeps its beginning, and never goes past the clip', () => {
    expect(trimmedTo(plain, 10_000, 6000)).toEqual({ trimStartMs: 1000, lengthMs: 5000 });
    expect(trimmedTo(plain, 10_000, 60_000)).toEqual({ trimStartMs: 1000, lengthMs: 9000 });
  });
  it('falls on frames, and leaves a slide that can be seen', () => {
    expect(trimmedFrom(plain, 3000, 10_000, 2017).trimStartMs).toBe(2033);
    expect(trimmedFrom(plain, 3000, 10_000, 9000).lengthMs).toBeGreaterThanOrEqual(200);
    expect(trimmedTo(plain, 10_000, 0).lengthMs).toBeGreaterThanOrEqual(200);
  });
  it('at another speed shows the same part', () => {
    expect(atSpeed(plain, 3000, 10_000, 0.5)).toBe(6000);
    expect(clipPart({ ...plain, speed: 0.5 }, atSpeed(plain, 3000, 10_000, 0.5), 10_000).toMs).toBe(4000);
  });
});
