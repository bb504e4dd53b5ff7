import type { AssetFacts } from './asset-facts';
import { layerId, slideId, type AssetId } from './ids';
import { DEFAULT_TRANSITION, SHORTEST_SLIDE_MS, type Slide } from './show';

/**
 * A slide that shows one picture or clip.
 *
 * @param newId gives a fresh id at every call
 * @param lengthMs for a picture; a clip lasts as long as it is
 */
export function slideFromAsset(asset: AssetId, facts: AssetFacts, lengthMs: number, newId: () => string): Slide {
  if (facts.kind === 'sound') throw new TypeError('a slide shows a picture or a clip, got a sound');
  const isClip = facts.kind === 'clip';
  const layer = isClip
    ? ({ kind: 'clip', id: layerId(newId()), assetId: asset, trimStartMs: 0, soundGainDb: 0 } as const)
    : ({ kind: 'picture', id: layerId(newId()), assetId: asset, move: { kind: 'automatic' } } as const);
  return {
    id: slideId(newId()),
    lengthMs: isClip ? Math.max(SHORTEST_SLIDE_MS, Math.round(facts.lengthMs)) : lengthMs,
    transition: DEFAULT_TRANSITION,
    backing: { kind: 'automatic' },
    layers: [layer],
    narration: null,
  };
}

/** A slide of plain colour, as an opener or closer. */
export function blankSlide(lengthMs: number, colour: string, newId: () => string): Slide {
  return {
    id: slideId(newId()),
    lengthMs,
    transition: DEFAULT_TRANSITION,
    backing: { kind: 'colour', colour },
    layers: [],
    narration: null,
  };
}

/** The same slide again under new ids. */
export function copyOfSlide(slide: Slide, newId: () => string): Slide {
  return { ...slide, id: slideId(newId()), layers: slide.layers.map((layer) => ({ ...layer, id: layerId(newId()) })) };
}
