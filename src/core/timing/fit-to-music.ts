import type { SlideId } from '../show/ids';
import type { Slide } from '../show/show';

export const SHORTEST_FITTED_MS = 500;

export type FitResult =
  | { readonly ok: true; readonly lengths: readonly { readonly slideId: SlideId; readonly lengthMs: number }[] }
  | { readonly ok: false; readonly reason: 'no-slides' | 'music-too-short'; readonly shortestMs: number };

/**
 * Lengths that make the show end exactly with the music. Slides that must keep their length (clips, narration) keep it; the others share what is left
 * evenly, rounded so that the sum is exact.
 *
 * @param keepsLength tells slides whose length follows their content
 */
export function fitToMusic(
  slides: readonly Slide[],
  musicMs: number,
  keepsLength: (slide: Slide) => boolean,
): FitResult {
  const free = slides.filter((slide) => !keepsLength(slide));
  const keptMs = slides.reduce((sum, slide) => sum + (keepsLength(slide) ? slide.lengthMs : 0), 0);
  const shortestMs = keptMs + free.length * SHORTEST_FITTED_MS;
  if (free.length === 0) return { ok: false, reason: 'no-slides', shortestMs };
  if (musicMs < shortestMs) return { ok: false, reason: 'music-too-short', shortestMs };
  const shareMs = (Math.round(musicMs) - keptMs) / free.length;
  const lengths = free.map((slide, index) => ({
    slideId: slide.id,
    lengthMs: Math.round((index + 1) * shareMs) - Math.round(index * shareMs),
  }));
  return { ok: true, lengths };
}

/** Clips and narrated slides last as long as what they carry. */
export function lengthFollowsContent(slide: Slide): boolean {
  return slide.narration !== null || slide.layers.some((layer) => layer.kind === 'clip');
}
