import type { SlideId } from '../show/ids';
import { voiceOf } from '../show/placed-sound';
import { isHeld } from '../show/chosen';
import { mainLayerOf, type Show, type Slide } from '../show/show';

export const SHORTEST_FITTED_MS = 500;

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
 * Lengths that make the show end exactly with the music. Slides that must keep their length keep it; the others share what is left, rounded so that the
 * sum is exact.
 *
 * @param keepsLength tells slides whose length follows their content or is held
 * @param shareOf how large a share a slide gets; 1 for each when left out
 */
export function fitToMusic(
  slides: readonly Slide[],
  musicMs: number,
  keepsLength: (slide: Slide) => boolean,
  shareOf: (slide: Slide) => number = () => 1,
): FitResult {
  const free = slides.filter((slide) => !keepsLength(slide));
  const keptMs = slides.reduce((sum, slide) => sum + (keepsLength(slide) ? slide.lengthMs : 0), 0);
  const shares = free.map(shareOf);
  const allShares = shares.reduce((sum, share) => sum + share, 0);
  // The slide with the smallest share is the first to become too short.
  const shortestMs = keptMs + Math.ceil((SHORTEST_FITTED_MS * allShares) / Math.min(...shares, allShares || 1));
  if (free.length === 0) return { ok: false, reason: 'no-slides', shortestMs: keptMs };
  if (musicMs < shortestMs) return { ok: false, reason: 'music-too-short', shortestMs };
  const shareMs = (Math.round(musicMs) - keptMs) / allShares;
  let before = 0;
  const lengths = free.map((slide, index): FittedLength => {
    const after = before + shares[index]!;
    const lengthMs = Math.round(after * shareMs) - Math.round(before * shareMs);
    before = after;
    return { slideId: slide.id, lengthMs, by: 'music' };
  });
  return { ok: true, lengths };
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
