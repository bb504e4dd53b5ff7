import { cropOn } from '../motion/crop';
import type { AssetFacts } from '../show/asset-facts';
import type { Layer } from '../show/layer';
import type { CropPlan } from './frame-plan';

/** What is cut out of the layer's file before anything else; null for the whole of it. */
export function cropPlan(layer: Layer, facts: AssetFacts | undefined): CropPlan | null {
  if ((layer.kind !== 'picture' && layer.kind !== 'clip') || !layer.crop || facts?.kind !== layer.kind) return null;
  return { framing: cropOn(facts, layer.crop), ofWidthPx: facts.widthPx, ofHeightPx: facts.heightPx };
}
