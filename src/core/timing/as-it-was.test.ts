import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { fingerprint } from '../fingerprint.testing';
import type { AssetFacts, FactsById } from '../show/asset-facts';
import { A, afterStorm, anyEdit, B } from '../show/dealt-edits.testing';
import type { Pace } from '../show/pace';
import { musicOf } from '../sound/show-beats';
import { caughtSeam } from './caught-seam';
import { clipFrameAt, clipMoment, clipRuns, momentOfClip, type ClipTimes } from './clip-time';
import { atSpeed, clipPart, endingBy, trimmedFrom, trimmedTo } from './clip-trim';
import { fitToMusic, keepsItsLength, shareOfTime } from './fit-to-music';
import { lengthsByMusic, withItsLengths } from './follow-music';
import { FRAME_RATES } from './frame-rate';
import { leastLengthMs } from './least-length';
import { movedSeam } from './moved-seam';
import { breathsSet, withRoomForVoices } from './wait-for-voices';
import { picturesToDrop, repeatedCues } from './ways-out';

// Lengths are worked out anew with each edit of a show that follows its music: with the same edits they must be the same lengths, or moments that were tuned by
// hand drift. Where they are meant to change, the snapshots are written anew.

const SONG: AssetFacts = {
  kind: 'sound',
  lengthMs: 40_000,
  title: null,
  artist: null,
  listening: {
    loudness: { integratedLufs: -16, truePeakDb: -1, curve: Array.from({ length: 80 }, (_, at) => -160 + (at % 7)) },
    heardFromMs: 300,
    heardToMs: 39_600,
    beats: {
      tempoBpm: 104,
      beatsMs: Array.from({ length: 68 }, (_, at) => Math.round(310 + at * 577.3)),
      beatsABar: 4,
      firsts: Array.from({ length: 17 }, (_, at) => 4 * at),
      confidence: 0.9,
    },
    sections: [
      { startMs: 0, endMs: 18_000, label: 'A', energy: 0.3 },
      { startMs: 18_000, endMs: 40_000, label: 'B', energy: 0.9 },
    ],
    energy: Array.from({ length: 80 }, (_, at) => (at < 36 ? 30 : 90) + (at % 3)),
    accentsMs: [4120, 11_333, 25_909],
  },
};
const CLIP: AssetFacts = {
  kind: 'clip',
  widthPx: 1280,
  heightPx: 720,
  lengthMs: 7000,
  hasSound: true,
  takenAt: null,
  framesPerSecond: 24,
};
const FACTS: FactsById = new Map<typeof A, AssetFacts>([
  [A, CLIP],
  [B, SONG],
]);
const PACES: readonly Pace[] = [{ by: 'beats', beats: 6 }, { by: 'music' }, { by: 'beats', beats: 9, meets: 'middle' }];

describe('lengths are what they were', () => {
  const storms = fc.sample(fc.array(anyEdit, { minLength: 4, maxLength: 10 }), { seed: 5, numRuns: 40 });
  const more = fc.sample(anyEdit, { seed: 6, numRuns: 40 });
  it('in shows that many hands were on', () => {
    const prints = storms.map((storm, at) => {
      const show = afterStorm(storm);
      const music = musicOf(show, FACTS, true);
      const index = at % show.slides.length;
      let count = 0;
      return fingerprint([
        show.slides.map((slide, number) => leastLengthMs(slide, FACTS, show.slides[number - 1], show)),
        PACES.map((pace) => lengthsByMusic(show, FACTS, pace)),
        withItsLengths(show, FACTS, more[at]!),
        withRoomForVoices(show, FACTS, more[(at + 7) % more.length]!),
        [8000, 26_300, 61_000].map((ms) => fitToMusic(show.slides, ms, keepsItsLength, shareOfTime(show))),
        [-900, 470].flatMap((byMs) =>
          (['ripple', 'roll'] as const).map((way) => movedSeam(show.slides, index, byMs, way)),
        ),
        [-311, 40, 205, 1470].map((byMs) => caughtSeam(music, 5000, byMs)),
        picturesToDrop(show, 3000),
        repeatedCues(show, FACTS, () => `again-${(count += 1)}`),
        breathsSet(show, null, { beforeMs: 700, afterMs: 900 }),
        breathsSet(show, [show.slides[0]!.id], { beforeMs: 120, afterMs: 300 }),
      ]);
    });
    expect(prints).toMatchSnapshot();
  });
  it('of clips, however they are played', () => {
    const times = fc.record({
      trimStartMs: fc.option(fc.integer({ min: 0, max: 3000 }), { nil: undefined }),
      trimEndMs: fc.option(fc.integer({ min: 3500, max: 7000 }), { nil: undefined }),
      speed: fc.option(fc.constantFrom(0.25, 0.5, 0.8, 1, 1.5, 3), { nil: undefined }),
      backwards: fc.option(fc.constant(true as const), { nil: undefined }),
      after: fc.option(fc.constant('again' as const), { nil: undefined }),
    });
    const dealt = fc.sample(fc.tuple(times, fc.integer({ min: 400, max: 15_000 })), { seed: 3, numRuns: 120 });
    const prints = dealt.map(([given, slideMs]) => {
      const layer = given as ClipTimes;
      const moments = [0, 0.21, 0.5, 0.83, 1].map((share) => share * slideMs);
      return fingerprint([
        clipRuns(layer, 7000, slideMs),
        clipPart(layer, slideMs, 7000),
        moments.map((at) => [
          clipMoment(layer, 7000, slideMs, at),
          clipFrameAt(layer, 7000, slideMs, at),
          clipFrameAt(layer, 7000, slideMs, at, FRAME_RATES['25']),
        ]),
        moments.map((at) => momentOfClip(layer, 7000, slideMs, at / 3)),
        [900, 2345].map((ms) => [trimmedFrom(layer, slideMs, 7000, ms), trimmedTo(layer, slideMs, 7000, ms + 2000)]),
        (['slide', 'held', 'again'] as const).map((ending) => endingBy(layer, slideMs, 7000, ending)),
        [0.5, 1.7].map((speed) => atSpeed(layer, slideMs, 7000, speed)),
      ]);
    });
    expect(prints).toMatchSnapshot();
  });
});
