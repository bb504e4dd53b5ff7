import type { ShowEdit } from './edit';
import { SHORTEST_SLIDE_MS } from './limits';
import { copyOfSlide } from './new-slide';
import { mainLayerOf, type Slide } from './show';

/**
 * Splits a slide with a clip in two: the second goes on with the very next frame, by a cut, without the words and sounds of the first.
 *
 * @param atMs since the slide's start
 * @returns null when it has no clip, or there is too little of it on one side
 */
export function clipSplit(slide: Slide, atMs: number, newId: () => string): ShowEdit | null {
  const at = Math.round(atMs);
  if (mainLayerOf(slide)?.kind !== 'clip') return null;
  if (at < SHORTEST_SLIDE_MS || slide.lengthMs - at < SHORTEST_SLIDE_MS) return null;
  const copy = copyOfSlide(slide, newId);
  const second: Slide = {
    ...copy,
    lengthMs: slide.lengthMs - at,
    transition: { kind: 'cut' },
    sounds: [],
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
      { kind: 'set-lengths', lengths: [{ slideId: slide.id, lengthMs: at, by: 'hand' }] },
      { kind: 'add-slides', runs: [{ afterId: slide.id, slides: [second] }] },
    ],
  };
}
