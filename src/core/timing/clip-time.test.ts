import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import {
  CLIP_FRAME_MS,
  clipFrameAt,
  clipMoment,
  clipRuns,
  MOST_PASSES,
  onceThroughClipMs,
  type ClipTimes,
} from './clip-time';

const LENGTH = 9000;
const framesOf = (times: ClipTimes, slideMs: number, everyMs = 100) =>
  Array.from({ length: Math.ceil(slideMs / everyMs) }, (_, at) => clipFrameAt(times, LENGTH, slideMs, at * everyMs));

describe('what a clip does over a slide', () => {
  it('runs from its first frame on, and holds its last', () => {
    const times = { trimStartMs: 1000, trimEndMs: 2000 };
    expect(clipRuns(times, LENGTH, 1500)).toEqual([
      { startMs: 0, lengthMs: 1000, fromMs: 1000, rate: 1 },
      { startMs: 1000, lengthMs: 500, fromMs: 2000, rate: 0, isOver: true },
    ]);
    expect(clipFrameAt(times, LENGTH, 1500, 0)).toBe(30);
    expect(clipFrameAt(times, LENGTH, 1500, 999)).toBe(59);
    expect(clipFrameAt(times, LENGTH, 1500, 1400)).toBe(59);
  });
  it('shows the very same frames backwards', () => {
    const forwards = { trimStartMs: 1000, trimEndMs: 2000 };
    const count = 30;
    const at = (times: ClipTimes) =>
      Array.from({ length: count }, (_, frame) => clipFrameAt(times, LENGTH, 1000, frame * CLIP_FRAME_MS));
    expect(at({ ...forwards, backwards: true })).toEqual(at(forwards).toReversed());
    expect(clipFrameAt({ ...forwards, backwards: true }, LENGTH, 3000, 2500)).toBe(30);
  });
  it('comes again from its first frame, for as long as the slide lasts', () => {
    const times = { trimStartMs: 1000, trimEndMs: 2000, after: 'again', speed: 2 } as const;
    const frames = framesOf(times, 1750, 50);
    expect(frames.slice(0, 10)).toEqual(frames.slice(10, 20));
    expect(clipRuns(times, LENGTH, 1750).map(({ startMs, lengthMs }) => [startMs, lengthMs])).toEqual([
      [0, 500],
      [500, 500],
      [1000, 500],
      [1500, 250],
    ]);
  });
  it('does not come again without end', () => {
    const runs = clipRuns({ trimStartMs: 0, trimEndMs: 34, after: 'again' }, LENGTH, 36_000_000);
    expect(runs).toHaveLength(MOST_PASSES + 1);
    expect(runs.at(-1)).toMatchObject({ isOver: true });
    expect(clipRuns({ trimStartMs: 500, trimEndMs: 500, after: 'again' }, LENGTH, 1000)).toHaveLength(1);
  });
  it('lets frames stand, in its order either way, and is as much longer', () => {
    const freezes = [
      { atMs: 1500, lengthMs: 800 },
      { atMs: 1800, lengthMs: 200 },
    ];
    const times = { trimStartMs: 1000, trimEndMs: 2000, freezes };
    expect(onceThroughClipMs(times, LENGTH)).toBe(2000);
    expect(framesOf(times, 2000)).toEqual([
      ...[30, 33, 36, 39, 42, 45, 45, 45, 45, 45, 45, 45, 45, 45, 48, 51, 54, 54, 54, 57],
    ]);
    const backwards = { ...times, backwards: true };
    expect(clipRuns(backwards, LENGTH, 2000).map(({ rate, fromMs }) => [rate, fromMs])).toEqual([
      [-1, 2000],
      [0, 1800],
      [-1, 1800],
      [0, 1500],
      [-1, 1500],
    ]);
    expect(clipFrameAt(backwards, LENGTH, 2000, 900)).toBe(45);
  });
  it('leaves out frames that stand outside of what is shown', () => {
    const freezes = [{ atMs: 200, lengthMs: 5000 }];
    expect(onceThroughClipMs({ trimStartMs: 1000, trimEndMs: 2000, freezes }, LENGTH)).toBe(1000);
  });
  it('never shows a frame outside of its part, and covers the slide without gaps', () => {
    const times = fc.record({
      trimStartMs: fc.integer({ min: 0, max: 10_000 }),
      trimEndMs: fc.option(fc.integer({ min: 0, max: 12_000 }), { nil: undefined }),
      speed: fc.option(fc.double({ min: 0.05, max: 20, noNaN: true }), { nil: undefined }),
      backwards: fc.option(fc.constant(true), { nil: undefined }),
      after: fc.option(fc.constant('again' as const), { nil: undefined }),
      freezes: fc.array(
        fc.record({ atMs: fc.integer({ min: 0, max: 9000 }), lengthMs: fc.integer({ min: 100, max: 3000 }) }),
        { maxLength: 3 },
      ),
    });
    fc.assert(
      fc.property(
        times,
        fc.integer({ min: 200, max: 30_000 }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (of, slideMs, share) => {
          const sorted = { ...of, freezes: [...of.freezes].sort((a, b) => a.atMs - b.atMs) };
          const runs = clipRuns(sorted, LENGTH, slideMs);
          let end = 0;
          for (const run of runs) {
            expect(run.startMs).toBeCloseTo(end, 3);
            end = run.startMs + run.lengthMs;
          }
          expect(end).toBeCloseTo(slideMs, 3);
          const frame = clipFrameAt(sorted, LENGTH, slideMs, share * slideMs);
          expect(frame).toBeGreaterThanOrEqual(0);
          expect(frame).toBeLessThanOrEqual(270);
          const { momentMs } = clipMoment(sorted, LENGTH, slideMs, share * slideMs);
          expect(momentMs).toBeGreaterThanOrEqual(-1e-6);
          expect(momentMs).toBeLessThanOrEqual(LENGTH + 1e-6);
        },
      ),
      { numRuns: 400 },
    );
  });
});
