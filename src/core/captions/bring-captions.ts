import type { SetCaptions } from '../show/edits/set-captions';
import type { Caption } from '../show/caption';
import type { SlideId } from '../show/ids';
import { MOST_CAPTIONS } from '../show/limits';
import type { Show } from '../show/show';
import { momentSeen } from '../timing/frames';
import { slideIndexAt, slideSpans } from '../timing/slide-span';
import type { FileCaption } from './caption-files';

/**
 * Captions of a file laid to the slides they are read on, as one edit; those of the same language that were there go. Slides without any are said to have none,
 * so that nothing is worked out for them.
 *
 * @returns null when none falls into the show
 */
export function captionsBrought(
  show: Show,
  captions: readonly FileCaption[],
  language: string,
): { readonly edit: SetCaptions; readonly leftOut: number } | null {
  const spans = slideSpans(show.slides);
  const bySlide = new Map<SlideId, Caption[]>();
  let leftOut = 0;
  const endMs = spans.at(-1)?.endMs ?? 0;
  for (const caption of captions) {
    const index = caption.startMs < endMs ? slideIndexAt(spans, caption.startMs) : null;
    const span = index === null ? null : spans[index]!;
    const own = span ? (bySlide.get(span.slideId) ?? []) : [];
    if (!span || own.length >= MOST_CAPTIONS) {
      leftOut += 1;
      continue;
    }
    const seenMs = momentSeen(span.startMs, show.frame.rate);
    const fromMs = Math.max(own.at(-1)?.toMs ?? 0, Math.round(caption.startMs - seenMs));
    own.push({ fromMs, toMs: Math.max(fromMs + 1, Math.round(caption.endMs - seenMs)), text: caption.text });
    bySlide.set(span.slideId, own);
  }
  if (bySlide.size === 0) return null;
  return {
    edit: {
      kind: 'set-captions',
      captions: show.slides.map(({ id }) => ({ slideId: id, language, captions: bySlide.get(id) ?? [] })),
    },
    leftOut,
  };
}
