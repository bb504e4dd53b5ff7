import { parentsOf } from '../frame/layer-poses';
import type { AssetFacts } from '../show/asset-facts';
import type { ShowEdit } from '../show/edit';
import type { AssetId, LayerId } from '../show/ids';
import { everyLayer, type Layer } from '../show/layer';
import { copiesOfLayers, layerFromAsset } from '../show/new-slide';
import { layerIn } from '../show/pile';
import type { Slide } from '../show/show';
import { toldWhomTheyCut } from './group';

/** The chosen layers without those that lie in a chosen group: that takes them along. */
export function topmost(slide: Slide, ids: ReadonlySet<LayerId>): Layer[] {
  const parents = parentsOf(slide.layers);
  const within = (id: LayerId): boolean => {
    const parent = parents.get(id);
    return parent !== undefined && (ids.has(parent.id) || within(parent.id));
  };
  return [...everyLayer(slide.layers)].filter((layer) => ids.has(layer.id) && !within(layer.id));
}

/** The chosen layers again, each lot above the highest of those it is of, with all their settings. */
export function duplicated(
  slide: Slide,
  ids: ReadonlySet<LayerId>,
  newId: () => string,
): { readonly edit: ShowEdit; readonly layerIds: readonly LayerId[] } | null {
  const layers = topmost(slide, ids);
  if (layers.length === 0) return null;
  const parents = parentsOf(slide.layers);
  const copies = copiesOfLayers(layers, newId);
  const piles = new Map<LayerId | null, { aboveId: LayerId; layers: Layer[] }>();
  layers.forEach((layer, index) => {
    const into = parents.get(layer.id)?.id ?? null;
    piles.set(into, { aboveId: layer.id, layers: [...(piles.get(into)?.layers ?? []), copies[index]!] });
  });
  const add: ShowEdit = {
    kind: 'add-layers',
    slideId: slide.id,
    runs: [...piles].map(([into, run]) => ({ into, ...run })),
  };
  return {
    edit: {
      kind: 'together',
      name: layers.length === 1 ? 'duplicate a layer' : `duplicate ${layers.length} layers`,
      edits: [...toldWhomTheyCut(slide), add],
    },
    layerIds: copies.map((layer) => layer.id),
  };
}

/** One step nearer to or farther from the eye within its pile, out of a group at its end and into none; null at the end of it all. */
export function steppedOnce(slide: Slide, id: LayerId, by: 1 | -1): ShowEdit | null {
  const parent = parentsOf(slide.layers).get(id) ?? null;
  const pile = parent ? parent.layers : slide.layers;
  const at = pile.findIndex((layer) => layer.id === id);
  if (at < 0) return null;
  const rest = pile.filter((layer) => layer.id !== id);
  const to = at + by;
  if (to >= 0 && to < pile.length) return placed(slide, id, parent?.id ?? null, to === 0 ? null : rest[to - 1]!.id);
  if (!parent) return null;
  const outer = parentsOf(slide.layers).get(parent.id) ?? null;
  const around = outer ? outer.layers : slide.layers;
  const below = around[around.findIndex((layer) => layer.id === parent.id) - 1];
  return placed(slide, id, outer?.id ?? null, by > 0 ? parent.id : (below?.id ?? null));
}

/** A layer elsewhere in the pile. Masks are told first whom they cut, so that they go on cutting it. */
export function placed(slide: Slide, id: LayerId, into: LayerId | null, aboveId: LayerId | null): ShowEdit {
  return {
    kind: 'together',
    name: 'move a layer in the pile',
    edits: [
      ...toldWhomTheyCut(slide),
      { kind: 'place-layers', slideId: slide.id, runs: [{ into, aboveId, layerIds: [id] }] },
    ],
  };
}

/** Whether a layer may be laid into a group: not into itself. */
export function mayLieIn(slide: Slide, id: LayerId, into: LayerId | null): boolean {
  if (into === null) return true;
  const layer = layerIn(slide.layers, id);
  return layer !== null && ![...everyLayer([layer])].some((inner) => inner.id === into);
}

/**
 * A layer that shows another file and keeps all its settings.
 *
 * @returns null when the layer shows no file, or a sound was offered
 */
export function withContent(layer: Layer, asset: AssetId, facts: AssetFacts): Layer | null {
  if (facts.kind === 'sound') return null;
  if (layer.kind !== 'picture' && layer.kind !== 'clip') return null;
  const fresh = layerFromAsset(asset, facts, () => layer.id);
  if (fresh.kind === layer.kind) return { ...layer, assetId: asset } as Layer;
  const { kind: _kind, assetId: _assetId, ...kept } = layer;
  const common = ['name', 'hidden', 'locked', 'channels', 'edge', 'blend', 'mask', 'tether', 'shapes', 'light', 'flip'];
  return {
    ...Object.fromEntries(Object.entries(kept).filter(([name]) => common.includes(name))),
    ...fresh,
  } as Layer;
}
