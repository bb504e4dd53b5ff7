import type { ShowEdit } from './edit';
import type { AssetFacts, FactsById } from './asset-facts';
import type { ClipLayer } from './layer';
import { SHORTEST_FREEZE_MS } from './schemas/layer-schema';
import { clipMoment } from '../timing/clip-time';
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
  const main = mainLayerOf(slide);
  // One that comes again is in no place from which it could go on.
  if (main?.kind !== 'clip' || main.after === 'again') return null;
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
        layer.kind === 'clip' ? restOfClip(layer, facts.get(layer.assetId), slide.lengthMs, at) : layer,
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

/** The clip as it goes on from a moment of its slide; a frame that stands there stands for what is left of its time. */
function restOfClip(layer: ClipLayer, facts: AssetFacts | undefined, slideLengthMs: number, atMs: number): ClipLayer {
  const lengthMs = facts?.kind === 'clip' ? facts.lengthMs : Infinity;
  const { momentMs, run } = clipMoment(layer, lengthMs, slideLengthMs, atMs);
  const clipMs = Math.round(momentMs);
  const later = (layer.freezes ?? []).filter(({ atMs: of }) => (layer.backwards ? of < momentMs : of > momentMs));
  const leftMs = Math.round(run.startMs + run.lengthMs - atMs);
  const here =
    run.rate === 0 && !run.isOver && leftMs >= SHORTEST_FREEZE_MS ? [{ atMs: clipMs, lengthMs: leftMs }] : [];
  const freezes = layer.backwards ? [...later, ...here] : [...here, ...later];
  const { freezes: _before, ...rest } = layer;
  return {
    ...rest,
    ...(layer.backwards ? { trimEndMs: clipMs } : { trimStartMs: clipMs }),
    ...(freezes.length > 0 && { freezes }),
  };
}
