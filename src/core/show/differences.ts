import type { SlideSpan } from '../timing/slide-span';
import { slideIndexAt } from '../timing/slide-span';
import type { SlideId } from './ids';
import type { Show } from './show';

/** How a show differs from another, slide by slide. */
export interface Differences {
  /** Slides of the second that the first has not. */
  readonly added: readonly SlideId[];
  /** Slides of the first that the second has not. */
  readonly removed: readonly SlideId[];
  /** Slides of both that say other things. */
  readonly changed: readonly SlideId[];
  /** Slides of both, in another order among themselves. */
  readonly moved: boolean;
  /** The songs differ. */
  readonly music: boolean;
}

export function differencesOf(
  first: Pick<Show, 'slides' | 'cues'>,
  second: Pick<Show, 'slides' | 'cues'>,
): Differences {
  const before = new Map(first.slides.map((slide) => [slide.id, slide]));
  const after = new Map(second.slides.map((slide) => [slide.id, slide]));
  const common = first.slides.filter((slide) => after.has(slide.id)).map(({ id }) => id);
  return {
    added: second.slides.filter((slide) => !before.has(slide.id)).map(({ id }) => id),
    removed: first.slides.filter((slide) => !after.has(slide.id)).map(({ id }) => id),
    changed: common.filter((id) => JSON.stringify(before.get(id)) !== JSON.stringify(after.get(id))),
    moved: second.slides.filter((slide) => before.has(slide.id)).some(({ id }, at) => id !== common[at]),
    music: JSON.stringify(first.cues) !== JSON.stringify(second.cues),
  };
}

/**
 * The moment of a show that stands beside a moment of another: the same share of the same slide, and where that is not there, of the slide before it that is.
 *
 * @returns 0 when they have no slide in common up to there
 */
export function besideMoment(momentMs: number, from: readonly SlideSpan[], to: readonly SlideSpan[]): number {
  const byId = new Map(to.map((span) => [span.slideId, span]));
  const index = slideIndexAt(from, momentMs);
  if (index === null) return 0;
  for (let at = index; at >= 0; at -= 1) {
    const [span, other] = [from[at]!, byId.get(from[at]!.slideId)];
    if (!other) continue;
    const share = Math.min(1, (momentMs - span.startMs) / (span.endMs - span.startMs));
    return at === index
      ? other.startMs + share * (other.endMs - other.startMs)
      : Math.max(other.startMs, other.endMs - 1);
  }
  return 0;
}
