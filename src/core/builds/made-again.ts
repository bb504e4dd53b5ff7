import type { GroupLayer, Layer } from '../show/layer';

/** Whether a build is as it was made: but for its names, edges, what is hidden or locked, what is otherwise in another shape of the frame, and rounding. */
export function isMadeAlike(made: GroupLayer, group: GroupLayer): boolean {
  return isAlike(withoutLooks(made), withoutLooks(group));
}

/** A build made again with what a person gave the one before it: names, edges of its parts, hidden, locked. */
export function withItsLooks(made: GroupLayer, before: GroupLayer): GroupLayer {
  return { ...made, ...looksOf(before), layers: partsLike(before, made) };
}

function looksOf({ name, hidden, locked }: Layer) {
  return { ...(name !== undefined && { name }), ...(hidden && { hidden }), ...(locked && { locked }) };
}

function partsLike(before: GroupLayer, made: GroupLayer): Layer[] {
  return made.layers.map((layer, index): Layer => {
    const was = before.layers[index];
    if (was?.kind !== layer.kind) return layer;
    const named = { ...layer, ...looksOf(was), ...('edge' in was && was.edge && { edge: was.edge }) } as Layer;
    return named.kind === 'group' && was.kind === 'group' ? { ...named, layers: partsLike(was, named) } : named;
  });
}

function withoutLooks<OfLayer extends Layer>(layer: OfLayer): object {
  const { name: _name, edge: _edge, hidden: _hidden, locked: _locked, shapes: _shapes, ...made } = layer;
  return 'layers' in made ? { ...made, layers: (made.layers as readonly Layer[]).map(withoutLooks) } : made;
}

/** The same but for rounding. */
function isAlike(one: unknown, other: unknown): boolean {
  if (typeof one === 'number' && typeof other === 'number') return Math.abs(one - other) < 1e-6;
  if (typeof one !== 'object' || typeof other !== 'object' || one === null || other === null) return one === other;
  const names = new Set([...Object.keys(one), ...Object.keys(other)]);
  return [...names].every((name) =>
    isAlike((one as Record<string, unknown>)[name], (other as Record<string, unknown>)[name]),
  );
}
