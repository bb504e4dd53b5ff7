import { focusInUse } from '../focus/focus-in-use';
import type { FactsById } from '../show/asset-facts';
import type { Layer } from '../show/layer';
import type { Show } from '../show/show';

const MOST = 12;
/** Where nothing was found: a look around. */
const LOOK_AROUND = [
  { x: 0.3, y: 0.45 },
  { x: 0.5, y: 0.55 },
  { x: 0.7, y: 0.45 },
];

/** Places of a picture that are worth a look, from left to right, in shares of it as it is used: its faces, else what it is about, else three across it. */
export function placesFound(
  layer: Layer,
  facts: FactsById,
  rings: Show['focus'],
): {
  readonly places: readonly { readonly x: number; readonly y: number }[];
  readonly from: 'faces' | 'rings' | 'about' | 'nothing';
} {
  const known = layer.kind === 'picture' ? facts.get(layer.assetId) : undefined;
  if (layer.kind !== 'picture' || known?.kind !== 'picture') return { places: LOOK_AROUND, from: 'nothing' };
  const said = rings?.[layer.assetId];
  if (said && said.length > 0 && !layer.crop)
    return { places: inOrder(said.map(({ x, y }) => ({ x, y }))), from: 'rings' };
  const focus = focusInUse(layer, known, undefined);
  if (focus && focus.whole.length > 0)
    return {
      places: inOrder(focus.whole.map((box) => ({ x: box.left + box.width / 2, y: box.top + box.height / 2 }))),
      from: 'faces',
    };
  if (focus) {
    const { left, top, width, height } = focus.about;
    return {
      places: [0.15, 0.5, 0.85].map((share) => ({ x: left + share * width, y: top + height / 2 })),
      from: 'about',
    };
  }
  return { places: LOOK_AROUND, from: 'nothing' };
}

function inOrder(places: readonly { readonly x: number; readonly y: number }[]) {
  return [...places].sort((one, other) => one.x - other.x).slice(0, MOST);
}
