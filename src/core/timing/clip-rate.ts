import type { AssetFacts, ClipFacts, FactsById } from '../show/asset-facts';
import type { AssetId } from '../show/ids';
import { CLIP_FRAMES_PER_SECOND } from '../frame/frame-plan';
import type { FrameRate } from './frame-rate';

/** What cameras film at; each of them, and each of them slowed down by a thousandth as television does. */
const FILMED = [24, 25, 30, 48, 50, 60, 90, 96, 100, 120, 200, 240];
/** Averages of counted frames come so near, as a share; a thousandth is another rate. */
const NEAR = 0.0003;
/** More is seen by nobody, and costs reading: of faster ones every second frame is taken. */
const MOST = 125;

/** So finely moments are counted where each of a clip's frames stands as long as its file says: finer than any film. */
export const EACH_FRAME: FrameRate = { frames: 960, seconds: 1 };

/**
 * The rate at which films read a clip: its own, so that none of its frames is left out or shown twice where film and clip agree; `EACH_FRAME` for clips whose
 * frames come unevenly or at no rate that is known. Null: the usual one (`CLIP_FRAMES_PER_SECOND`), for clips that go evenly into that and those of which no rate
 * was found.
 */
export function ownClipRate({ framesPerSecond, uneven }: ClipFacts): FrameRate | null {
  if (framesPerSecond === undefined) return null;
  if (uneven) return EACH_FRAME;
  for (const filmed of FILMED)
    for (const seconds of [1, 1.001]) {
      if (Math.abs((framesPerSecond * seconds) / filmed - 1) > NEAR) continue;
      if (filmed === CLIP_FRAMES_PER_SECOND && seconds === 1) return null;
      const frames = filmed > MOST ? filmed / 2 : filmed;
      return seconds === 1 ? { frames, seconds: 1 } : { frames: frames * 1000, seconds: 1001 };
    }
  const usual = CLIP_FRAMES_PER_SECOND / framesPerSecond;
  return Math.abs(usual - Math.round(usual)) < NEAR ? null : EACH_FRAME;
}

/** What is known of files, for where clips are played by frames counted at the usual rate: in viewers and in pages that play. */
export function countedAsUsual(facts: FactsById): FactsById {
  return new Map(
    [...facts].map(([id, known]): readonly [AssetId, AssetFacts] => {
      if (known.kind !== 'clip') return [id, known];
      const { framesPerSecond: _own, ...usual } = known;
      return [id, usual];
    }),
  );
}
