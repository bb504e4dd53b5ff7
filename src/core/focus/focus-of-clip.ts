import { around, likeness, type Box } from './box';
import type { FocusFacts } from './focus-facts';

/** Moments of a clip at which it is looked at, as shares of its length: what stays is seen in most of them, what passes in some. */
export const LOOKED_AT_SHARES = [0.12, 0.37, 0.63, 0.88] as const;
/** What lies so nearly at one place in two frames is one. */
const SAME = 0.3;

/**
 * What a clip is about, all through it: whoever is seen in any of its frames, each place once; where nobody is, the place around what stands out in most of
 * them. How sharp it is says its sharpest frame. Whether it hangs askew or lies on its side is not asked: it moves.
 *
 * @param found what its frames are about, one at least
 */
export function focusOfFrames(found: readonly FocusFacts[]): FocusFacts {
  const salient = found.flatMap((frame) => (frame.salient ? [frame.salient] : []));
  return {
    faces: once(found.flatMap(({ faces }) => faces)),
    subjects: once(found.flatMap(({ subjects }) => subjects)),
    salient: 2 * salient.length > found.length ? around(salient) : null,
    sharpness: Math.max(...found.map(({ sharpness }) => sharpness)),
    ...(found.some(({ facesSought }) => facesSought === false) && { facesSought: false as const }),
  };
}

function once<Found extends Box & { readonly score: number }>(all: readonly Found[]): Found[] {
  const kept: Found[] = [];
  for (const one of all.toSorted((a, b) => b.score - a.score))
    if (!kept.some((other) => likeness(one, other) > SAME)) kept.push(one);
  return kept;
}
