import { describe, expect, it } from '@jest/globals';
import { atSpeed, clipPart, endingBy, trimmedFrom, trimmedTo } from './clip-trim';

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
    expect(trimmedTo(plain, 3000, 10_000, 6000)).toEqual({ trimStartMs: 1000, lengthMs: 5000 });
    expect(trimmedTo(plain, 3000, 10_000, 60_000)).toEqual({ trimStartMs: 1000, lengthMs: 9000 });
  });
  it('falls on frames, and leaves a slide that can be seen', () => {
    expect(trimmedFrom(plain, 3000, 10_000, 2017).trimStartMs).toBe(2033);
    expect(trimmedFrom(plain, 3000, 10_000, 9000).lengthMs).toBeGreaterThanOrEqual(200);
    expect(trimmedTo(plain, 3000, 10_000, 0).lengthMs).toBeGreaterThanOrEqual(200);
  });
  it('at another speed shows the same part', () => {
    expect(atSpeed(plain, 3000, 10_000, 0.5)).toBe(6000);
    expect(clipPart({ ...plain, speed: 0.5 }, atSpeed(plain, 3000, 10_000, 0.5), 10_000).toMs).toBe(4000);
  });
});

describe('a clip that says its end', () => {
  const ended = { trimStartMs: 1000, trimEndMs: 4000 };

  it('shows its part however long the slide is', () => {
    expect(clipPart(ended, 3000, 10_000)).toEqual({ fromMs: 1000, toMs: 4000, heldMs: 0 });
    expect(clipPart(ended, 5000, 10_000)).toEqual({ fromMs: 1000, toMs: 4000, heldMs: 2000 });
    expect(clipPart({ ...ended, after: 'again' }, 9000, 10_000).heldMs).toBe(0);
  });
  it('backwards is trimmed by the same frames', () => {
    const backwards = { ...ended, backwards: true };
    expect(trimmedTo(backwards, 3000, 10_000, 6000)).toEqual({ trimStartMs: 1000, trimEndMs: 6000, lengthMs: 5000 });
    expect(trimmedFrom(backwards, 3000, 10_000, 2000)).toEqual({ trimStartMs: 2000, trimEndMs: 4000, lengthMs: 2000 });
    // Without an end of its own it ends with the clip.
    expect(clipPart({ trimStartMs: 1000, backwards: true }, 3000, 10_000)).toEqual({
      fromMs: 7000,
      toMs: 10_000,
      heldMs: 0,
    });
  });
  it('leaves its slide as long as it is where it comes again or its last frame stays', () => {
    expect(trimmedTo({ ...ended, after: 'again' }, 9000, 10_000, 6000)).toMatchObject({
      trimEndMs: 6000,
      lengthMs: 9000,
    });
    expect(trimmedTo(ended, 5000, 10_000, 3000)).toMatchObject({ trimEndMs: 3000, lengthMs: 5000 });
    expect(atSpeed({ ...ended, after: 'again' }, 9000, 10_000, 2)).toBe(9000);
  });
  it('has frames that stand counted in when its speed or its ends change', () => {
    const frozen = { ...ended, freezes: [{ atMs: 2000, lengthMs: 700 }] };
    expect(atSpeed(frozen, 3700, 10_000, 2)).toBe(1500 + 700);
    expect(trimmedTo({ trimStartMs: 1000, freezes: frozen.freezes }, 3700, 10_000, 5000)).toEqual({
      trimStartMs: 1000,
      lengthMs: 4700,
    });
  });
});

describe('what comes when a clip is over', () => {
  it('is its last frame for two seconds, it again once, or the end of the slide', () => {
    const held = endingBy(plain, 3000, 10_000, 'held');
    expect(held).toEqual({ trimStartMs: 1000, trimEndMs: 4000, lengthMs: 5000, after: undefined });
    expect(endingBy(plain, 3000, 10_000, 'again')).toEqual({ ...held, lengthMs: 6000, after: 'again' });
    expect(endingBy({ ...held, after: 'again' }, 6000, 10_000, 'slide')).toEqual({
      ...{ trimStartMs: 1000, trimEndMs: undefined },
      ...{ lengthMs: 3000, after: undefined },
    });
  });
  it('leaves a slide that is longer already as long as it is', () => {
    expect(endingBy({ trimStartMs: 1000, trimEndMs: 4000 }, 8000, 10_000, 'again').lengthMs).toBe(8000);
  });
  it('keeps the end of what runs backwards from it', () => {
    expect(endingBy({ trimStartMs: 1000, trimEndMs: 4000, backwards: true }, 5000, 10_000, 'slide')).toMatchObject({
      trimEndMs: 4000,
      lengthMs: 3000,
    });
  });
});
