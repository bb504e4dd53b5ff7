import type { SlideId } from '../show/ids';
import { SHORTEST_FITTED_MS } from './least-length';
import { voiceOf } from '../show/placed-sound';
import { isHeld } from '../show/chosen';
import { mainLayerOf, type Show, type Slide } from '../show/show';

export type FitResult =
  | { readonly ok: true; readonly lengths: readonly FittedLength[] }
  | { readonly ok: false; readonly reason: 'no-slides' | 'music-too-short'; readonly shortestMs: number };

export interface FittedLength {
  readonly slideId: SlideId;
  readonly lengthMs: number;
  readonly by: 'music';
}

/** A picture that lingers stays so much longer than the others. */
export const LINGER_SHARE = 1.6;

/**
 * Lengths that make the show end exactly with the music. Slides that must keep their length keep it; the others share what is left, none getting less than it
 * needs, rounded so that the sum is exact.
 *
 * @param keepsLength tells slides whose length follows their content or is held
 * @param shareOf how large a share a slide gets; 1 for each when left out
 * @param leastOf what a slide needs (`leastLengthMs`)
 */
export function fitToMusic(
  slides: readonly Slide[],
  musicMs: number,
  keepsLength: (slide: Slide) => boolean,
  shareOf: (slide: Slide) => number = () => 1,
  leastOf: (slide: Slide) => number = () => SHORTEST_FITTED_MS,
): FitResult {
  const free = slides.filter((slide) => !keepsLength(slide));
  const keptMs = slides.reduce((sum, slide) => sum + (keepsLength(slide) ? slide.lengthMs : 0), 0);
  if (free.length === 0) return { ok: false, reason: 'no-slides', shortestMs: keptMs };
  const wants = free.map((slide) => ({ slide, share: shareOf(slide), leastMs: leastOf(slide) }));
  const shortestMs = keptMs + wants.reduce((sum, want) => sum + want.leastMs, 0);
  if (musicMs < shortestMs) return { ok: false, reason: 'music-too-short', shortestMs };

  // Those that a fair share would leave too short get what they need, and the rest share what is left; until that suits everyone.
  let leftMs = Math.round(musicMs) - keptMs;
  let sharing = wants;
  const lengths = new Map<SlideId, number>();
  for (;;) {
    const shareMs = leftMs / sharing.reduce((sum, want) => sum + want.share, 0);
    const tooShort = sharing.filter((want) => want.share * shareMs < want.leastMs);
    if (tooShort.length === 0) break;
    for (const { slide, leastMs } of tooShort) {
      lengths.set(slide.id, leastMs);
      leftMs -= leastMs;
    }
    sharing = sharing.filter((want) => !tooShort.includes(want));
    if (sharing.length === 0) break;
  }
  const allShares = sharing.reduce((sum, want) => sum + want.share, 0);
  let before = 0;
  for (const { slide, share } of sharing) {
    const after = before + share;
    lengths.set(slide.id, Math.round((after * leftMs) / allShares) - Math.round((before * leftMs) / allShares));
    before = after;
  }
  // Everyone got what they need and a little is left over: the last takes it.
  const last = sharing.length === 0 ? wants.at(-1)! : null;
  if (last) lengths.set(last.slide.id, lengths.get(last.slide.id)! + leftMs);
  return {
    ok: true,
    lengths: free.map((slide) => ({ slideId: slide.id, lengthMs: lengths.get(slide.id)!, by: 'music' })),
  };
}

/** Slides that no pace changes: their length follows what they carry, or a hand holds it. */
export function keepsItsLength(slide: Slide): boolean {
  return lengthFollowsContent(slide) || isHeld(slide, 'length');
}

/** A picture that is marked to linger gets a larger share of the time. */
export function shareOfTime(show: Show): (slide: Slide) => number {
  return (slide) => {
    const layer = mainLayerOf(slide);
    return layer && show.marks?.[layer.assetId] === 'linger' ? LINGER_SHARE : 1;
  };
}

/** Clips and narrated slides last as long as what they carry. */
export function lengthFollowsContent(slide: Slide): boolean {
  return voiceOf(slide) !== null || slide.layers.some((layer) => layer.kind === 'clip');
}
