import type { Layer } from './layer';
import { DEEPEST_GROUP, MOST_LAYERS } from './limits';

/**
 * What is wrong with a pile of layers as a whole, as a sentence; null when nothing is: how layers refer to each other, how many there are and how deep
 * they lie.
 *
 * @param nameOf what layers are called in it; by their ids when left out
 */
export function faultOfLayers(layers: readonly Layer[], nameOf: (id: string) => string = (id) => id): string | null {
  const all: Standing[] = [];
  const tooMuch = collect(layers, 1, null, all);
  if (tooMuch) return tooMuch;
  const byId = new Map<string, Standing>();
  for (const standing of all) {
    const { id } = standing.layer;
    if (byId.has(id)) return `two layers have the same id, ${id}`;
    byId.set(id, standing);
  }
  for (const { layer } of all) {
    const leader = layer.tether?.to;
    if (leader !== undefined && !byId.has(leader))
      return `layer ${nameOf(layer.id)} is tethered to ${leader}, which is not on the slide`;
    const cuts = layer.mask?.cuts ?? [];
    const missing = cuts === 'below' ? undefined : cuts.find((id) => !byId.has(id));
    if (missing !== undefined) return `layer ${nameOf(layer.id)} masks ${missing}, which is not on the slide`;
  }
  return (
    ring(byId, nameOf, leaderOf, 'are tethered in a ring, so none of them leads') ??
    ring(
      byId,
      nameOf,
      (standing) => [...targetsOf(standing), ...heldBy(standing)],
      'mask each other in a ring, so none of them can be drawn first',
    ) ??
    ring(
      byId,
      nameOf,
      (standing) => [...leaderOf(standing), ...(standing.group ? [standing.group] : [])],
      'are tethered to what they themselves move',
    )
  );
}

/** A layer and where it stands. */
interface Standing {
  readonly layer: Layer;
  /** The id of the layer right below it in its pile. */
  readonly below: string | null;
  /** The id of the group that holds it. */
  readonly group: string | null;
}

function collect(layers: readonly Layer[], depth: number, group: string | null, into: Standing[]): string | null {
  if (depth > DEEPEST_GROUP) return `groups lie in groups more than ${DEEPEST_GROUP} deep`;
  let below: string | null = null;
  for (const layer of layers) {
    into.push({ layer, below, group });
    below = layer.id;
    if (into.length > MOST_LAYERS) return `a slide can have ${MOST_LAYERS} layers at most`;
    const inner = layer.kind === 'group' ? collect(layer.layers, depth + 1, layer.id, into) : null;
    if (inner) return inner;
  }
  return null;
}

function leaderOf({ layer }: Standing): readonly string[] {
  return layer.tether ? [layer.tether.to] : [];
}

function targetsOf({ layer, below }: Standing): readonly string[] {
  if (!layer.mask) return [];
  if (layer.mask.cuts === 'below') return below === null ? [] : [below];
  return layer.mask.cuts;
}

/** To draw a group is to draw what it holds. */
function heldBy({ layer }: Standing): readonly string[] {
  return layer.kind === 'group' ? layer.layers.map((inner) => inner.id) : [];
}

function ring(
  byId: ReadonlyMap<string, Standing>,
  nameOf: (id: string) => string,
  next: (standing: Standing) => readonly string[],
  sentence: string,
): string | null {
  const done = new Set<string>();
  const path: string[] = [];
  const visit = (id: string): string | null => {
    if (done.has(id)) return null;
    const at = path.indexOf(id);
    if (at >= 0) return `the layers ${path.slice(at).map(nameOf).join(', ')} ${sentence}`;
    path.push(id);
    for (const other of next(byId.get(id)!)) {
      const found = visit(other);
      if (found) return found;
    }
    path.pop();
    done.add(id);
    return null;
  };
  for (const id of byId.keys()) {
    const found = visit(id);
    if (found) return found;
  }
  return null;
}
