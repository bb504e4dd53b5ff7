import type { AssetFacts } from './asset-facts';
import { layerId, slideId, type AssetId, type LayerId } from './ids';
import { everyLayer, type ClipLayer, type Layer, type PictureLayer } from './layer';
import { SHORTEST_SLIDE_MS } from './limits';
import { DEFAULT_TRANSITION, type Slide } from './show';

/**
 * A slide that shows one picture or clip.
 *
 * @param newId gives a fresh id at every call
 * @param lengthMs for a picture; a clip lasts as long as it is
 */
export function slideFromAsset(asset: AssetId, facts: AssetFacts, lengthMs: number, newId: () => string): Slide {
  if (facts.kind === 'sound') throw new TypeError('a slide shows a picture or a clip, got a sound');
  const layer = layerFromAsset(asset, facts, newId);
  return {
    id: slideId(newId()),
    lengthMs: facts.kind === 'clip' ? Math.max(SHORTEST_SLIDE_MS, Math.round(facts.lengthMs)) : lengthMs,
    transition: DEFAULT_TRANSITION,
    backing: { kind: 'automatic' },
    layers: [layer],
    sounds: [],
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
    sounds: [],
  };
}

/** A layer that shows a file. */
export function layerFromAsset(asset: AssetId, facts: AssetFacts, newId: () => string): PictureLayer | ClipLayer {
  if (facts.kind === 'sound') throw new TypeError('a layer shows a picture or a clip, got a sound');
  return facts.kind === 'clip'
    ? { kind: 'clip', id: layerId(newId()), assetId: asset, trimStartMs: 0, soundGainDb: 0 }
    : { kind: 'picture', id: layerId(newId()), assetId: asset, move: { kind: 'automatic' } };
}

/** The same slide again under new ids; masks and tethers point to the copies. */
export function copyOfSlide(slide: Slide, newId: () => string): Slide {
  return { ...slide, id: slideId(newId()), layers: copiesOfLayers(slide.layers, newId) };
}

/** Layers again under new ids; what they mask and follow among themselves are the copies, anything else stays what it is. */
export function copiesOfLayers(layers: readonly Layer[], newId: () => string): Layer[] {
  const ids = new Map([...everyLayer(layers)].map((layer) => [layer.id, layerId(newId())]));
  return layers.map((layer) => copyOfLayer(layer, ids));
}

/** Layers with other ids in the place of those that are taken, so that they can lie beside what has these; they are taken too then. What is free stays. */
export function layersApart(layers: readonly Layer[], taken: Set<LayerId>): readonly Layer[] {
  const ids = new Map<LayerId, LayerId>();
  const own = new Set([...everyLayer(layers)].map(({ id }) => id));
  for (const { id } of everyLayer(layers)) {
    let free = id;
    for (let count = 2; taken.has(free) || (free !== id && own.has(free)); count += 1)
      free = layerId(`${id.slice(0, 32)}-${count}`);
    ids.set(id, free);
    taken.add(free);
  }
  return [...ids].every(([id, free]) => id === free) ? layers : layers.map((layer) => copyOfLayer(layer, ids));
}

function copyOfLayer(layer: Layer, ids: ReadonlyMap<LayerId, LayerId>): Layer {
  const { mask, tether } = layer;
  return {
    ...layer,
    id: ids.get(layer.id)!,
    ...(mask && { mask: mask.cuts === 'below' ? mask : { ...mask, cuts: mask.cuts.map((id) => ids.get(id) ?? id) } }),
    ...(tether && { tether: { ...tether, to: ids.get(tether.to) ?? tether.to } }),
    ...(layer.kind === 'group' && { layers: layer.layers.map((inner) => copyOfLayer(inner, ids)) }),
  } as Layer;
}
