import type { ShowEdit } from './edit';
import type { FactsById } from './asset-facts';
import { SHORTEST_SLIDE_MS } from './limits';
import { copyOfSlide } from './new-slide';
import { spokenSplit, unspoken, withSpoken } from './spoken-over';
import { mainLayerOf, type Show, type Slide } from './show';

/**
 * Splits a slide with a clip in two: the second goes on with the very next frame, by a cut, without the words of the first; what is said goes on over it.
 *
 * @param atMs since the slide's start
 * @returns null when it has no clip, or there is too little of it on one side
 */
export function clipSplit(
  show: Show,
  slide: Slide,
  atMs: number,
  facts: FactsById,
  newId: () => string,
): ShowEdit | null {
  const at = Math.round(atMs);
  if (mainLayerOf(slide)?.kind !== 'clip') return null;
  if (at < SHORTEST_SLIDE_MS || slide.lengthMs - at < SHORTEST_SLIDE_MS) return null;
  const copy = copyOfSlide(slide, newId);
  const spoken = spokenSplit(show, slide, at, facts);
  const second: Slide = {
    ...withSpoken(unspoken(copy), spoken.after),
    lengthMs: slide.lengthMs - at,
    transition: { kind: 'cut' },
    layers: copy.layers
      .filter((layer) => layer.kind !== 'words')
      .map((layer) =>
        layer.kind === 'clip'
          ? { ...layer, trimStartMs: Math.round(layer.trimStartMs + at * (layer.speed ?? 1)) }
          : layer,
      ),
  };
  return {
    kind: 'together',
    name: 'split the clip',
    edits: [
      { kind: 'put-slides', slides: [withSpoken(slide, spoken.before)] },
      { kind: 'set-lengths', lengths: [{ slideId: slide.id, lengthMs: at, by: 'hand' }] },
      { kind: 'add-slides', runs: [{ afterId: slide.id, slides: [second] }] },
    ],
  };
}
