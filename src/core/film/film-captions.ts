import { captionsOfShow, type ShownCaption } from '../captions/show-captions';
import type { FactsById } from '../show/asset-facts';
import type { Show } from '../show/show';

/** The captions of a film that goes from one moment of the show to another, in the time of the film. */
export function filmCaptions(
  show: Show,
  facts: FactsById,
  language: string,
  fromMs: number,
  toMs: number,
): ShownCaption[] {
  return captionsOfShow(show, facts, language)
    .filter(({ startMs, endMs }) => endMs > fromMs && startMs < toMs)
    .map((caption) => ({
      ...caption,
      startMs: Math.max(0, caption.startMs - fromMs),
      endMs: Math.min(toMs, caption.endMs) - fromMs,
    }));
}
