import { everyLayer, type Layer } from './layer';
import type { LayerId } from './ids';

type Pile = readonly Layer[];

/** Layers that lie on each other, and where: in a group or (null) on the slide itself, above a layer or (null) at the bottom. */
export interface PlacedLayers {
  readonly into: LayerId | null;
  readonly aboveId: LayerId | null;
  readonly layers: readonly Layer[];
}

/** The layer of that id, wherever it lies. */
export function layerIn(pile: Pile, id: LayerId): Layer | null {
  for (const layer of everyLayer(pile)) if (layer.id === id) return layer;
  return null;
}

/** The pile with named layers changed, in groups too. Layers it does not touch keep their identity, and so does a pile none of whose layers is named. */
export function withChanged<Value>(
  pile: Pile,
  wanted: ReadonlyMap<LayerId, Value>,
  change: (layer: Layer, value: Value) => Layer,
): Pile {
  return mapped(pile, (layer) => (wanted.has(layer.id) ? change(layer, wanted.get(layer.id)!) : layer));
}

/** Every layer as `change` makes it, those in groups first. */
export function mapped(pile: Pile, change: (layer: Layer) => Layer): Pile {
  const changed = pile.map((layer) => {
    const inner = layer.kind === 'group' ? mapped(layer.layers, change) : null;
    return change(layer.kind === 'group' && inner !== layer.layers ? { ...layer, layers: inner! } : layer);
  });
  return changed.some((layer, index) => layer !== pile[index]) ? changed : pile;
}

/**
 * Takes layers out, remembering where each run of neighbours lay: `layersPutIn(rest, runs)` restores the pile exactly, because what a run lay on is never
 * itself taken out, and a group comes back before what was taken out of it. A group takes along what it holds, but for what is named itself.
 *
 * @returns null when none of the ids is there
 */
export function layersTakenOut(
  pile: Pile,
  ids: ReadonlySet<LayerId>,
): { rest: Pile; runs: readonly PlacedLayers[] } | null {
  const runs: PlacedLayers[] = [];
  const walk = (layers: Pile, into: LayerId | null): Pile => {
    const rest: Layer[] = [];
    let run: Layer[] | null = null;
    for (const layer of layers) {
      const leaves = ids.has(layer.id);
      if (leaves && !run) runs.push({ into, aboveId: rest.at(-1)?.id ?? null, layers: (run = []) });
      if (!leaves) run = null;
      const inner = layer.kind === 'group' ? walk(layer.layers, layer.id) : null;
      const left = layer.kind === 'group' && inner !== layer.layers ? { ...layer, layers: inner! } : layer;
      (leaves ? run! : rest).push(left);
    }
    return rest.length === layers.length && rest.every((layer, index) => layer === layers[index]) ? layers : rest;
  };
  const rest = walk(pile, null);
  return runs.length > 0 ? { rest, runs } : null;
}

/** Puts runs of layers in. A run whose place has gone (removed in another tab) goes on top, so that nothing is lost. */
export function layersPutIn(pile: Pile, runs: readonly PlacedLayers[]): Pile {
  return runs.reduce((into, run) => putInRun(into, run), pile);
}

function putInRun(pile: Pile, { into, aboveId, layers }: PlacedLayers): Pile {
  const group = into === null ? null : layerIn(pile, into);
  if (into !== null && group?.kind !== 'group') return [...pile, ...layers];
  if (group?.kind !== 'group') return putOnto(pile, aboveId, layers);
  return withChanged(pile, new Map([[group.id, null]]), (layer) =>
    layer.kind === 'group' ? { ...layer, layers: putOnto(layer.layers, aboveId, layers) } : layer,
  );
}

function putOnto(pile: Pile, aboveId: LayerId | null, layers: readonly Layer[]): Pile {
  const found = pile.findIndex((layer) => layer.id === aboveId);
  const at = aboveId === null ? 0 : found < 0 ? pile.length : found + 1;
  return [...pile.slice(0, at), ...layers, ...pile.slice(at)];
}
