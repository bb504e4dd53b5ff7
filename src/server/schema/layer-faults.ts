/** Most layers a slide may have, those in groups counted; far above what a person lays, far below what would stop the drawing. */
export const MOST_LAYERS = 500;
export const DEEPEST_GROUP = 12;

interface LooseLayer {
  readonly kind?: unknown;
  readonly id?: unknown;
  readonly layers?: unknown;
  readonly mask?: { readonly cuts?: unknown } | null;
  readonly tether?: { readonly to?: unknown } | null;
}

/**
 * What is wrong with a pile of layers as a whole, as a sentence; null when nothing is. Looks only at how layers refer to each other, and takes any shape:
 * each layer by itself is the schema's business.
 */
export function faultOfLayers(layers: unknown): string | null {
  const all: LooseLayer[] = [];
  const deep = collect(layers, 1, all);
  if (deep) return deep;
  const ids = new Map<string, LooseLayer>();
  for (const layer of all) {
    if (typeof layer.id !== 'string') continue;
    if (ids.has(layer.id)) return `two layers have the same id, ${layer.id}`;
    ids.set(layer.id, layer);
  }
  for (const layer of all) {
    const leader = layer.tether?.to;
    if (typeof leader === 'string' && !ids.has(leader))
      return `layer ${String(layer.id)} is tethered to ${leader}, which is not on the slide`;
    for (const target of targetsOf(layer))
      if (!ids.has(target)) return `layer ${String(layer.id)} masks ${target}, which is not on the slide`;
  }
  return (
    ring(
      ids,
      (layer) => (typeof layer.tether?.to === 'string' ? [layer.tether.to] : []),
      'are tethered in a ring, so none of them leads',
    ) ??
    ring(
      ids,
      (layer) => [...targetsOf(layer), ...heldBy(layer)],
      'mask each other in a ring, so none of them can be drawn first',
    ) ??
    ring(
      ids,
      (layer) => [...(typeof layer.tether?.to === 'string' ? [layer.tether.to] : []), ...parentOf(all, layer)],
      'are tethered to what they themselves move',
    )
  );
}

function collect(layers: unknown, depth: number, into: LooseLayer[]): string | null {
  if (!Array.isArray(layers)) return null;
  if (depth > DEEPEST_GROUP) return `groups lie in groups more than ${DEEPEST_GROUP} deep`;
  for (const layer of layers as unknown[]) {
    if (typeof layer !== 'object' || layer === null) continue;
    into.push(layer);
    if (into.length > MOST_LAYERS) return `a slide can have ${MOST_LAYERS} layers at most`;
    const inner = collect((layer as LooseLayer).layers, depth + 1, into);
    if (inner) return inner;
  }
  return null;
}

function targetsOf(layer: LooseLayer): string[] {
  const cuts = layer.mask?.cuts;
  return Array.isArray(cuts) ? cuts.filter((id): id is string => typeof id === 'string') : [];
}

/** To draw a group is to draw what it holds. */
function heldBy(layer: LooseLayer): string[] {
  return Array.isArray(layer.layers)
    ? (layer.layers as LooseLayer[]).flatMap((inner) => (typeof inner?.id === 'string' ? [inner.id] : []))
    : [];
}

function parentOf(all: readonly LooseLayer[], layer: LooseLayer): string[] {
  return all.flatMap((other) =>
    Array.isArray(other.layers) && other.layers.includes(layer) && typeof other.id === 'string' ? [other.id] : [],
  );
}

function ring(
  ids: ReadonlyMap<string, LooseLayer>,
  next: (layer: LooseLayer) => readonly string[],
  sentence: string,
): string | null {
  const done = new Set<string>();
  const path: string[] = [];
  const visit = (id: string): string | null => {
    if (done.has(id)) return null;
    const at = path.indexOf(id);
    if (at >= 0) return `the layers ${path.slice(at).join(', ')} ${sentence}`;
    path.push(id);
    const layer = ids.get(id);
    for (const other of layer ? next(layer) : []) {
      const found = visit(other);
      if (found) return found;
    }
    path.pop();
    done.add(id);
    return null;
  };
  for (const id of ids.keys()) {
    const found = visit(id);
    if (found) return found;
  }
  return null;
}
