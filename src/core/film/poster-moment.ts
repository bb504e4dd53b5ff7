import type { PreparedShow } from '../frame/plan-frame';
import { mainLayerOf } from '../show/show';
import { CLIP_FRAME_MS, momentOfClip } from '../timing/clip-time';
import { momentOfFrame } from '../timing/frames';
import type { FilmPlan } from './plan-film';

/** A longer slide is not waited for. */
const LONGEST_MS = 8000;

/**
 * The moment of a film, counted from its beginning, whose frame stands for it: of its first slide the frame that somebody chose for its clip, if it is seen in
 * the film; else the middle of where that slide stands alone.
 */
export function posterMoment(
  { show, facts, spans, seenFromMs }: Pick<PreparedShow, 'show' | 'facts' | 'spans' | 'seenFromMs'>,
  plan: Pick<FilmPlan, 'firstFrame' | 'frameCount'>,
): number {
  const firstMs = momentOfFrame(plan.firstFrame, show.frame.rate);
  const next = seenFromMs.find((ms) => ms > firstMs) ?? Infinity;
  const lengthMs = momentOfFrame(plan.frameCount, show.frame.rate);
  const usual = Math.min(lengthMs * 0.9, (Math.min(next, firstMs + LONGEST_MS) - firstMs) / 2);
  const index = seenFromMs.findLastIndex((ms) => ms <= firstMs);
  const [slide, span] = [show.slides[index], spans[index]];
  const main = slide && mainLayerOf(slide);
  if (main?.kind !== 'clip' || !span) return usual;
  const known = facts.get(main.assetId);
  const chosenMs = show.posters?.[main.assetId];
  if (known?.kind !== 'clip' || chosenMs === undefined) return usual;
  // In the middle of the frame: the film's frames may begin between those of the clip.
  const offsetMs = momentOfClip(main, known.lengthMs, span.leavesMs - span.startMs, chosenMs + CLIP_FRAME_MS / 2);
  const atMs = offsetMs === null ? -1 : span.startMs + offsetMs - firstMs;
  return atMs >= 0 && atMs < Math.min(next - firstMs, lengthMs) ? atMs : usual;
}
