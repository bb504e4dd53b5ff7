import type { SlideId } from '../show/ids';
import type { Show, Slide } from '../show/show';
import { roomBesideWordsMs } from './room-for-words';

/**
 * When a slide is seen. It owns `[startMs, endMs)`; its picture comes in during `[startMs, startMs + transitionMs)` and stays, moving,
 * under the next slide's transition until `leavesMs`.
 */
export interface SlideSpan {
  readonly slideId: SlideId;
  readonly slideIndex: number;
  readonly startMs: number;
  readonly endMs: number;
  readonly transitionMs: number;
  readonly leavesMs: number;
}

/** The spans of all slides, in order and without gaps. */
export function slideSpans(slides: readonly Slide[]): SlideSpan[] {
  const transitions = slides.map((slide, index) => transitionLengthMs(slide, slides[index - 1]));
  let startMs = 0;
  return slides.map((slide, slideIndex) => {
    const endMs = startMs + slide.lengthMs;
    const span = {
      slideId: slide.id,
      slideIndex,
      startMs,
      endMs,
      transitionMs: transitions[slideIndex]!,
      leavesMs: endMs + (transitions[slideIndex + 1] ?? 0),
    };
    startMs = endMs;
    return span;
  });
}

/**
 * A transition takes at most half of either slide it joins, so that every picture stands alone for a while, and gives way to the words of the slide that comes
 * (`roomBesideWordsMs`) unless it was told not to; the first slide has none.
 */
export function transitionLengthMs(slide: Slide, before: Slide | undefined): number {
  const halfMs = transitionByHalvesMs(slide, before);
  if (halfMs === 0 || slide.transition.kind === 'cut' || slide.transition.overWords) return halfMs;
  return roomBesideWordsMs(slide, halfMs);
}

/** What a transition would take without words. */
export function transitionByHalvesMs(slide: Slide, before: Slide | undefined): number {
  if (!before || slide.transition.kind === 'cut') return 0;
  return Math.min(slide.transition.lengthMs, Math.floor(slide.lengthMs / 2), Math.floor(before.lengthMs / 2));
}

export function showLengthMs(show: Show): number {
  return show.slides.reduce((sum, slide) => sum + slide.lengthMs, 0);
}

/** Index of the slide that owns the moment, held at the first and the last; null when there are no slides. */
export function slideIndexAt(spans: readonly SlideSpan[], momentMs: number): number | null {
  if (spans.length === 0) return null;
  let low = 0;
  let high = spans.length - 1;
  while (low < high) {
    const middle = (low + high + 1) >> 1;
    if (spans[middle]!.startMs <= momentMs) low = middle;
    else high = middle - 1;
  }
  return low;
}
