import type { ShowEdit } from '../show/edit';
import type { CueId, SlideId } from '../show/ids';
import { SHORTEST_SLIDE_MS } from '../show/limits';
import type { Show } from '../show/show';
import { momentSeen } from '../timing/frames';
import { slideSpans } from '../timing/slide-span';
import { placed, takeLaid, type RecordedVoice } from './kept-take';

/** When, in a recording over several slides, each of them began; rising. */
export interface Press {
  readonly slideId: SlideId;
  readonly atMs: number;
}

/**
 * A recording over several slides, cut where a key was pressed: each slide gets the part that was said over it, and lasts exactly as long. The parts meet
 * without a gap, so that a word said across a press is whole.
 *
 * @param presses the first stands where the recording is to be heard from
 * @param endMs where it ends
 */
export function runThroughKept(
  show: Show,
  voice: RecordedVoice,
  presses: readonly Press[],
  endMs: number,
  newId: () => CueId,
): ShowEdit | null {
  const slides = new Map(show.slides.map((slide) => [slide.id, slide]));
  const kept = presses.filter(({ slideId }) => slides.has(slideId));
  if (kept.length === 0) return null;
  const lengths = kept.map(({ slideId, atMs }, index) => ({
    slideId,
    lengthMs: Math.max(SHORTEST_SLIDE_MS, Math.round((kept[index + 1]?.atMs ?? endMs) - atMs)),
  }));
  const lengthOf = new Map(lengths.map(({ slideId, lengthMs }) => [slideId, lengthMs]));
  const spans = slideSpans(
    show.slides.map((slide) => ({ ...slide, lengthMs: lengthOf.get(slide.id) ?? slide.lengthMs })),
  );
  const seenMs = new Map(spans.map((span) => [span.slideId, momentSeen(span.startMs, show.frame.rate)]));
  const firstSeenMs = seenMs.get(kept[0]!.slideId)!;
  // Counted by what is seen, frame by frame, so that no part begins before the one before it ends.
  const partStarts = kept.map(({ slideId }) => kept[0]!.atMs + seenMs.get(slideId)! - firstSeenMs);
  return {
    kind: 'together',
    name: `record a voice over ${kept.length === 1 ? 'a slide' : `${kept.length} slides`}`,
    edits: [
      { kind: 'set-breaths', breaths: kept.map(({ slideId }) => ({ slideId, breath: { beforeMs: 0, afterMs: 0 } })) },
      { kind: 'set-lengths', lengths },
      ...kept.flatMap(({ slideId }, index) => {
        const part = {
          ...voice,
          fromMs: partStarts[index]!,
          toMs: Math.min(voice.lengthMs, partStarts[index + 1] ?? partStarts[index]! + lengths[index]!.lengthMs),
        };
        return takeLaid(slides.get(slideId)!, placed(newId(), part, 0));
      }),
    ],
  };
}
