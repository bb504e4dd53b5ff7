import { describe, expect, it } from '@jest/globals';
import { specFor } from '../../core/film/purposes/purposes';
import type { FilmPlan } from '../../core/film/plan-film';
import { showId } from '../../core/show/ids';
import { emptyShow } from '../../core/show/show';
import { createFilmTelling, type FilmProgress } from './film-telling';

const spec = specFor(emptyShow(showId('s'), ''), 'screen');
const plan: FilmPlan = {
  firstFrame: 0,
  endFrame: 1200,
  frameCount: 1200,
  segments: [0, 1, 2, 3, 4, 5, 6, 7].map((index) => ({
    index,
    firstFrame: index * 150,
    endFrame: (index + 1) * 150,
    followedBy: 0,
    follows: 0,
  })),
};

describe('how far a film is', () => {
  it('says after a tenth of it what time is left, right within a fifth, and leaves what was there out of it', () => {
    let nowMs = 0;
    const said: { readonly atMs: number; readonly progress: FilmProgress }[] = [];
    const telling = createFilmTelling(
      plan,
      spec,
      'film',
      (progress) => said.push({ atMs: nowMs, progress }),
      () => nowMs,
    );
    telling.sound(0);
    nowMs += 3000;
    telling.sound(1);
    telling.keptSegment(plan.segments[0]!);
    telling.keptSegment(plan.segments[1]!);
    for (const segment of plan.segments.slice(2)) {
      telling.begun(segment);
      for (let frame = 0; frame < 150; frame += 1) {
        // Some frames take twice as long as others.
        nowMs += 20 + 20 * ((segment.index + frame) % 2);
        telling.frames(1);
      }
      telling.drawnSegment(segment);
    }
    telling.finishing(0);
    nowMs += 200;
    telling.finishing(1);
    const endMs = nowMs;
    const later = said.filter(({ progress }) => progress.stage === 'pictures' && progress.framesDone > 300 + 90);
    expect(later.length).toBeGreaterThan(700);
    for (const { atMs, progress } of later.filter(({ atMs: at }) => endMs - at > 2000))
      expect(Math.abs(progress.leftMs! - (endMs - atMs)) / (endMs - atMs)).toBeLessThan(0.2);
    expect(said.at(-1)!.progress).toMatchObject({ framesDone: 1200, framesKept: 300, stage: 'joining' });
  });
  it('shows the pieces: kept, made, being made, to come; and takes back what has to be drawn again', () => {
    const said: FilmProgress[] = [];
    const telling = createFilmTelling(plan, spec, 'film', (progress) => said.push(progress));
    telling.keptSegment(plan.segments[7]!);
    telling.begun(plan.segments[0]!);
    telling.frames(40);
    telling.frames(-40);
    telling.frames(150);
    telling.drawnSegment(plan.segments[0]!);
    telling.begun(plan.segments[1]!);
    expect(said.at(-1)).toMatchObject({
      pieces: `${'m'.repeat(6)}${'n'.repeat(6)}${'-'.repeat(30)}${'k'.repeat(6)}`,
      framesDone: 300,
      framesKept: 150,
    });
  });
});
