import type { SlideSpan } from '../timing/slide-span';
import { slideIndexAt } from '../timing/slide-span';
import type { Anchor, SoundEnd, SoundStart } from '../show/placed-sound';

/** What an end of a cue can be caught by while it is dragged, nearer than `reachMs`. */
export interface CueCatch {
  readonly spans: readonly SlideSpan[];
  readonly showMs: number;
  readonly reachMs: number;
}

/**
 * Where a cue begins that is dragged to a moment: right after the song before it when it is let go there, at a slide’s start when one is near, else so long after
 * the slide that is seen then.
 *
 * @param afterMs where the song before it ends; 0 for the first
 */
export function startAt(momentMs: number, afterMs: number, near: CueCatch): Exclude<SoundStart, { at: 'here' }> {
  if (Math.abs(momentMs - afterMs) <= near.reachMs) return { at: 'after' };
  return anchorAt(momentMs, near);
}

/** Where a cue ends that is dragged to a moment: with its file, with the show, or tied to a slide. @param ownEndMs where it would end by itself */
export function endAt(momentMs: number, ownEndMs: number, near: CueCatch): SoundEnd {
  if (momentMs >= ownEndMs - near.reachMs) return { at: 'own-end' };
  if (momentMs >= near.showMs - near.reachMs) return { at: 'show-end', beforeMs: 0 };
  return anchorAt(momentMs, near);
}

function anchorAt(momentMs: number, { spans, reachMs }: CueCatch): Anchor {
  const index = slideIndexAt(spans, momentMs);
  if (index === null) return { at: 'moment', momentMs: Math.max(0, Math.round(momentMs)) };
  const [here, next] = [spans[index]!, spans[index + 1]];
  if (next && next.startMs - momentMs <= reachMs) return { at: 'slide', slideId: next.slideId, offsetMs: 0 };
  const offsetMs = Math.max(0, Math.round(momentMs - here.startMs));
  return { at: 'slide', slideId: here.slideId, offsetMs: offsetMs <= reachMs ? 0 : offsetMs };
}

/** Where an anchor is, as a person would say it: “slide 4”, “1.5 s into slide 4”, “the show’s end”. */
export function anchorName(anchor: SoundStart | SoundEnd, spans: readonly SlideSpan[]): string {
  switch (anchor.at) {
    case 'after':
      return 'after the song before';
    case 'own-end':
      return 'its own end';
    case 'show-end':
      return anchor.beforeMs === 0 ? 'the show’s end' : `${seconds(anchor.beforeMs)} before the show’s end`;
    case 'moment':
      return `${seconds(anchor.momentMs)} into the show`;
    case 'here':
      return `${seconds(anchor.offsetMs)} into its slide`;
    case 'slide': {
      const number = spans.findIndex((span) => span.slideId === anchor.slideId) + 1;
      return anchor.offsetMs === 0 ? `slide ${number}` : `${seconds(anchor.offsetMs)} into slide ${number}`;
    }
  }
}

const seconds = (ms: number) => `${(ms / 1000).toFixed(1)} s`;
